/** A stretch of a recording, in milliseconds from its beginning. */
export type Stretch = { fromMs: number; toMs: number }

/** Less than this all the while is a room, not a voice. Of the highest a sample can be. */
export const QUIET = 0.03
/** A breath before the first word and after the last stays. */
const BREATH_MS = 300
/** Less silence than this at both ends together is not worth a word about it. */
const WORTH_MS = 800

/**
 * What is heard of a recording, without the silence at its ends.
 * @param levels - The highest sample of each moment, 0 to 1, and when it was looked at.
 * @returns null where nothing is heard, or hardly anything would be left out
 */
export function heardIn(
  levels: readonly { ms: number; level: number }[],
  lengthMs: number,
): Stretch | null {
  const heard = levels.filter(({ level }) => level >= QUIET).map(({ ms }) => ms)
  if (heard.length === 0) return null
  const fromMs = Math.max(0, Math.round(Math.min(...heard) - BREATH_MS))
  const toMs = Math.min(Math.round(lengthMs), Math.round(Math.max(...heard) + BREATH_MS))
  return fromMs + (lengthMs - toMs) < WORTH_MS || toMs <= fromMs ? null : { fromMs, toMs }
}
