/**
 * Where a hand was. `x`, `y` in units, right and down from the sheet's upper left corner; `timeMs`
 * since the line began; `pressure` 0 to 1.
 */
export type Point = { x: number; y: number; timeMs: number; pressure: number }

/**
 * Points as they are kept: each list begins with a value and goes on with differences, all of them
 * whole numbers; pressure in 255ths. A minute of drawing so takes a fourteenth of what the points
 * take as objects.
 */
export type PackedPoints = { x: number[]; y: number[]; t: number[]; p: number[] }

const PRESSURES = 255

const differences = (values: readonly number[]): number[] =>
  values.map((value, i) => (i === 0 ? value : value - values[i - 1]!))

function sums(differences: readonly number[]): number[] {
  let sum = 0
  return differences.map((difference) => (sum += difference))
}

/** Rounds to whole units, milliseconds and 255ths of pressure. */
export const packPoints = (points: readonly Point[]): PackedPoints => ({
  x: differences(points.map(({ x }) => Math.round(x))),
  y: differences(points.map(({ y }) => Math.round(y))),
  t: differences(points.map(({ timeMs }) => Math.round(timeMs))),
  p: differences(points.map(({ pressure }) => Math.round(pressure * PRESSURES))),
})

/** @param packed - Its lists are equally long. */
export function unpackPoints(packed: PackedPoints): Point[] {
  const [x, y, t, p] = [sums(packed.x), sums(packed.y), sums(packed.t), sums(packed.p)]
  return x.map((one, i) => ({ x: one, y: y[i]!, timeMs: t[i]!, pressure: p[i]! / PRESSURES }))
}
