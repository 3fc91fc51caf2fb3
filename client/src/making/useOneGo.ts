import type { Talk } from '@nibquill/core/ink/talk'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import type { Keep, Recording } from '../device/recording'
import type { KeptRecording } from '../outbox/outbox'
import { usePieceWork, useShownPiece } from '../pieces'
import { useGoOnFromMaking } from './LastStep'
import { useRecorded, type Recorded } from '../device/useRecorded'
import { t } from './words'

/**
 * A part that is recorded in one go, as a new piece or another part of one: it is seen or heard
 * before it is kept, and whoever leaves in the middle loses nothing.
 * @param isWorthIt - Whether it is kept where nobody said so.
 * @param talk - What was drawn meanwhile, of a talk-through.
 */
export function useOneGo(
  kind: 'voice' | 'film' | 'talk',
  begin: (keep: Keep) => Promise<Recording>,
  longestMs: number,
  isWorthIt: (recorded: Recorded) => boolean,
  talk?: () => Talk,
) {
  const { id, taskId, as } = useLocalSearchParams<{ id?: string; taskId?: string; as?: string }>()
  // What one thinks of the piece goes back to where that is asked.
  const thoughts = as === 'thoughts'
  const [fresh] = useState(() => newId())
  const pieceId = id ?? fresh
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  const work = usePieceWork(pieceId)
  const goOn = useGoOnFromMaking(pieceId, piece, taskId)
  // Should the tablet give out in the middle, the next page finds what was recorded by then.
  const running = useRef<Pick<KeptRecording, 'end'>[]>([])
  const letGo = () => {
    for (const { end } of running.current.splice(0)) void end()
  }
  const recording = useRecorded(
    () =>
      begin((file) => {
        const kept = work.keepRecording(kind, file, taskId ?? null, talk)
        running.current.push(kept)
        return kept.add
      }),
    longestMs,
  )
  const { state, stop } = recording
  // Whoever comes back to this screen may record more.
  const kept = useRef<File | null>(null)
  const keep = async ({ file, heard }: Recorded) => {
    if (kept.current === file) return
    kept.current = file
    const name = thoughts ? t('whatIThink') : ''
    await work.addFiles(
      [{ file, kind, name, heard, ...(talk && { talk: talk() }) }],
      taskId ?? null,
    )
    letGo()
  }
  const keepAndGoOn = async (recorded: Recorded) => {
    await keep(recorded)
    if (thoughts) return backToThoughts(pieceId)
    if (!id) await comeBackTo(pieceId)
    goOn()
  }
  const leave = useRef(async () => undefined as void)
  leave.current = async () => {
    const recorded = state.at === 'recorded' ? state.recorded : await stop()
    if (recorded && isWorthIt(recorded)) await keep(recorded)
    letGo()
  }
  useEffect(() => () => void leave.current(), [])
  return { begun: id !== undefined, pieceId, piece, query, recording, keepAndGoOn }
}

const backToThoughts = (pieceId: string): void =>
  router.canGoBack() ? router.back() : router.replace(`/my-pieces/${pieceId}/thoughts`)

/** The way back leads to this piece; it is set before the next way is taken. */
export async function comeBackTo(pieceId: string): Promise<void> {
  router.setParams({ id: pieceId })
  await new Promise((done) => setTimeout(done, 50))
}
