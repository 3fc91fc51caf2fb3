/**
 * Puts a pick at a place in a chapter and closes the gap it left.
 * @param order - Piece ids in the chapter's order, each once.
 * @param pieceId - The pick to place; added when it is new.
 * @param place - From 0; past the end means the end. Left out: a pick stays where it is, a new one
 *   goes last.
 * @returns The new order, a new array.
 */
export function placePick(order: readonly string[], pieceId: string, place?: number): string[] {
  if (place === undefined) return order.includes(pieceId) ? [...order] : [...order, pieceId]
  const others = order.filter((id) => id !== pieceId)
  const at = Math.min(Math.max(0, place), others.length)
  return [...others.slice(0, at), pieceId, ...others.slice(at)]
}
