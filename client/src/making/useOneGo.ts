import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import type { Recording } from '../device/recording'
import { usePieceWork, useShownPiece } from '../pieces'
import { useGoOnFromMaking } from './LastStep'
import { useRecorded, type Recorded } from './useRecorded'

/**
 * A part that is recorded in one go, as a new piece or another part of one: it is seen or heard
 * before it is kept, and whoever leaves in the middle loses nothing.
 * @param isWorthIt - Whether it is kept where nobody said so.
 */
export function useOneGo(
  kind: 'voice' | 'film',
  begin: () => Promise<Recording>,
  longestMs: number,
  isWorthIt: (recorded: Recorded) => boolean,
) {
  const { id, taskId } = useLocalSearchParams<{ id?: string; taskId?: string }>()
  const [fresh] = useState(() => newId())
  const pieceId = id ?? fresh
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  const work = usePieceWork(pieceId)
  const goOn = useGoOnFromMaking(pieceId, piece, taskId)
  const recording = useRecorded(begin, longestMs)
  const { state, stop } = recording
  // Whoever comes back to this screen may record more.
  const kept = useRef<File | null>(null)
  const keep = async ({ file }: Recorded) => {
    if (kept.current === file) return
    kept.current = file
    await work.addFiles([{ file, kind, name: '' }], taskId ?? null)
  }
  const keepAndGoOn = async (recorded: Recorded) => {
    await keep(recorded)
    if (!id) await comeBackTo(pieceId)
    goOn()
  }
  const leave = useRef(async () => undefined as void)
  leave.current = async () => {
    const recorded = state.at === 'recorded' ? state.recorded : await stop()
    if (recorded && isWorthIt(recorded)) await keep(recorded)
  }
  useEffect(() => () => void leave.current(), [])
  return { begun: id !== undefined, pieceId, piece, query, recording, keepAndGoOn }
}

/** The way back leads to this piece; it is set before the next way is taken. */
export async function comeBackTo(pieceId: string): Promise<void> {
  router.setParams({ id: pieceId })
  await new Promise((done) => setTimeout(done, 50))
}
