import type { At } from './document.ts'

/**
 * Whether a place lies within a ring, by how often a way to the right of it crosses the ring.
 * @see Shimrat 1962, "Algorithm 112: position of point relative to polygon"
 */
export function isInside(ring: readonly At[], { x, y }: At): boolean {
  let inside = false
  for (const [i, a] of ring.entries()) {
    const b = ring[(i + 1) % ring.length]!
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}
