import fc from 'fast-check'
import { heardIn, QUIET } from './silence.ts'

/** A level each tenth of a second. */
const looked = (...levels: number[]) => levels.map((level, i) => ({ ms: 100 * (i + 1), level }))
const still = (count: number) => Array.from({ length: count }, () => 0.01)

test('silence before and after is left out, but for a breath', () => {
  const levels = looked(...still(20), 0.4, 0.01, 0.5, ...still(27))
  expect(heardIn(levels, 5000)).toEqual({ fromMs: 1800, toMs: 2600 })
})

test('looked at once a second, no word between two looks is cut off', () => {
  const levels = [0.01, 0.01, 0.3, 0.2, 0.01, 0.01].map((level, i) => ({
    ms: 1000 * (i + 1),
    level,
  }))
  expect(heardIn(levels, 6500)).toEqual({ fromMs: 2000, toMs: 5000 })
})

test('a rest in the middle stays; hardly any silence is not worth a word; silence alone is no voice', () => {
  expect(heardIn(looked(0.4, ...still(30), 0.4), 3250)).toBeNull()
  expect(heardIn(looked(...still(5), 0.4), 650)).toBeNull()
  expect(heardIn(looked(...still(50)), 5000)).toBeNull()
  expect(heardIn([], 0)).toBeNull()
})

test('whatever is heard is never left out, and what is left lies in the recording', () => {
  const level = fc.double({ min: 0, max: 1, noNaN: true })
  fc.assert(
    fc.property(fc.array(level, { minLength: 1, maxLength: 120 }), (levels) => {
      const all = looked(...levels)
      const length = 100 * levels.length
      const heard = heardIn(all, length)
      if (!heard) return
      expect(heard.fromMs).toBeGreaterThanOrEqual(0)
      expect(heard.toMs).toBeLessThanOrEqual(length)
      for (const { ms, level: one } of all)
        if (one >= QUIET) expect(ms >= heard.fromMs && ms <= heard.toMs).toBe(true)
    }),
  )
})
