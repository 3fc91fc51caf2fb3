import fc from 'fast-check'
import {
  compose,
  fromUnitSquare,
  invert,
  isConvex,
  pageAspect,
  project,
  type Point,
  type Quad,
} from './projective.ts'

const UNIT: Quad = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
]
const part = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true })
/** A page's corners anywhere in their own quarter of a picture. */
const quads = fc
  .tuple(
    part(0, 40),
    part(0, 40),
    part(60, 100),
    part(0, 40),
    part(60, 100),
    part(60, 100),
    part(0, 40),
    part(60, 100),
  )
  .map(([a, b, c, d, e, f, g, h]): Quad => [
    { x: a, y: b },
    { x: c, y: d },
    { x: e, y: f },
    { x: g, y: h },
  ])
  .filter(isConvex)

/**
 * Eight equations for eight unknowns, by elimination.
 * @see Hartley and Zisserman, "Multiple View Geometry", 4.1: the minimal solution
 */
function solveFourPoints(from: Quad, to: Quad): number[] {
  const rows = from.flatMap(({ x, y }, i) => {
    const { x: u, y: v } = to[i]!
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ]
  })
  for (let column = 0; column < 8; column++) {
    const best = rows
      .slice(column)
      .reduce(
        (most, row, i) =>
          Math.abs(row[column]!) > Math.abs(rows[most]![column]!) ? column + i : most,
        column,
      )
    ;[rows[column], rows[best]] = [rows[best]!, rows[column]!]
    for (const [i, row] of rows.entries()) {
      if (i === column) continue
      const times = row[column]! / rows[column]![column]!
      for (let j = column; j < 9; j++) row[j]! -= times * rows[column]![j]!
    }
  }
  return rows.map((row, i) => row[8]! / row[i]!)
}

test('the four corners of the unit square go where they should, whatever page it is', () => {
  fc.assert(
    fc.property(quads, (quad) => {
      UNIT.forEach((corner, i) => {
        const { x, y } = project(fromUnitSquare(quad), corner)
        expect(x).toBeCloseTo(quad[i]!.x, 6)
        expect(y).toBeCloseTo(quad[i]!.y, 6)
      })
    }),
  )
})

test('the closed form agrees with eight linear equations solved by elimination', () => {
  const quad: Quad = [
    { x: 112, y: 87 },
    { x: 905, y: 132 },
    { x: 988, y: 701 },
    { x: 43, y: 640 },
  ]
  const solved = solveFourPoints(UNIT, quad)
  const [a, b, c, d, e, f, g, h, i] = fromUnitSquare(quad)
  ;[a, b, c, d, e, f, g, h].forEach((value, k) => expect(value / i).toBeCloseTo(solved[k]!, 6))
})

test('there and back again is the same place', () => {
  fc.assert(
    fc.property(quads, part(0, 1), part(0, 1), (quad, x, y) => {
      const there = fromUnitSquare(quad)
      const back = project(compose(invert(there), there), { x, y })
      expect(back.x).toBeCloseTo(x, 6)
      expect(back.y).toBeCloseTo(y, 6)
    }),
  )
})

/**
 * A page under a pinhole camera: focal length and shift along the way that is looked, in pixels and
 * page widths.
 */
function photographed(
  aspect: number,
  lean: number,
  turn: number,
  focal: number,
  size: { width: number; height: number },
): Quad {
  const see = (x: number, y: number): Point => {
    const [tx, ty] = [
      x * Math.cos(turn) - y * Math.sin(turn),
      x * Math.sin(turn) + y * Math.cos(turn),
    ]
    const depth = 1.6 - ty * Math.sin(lean)
    return {
      x: size.width / 2 + (focal * tx) / depth,
      y: size.height / 2 + (focal * ty * Math.cos(lean)) / depth,
    }
  }
  const half = 0.5 / aspect
  return [see(-0.5, -half), see(0.5, -half), see(0.5, half), see(-0.5, half)]
}

test('a page has its own proportions again, from wherever it was photographed', () => {
  const size = { width: 4000, height: 3000 }
  fc.assert(
    fc.property(part(0.6, 1.8), part(0, 0.8), part(-0.7, 0.7), (aspect, lean, turn) => {
      const quad = photographed(aspect, lean, turn, 0.8 * size.width, size)
      expect(pageAspect(quad, size) / aspect).toBeGreaterThan(0.99)
      expect(pageAspect(quad, size) / aspect).toBeLessThan(1.01)
    }),
  )
})

test.each([
  ['leaning back, two sides parallel', 0.8, 0],
  ['straight above', 0, 0],
  ['straight above, turned', 0, 0.4],
])(
  '%s: what cannot be told from the corners is taken as usual, not guessed from noise',
  (_, lean, turn) => {
    const size = { width: 4000, height: 3000 }
    const quad = photographed(1.25, lean, turn, 0.8 * size.width, size)
    const shaken = quad.map(({ x, y }, i) => ({
      x: x + (i % 2 ? 1 : -1),
      y: y + (i > 1 ? 1 : -1),
    })) as Quad
    expect(pageAspect(quad, size)).toBeCloseTo(1.25, 2)
    expect(Math.abs(pageAspect(shaken, size) / 1.25 - 1)).toBeLessThan(0.02)
  },
)

test('corners that cross or dent are no page', () => {
  expect(isConvex(UNIT)).toBe(true)
  expect(isConvex([UNIT[0], UNIT[2], UNIT[1], UNIT[3]])).toBe(false)
  expect(isConvex([UNIT[0], UNIT[1], { x: 0.2, y: 0.2 }, UNIT[3]])).toBe(false)
})
