import { groupTray, type InTray, type TrayGrouping } from './groupTray.ts'

/** What a teacher works through in one go: its order stands, whatever comes and goes meanwhile. */
export type Sitting<T> = {
  /** In the order they were handed in when it began; what left since stays, so that places hold. */
  pieces: readonly T[]
  /** Decided, or taken out again. */
  gone: ReadonlySet<string>
}

/** @param waiting - What lies in the tray. */
export const beginSitting = <T>(waiting: readonly T[]): Sitting<T> => ({
  pieces: waiting,
  gone: new Set(),
})

/**
 * The sitting as the tray stands now: what left is gone; what came since is not part of it.
 * @param waiting - What lies in the tray now, as far as it was asked for.
 * @param more - A further page was asked for: what it brought is put behind the rest.
 */
export function goOnSitting<T extends { id: string }>(
  sitting: Sitting<T>,
  waiting: readonly T[],
  more = false,
): Sitting<T> {
  const now = new Map(waiting.map((piece) => [piece.id, piece]))
  const known = new Set(sitting.pieces.map(({ id }) => id))
  const pieces = sitting.pieces.map((piece) => now.get(piece.id) ?? piece)
  const added = more ? waiting.filter(({ id }) => !known.has(id)) : []
  // Handed in again, it has left all the same: it is new, and comes with what is new.
  const gone = new Set([
    ...sitting.gone,
    ...sitting.pieces.map(({ id }) => id).filter((id) => !now.has(id)),
  ])
  return { pieces: [...pieces, ...added], gone }
}

/** Lies in the tray again where it lay: a decision was taken back. */
export function putBackIntoSitting<T>(sitting: Sitting<T>, pieceId: string): Sitting<T> {
  const gone = new Set(sitting.gone)
  gone.delete(pieceId)
  return { ...sitting, gone }
}

/**
 * What came into the tray since the sitting began, and what was handed in again.
 * @returns in the order of the tray
 */
export function newSince<T extends { id: string }>(
  { pieces, gone }: Sitting<T>,
  waiting: readonly T[],
): T[] {
  const known = new Set(pieces.map(({ id }) => id))
  return waiting.filter(({ id }) => !known.has(id) || gone.has(id))
}

/** Where one stands in a sitting. Next leads forward only; before leads back to what still waits. */
export type Place = {
  /** From 1; 0 for what is not part of it. */
  number: number
  of: number
  nextId: string | null
  previousId: string | null
}

/**
 * @param by - What the list is put in groups by: one works through it as it stands on screen.
 * @param pieceId - What lies on the desk; null before the first.
 */
export function placeInSitting<T extends InTray & { id: string }>(
  sitting: Sitting<T>,
  by: TrayGrouping,
  pieceId: string | null,
): Place {
  const order = groupTray(sitting.pieces, by).flatMap(({ pieces }) => pieces.map(({ id }) => id))
  const at = pieceId === null ? -1 : order.indexOf(pieceId)
  const waits = (id: string) => !sitting.gone.has(id)
  return {
    number: at + 1,
    of: order.length,
    nextId: order.slice(at + 1).find(waits) ?? null,
    previousId: at < 0 ? null : (order.slice(0, at).reverse().find(waits) ?? null),
  }
}
