import fc from 'fast-check'
import { makePictureSecret, SECRET_SYMBOLS, secretWaitMs, triesWithin } from './pictureSecret.ts'

const MINUTE_MS = 60_000

describe('picture secrets', () => {
  test('are three symbols of twelve, and skip bytes that would favour some', () => {
    const bytes = [255, 252, 0, 11, 12]
    expect(makePictureSecret(() => bytes.shift()!)).toEqual([
      SECRET_SYMBOLS[0],
      SECRET_SYMBOLS[11],
      SECRET_SYMBOLS[0],
    ])
    expect(new Set(SECRET_SYMBOLS).size).toBe(12)
  })

  test.each([
    [0, 0],
    [2, 0],
    [3, 30_000],
    [4, MINUTE_MS],
    [5, 2 * MINUTE_MS],
    [7, 8 * MINUTE_MS],
    [8, 15 * MINUTE_MS],
    [500, 15 * MINUTE_MS],
  ])('after %i wrong tries a peg waits %i ms', (tries, wait) => {
    expect(secretWaitMs(tries)).toBe(wait)
  })

  test('waiting never gets shorter', () => {
    fc.assert(fc.property(fc.nat(2000), (tries) => secretWaitMs(tries + 1) >= secretWaitMs(tries)))
  })

  /** The figures that docs/how-hard-to-guess.md states. */
  test.each([
    { during: 'a break of 15 minutes', ms: 15 * MINUTE_MS, tries: 7 },
    { during: 'a school day of 7 hours', ms: 7 * 60 * MINUTE_MS, tries: 34 },
  ])('somebody who tries one peg all through $during gets $tries tries', ({ ms, tries }) => {
    expect(triesWithin(ms)).toBe(tries)
  })
})
