import fc from 'fast-check'
import { splitInTwo } from './splitInTwo'

test.each([
  { heights: [], first: 0 },
  { heights: [300], first: 1 },
  { heights: [300, 300], first: 1 },
  { heights: [100, 100, 100, 300], first: 3 },
  { heights: [500, 100, 100], first: 1 },
])('$heights: $first in the first column', ({ heights, first }) => {
  expect(splitInTwo(heights)).toBe(first)
})

test('no other cut is more even', () => {
  const sum = (some: number[]) => some.reduce((all, one) => all + one, 0)
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 2 }), (heights) => {
      const higher = (at: number) => Math.max(sum(heights.slice(0, at)), sum(heights.slice(at)))
      const at = splitInTwo(heights)
      for (let other = 1; other < heights.length; other++)
        expect(higher(at)).toBeLessThanOrEqual(higher(other))
    }),
  )
})
