/** The first wait at most, the longest wait at most, and no wait shorter than this. */
export type Waits = { firstMs: number; mostMs: number; leastMs: number }
/** For a tablet's work on its way to school. */
const OUTBOX_WAITS: Waits = { firstMs: 2000, mostMs: 5 * 60_000, leastMs: 500 }

/**
 * How long to wait before trying again.
 * Full jitter: a class of thirty tablets that lost the network together does not come back
 * together.
 * @param failures - How often it failed by now, from 1.
 * @param chance - 0..1, drawn anew each time.
 * @see Brooker 2015, "Exponential backoff and jitter" (full jitter)
 */
export const backOffMs = (
  failures: number,
  chance: number,
  { firstMs, mostMs, leastMs } = OUTBOX_WAITS,
): number => Math.max(leastMs, chance * Math.min(mostMs, firstMs * 2 ** Math.max(0, failures - 1)))

/** Something that waits its turn, as a member of a group (a piece). */
export type Waiting = { id: string; group: string }

/**
 * Whose turn it is: the group with the least under way, then the one served longest ago; within a
 * group first come, first served.
 * So one photo of a new piece does not wait behind thirty of another.
 * @param running - The groups of what is under way, one entry each.
 * @param served - Groups in the order in which they were served last, the latest at the end.
 */
export function whoseTurn<T extends Waiting>(
  waiting: readonly T[],
  running: readonly string[],
  served: readonly string[],
): T | null {
  const load = (group: string) => running.filter((other) => other === group).length
  const since = (group: string) => served.lastIndexOf(group)
  return waiting.reduce<T | null>((best, next) => {
    if (!best) return next
    const [a, b] = [load(next.group) - load(best.group), since(next.group) - since(best.group)]
    return a < 0 || (a === 0 && b < 0) ? next : best
  }, null)
}
