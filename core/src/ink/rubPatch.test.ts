import fc from 'fast-check'
import { squaredFromSegment } from './distance.ts'
import type { At } from './document.ts'
import { rubPatch } from './rubPatch.ts'

type Ring = readonly At[]
const square = (left: number, top: number, side: number): Ring => [
  { x: left, y: top },
  { x: left + side, y: top },
  { x: left + side, y: top + side },
  { x: left, y: top + side },
]

/** How often rings wind round a place. @see Sunday 2001, "Inclusion of a point in a polygon" */
function windingOf(rings: readonly Ring[], { x, y }: At): number {
  let winding = 0
  for (const ring of rings)
    for (const [i, a] of ring.entries()) {
      const b = ring[(i + 1) % ring.length]!
      const side = (b.x - a.x) * (y - a.y) - (x - a.x) * (b.y - a.y)
      if (a.y <= y && b.y > y && side > 0) winding++
      if (a.y > y && b.y <= y && side < 0) winding--
    }
  return winding
}
const awayFromRings = (rings: readonly Ring[], at: At): number =>
  Math.sqrt(
    Math.min(
      ...rings.flatMap((ring) =>
        ring.map((a, i) => squaredFromSegment(at, a, ring[(i + 1) % ring.length]!)),
      ),
    ),
  )

const place = fc.record({
  x: fc.integer({ min: 0, max: 6000 }),
  y: fc.integer({ min: 0, max: 6000 }),
})
/** Also rings that cross themselves, as children draw them. */
const aRing = fc.array(place, { minLength: 3, maxLength: 9 })
const rubbed = fc.record({ from: place, to: place, radius: fc.integer({ min: 200, max: 1200 }) })

test('what lies under the rubber is gone and nothing beyond is touched, by dense sampling', () => {
  fc.assert(
    fc.property(aRing, rubbed, (ring, rub) => {
      const left = rubPatch([ring], rub) ?? [[ring]]
      const wrong: At[] = []
      for (let x = 50; x < 6000; x += 170)
        for (let y = 50; y < 6000; y += 170) {
          const at = { x, y }
          const away = Math.sqrt(squaredFromSegment(at, rub.from, rub.to)) - rub.radius
          // A hundredth of the radius, rounding, and what is smaller than a dot.
          if (Math.abs(away) < 15 + rub.radius / 80 || awayFromRings([ring], at) < 45) continue
          const there = left.some((piece) => windingOf(piece, at) !== 0)
          if (there !== (windingOf([ring], at) !== 0 && away > 0)) wrong.push(at)
        }
      expect(wrong).toEqual([])
    }),
    { numRuns: 60 },
  )
})
test('a rubber in the middle leaves a hole, one across two pieces, one beside nothing changed', () => {
  const patch = [square(0, 0, 4000)]
  const at = (x: number, y: number) => ({ x, y })
  const holed = rubPatch(patch, { from: at(2000, 2000), to: at(2000, 2000), radius: 300 })
  expect(holed!.map((piece) => piece.length)).toEqual([2])
  const halves = rubPatch(patch, { from: at(-500, 2000), to: at(4500, 2000), radius: 300 })
  expect(halves!.map((piece) => piece.length)).toEqual([1, 1])
  expect(rubPatch(patch, { from: at(6000, 0), to: at(6000, 4000), radius: 300 })).toBeNull()
  expect(rubPatch(patch, { from: at(0, 2000), to: at(4000, 2000), radius: 9000 })).toEqual([])
})
test('a hole is rubbed larger, and an island in a hole keeps its own', () => {
  const first = rubPatch([square(0, 0, 9000)], {
    ...{ from: { x: 4500, y: 4500 }, to: { x: 4500, y: 4500 }, radius: 1000 },
  })![0]!
  const second = rubPatch(first, {
    ...{ from: { x: 5200, y: 4500 }, to: { x: 6000, y: 4500 }, radius: 1000 },
  })![0]!
  expect(second).toHaveLength(2)
  expect(windingOf(second, { x: 6500, y: 4500 })).toBe(0)
  expect(windingOf(second, { x: 8500, y: 4500 })).not.toBe(0)
})
