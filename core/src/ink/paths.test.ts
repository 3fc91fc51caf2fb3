import fc from 'fast-check'
import { pickedUp, placePath, putDown, ringOf, roundOf } from './paths.ts'

test('a quarter turn with the clock brings right to down', () => {
  expect(putDown({ x: 100, y: 0 }, { x: 1000, y: 1000 }, 90)).toEqual({ x: 1000, y: 1100 })
})
test('each corner of a path goes where a corner goes; bows keep their size and tilt with it', () => {
  const corners = [
    { x: -100, y: -50 },
    { x: 100, y: -50 },
    { x: 0, y: 80 },
  ]
  const at = { x: 500, y: 700 }
  expect(placePath(ringOf(corners), at, 30)).toBe(
    ringOf(corners.map((one) => putDown(one, at, 30))),
  )
  expect(placePath(roundOf({ x: 0, y: 0 }, 100, 50), at, 90)).toBe(
    'M500 600A100 50 90 1 1 500 800A100 50 90 1 1 500 600Z',
  )
  expect(placePath('M0 0Q10 0 10 10C1 2 3 4 5 6Z', { x: 0, y: 0 }, 0)).toBe(
    'M0 0Q10 0 10 10C1 2 3 4 5 6Z',
  )
})
test('picked up again, a place is where it was', () => {
  const some = fc.record({
    x: fc.integer({ min: -9999, max: 9999 }),
    y: fc.integer({ min: -9999, max: 9999 }),
  })
  fc.assert(
    fc.property(some, some, fc.integer({ min: 0, max: 359 }), (place, at, turn) => {
      const back = pickedUp(putDown(place, at, turn), at, turn)
      expect(Math.abs(back.x - place.x)).toBeLessThanOrEqual(1)
      expect(Math.abs(back.y - place.y)).toBeLessThanOrEqual(1)
    }),
  )
})
