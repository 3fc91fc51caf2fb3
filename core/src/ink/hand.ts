import { UNITS_PER_MM } from './document.ts'
import type { Point } from './points.ts'

/** Where a pointer was. `pressure`: 0 to 1 where the device feels it, else null. */
export type Sample = { x: number; y: number; timeMs: number; pressure: number | null }

/** As wide as the pen says: neither pressed nor hurried. */
export const EVEN_PRESSURE = 0.5
/** Units a millisecond: a hand that hurries across a tablet moves about 30 cm a second. */
const HURRIES = (300 * UNITS_PER_MM) / 1000
/** What a hurried line loses of its pressure, and a slow one gains. */
const SWING = 0.3
/** How much of the pressure before goes into the next: a line does not jump in width. */
const STEADY = 0.75

/**
 * A line as a hand draws it, one sample after the other. Without a device that feels pressure, a
 * slow hand presses more than one that hurries.
 */
export class Hand {
  readonly points: Point[] = []
  #beganMs = 0

  /** @returns whether it moved: a sample on the last point, or before it in time, adds nothing */
  add({ x, y, timeMs, pressure }: Sample): boolean {
    const last = this.points.at(-1)
    if (!last) this.#beganMs = timeMs
    const at = { x: Math.round(x), y: Math.round(y), timeMs: Math.max(0, timeMs - this.#beganMs) }
    if (last && ((at.x === last.x && at.y === last.y) || at.timeMs < last.timeMs)) return false
    this.points.push({ ...at, pressure: pressure ?? pressureBySpeed(last, at) })
    return true
  }
}

function pressureBySpeed(last: Point | undefined, at: Omit<Point, 'pressure'>): number {
  if (!last) return EVEN_PRESSURE
  const way = Math.hypot(at.x - last.x, at.y - last.y)
  const speed = Math.min(1, way / Math.max(1, at.timeMs - last.timeMs) / HURRIES)
  const now = EVEN_PRESSURE + SWING * (0.5 - speed)
  return STEADY * last.pressure + (1 - STEADY) * now
}
