import {
  INK_FORMAT,
  INK_VERSION,
  LONGEST_EDGE,
  MOST_POINTS,
  MOST_SHEETS,
  MOST_THINGS,
  PAPERS,
  UNITS_PER_MM,
  WATERS,
  WIDEST_LINE,
} from '@nibquill/core/ink/document'
import { MOST_DROPS, WELL_NAMES } from '@nibquill/core/ink/inks'
import { fault } from '@nibquill/core'
import * as v from 'valibot'

/** Whole hundredths of a millimetre. A line may run a little off the sheet. */
const units = (low: number, high: number) =>
  v.pipe(v.number(), v.integer(), v.minValue(low), v.maxValue(high))
const Where = v.strictObject({
  x: units(-LONGEST_EDGE, 2 * LONGEST_EDGE),
  y: units(-LONGEST_EDGE, 2 * LONGEST_EDGE),
})
const ThingId = v.pipe(v.string(), v.regex(/^[\w-]{1,64}$/))
const SheetEdge = units(UNITS_PER_MM, LONGEST_EDGE)

const Ink = v.pipe(v.array(v.picklist(WELL_NAMES)), v.minLength(1), v.maxLength(MOST_DROPS))
const Pen = v.strictObject({
  ink: Ink,
  water: v.picklist(WATERS),
  edge: v.nullable(Ink),
  width: units(1, WIDEST_LINE),
})

/** The first is a value, each other one the difference to the one before it. */
const differences = (low: number, high: number) =>
  v.pipe(
    v.array(v.pipe(v.number(), v.integer())),
    v.minLength(1),
    v.maxLength(MOST_POINTS),
    v.check((values) => {
      let sum = 0
      return values.every((value) => (sum += value) >= low && sum <= high)
    }, fault('unusable')),
  )
const DAY_MS = 24 * 3600 * 1000
const Points = v.pipe(
  v.strictObject({
    x: differences(-LONGEST_EDGE, 2 * LONGEST_EDGE),
    y: differences(-LONGEST_EDGE, 2 * LONGEST_EDGE),
    t: differences(0, DAY_MS),
    p: differences(0, 255),
  }),
  v.check(
    ({ x, y, t, p }) => x.length === y.length && y.length === t.length && t.length === p.length,
    fault('unusable'),
  ),
)
const drawn = { id: ThingId, pen: Pen }
const Thing = v.variant('kind', [
  v.strictObject({ ...drawn, kind: v.literal('line'), points: Points }),
  v.strictObject({ ...drawn, kind: v.literal('patch'), points: Points }),
  v.strictObject({
    ...drawn,
    kind: v.literal('ruled'),
    shape: v.picklist(['line', 'circle']),
    from: Where,
    to: Where,
  }),
])

const Sheet = v.strictObject({
  id: ThingId,
  width: SheetEdge,
  height: SheetEdge,
  paper: v.picklist(PAPERS),
  things: v.pipe(v.array(Thing), v.maxLength(MOST_THINGS)),
})

/**
 * A file of kind ink, as it is sent and read. Told in full in docs/ink-document.md.
 * @see core/src/ink/document.ts for what each means
 */
export const InkDocument = v.strictObject({
  format: v.literal(INK_FORMAT),
  version: v.literal(INK_VERSION),
  sheets: v.pipe(v.array(Sheet), v.minLength(1), v.maxLength(MOST_SHEETS)),
})
export type InkDocument = v.InferOutput<typeof InkDocument>

const things = v.pipe(v.array(Thing), v.minLength(1), v.maxLength(MOST_THINGS))
const below = v.nullable(ThingId)
/** One thing done to a drawing. @see core/src/ink/changes.ts for what each means */
export const InkChange = v.variant('kind', [
  v.strictObject({ kind: v.literal('put'), sheetId: ThingId, things, below }),
  v.strictObject({ kind: v.literal('set'), sheetId: ThingId, things }),
  v.strictObject({
    kind: v.literal('take'),
    sheetId: ThingId,
    ids: v.pipe(v.array(ThingId), v.maxLength(MOST_THINGS)),
  }),
  v.strictObject({ kind: v.literal('paper'), sheetId: ThingId, paper: v.picklist(PAPERS) }),
  v.strictObject({ kind: v.literal('put-sheet'), sheet: Sheet, below }),
  v.strictObject({ kind: v.literal('take-sheet'), sheetId: ThingId }),
])
/** More at once than a tablet sends. */
const MOST_CHANGES = 500
/**
 * POST /api/pieces/:id/parts/:partId/ink: what was drawn, in its order. What arrived before changes
 * nothing when it arrives again; 409 `piece/drawing-full` when a drawing would hold more than one may.
 */
export const DrawOn = v.strictObject({
  changes: v.pipe(v.array(InkChange), v.minLength(1), v.maxLength(MOST_CHANGES)),
})
export type DrawOn = v.InferOutput<typeof DrawOn>
