import fc from 'fast-check'
import { packPoints, unpackPoints, type Point } from './points.ts'

const whole = (most: number) => fc.integer({ min: 0, max: most })
/** As they are kept: whole units, milliseconds and 255ths. */
const aPoint: fc.Arbitrary<Point> = fc.record({
  x: whole(42_000),
  y: whole(42_000),
  timeMs: whole(600_000),
  pressure: whole(255).map((of) => of / 255),
})

test('points come back as they were packed', () => {
  fc.assert(
    fc.property(fc.array(aPoint), (points) => {
      expect(unpackPoints(packPoints(points))).toEqual(points)
    }),
  )
})

test('what lies between whole units is rounded once, and nothing adds up', () => {
  const drift = Array.from({ length: 1000 }, (_, i) => ({
    x: i * 0.4,
    y: 0,
    timeMs: i * 16.67,
    pressure: 0.5,
  }))
  const last = unpackPoints(packPoints(drift)).at(-1)!
  expect(last).toMatchObject({ x: 400, timeMs: 16_653 })
})

test('a minute of drawing takes less than a fifth of what its points take', () => {
  const minute = Array.from({ length: 3600 }, (_, i) => ({
    x: 9000 + 4000 * Math.sin(i / 40),
    y: 9000 + 4000 * Math.cos(i / 57),
    timeMs: i * 16.67,
    pressure: 0.5 + 0.3 * Math.sin(i / 13),
  }))
  const packed = JSON.stringify(packPoints(minute)).length
  expect(packed).toBeLessThan(JSON.stringify(minute).length / 5)
})
