/** What a pupil's year is put in groups by. */
export const YEAR_GROUPINGS = ['folder', 'strand'] as const
export type YearGrouping = (typeof YEAR_GROUPINGS)[number]

type Filed = { folder: { id: string; name: string } | null; strand: string | null }

/**
 * A year's work by folder or by strand.
 * @param pieces - Newest first, which each group keeps.
 * @returns groups in the order of their newest piece; what has neither stands last, as `null`
 */
export function groupYear<T extends Filed>(
  pieces: readonly T[],
  by: YearGrouping,
): { key: string | null; name: string | null; pieces: T[] }[] {
  const groups = new Map<string | null, T[]>()
  for (const piece of pieces) {
    const key = by === 'folder' ? (piece.folder?.id ?? null) : piece.strand
    groups.set(key, [...(groups.get(key) ?? []), piece])
  }
  return [...groups]
    .map(([key, together]) => ({
      ...{ key, pieces: together },
      name: by === 'folder' ? (together[0]!.folder?.name ?? null) : key,
    }))
    .sort((a, b) => Number(a.key === null) - Number(b.key === null))
}
