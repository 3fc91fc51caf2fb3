/** What second looks are collected by. */
export const LOOK_GROUPINGS = ['pupil', 'strand'] as const
export type LookGrouping = (typeof LOOK_GROUPINGS)[number]

type Look = { pupil: { id: string; firstName: string; lastName: string }; strand: string | null }

/**
 * Second looks by whom or by what they are about, so that one sees what must be taught again: the
 * largest group first, those of no strand last.
 * @param looks - In the order they were asked for, which each group keeps.
 */
export function groupLooks<T extends Look>(
  looks: readonly T[],
  by: LookGrouping,
): { key: string | null; looks: T[] }[] {
  const groups = new Map<string | null, T[]>()
  for (const look of looks) {
    const key = by === 'pupil' ? look.pupil.id : look.strand
    groups.set(key, [...(groups.get(key) ?? []), look])
  }
  return [...groups]
    .map(([key, together]) => ({ key, looks: together }))
    .sort(
      (a, b) => Number(a.key === null) - Number(b.key === null) || b.looks.length - a.looks.length,
    )
}
