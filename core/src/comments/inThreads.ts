/**
 * Comments in the order they were said, each followed by what answers it. What answers something that
 * is not among them stands for itself.
 */
export function inThreads<C extends { id: string; answersId: string | null }>(
  comments: readonly C[],
): { comment: C; answers: C[] }[] {
  const there = new Set(comments.map(({ id }) => id))
  const answers = (id: string) => comments.filter(({ answersId }) => answersId === id)
  return comments
    .filter(({ answersId }) => answersId === null || !there.has(answersId))
    .map((comment) => ({ comment, answers: answers(comment.id) }))
}
