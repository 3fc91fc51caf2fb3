/** The order in which a pupil's pieces are gone through, as it was when one began; per page that was opened. */
let frozen: { of: string; ids: readonly string[] } | null = null

/**
 * The same order as long as one goes through it, whatever becomes of the pieces meanwhile: what was
 * decided stays where it was, and what came since stands last.
 * @param of - Whose, and how they are put in order.
 * @param pieces - As they would be put in order now.
 */
export function inFrozenOrder<T extends { id: string }>(of: string, pieces: readonly T[]): T[] {
  if (frozen?.of !== of) frozen = { of, ids: pieces.map(({ id }) => id) }
  const { ids } = frozen
  const known = ids.flatMap((id) => pieces.find((piece) => piece.id === id) ?? [])
  return [...known, ...pieces.filter(({ id }) => !ids.includes(id))]
}

/** Back on the page, it is put in order anew. */
export const forgetOrder = (): void => {
  frozen = null
}
