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
  const before = aheadMs
  aheadMs = Math.abs(served - now) > TOLERATED_MS ? served - now : 0
  // Dates are heard to the second.
  if (Math.abs(aheadMs - before) > TOLERATED_MS) turn()
}

/** The moment it is at school. */
export const schoolNow = (): Date => new Date(Date.now() + aheadMs)

const MINUTE_MS = 60_000
const listeners = new Set<() => void>()
let ticking: ReturnType<typeof setInterval> | undefined
let minute = { since: schoolNow(), at: Date.now() }

function turn(): void {
  minute = { since: schoolNow(), at: Date.now() }
  for (const tell of listeners) tell()
}

/** The moment it is at school, the same for up to a minute: for what is said of it on a screen. */
export function sinceWhen(): Date {
  const age = Date.now() - minute.at
  // Looked at for the first time in a while, or the clock was set.
  if (age < 0 || age >= MINUTE_MS) minute = { since: schoolNow(), at: Date.now() }
  return minute.since
}

/** Calls at each turn of a minute, and when the clock is found to be another. */
export function subscribeToMinutes(tell: () => void): () => void {
  listeners.add(tell)
  ticking ??= setInterval(turn, MINUTE_MS)
  return () => {
    listeners.delete(tell)
    if (listeners.size > 0) return
    clearInterval(ticking)
    ticking = undefined
  }
}
