import type { PieceStep } from '../pieces/movePiece.ts'

export type Step = PieceStep
/** Kinds of parts a task may ask for. */
export const ASKABLE_PARTS = ['photo', 'drawing', 'voice', 'writing', 'film'] as const
export type AskablePart = (typeof ASKABLE_PARTS)[number]
export type PartAsked = { kind: AskablePart; count: number }
/**
 * What a task asks for that is not in the work: how many of each kind are wanting, in the task's
 * order.
 * @param parts - What is in it, of any kind.
 */
export const partsMissing = (
  asks: readonly PartAsked[],
  parts: readonly { kind: string }[],
): PartAsked[] =>
  asks.flatMap(({ kind, count }) => {
    const wanting = count - parts.filter((part) => countsAs(part.kind, kind)).length
    return wanting > 0 ? [{ kind, count: wanting }] : []
  })

/** Who draws and talks has drawn, and has said it. */
const countsAs = (kind: string, asked: AskablePart): boolean =>
  kind === asked || (kind === 'talk' && (asked === 'drawing' || asked === 'voice'))

/** What hangs on a task. */
export const TASK_MEDIA_ROLES = ['voice', 'material', 'example'] as const
export type TaskMediaRole = (typeof TASK_MEDIA_ROLES)[number]

/** How one pupil stands to one task. `ticked`: done elsewhere, as the pupil says. */
export type TaskStanding = 'none' | 'ticked' | 'draft' | 'submitted' | 'returned' | 'approved'

/** Whether a pupil still owes something for a task. */
export const owes = (standing: TaskStanding): boolean =>
  standing === 'none' || standing === 'draft' || standing === 'returned'
