import fc from 'fast-check'
import theirs from 'simplify-js'
import { squaredFromSegment } from './distance.ts'
import { simplify } from './simplify.ts'

const aLine = fc.array(
  fc.record({ x: fc.integer({ min: 0, max: 24_000 }), y: fc.integer({ min: 0, max: 18_000 }) }),
  { maxLength: 120 },
)
const aTolerance = fc.integer({ min: 0, max: 900 })

// simplify-js 1.2.4, the same procedure by somebody else, is the oracle.
test('leaves the points that simplify-js leaves', () => {
  fc.assert(
    fc.property(aLine, aTolerance, (line, tolerance) => {
      expect(simplify(line, tolerance)).toEqual(theirs(line, tolerance, true))
    }),
    { numRuns: 400 },
  )
})

test('no point left out is further from the new line than the tolerance', () => {
  fc.assert(
    fc.property(aLine, aTolerance, (line, tolerance) => {
      const left = simplify(line, tolerance)
      let next = 0
      for (const point of line) {
        if (point === left[next]) {
          next++
          continue
        }
        const off = squaredFromSegment(point, left[next - 1]!, left[next]!)
        expect(Math.sqrt(off)).toBeLessThanOrEqual(tolerance + 1e-6)
      }
      expect(next).toBe(left.length)
    }),
  )
})

test('a line of 20,000 points that turns at each of them is no trouble', () => {
  const line = Array.from({ length: 20_000 }, (_, i) => ({ x: i, y: (i % 2) * i }))
  expect(simplify(line, 0)).toHaveLength(20_000)
  // The ends, and every thousandth between.
  expect(simplify(line, 1e6)).toHaveLength(21)
})
