import { Piece, type Decide, type TrayLine } from '@nibquill/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api } from '../api/api'
import { touchedBy } from '../api/touches'
import { sentenceOf } from '../kit/problems'
import { leaveSitting, returnToSitting, settleInSitting } from './sittingStore'
import { t } from './words'

type Decided = { id: string; version: number }
/** What became of many: `left` were not decided, and it is said why. */
export type Outcome = { decided: Decided[]; left: { piece: TrayLine; why: string }[] }
type Same = Pick<Decide, 'move' | 'message' | 'voiceId'>

/**
 * The same decision on many pieces, one after the other: each as it was seen, or not at all. One
 * that cannot be decided holds up no other.
 */
export function useDecideMany() {
  const queries = useQueryClient()
  const [done, setDone] = useState<number | null>(null)
  const refresh = () =>
    Promise.all(
      touchedBy({ topic: 'pieces' }).map((queryKey) => queries.invalidateQueries({ queryKey })),
    )
  const running = useRef(false)
  const decide = async (pieces: readonly TrayLine[], same: Same): Promise<Outcome> => {
    const outcome: Outcome = { decided: [], left: [] }
    // A second tap: one decision.
    if (running.current) return outcome
    running.current = true
    for (const [i, piece] of pieces.entries()) {
      setDone(i)
      leaveSitting(piece.id)
      const why = await decideOne(piece, same).then(
        (version) => void outcome.decided.push({ id: piece.id, version }),
        (error: unknown) => (error instanceof NotAsSeen ? t('takenOut') : sentenceOf(error)),
      )
      if (why !== undefined) {
        outcome.left.push({ piece, why })
        returnToSitting(piece.id)
      } else settleInSitting(piece.id)
    }
    await refresh()
    running.current = false
    setDone(null)
    return outcome
  }
  /** @returns how many could be */
  const takeBack = async (decided: readonly Decided[]): Promise<number> => {
    let count = 0
    for (const { id, version } of decided)
      await api.post(`/review/pieces/${id}/take-back`, Piece, { seenVersion: version }).then(
        () => {
          count++
          returnToSitting(id)
        },
        () => undefined,
      )
    await refresh()
    return count
  }
  return { decide, takeBack, done }
}

class NotAsSeen extends Error {}

/** @returns the version of the piece that was decided @throws NotAsSeen where another go lies there */
async function decideOne({ id, submittedAt }: TrayLine, same: Same): Promise<number> {
  const piece = await api.get(`/pieces/${id}`, Piece)
  if (piece.state !== 'submitted' || piece.versions[0]?.submittedAt !== submittedAt)
    throw new NotAsSeen()
  const decision = { ...same, seenVersion: piece.version }
  return (await api.post(`/review/pieces/${id}`, Piece, decision)).version
}
