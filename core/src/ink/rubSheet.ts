import type { InkChange } from './changes.ts'
import { halfWidthOf } from './display.ts'
import { squaredFromSegment } from './distance.ts'
import {
  isPlaced,
  type At,
  type DrawnThing,
  type InkSheet,
  type Patch,
  type Thing,
} from './document.ts'
import { EVEN_PRESSURE } from './hand.ts'
import { packPoints, unpackPoints, type PackedPoints, type Point } from './points.ts'
import { isInside } from './inside.ts'
import { mayTouch, rubOut, type Rubbed } from './rubOut.ts'
import { rubPatch } from './rubPatch.ts'

type Box = { left: number; top: number; right: number; bottom: number }
type Traced = { points: Point[]; box: Box; halfWidth: number }

/** What a thing looks like to a rubber, worked out once. */
const traced = new WeakMap<DrawnThing, Traced>()
function traceOf(thing: DrawnThing): Traced {
  const there = traced.get(thing)
  if (there) return there
  const points = pointsOf(thing)
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)]
  const [low, high] = [
    (of: number[]) => of.reduce((a, b) => Math.min(a, b)),
    (of: number[]) => of.reduce((a, b) => Math.max(a, b)),
  ]
  const made = {
    points,
    box: { left: low(xs), top: low(ys), right: high(xs), bottom: high(ys) },
    halfWidth: thing.kind === 'line' ? halfWidthOf(thing.pen.width, points) : thing.pen.width / 2,
  }
  traced.set(thing, made)
  return made
}

/** A circle is gone along in so many steps. */
const ROUND_STEPS = 72
const still = (at: At): Point => ({ ...at, timeMs: 0, pressure: EVEN_PRESSURE })
function pointsOf(thing: DrawnThing): Point[] {
  if (thing.kind !== 'ruled') return unpackPoints(thing.points)
  const { from, to } = thing
  if (thing.shape === 'line') return [still(from), still(to)]
  const radius = Math.hypot(to.x - from.x, to.y - from.y)
  return Array.from({ length: ROUND_STEPS + 1 }, (_, i) => {
    const turn = (2 * Math.PI * i) / ROUND_STEPS
    return still({ x: from.x + radius * Math.cos(turn), y: from.y + radius * Math.sin(turn) })
  })
}

/**
 * What a rubber that went over a sheet does to it: lines lose what it went over and stay where they
 * lie, in as many pieces as are left, and so do patches.
 * @param newId - Of each piece that is left.
 */
export function rubSheet(
  { id: sheetId, things }: InkSheet,
  rubbed: Rubbed,
  newId: () => string,
): InkChange[] {
  return things.flatMap((thing, i): InkChange[] => {
    if (isPlaced(thing) || thing.fixed) return []
    const { points, box, halfWidth } = traceOf(thing)
    if (!mayTouch(rubbed, box, halfWidth)) return []
    const pieces =
      thing.kind === 'patch'
        ? patchPieces(thing, rubbed, newId)
        : linePieces(thing, rubOut(points, rubbed, halfWidth), points, newId)
    if (!pieces) return []
    return [
      { kind: 'take', sheetId, ids: [thing.id] },
      ...(pieces.length > 0
        ? [{ kind: 'put' as const, sheetId, things: pieces, below: things[i + 1]?.id ?? null }]
        : []),
    ]
  })
}

/** @returns null where nothing was touched */
function linePieces(
  { pen }: DrawnThing,
  left: Point[][],
  points: readonly Point[],
  newId: () => string,
): Thing[] | null {
  const [only] = left
  if (left.length === 1 && only!.length === points.length && isSame(only!, points)) return null
  return left.map((piece) => ({ kind: 'line', id: newId(), pen, points: packed(piece) }))
}

/** @returns null where nothing was touched */
function patchPieces(
  { pen, points, holes = [] }: Patch,
  rubbed: Rubbed,
  newId: () => string,
): Thing[] | null {
  const left = rubPatch([points, ...holes].map(unpackPoints), rubbed)
  const pack = (ring: readonly At[]) => packPoints(ring.map(still))
  return (
    left?.map(([outline, ...cut]) => ({
      ...{ kind: 'patch', id: newId(), pen, points: pack(outline!) },
      ...(cut.length > 0 ? { holes: cut.map(pack) } : {}),
    })) ?? null
  )
}

const isSame = (a: readonly Point[], b: readonly Point[]): boolean =>
  a.every(({ x, y }, i) => x === b[i]!.x && y === b[i]!.y)

/** Times of what is left of a line begin with it. */
function packed(points: readonly Point[]): PackedPoints {
  const began = points[0]!.timeMs
  return packPoints(points.map((point) => ({ ...point, timeMs: point.timeMs - began })))
}

/** The uppermost drawn thing at a place that can be taken, or within reach of it; null where there is none. */
export function thingAt(sheet: InkSheet, at: At, reach: number): DrawnThing | null {
  const found = sheet.things.findLast(
    (thing) => !isPlaced(thing) && !thing.fixed && isAt(thing, at, reach),
  )
  return found && !isPlaced(found) ? found : null
}

function isAt(thing: DrawnThing, at: At, reach: number): boolean {
  const { points, box, halfWidth } = traceOf(thing)
  if (!mayTouch({ from: at, to: at, radius: reach }, box, halfWidth)) return false
  const holes = thing.kind === 'patch' ? (thing.holes ?? []) : []
  if (thing.kind === 'patch' && isInside(points, at))
    return !holes.some((hole) => isInside(unpackPoints(hole), at))
  const within = (reach + halfWidth) ** 2
  return points.some(
    (point, i) => squaredFromSegment(at, points[Math.max(0, i - 1)]!, point) <= within,
  )
}
