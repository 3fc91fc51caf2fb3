import type { PieceState } from './movePiece.ts'

type HandedIn = { number: number; withdrawnAt: string | null }

/**
 * Which go a version was, from 1: what was taken out of the tray again before anybody looked at it was
 * none.
 * @param versions - All of the piece, in any order.
 * @param version - One that was not taken out.
 */
export const goOf = (versions: readonly HandedIn[], version: HandedIn): number =>
  versions.filter(({ number, withdrawnAt }) => withdrawnAt === null && number <= version.number)
    .length

/**
 * The version a teacher looks at: what lies in the tray, as it was handed in; else what was approved
 * last; else the last that was handed in at all.
 * @param versions - All of the piece, newest first.
 * @returns undefined where nothing was handed in, or all of it taken out again
 */
export function judgedVersion<
  V extends { withdrawnAt: string | null; decision: { move: 'approve' | 'send-back' } | null },
>(state: PieceState, versions: readonly V[]): V | undefined {
  const standing = versions.filter(({ withdrawnAt }) => withdrawnAt === null)
  const approved = standing.find(({ decision }) => decision?.move === 'approve')
  return state === 'submitted' ? standing[0] : (approved ?? standing[0])
}
