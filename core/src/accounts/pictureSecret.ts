import type { PegSymbol } from '../folders/looks.ts'

/** What a picture secret is chosen from: things that differ in shape, not in colour alone. */
export const SECRET_SYMBOLS = [
  'cat',
  'boat',
  'apple',
  'umbrella',
  'moon',
  'key',
  'snail',
  'train',
  'hat',
  'tree',
  'bell',
  'duck',
] as const satisfies readonly PegSymbol[]
export type SecretSymbol = (typeof SECRET_SYMBOLS)[number]
export const SECRET_LENGTH = 3

/** Wrong tries that cost nothing: small fingers slip. */
const FREE_TRIES = 3
const FIRST_WAIT_MS = 30_000
const LONGEST_WAIT_MS = 15 * 60_000

/**
 * Draws a picture secret: three symbols in order, each of twelve equally likely, so 1,728 in all.
 * @param randomByte - Gives one byte (0..255) a call, from a cryptographic source.
 */
export function makePictureSecret(randomByte: () => number): SecretSymbol[] {
  const fair = 256 - (256 % SECRET_SYMBOLS.length)
  const secret: SecretSymbol[] = []
  while (secret.length < SECRET_LENGTH) {
    const byte = randomByte()
    if (byte < fair) secret.push(SECRET_SYMBOLS[byte % SECRET_SYMBOLS.length]!)
  }
  return secret
}

/**
 * How long a peg waits after its latest wrong try in a row: not at all for the first two, 30 s from
 * the third on, then twice as long
 * each time, at most a quarter of an hour. A right one begins anew.
 * @param wrongTries - Counted since the last right one.
 */
export function secretWaitMs(wrongTries: number): number {
  if (wrongTries < FREE_TRIES) return 0
  return Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrongTries - FREE_TRIES))
}

/** How many tries somebody gets who tries one peg for a while without a pause. */
export function triesWithin(durationMs: number): number {
  let tries = 0
  for (let spentMs = 0; spentMs <= durationMs; spentMs += secretWaitMs(tries)) tries++
  return tries
}
