/**
 * What a piece can be made of. A new kind begins with its word here; then a shape in the contract
 * (`AddPart`), what the server
 * demands of it (server/src/pieces/partKinds.ts), and how it looks and is made
 * (client/src/parts/partKinds.tsx).
 */
export const PART_KINDS = ['photo'] as const
export type PartKind = (typeof PART_KINDS)[number]

/** A piece holds at most this many parts. */
export const MAX_PARTS = 30
export const MAX_PART_NAME_LENGTH = 200

/**
 * Splits what somebody picked at once into what still fits a piece and what does not. Order is
 * kept.
 */
export function takeWhatFits<T>(
  picked: readonly T[],
  partsThere: number,
): { taken: T[]; left: T[] } {
  const room = Math.max(0, MAX_PARTS - partsThere)
  return { taken: picked.slice(0, room), left: picked.slice(room) }
}

/**
 * An order of parts as somebody left it, applied to the parts there are now: those that came
 * meanwhile go to the end in their own
 * order, those that are gone are passed over. So two tablets never lose each other's parts.
 */
export function orderParts(partIds: readonly string[], wanted: readonly string[]): string[] {
  const there = new Set(partIds)
  const ordered = [...new Set(wanted)].filter((id) => there.has(id))
  const named = new Set(ordered)
  return [...ordered, ...partIds.filter((id) => !named.has(id))]
}
