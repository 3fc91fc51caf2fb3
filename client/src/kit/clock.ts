/** Dates are heard to the second and travel a while: less than this is no difference. */
const TOLERATED_MS = 90_000
let aheadMs = 0

/**
 * Called with the `Date` of every answer: a tablet's own clock may be a day off.
 * @see RFC 9110, section 6.6.1
 */
export function heedServerClock(date: string | null, now = Date.now()): void {
  const served = date === null ? Number.NaN : Date.parse(date)
  if (Number.isNaN(served)) return
  aheadMs = Math.abs(served - now) > TOLERATED_MS ? served - now : 0
}

/** The moment it is at school. */
export const schoolNow = (): Date => new Date(Date.now() + aheadMs)
