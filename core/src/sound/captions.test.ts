import fc from 'fast-check'
import { captionsOf, MOST_CAPTION_LETTERS } from './captions.ts'

const SAID = [200, 180, 210, 190]
const REST = [3, 0, 5, 2]

test('sentences share what is spoken by their letters, and a rest has none', () => {
  const about = { durationMs: 12_000, peaks: [...REST, ...SAID, ...REST] }
  expect(captionsOf('It goes up. It goes down, down.', about)).toEqual([
    { fromMs: 4000, toMs: 5467, text: 'It goes up.' },
    { fromMs: 5467, toMs: 8000, text: 'It goes down, down.' },
  ])
})
test('what is said after a rest is read after it', () => {
  const about = { durationMs: 12_000, peaks: [...SAID, ...REST, ...SAID] }
  expect(captionsOf('Look at it.\nThere it is', about)).toEqual([
    { fromMs: 0, toMs: 4000, text: 'Look at it.' },
    { fromMs: 8000, toMs: 12_000, text: 'There it is' },
  ])
})
test('a long sentence is cut between words into pieces about alike', () => {
  const long = 'the crab walks over the stone and under the weed and into the pool and out again '
  const lines = captionsOf(long.repeat(2), { durationMs: 1000, peaks: [] })
  expect(lines.map(({ text }) => text.length)).toEqual([57, 56, 46])
})
test('nothing typed, or no length: nothing to read', () => {
  expect(captionsOf(' \n', { durationMs: 1000, peaks: SAID })).toEqual([])
  expect(captionsOf('It moves.', { durationMs: 0, peaks: SAID })).toEqual([])
})

test('every word is read once, in its order, within the film, and never two pieces at once', () => {
  const peak = fc.nat(255)
  fc.assert(
    fc.property(
      fc.array(fc.stringMatching(/^[a-zé]{1,12}[.!?]?$/), { maxLength: 120 }),
      fc.array(peak, { maxLength: 160 }),
      fc.integer({ min: 1, max: 120_000 }),
      (words, peaks, durationMs) => {
        const lines = captionsOf(words.join(' '), { durationMs, peaks })
        expect(lines.map(({ text }) => text).join(' ')).toBe(words.join(' '))
        let before = 0
        for (const { fromMs, toMs, text } of lines) {
          expect(text.length).toBeLessThanOrEqual(MOST_CAPTION_LETTERS)
          expect(fromMs).toBeGreaterThanOrEqual(before)
          expect(toMs).toBeGreaterThanOrEqual(fromMs)
          before = toMs
        }
        expect(before).toBeLessThanOrEqual(durationMs)
      },
    ),
  )
})
