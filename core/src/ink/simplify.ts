import { squaredFromSegment } from './distance.ts'
import type { Point } from './points.ts'

/**
 * A line through fewer of its points. No point left out was further from the new line than the
 * tolerance; the first and the last stay.
 * Ramer 1972, "An iterative procedure for the polygonal approximation of plane curves"; Douglas and
 * Peucker 1973. A line that turns back and forth takes the square of its points: of a long one every
 * thousandth point stays, so that 20,000 points take no more than twenty lines of a thousand.
 * @param tolerance - In units, 0 or more.
 */
export function simplify<P extends Pick<Point, 'x' | 'y'>>(
  points: readonly P[],
  tolerance: number,
): P[] {
  if (points.length <= 2) return [...points]
  const kept = new Uint8Array(points.length)
  kept[0] = kept[points.length - 1] = 1
  const spans: [number, number][] = []
  for (let first = 0; first < points.length - 1; first += LONGEST_SPAN) {
    const last = Math.min(first + LONGEST_SPAN, points.length - 1)
    kept[last] = 1
    spans.push([first, last])
  }
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [first, last] = span
    const at = farthest(points, first, last, tolerance * tolerance)
    if (at === null) continue
    kept[at] = 1
    spans.push([first, at], [at, last])
  }
  return points.filter((_, i) => kept[i])
}

const LONGEST_SPAN = 1000

/** @returns the point farthest from the straight way, if any is beyond the tolerance */
function farthest(
  points: readonly Pick<Point, 'x' | 'y'>[],
  first: number,
  last: number,
  squaredTolerance: number,
): number | null {
  let most = squaredTolerance
  let at: number | null = null
  for (let i = first + 1; i < last; i++) {
    const squared = squaredFromSegment(points[i]!, points[first]!, points[last]!)
    if (squared > most) [most, at] = [squared, i]
  }
  return at
}
