/** A stretch of a recording, in milliseconds from its beginning. */
export type Stretch = { fromMs: number; toMs: number }

/** Less than this all the while is a room, not a voice. Of the highest a sample can be. */
export const QUIET = 0.03
/** A breath before the first word and after the last stays. */
const BREATH_MS = 300
/** Less silence than this at both ends together is not worth a word about it. */
const WORTH_MS = 800

const isHeard = ({ level }: { level: number }): boolean => level >= QUIET

/**
 * What is heard of a recording, without the silence at its ends.
 * @param levels - The highest sample of each moment, 0 to 1, and when it was looked at; in order.
 * @returns null where nothing is heard, or hardly anything would be left out
 */
export function heardIn(
  levels: readonly { ms: number; level: number }[],
  lengthMs: number,
): Stretch | null {
  const first = levels.findIndex(isHeard)
  const last = levels.findLastIndex(isHeard)
  if (first < 0) return null
  // It may have begun just after one looked, which in a page behind others is a second before.
  const before = levels[first - 1]?.ms ?? 0
  const after = levels[last + 1]?.ms ?? lengthMs
  const fromMs = Math.max(0, Math.round(Math.min(levels[first]!.ms - BREATH_MS, before)))
  const toMs = Math.round(Math.min(lengthMs, Math.max(levels[last]!.ms + BREATH_MS, after)))
  return fromMs + (lengthMs - toMs) < WORTH_MS || toMs <= fromMs ? null : { fromMs, toMs }
}
