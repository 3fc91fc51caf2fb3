import { UNITS_PER_MM, type At, type Ruled } from './document.ts'

const CM = 10 * UNITS_PER_MM
/** Kindly: a hand that means five centimetres is seldom further off than this. */
const SNAPS = { stepUnits: CM / 2, withinUnits: 120, stepDegrees: 15, withinDegrees: 4 } as const

const degreesOf = (from: At, to: At): number =>
  (Math.atan2(from.y - to.y, to.x - from.x) * 180) / Math.PI

function near(value: number, step: number, within: number): number {
  const snapped = Math.round(value / step) * step
  return Math.abs(value - snapped) <= within ? snapped : value
}

/**
 * Where the ruler's other end comes to lie: at whole and half centimetres, and at every fifteenth
 * degree for a line, where the hand is near them.
 */
export function snapRuler(shape: Ruled['shape'], from: At, to: At): At {
  const way = Math.hypot(to.x - from.x, to.y - from.y)
  const length = near(way, SNAPS.stepUnits, SNAPS.withinUnits)
  if (way === 0 || length === 0) return to
  const exact = degreesOf(from, to)
  const degrees = shape === 'line' ? near(exact, SNAPS.stepDegrees, SNAPS.withinDegrees) : exact
  const turn = (degrees * Math.PI) / 180
  return {
    x: Math.round(from.x + length * Math.cos(turn)),
    y: Math.round(from.y - length * Math.sin(turn)),
  }
}

/**
 * What a ruler says. `cm`: of a line its length, of a circle its radius, to a tenth. `degrees`: how
 * a line rises from level, 0 to 180, whichever end was first.
 */
export function measureOf({ from, to }: Pick<Ruled, 'from' | 'to'>): {
  cm: number
  degrees: number
} {
  const degrees = Math.round(degreesOf(from, to))
  return {
    cm: Math.round(Math.hypot(to.x - from.x, to.y - from.y) / (CM / 10)) / 10,
    degrees: ((degrees % 180) + 180) % 180,
  }
}
