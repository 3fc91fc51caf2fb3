import fc from 'fast-check'
import { squaredFromSegment } from './distance.ts'
import type { At } from './document.ts'
import type { Point } from './points.ts'
import { mayTouch, rubOut, type Rubbed } from './rubOut.ts'

const at = (x: number, y: number, timeMs = 0, pressure = 0.5): Point => ({ x, y, timeMs, pressure })
const anAt = fc.record({
  x: fc.integer({ min: 0, max: 3000 }),
  y: fc.integer({ min: 0, max: 3000 }),
})
const aLine = fc
  .array(anAt, { minLength: 2, maxLength: 20 })
  .map((line) => line.map(({ x, y }, i) => at(x, y, i * 16)))
const aRub: fc.Arbitrary<Rubbed> = fc.record({
  from: anAt,
  to: anAt,
  radius: fc.integer({ min: 20, max: 600 }),
})

const near = (point: At, line: readonly At[]) =>
  line.some(
    (next, i) => Math.sqrt(squaredFromSegment(point, line[Math.max(0, i - 1)]!, next)) < 0.01,
  )
/** Places along a line, close together: what the exact cutting is held against. */
function* along(line: readonly At[]): Generator<At> {
  const STEPS = 24
  for (let i = 1; i < line.length; i++)
    for (let step = 0; step <= STEPS; step++) {
      const share = step / STEPS
      const [a, b] = [line[i - 1]!, line[i]!]
      yield { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share }
    }
}

test('what lies under the rubber is gone, and nothing beyond it is touched', () => {
  fc.assert(
    fc.property(aLine, aRub, fc.integer({ min: 0, max: 200 }), (line, rub, halfWidth) => {
      const left = rubOut(line, rub, halfWidth)
      const wrong = [...along(line)].filter((place) => {
        const off = Math.sqrt(squaredFromSegment(place, rub.from, rub.to)) - rub.radius - halfWidth
        // Where another stretch of the same line crosses, outside, it is looked at by where it lies.
        return Math.abs(off) > 0.1 && left.some((piece) => near(place, piece)) !== off > 0
      })
      expect(wrong).toEqual([])
    }),
    { numRuns: 300 },
  )
})

test('what is left keeps its time: cut in the middle, two pieces with the moment of the cut', () => {
  const line = [at(0, 0, 0, 0), at(1000, 0, 1000, 1)]
  const rub = { from: { x: 500, y: -50 }, to: { x: 500, y: 50 }, radius: 80 }
  expect(rubOut(line, rub, 20)).toEqual([
    [at(0, 0, 0, 0), at(400, 0, 400, 0.4)],
    [at(600, 0, 600, 0.6), at(1000, 0, 1000, 1)],
  ])
})

test.each([
  { why: 'far away, nothing changes', x: 5000, left: 1 },
  { why: 'a rubber as large as the line takes all of it', x: 500, left: 0 },
])('$why', ({ x, left }) => {
  const rub = { from: { x, y: 0 }, to: { x, y: 0 }, radius: 900 }
  expect(rubOut([at(0, 0), at(500, 0), at(1000, 0)], rub, 10)).toHaveLength(left)
})

test('a dot is rubbed out where the rubber touches it', () => {
  const rub = { from: { x: 0, y: 0 }, to: { x: 0, y: 0 }, radius: 50 }
  expect(rubOut([at(60, 0)], rub, 20)).toEqual([])
  expect(rubOut([at(80, 0)], rub, 20)).toEqual([[at(80, 0)]])
})

test('a look at the box before never misses a line that would be cut', () => {
  fc.assert(
    fc.property(aLine, aRub, (line, rub) => {
      const [xs, ys] = [line.map(({ x }) => x), line.map(({ y }) => y)]
      const box = {
        left: Math.min(...xs),
        right: Math.max(...xs),
        top: Math.min(...ys),
        bottom: Math.max(...ys),
      }
      if (!mayTouch(rub, box, 30)) expect(rubOut(line, rub, 30)).toEqual([line])
    }),
  )
})
