import { getStroke } from 'perfect-freehand'
import type { At, InkSheet, Pen, Ruled, Thing } from './document.ts'
import { UNITS_PER_MM } from './document.ts'
import { colourOf, coverOfWater } from './inks.ts'
import { showLabel } from './labels.ts'
import { paperLines } from './papers.ts'
import { roundOf } from './paths.ts'
import { unpackPoints, type Point } from './points.ts'
import { showSpot } from './spots.ts'
import { showStamp } from './stamps.ts'
import { simplify } from './simplify.ts'

/**
 * What is put on a sheet, lowest first: a path filled, drawn along, or both. Canvas, SVG and PDF
 * draw the same list. `path`: SVG path data of M, L, Q, A and Z in whole units; `cover`: 0 to 1, of fill
 * and line together.
 */
export type ShownPath = {
  path: string
  fill: string | null
  line: { colour: string; width: number } | null
  cover: number
}

/** A picture round its middle, turned by degrees with the clock; fetched by whoever draws it. */
export type ShownPicture = {
  picture: string
  at: At
  turn: number
  width: number
  height: number
}
export type Shown = ShownPath | ShownPicture

/** Everything on a sheet, its paper first. */
export const displayOf = (sheet: InkSheet): Shown[] => [
  ...paperLines(sheet),
  ...sheet.things.flatMap(showThing),
]

/** What is drawn of a line may lie so far from where the hand was: a fiftieth of a millimetre. */
export const SHOWN_WITHIN = 2
/** A pressed nib is three times as wide as one that hardly touches. */
const THINNING = 0.5
/** An edge is as wide as a fifth of what it edges, and seen. */
const EDGE_SHARE = 0.2
const LEAST_EDGE = 0.25 * UNITS_PER_MM

/** Half of how wide a line is where it was pressed so. @param pressure - 0 to 1. */
export const halfWidthAt = (width: number, pressure: number): number =>
  width * (0.5 - THINNING * (0.5 - pressure))

/** Half of a line's greatest width. */
export const halfWidthOf = (width: number, points: readonly Pick<Point, 'pressure'>[]): number =>
  halfWidthAt(width, Math.max(...points.map(({ pressure }) => pressure)))

/** A line as it grows under the hand. */
export const showLine = (pen: Pen, points: readonly Point[]): ShownPath =>
  filled(pen, lineOutline(points, pen.width))
/** A patch as it is drawn round. */
export const showPatch = (pen: Pen, points: readonly At[]): ShownPath => filled(pen, ring(points))
const showRings = (pen: Pen, rings: readonly (readonly At[])[]): ShownPath =>
  filled(pen, rings.map(ring).join(''))
/** A ruled line or circle as it is drawn. */
export const showRuled = (pen: Pen, shape: Ruled['shape'], from: At, to: At): ShownPath[] =>
  ruledPaths(shape, from, to).flatMap((path) => drawnAlong(pen, path))

function shownAs(thing: Thing): Shown[] {
  switch (thing.kind) {
    case 'line':
      return [showLine(thing.pen, unpackPoints(thing.points))]
    case 'patch':
      return [showRings(thing.pen, [thing.points, ...(thing.holes ?? [])].map(unpackPoints))]
    case 'ruled':
      return showRuled(thing.pen, thing.shape, thing.from, thing.to)
    case 'label':
      return showLabel(thing)
    case 'stamp':
      return showStamp(thing)
    case 'spot':
      return showSpot(thing)
    case 'picture': {
      const { mediaId, at, turn, width, height } = thing
      return [{ picture: mediaId, at, turn, width, height }]
    }
  }
}

/** Things never change: each is worked out once, however often it is shown. */
const known = new WeakMap<Thing, Shown[]>()
/** One thing on a sheet, lowest first. */
export function showThing(thing: Thing): Shown[] {
  const there = known.get(thing)
  if (there) return there
  const made = shownAs(thing)
  known.set(thing, made)
  return made
}

const filled = (pen: Pen, path: string): ShownPath => ({
  path,
  fill: colourOf(pen.ink),
  line: pen.edge ? { colour: colourOf(pen.edge), width: edgeWidth(pen) } : null,
  cover: coverOfWater(pen.water),
})
const edgeWidth = ({ width }: Pen) => Math.max(LEAST_EDGE, width * EDGE_SHARE)

function drawnAlong(pen: Pen, path: string): ShownPath[] {
  const along = (colour: string, width: number): ShownPath => ({
    path,
    fill: null,
    line: { colour, width },
    cover: coverOfWater(pen.water),
  })
  const inked = along(colourOf(pen.ink), pen.width)
  return pen.edge ? [along(colourOf(pen.edge), pen.width + edgeWidth(pen)), inked] : [inked]
}

/**
 * The outline of a line, filled as one area: thinned with water it is no darker where it crosses
 * itself.
 */
export function lineOutline(points: readonly Point[], width: number): string {
  const shown = simplify(points, SHOWN_WITHIN)
  const outline = getStroke(
    shown.map(({ x, y, pressure }) => [x, y, pressure]),
    { size: width, thinning: THINNING, smoothing: 0.5, streamline: 0, simulatePressure: false },
  )
  return smoothRing(outline.map(([x, y]) => ({ x: x!, y: y! })))
}

const at = ({ x, y }: At) => `${Math.round(x)} ${Math.round(y)}`

function ring(points: readonly At[]): string {
  const [first, ...rest] = simplify(points, SHOWN_WITHIN)
  return first ? `M${at(first)}${rest.map((point) => `L${at(point)}`).join('')}Z` : ''
}

/** Through the middles between points, bent by the points themselves: no corners. */
function smoothRing(points: readonly At[]): string {
  if (points.length < 3) return ring(points)
  const middle = (one: At, other: At): At => ({
    x: (one.x + other.x) / 2,
    y: (one.y + other.y) / 2,
  })
  const curves = points.map((point, i) => {
    const next = points[(i + 1) % points.length]!
    return `Q${at(point)} ${at(middle(point, next))}`
  })
  return `M${at(middle(points.at(-1)!, points[0]!))}${curves.join('')}Z`
}

function ruledPaths(shape: 'line' | 'circle', from: At, to: At): string[] {
  if (shape === 'line') return [`M${at(from)}L${at(to)}`]
  return [roundOf(from, Math.round(Math.hypot(to.x - from.x, to.y - from.y)))]
}
