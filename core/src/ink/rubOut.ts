import type { At } from './document.ts'
import type { Point } from './points.ts'

/** What a rubber went over: everything nearer than `radius` to the straight way it moved. */
export type Rubbed = { from: At; to: At; radius: number }

/** A stretch of the way from one point to the next, 0 to 1. */
type Stretch = { from: number; to: number }

/**
 * Takes away what a rubber went over and leaves the rest, cut where its edge was: exactly, not at
 * the points the hand left. Time and pressure at a cut are those of its place.
 * @param halfWidth - Half of the line's width: what of a line shows is as far from its middle.
 * @returns what is left, in order: the same points where nothing was touched, none where all was
 */
export function rubOut(
  points: readonly Point[],
  { from, to, radius }: Rubbed,
  halfWidth: number,
): Point[][] {
  const reach = radius + halfWidth
  if (points.length === 1)
    return stretchInside(points[0]!, points[0]!, from, to, reach) ? [] : [[...points]]
  const left: Point[][] = []
  let line: Point[] = [points[0]!]
  const end = () => {
    // A single point on the edge of the rubber is nothing that is left.
    if (line.length > 1) left.push(line)
    line = []
  }
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!]
    const gone = stretchInside(a, b, from, to, reach)
    if (!gone) {
      line.push(b)
      continue
    }
    if (gone.from > 0) line.push(between(a, b, gone.from))
    end()
    if (gone.to < 1) line = [between(a, b, gone.to), b]
    else if (i < points.length - 1) line = [b]
  }
  end()
  return left
}

/** Whether a rubber touches anything within a box, before every point is looked at. */
export function mayTouch(
  { from, to, radius }: Rubbed,
  box: { left: number; top: number; right: number; bottom: number },
  halfWidth: number,
): boolean {
  const reach = radius + halfWidth
  return (
    Math.min(from.x, to.x) - reach <= box.right &&
    Math.max(from.x, to.x) + reach >= box.left &&
    Math.min(from.y, to.y) - reach <= box.bottom &&
    Math.max(from.y, to.y) + reach >= box.top
  )
}

function between(a: Point, b: Point, share: number): Point {
  const mix = (of: (point: Point) => number) => of(a) + (of(b) - of(a)) * share
  return {
    x: mix(({ x }) => x),
    y: mix(({ y }) => y),
    timeMs: mix(({ timeMs }) => timeMs),
    pressure: mix(({ pressure }) => pressure),
  }
}

/**
 * Where the way from `a` to `b` runs inside a capsule: all that is within `reach` of the way from
 * `c` to `d`. A capsule is convex, so that this is one stretch at most; it is the union of where the
 * way runs inside both round ends and the straight middle.
 */
function stretchInside(a: At, b: At, c: At, d: At, reach: number): Stretch | null {
  const parts = [inCircle(a, b, c, reach), inCircle(a, b, d, reach), inMiddle(a, b, c, d, reach)]
  let whole: Stretch | null = null
  for (const part of parts) {
    if (!part) continue
    whole = whole
      ? { from: Math.min(whole.from, part.from), to: Math.max(whole.to, part.to) }
      : part
  }
  return whole
}

/** Cuts a stretch to the way there is; what only touches is not inside. */
function within(from: number, to: number): Stretch | null {
  const stretch = { from: Math.max(0, from), to: Math.min(1, to) }
  return stretch.from < stretch.to ? stretch : null
}

const WHOLE: Stretch = { from: 0, to: 1 }

/** The quadratic for the way's distance from a middle point. */
function inCircle(a: At, b: At, middle: At, radius: number): Stretch | null {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const [fx, fy] = [a.x - middle.x, a.y - middle.y]
  const squared = dx * dx + dy * dy
  const outside = fx * fx + fy * fy - radius * radius
  if (squared === 0) return outside < 0 ? WHOLE : null
  const half = fx * dx + fy * dy
  const root = half * half - squared * outside
  if (root <= 0) return null
  const width = Math.sqrt(root)
  return within((-half - width) / squared, (-half + width) / squared)
}

/** The rectangle between the round ends: two strips, one along it and one across. */
function inMiddle(a: At, b: At, c: At, d: At, reach: number): Stretch | null {
  const [ux, uy] = [d.x - c.x, d.y - c.y]
  const length = Math.hypot(ux, uy)
  if (length === 0) return null
  const along = ({ x, y }: At) => ((x - c.x) * ux + (y - c.y) * uy) / length
  const across = ({ x, y }: At) => ((y - c.y) * ux - (x - c.x) * uy) / length
  const lengthwise = inStrip(along(a), along(b), 0, length)
  const sideways = inStrip(across(a), across(b), -reach, reach)
  return (
    lengthwise &&
    sideways &&
    within(Math.max(lengthwise.from, sideways.from), Math.min(lengthwise.to, sideways.to))
  )
}

function inStrip(at: number, next: number, low: number, high: number): Stretch | null {
  if (at === next) return at > low && at < high ? WHOLE : null
  const [first, second] = [(low - at) / (next - at), (high - at) / (next - at)]
  return within(Math.min(first, second), Math.max(first, second))
}
