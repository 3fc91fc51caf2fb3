import { sizeOfLabel } from './labels.ts'
import {
  isPlaced,
  LABEL_SIZES,
  LONGEST_EDGE,
  UNITS_PER_MM,
  type At,
  type InkSheet,
  type PlacedThing,
} from './document.ts'
import { pickedUp, putDown } from './paths.ts'

/** Small enough for a dot, large enough to be caught. */
const LEAST_EDGE = 5 * UNITS_PER_MM
const SNAPS = { stepDegrees: 15, withinDegrees: 4 } as const

/** How large a thing is, unturned. */
export const sizeOfPlaced = (thing: PlacedThing): { width: number; height: number } =>
  thing.kind === 'label' ? sizeOfLabel(thing) : { width: thing.width, height: thing.height }

/** Its corners as it lies: upper left, upper right, lower right, lower left of it unturned. */
export function cornersOf(thing: PlacedThing): [At, At, At, At] {
  const { width, height } = sizeOfPlaced(thing)
  const corner = (x: number, y: number) =>
    putDown({ x: (x * width) / 2, y: (y * height) / 2 }, thing.at, thing.turn)
  return [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)]
}

/** The uppermost placed thing at a place that is not fixed, or within reach of it; null where there is none. */
export function placedAt(sheet: InkSheet, at: At, reach: number): PlacedThing | null {
  const found = sheet.things.findLast(
    (thing) => isPlaced(thing) && !thing.fixed && covers(thing, at, reach),
  )
  return found && isPlaced(found) ? found : null
}

/** Whether a place lies on a thing, or within reach of it. */
export function covers(thing: PlacedThing, at: At, reach: number): boolean {
  const { width, height } = sizeOfPlaced(thing)
  const { x, y } = pickedUp(at, thing.at, thing.turn)
  return Math.abs(x) <= width / 2 + reach && Math.abs(y) <= height / 2 + reach
}

/** What a label points at goes with nothing: it stays where the named thing is. Its middle stays on the sheet. */
export function movedTo<T extends PlacedThing>(thing: T, { x, y }: At, sheet: InkSheet): T {
  const held = (value: number, most: number) => Math.round(Math.min(most, Math.max(0, value)))
  return { ...thing, at: { x: held(x, sheet.width), y: held(y, sheet.height) } }
}

/** @param degrees - With the clock; near every fifteenth it snaps. */
export function turnedTo<T extends PlacedThing>(thing: T, degrees: number): T {
  const snapped = Math.round(degrees / SNAPS.stepDegrees) * SNAPS.stepDegrees
  const kind = Math.abs(snapped - degrees) <= SNAPS.withinDegrees ? snapped : Math.round(degrees)
  return { ...thing, turn: ((kind % 360) + 360) % 360 }
}

/**
 * So many times as large as it is, both ways alike, from a catchable size to the largest sheet. A
 * label comes in its sizes of letters.
 */
export function sizedBy<T extends PlacedThing>(thing: T, times: number): T {
  if (thing.kind === 'label') {
    const wanted = LABEL_SIZES[thing.size]! * times
    const nearest = LABEL_SIZES.map((em, i) => ({ i, off: Math.abs(em - wanted) })).reduce((a, b) =>
      b.off < a.off ? b : a,
    )
    return { ...thing, size: nearest.i }
  }
  const { width, height } = thing
  const least = LEAST_EDGE / Math.min(width, height)
  const most = LONGEST_EDGE / Math.max(width, height)
  const by = Math.min(Math.max(times, Math.min(1, least)), Math.max(1, most))
  return { ...thing, width: Math.round(width * by), height: Math.round(height * by) }
}

/**
 * Where a finger takes hold of a thing to turn it, and to size it: beyond two of its corners, across
 * from each other, so that neither lies on the thing or on the other.
 * @param beyond - How far, in units.
 */
export function holdsOf(thing: PlacedThing, beyond: number): { turn: At; size: At } {
  const { width, height } = sizeOfPlaced(thing)
  const hold = (side: 1 | -1) =>
    putDown(
      { x: side * (width / 2 + beyond), y: side * (height / 2 + beyond) },
      thing.at,
      thing.turn,
    )
  return { turn: hold(-1), size: hold(1) }
}

const degreesTo = ({ at }: PlacedThing, { x, y }: At): number =>
  (Math.atan2(y - at.y, x - at.x) * 180) / Math.PI
/** As it comes to lie when its hold to turn is drawn from one place to another. */
export const turnedBetween = <T extends PlacedThing>(thing: T, from: At, to: At): T =>
  turnedTo(thing, thing.turn + degreesTo(thing, to) - degreesTo(thing, from))

/** As large as it becomes when its hold to size is drawn from one place to another. */
export function sizedBetween<T extends PlacedThing>(thing: T, from: At, to: At): T {
  const away = ({ x, y }: At) => Math.max(1, Math.hypot(x - thing.at.x, y - thing.at.y))
  return sizedBy(thing, away(to) / away(from))
}
