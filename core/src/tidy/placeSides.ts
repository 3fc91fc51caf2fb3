import { distance, type Point, type Quad } from './projective.ts'
import type { Rgba } from './resample.ts'

/** A straight edge: all points p with p·n = rho, where n points to the lighter side. */
export type Line = { nx: number; ny: number; rho: number; votes: number }

/** Where two straight edges cross. */
export function meet(a: Line, b: Line): Point {
  const turn = a.nx * b.ny - a.ny * b.nx
  return { x: (a.rho * b.ny - b.rho * a.ny) / turn, y: (a.nx * b.rho - b.nx * a.rho) / turn }
}

/** Each side anew where the picture is steepest across it; corners where the sides meet. */
export function placeSides(large: Rgba, rough: Quad, lighter: boolean, reachPx: number): Quad {
  const lines = rough.map((from, i) =>
    placeSide(large, from, rough[(i + 1) % 4]!, lighter, reachPx),
  )
  return rough.map((corner, i) => {
    const [before, after] = [lines[(i + 3) % 4]!, lines[i]!]
    const placed = meet(before, after)
    return Number.isFinite(placed.x + placed.y) && distance(placed, corner) < 3 * reachPx
      ? placed
      : corner
  }) as unknown as Quad
}

const PLACES = 90

function placeSide(large: Rgba, from: Point, to: Point, lighter: boolean, reachPx: number): Line {
  const length = distance(from, to)
  const [nx, ny] = [-(to.y - from.y) / length, (to.x - from.x) / length]
  const plain: Line = { nx, ny, rho: from.x * nx + from.y * ny, votes: 0 }
  const points: { along: number; off: number; weight: number }[] = []
  for (let i = 0; i < PLACES; i++) {
    // Corners are worn, curled or under a thumb.
    const along = (0.06 + (0.88 * (i + 0.5)) / PLACES) * length
    const found = steepest(
      large,
      from.x + ((to.x - from.x) * along) / length,
      from.y + ((to.y - from.y) * along) / length,
      nx,
      ny,
      reachPx,
      lighter,
    )
    if (found) points.push({ along, ...found })
  }
  const fitted = fitLine(points)
  if (!fitted) return plain
  // off = slope * along + start, across the rough side.
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  const [vx, vy] = [dx + fitted.slope * nx, dy + fitted.slope * ny]
  const norm = Math.hypot(vx, vy)
  const [mx, my] = [-vy / norm, vx / norm]
  return {
    nx: mx,
    ny: my,
    rho: (from.x + fitted.start * nx) * mx + (from.y + fitted.start * ny) * my,
    votes: 1,
  }
}

/** Brightness of a place between pixels. */
function brightness({ data, width, height }: Rgba, x: number, y: number): number {
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)]
  if (left < 0 || top < 0 || left >= width - 1 || top >= height - 1) return NaN
  const [right, down] = [x - 0.5 - left, y - 0.5 - top]
  const at = (top * width + left) * 4
  const sum = (i: number) => data[i]! * 0.3 + data[i + 1]! * 0.45 + data[i + 2]! * 0.25
  const upper = sum(at) * (1 - right) + sum(at + 4) * right
  const lower = sum(at + width * 4) * (1 - right) + sum(at + width * 4 + 4) * right
  return upper * (1 - down) + lower * down
}

/** The outermost clear edge across a side: a line drawn near the paper's edge lies further in. */
function steepest(
  large: Rgba,
  x: number,
  y: number,
  nx: number,
  ny: number,
  reachPx: number,
  lighter: boolean,
): { off: number; weight: number } | null {
  const reach = Math.ceil(reachPx)
  const across: number[] = []
  for (let off = -reach - 2; off <= reach + 2; off++)
    across.push(brightness(large, x + nx * off, y + ny * off))
  const rise = across.map((_, i) => {
    const step = (across[i + 1]! + across[i + 2]! - across[i - 1]! - across[i - 2]!) / 6
    return Number.isFinite(step) ? (lighter ? step : -step) : 0
  })
  const most = Math.max(...rise)
  if (most < 1.5) return null
  const at = rise.findIndex(
    (step, i) => step >= 0.7 * most && step >= (rise[i - 1] ?? 0) && step >= (rise[i + 1] ?? 0),
  )
  if (at < 1 || at > rise.length - 2) return null
  const bend = rise[at - 1]! - 2 * rise[at]! + rise[at + 1]!
  const shift = bend === 0 ? 0 : (rise[at - 1]! - rise[at + 1]!) / (2 * bend)
  return { off: at - reach - 2 + Math.max(-1, Math.min(1, shift)), weight: Math.min(most, 20) }
}

/** Least squares, then again and again without what lies far off: half the points may be wrong. */
function fitLine(
  points: readonly { along: number; off: number; weight: number }[],
): { slope: number; start: number } | null {
  if (points.length < PLACES / 4) return null
  let best = bestOfPairs(points)
  for (const within of [3, 2, 1.2]) {
    const near = points.filter(
      ({ along, off }) => Math.abs(off - best.slope * along - best.start) < within,
    )
    if (near.length < PLACES / 6) return null
    let [w, wx, wy, wxx, wxy] = [0, 0, 0, 0, 0]
    for (const { along, off, weight } of near) {
      w += weight
      wx += weight * along
      wy += weight * off
      wxx += weight * along * along
      wxy += weight * along * off
    }
    const slope = (w * wxy - wx * wy) / (w * wxx - wx * wx)
    best = { slope, start: (wy - slope * wx) / w }
  }
  return best
}

/**
 * Of the lines through two of the points each, the one with most points near it.
 * @see Fischler and Bolles 1981, RANSAC
 */
function bestOfPairs(points: readonly { along: number; off: number; weight: number }[]): {
  slope: number
  start: number
} {
  let best = { slope: 0, start: 0, near: -1 }
  const half = points.length >> 1
  for (let i = 0; i < half; i += 2)
    for (let j = half; j < points.length; j += 2) {
      const [a, b] = [points[i]!, points[j]!]
      const slope = (b.off - a.off) / (b.along - a.along)
      const start = a.off - slope * a.along
      let near = 0
      for (const { along, off, weight } of points)
        if (Math.abs(off - slope * along - start) < 1.5) near += weight
      if (near > best.near) best = { slope, start, near }
    }
  return best
}
