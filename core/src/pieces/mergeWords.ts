/**
 * Brings together what was written about a piece in two places since both last agreed.
 * A field only one side changed takes that side's value; where both changed it differently, it is
 * for a person to say.
 * @param base - As it was when both agreed.
 * @param mine - As it stands here. @param theirs - As it stands at school.
 * @returns every field, `mine` standing where both differ, and the names of those fields
 */
export function mergeWords<T extends Record<string, string | null>>(
  base: T,
  mine: T,
  theirs: T,
): { merged: T; differing: (keyof T)[] } {
  const fields = Object.keys(base) as (keyof T)[]
  const merged = { ...theirs }
  for (const field of fields) if (mine[field] !== base[field]) merged[field] = mine[field]
  const differing = fields.filter(
    (field) =>
      mine[field] !== base[field] && theirs[field] !== base[field] && mine[field] !== theirs[field],
  )
  return { merged, differing }
}
