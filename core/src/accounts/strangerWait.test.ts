import fc from 'fast-check'
import { strangerWaitMs } from './strangerWait.ts'

test.each([
  [1, 0],
  [8, 0],
  [9, 500],
  [10, 1000],
  [13, 8000],
  [1000, 8000],
])('try %i of strangers waits %i ms', (tries, waitMs) => {
  expect(strangerWaitMs(tries)).toBe(waitMs)
})

test('nobody ever waits less for having tried more, and nobody longer than eight seconds', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 100_000 }), (tries) => {
      expect(strangerWaitMs(tries + 1)).toBeGreaterThanOrEqual(strangerWaitMs(tries))
      expect(strangerWaitMs(tries)).toBeLessThanOrEqual(8000)
    }),
  )
})
