import { groupTray, type InTray, type TrayGroup } from '../review/groupTray.ts'
import { PIECE_STEPS, type PieceStep } from './movePiece.ts'

/**
 * What lies in a folder, by task and within a task step by step: the plan, what was tried out, what
 * was finished; of one step what came first first.
 * @param pieces - Newest first.
 * @returns groups in the order of their newest piece, those of no task (`id` null) last
 */
export function inTasks<P extends InTray & { step: PieceStep }>(
  pieces: readonly P[],
): TrayGroup<P>[] {
  const groups = groupTray(pieces, 'task').map(({ id, pieces: together }) => ({
    id,
    pieces: [...together]
      .reverse()
      .sort((a, b) => PIECE_STEPS.indexOf(a.step) - PIECE_STEPS.indexOf(b.step)),
  }))
  return [...groups.filter(({ id }) => id !== null), ...groups.filter(({ id }) => id === null)]
}
