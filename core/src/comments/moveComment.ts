import { DomainError } from '../domainError.ts'

/** What is said under a piece: it `waits` for a teacher, is `shown` to those it is for, or `hidden`. */
export const COMMENT_STATES = ['waiting', 'shown', 'hidden'] as const
export type CommentState = (typeof COMMENT_STATES)[number]

export const COMMENT_MOVES = ['show', 'hide'] as const
export type CommentMove = (typeof COMMENT_MOVES)[number]

const LEADS_TO: Record<CommentMove, CommentState> = { show: 'shown', hide: 'hidden' }

/** What a teacher says is seen at once; what anybody else says waits. */
export const firstState = (role: 'pupil' | 'teacher' | 'parent'): CommentState =>
  role === 'teacher' ? 'shown' : 'waiting'

/**
 * A teacher's word on a comment. Nothing is ever deleted: what was hidden can be shown again, and the
 * other way round.
 * @param seen - The state the teacher was looking at.
 * @throws DomainError `comment/decided-already` with `state`, when another teacher was first
 */
export function moveComment(
  state: CommentState,
  move: CommentMove,
  seen: CommentState,
): CommentState {
  if (state !== seen) throw new DomainError('comment/decided-already', { state })
  return LEADS_TO[move]
}

export const MAX_COMMENT_LENGTH = 1000
/** Why a comment was hidden, for whoever said it. */
export const MAX_HIDDEN_WHY_LENGTH = 300
/** Under one piece, and of one person waiting for a look anywhere. */
export const MAX_COMMENTS = 200
export const MAX_WAITING_COMMENTS = 30
