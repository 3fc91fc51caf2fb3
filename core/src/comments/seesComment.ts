import type { CommentState } from './moveComment.ts'

type SaidBy = { byId: string; byRole: 'pupil' | 'teacher' | 'parent' }
/**
 * A comment as far as it says who sees it. `answers`: what it answers. `pupilsOfBy`: the pupils
 * whose parent its author is at this moment; empty for everybody else.
 */
export type SeenComment = SaidBy & {
  state: CommentState
  answers: SaidBy | null
  pupilsOfBy: readonly string[]
  /** What one of its makers thinks of what several made together. */
  thoughts: boolean
}
/** Who looks, at a piece they may see. `makes`: a pupil who makes it now. `childIds`: of a parent. */
export type CommentReader = {
  personId: string
  role: 'pupil' | 'teacher' | 'parent'
  makes: boolean
  childIds: readonly string[]
}

/**
 * Whether somebody who may see a piece sees a comment under it. One's own and what answers it, always.
 * Beyond that: teachers all; makers what is shown, of parents only their own parents', and nothing
 * that answers a parent; parents what their own child thinks of what it made with others, once it is
 * shown. Asked anew with each look, so that it follows who makes the
 * piece and whose parent somebody is now.
 */
export function seesComment(reader: CommentReader, comment: SeenComment): boolean {
  if (reader.role === 'teacher') return true
  if (comment.byId === reader.personId) return true
  if (comment.state !== 'shown') return false
  if (comment.answers?.byId === reader.personId) return true
  if (reader.role === 'parent') return comment.thoughts && reader.childIds.includes(comment.byId)
  if (!reader.makes || comment.answers?.byRole === 'parent') return false
  return comment.byRole !== 'parent' || comment.pupilsOfBy.includes(reader.personId)
}
