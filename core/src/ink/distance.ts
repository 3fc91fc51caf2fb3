import type { At } from './document.ts'

const clamp = (share: number) => Math.min(1, Math.max(0, share))

/** The square of how far a point is from the straight way between two others. */
export function squaredFromSegment(point: At, from: At, to: At): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const length = dx * dx + dy * dy
  const along =
    length === 0 ? 0 : clamp(((point.x - from.x) * dx + (point.y - from.y) * dy) / length)
  const [offX, offY] = [point.x - (from.x + dx * along), point.y - (from.y + dy * along)]
  return offX * offX + offY * offY
}
