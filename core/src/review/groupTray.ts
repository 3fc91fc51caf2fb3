/** What the tray is put in groups by. */
export const TRAY_GROUPINGS = ['task', 'folder', 'pupil'] as const
export type TrayGrouping = (typeof TRAY_GROUPINGS)[number]

/** What of a piece says where it stands. */
export type InTray = {
  task: { id: string } | null
  folder: { id: string } | null
  pupil: { id: string }
}
/** `id`: of the task, folder or pupil; null for pieces without one. */
export type TrayGroup<T> = { id: string | null; pieces: T[] }

/**
 * The tray in groups, by ids: two tasks, folders or pupils of one name stay two.
 * @param pieces - In the order they were handed in.
 * @returns groups in the order of their first piece, each in the order of `pieces`; never an empty
 *   one
 */
export function groupTray<T extends InTray>(
  pieces: readonly T[],
  by: TrayGrouping,
): TrayGroup<T>[] {
  const groups = new Map<string | null, T[]>()
  for (const piece of pieces) {
    const id = piece[by]?.id ?? null
    const group = groups.get(id)
    if (group) group.push(piece)
    else groups.set(id, [piece])
  }
  return [...groups].map(([id, together]) => ({ id, pieces: together }))
}
