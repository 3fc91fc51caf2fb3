const FREE_TRIES = 8
const FIRST_WAIT_MS = 500
const LONGEST_WAIT_MS = 8000

/**
 * How long a try waits before it is looked at when it comes from a browser nobody came in with
 * before: nobody is locked out by a
 * stranger's wrong tries, strangers only get slower. Not at all for the first eight in a quarter of
 * an hour, then half a second, then twice as
 * long each time, at most eight seconds.
 * @param tries - Strangers' tries for one e-mail address in the running quarter of an hour, this
 *   one included.
 * @see OWASP, Slow Down Online Guessing Attacks with Device Cookies
 */
export function strangerWaitMs(tries: number): number {
  if (tries <= FREE_TRIES) return 0
  return Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (tries - FREE_TRIES - 1))
}
