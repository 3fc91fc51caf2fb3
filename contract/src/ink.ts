import {
  ARROW_NAMES,
  COIN_VALUES,
  FURTHEST_NUMBER,
  INK_FORMAT,
  LABEL_GROUND_NAMES,
  LABEL_SIZES,
  LITTLE_NAMES,
  LONGEST_NUMBER_LINE,
  LONGEST_SPOT_NAME,
  LONGEST_TILE,
  MOST_HOLES,
  MOST_LABEL_LETTERS,
  MOST_LABEL_LINES,
  SHAPE_NAMES,
  SPOT_KINDS,
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
import { LONGEST_TALK_MS, MOST_TALK_CHANGES, MOST_TALK_STEPS } from '@nibquill/core/ink/talk'
import { fault, MAX_PART_NAME_LENGTH } from '@nibquill/core'
import * as v from 'valibot'
import { Id, text } from './common.ts'

const MOST_EXPECTED = 500

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
/** The teacher put it on a starter sheet to stay. */
const fixed = v.optional(v.literal(true))
const drawn = { id: ThingId, pen: Pen, fixed }
const placed = {
  id: ThingId,
  fixed,
  at: Where,
  turn: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(359)),
  locked: v.boolean(),
}
const whole = (low: number, high: number) =>
  v.pipe(v.number(), v.integer(), v.minValue(low), v.maxValue(high))
const StampWhat = v.variant('of', [
  v.strictObject({ of: v.literal('shape'), name: v.picklist(SHAPE_NAMES) }),
  v.strictObject({ of: v.literal('arrow'), name: v.picklist(ARROW_NAMES) }),
  v.strictObject({
    of: v.literal('tile'),
    words: v.pipe(v.string(), v.minLength(1), v.maxLength(LONGEST_TILE)),
  }),
  v.strictObject({ of: v.literal('ten-frame'), count: whole(0, 10) }),
  v.pipe(
    v.strictObject({
      of: v.literal('number-line'),
      from: whole(-FURTHEST_NUMBER, FURTHEST_NUMBER),
      to: whole(-FURTHEST_NUMBER, FURTHEST_NUMBER),
    }),
    v.check(({ from, to }) => to > from && to - from <= LONGEST_NUMBER_LINE, fault('unusable')),
  ),
  v.strictObject({ of: v.literal('clock'), hours: whole(1, 12), minutes: whole(0, 59) }),
  v.strictObject({ of: v.literal('coin'), value: v.picklist(COIN_VALUES) }),
  v.strictObject({ of: v.literal('little'), name: v.picklist(LITTLE_NAMES) }),
])
const Thing = v.variant('kind', [
  v.strictObject({ ...drawn, kind: v.literal('line'), points: Points }),
  v.strictObject({
    ...drawn,
    kind: v.literal('patch'),
    points: Points,
    holes: v.optional(v.pipe(v.array(Points), v.maxLength(MOST_HOLES))),
  }),
  v.strictObject({
    ...drawn,
    kind: v.literal('ruled'),
    shape: v.picklist(['line', 'circle']),
    from: Where,
    to: Where,
  }),
  v.strictObject({
    ...placed,
    kind: v.literal('label'),
    pen: Pen,
    lines: v.pipe(
      v.array(v.pipe(v.string(), v.maxLength(MOST_LABEL_LETTERS))),
      v.minLength(1),
      v.maxLength(MOST_LABEL_LINES),
    ),
    size: v.picklist(LABEL_SIZES.map((_, size) => size)),
    ground: v.picklist(LABEL_GROUND_NAMES),
    pointer: v.nullable(Where),
  }),
  v.strictObject({
    ...placed,
    kind: v.literal('stamp'),
    pen: Pen,
    what: StampWhat,
    width: SheetEdge,
    height: SheetEdge,
  }),
  v.strictObject({
    ...placed,
    kind: v.literal('picture'),
    mediaId: Id,
    width: SheetEdge,
    height: SheetEdge,
  }),
  v.strictObject({
    ...placed,
    kind: v.literal('spot'),
    takes: v.picklist(SPOT_KINDS),
    words: v.pipe(v.string(), v.maxLength(LONGEST_SPOT_NAME)),
    width: SheetEdge,
    height: SheetEdge,
  }),
])

const Sheet = v.strictObject({
  id: ThingId,
  width: SheetEdge,
  height: SheetEdge,
  paper: v.picklist(PAPERS),
  things: v.pipe(v.array(Thing), v.maxLength(MOST_THINGS)),
})

const things = v.pipe(v.array(Thing), v.minLength(1), v.maxLength(MOST_THINGS))
const below = v.nullable(ThingId)
/** What is done to one sheet. */
const ON_SHEET = [
  v.strictObject({ kind: v.literal('put'), sheetId: ThingId, things, below }),
  v.strictObject({ kind: v.literal('set'), sheetId: ThingId, things }),
  v.strictObject({
    kind: v.literal('take'),
    sheetId: ThingId,
    ids: v.pipe(v.array(ThingId), v.maxLength(MOST_THINGS)),
  }),
] as const
/** One thing done to a drawing. @see core/src/ink/changes.ts for what each means */
export const InkChange = v.variant('kind', [
  ...ON_SHEET,
  v.strictObject({ kind: v.literal('paper'), sheetId: ThingId, paper: v.picklist(PAPERS) }),
  v.strictObject({ kind: v.literal('put-sheet'), sheet: Sheet, below }),
  v.strictObject({ kind: v.literal('take-sheet'), sheetId: ThingId }),
])
/** More at once than a tablet sends. */
const MOST_CHANGES = 500
/**
 * A talk-through: the sheet as it lay there when somebody began to talk, and what they did to it on
 * the clock of their voice, in its order.
 * @see core/src/ink/talk.ts for what each means
 */
export const Talk = v.strictObject({
  start: Sheet,
  steps: v.pipe(
    v.array(
      v.strictObject({
        atMs: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(2 * LONGEST_TALK_MS)),
        changes: v.pipe(v.array(v.variant('kind', ON_SHEET)), v.maxLength(MOST_CHANGES)),
      }),
    ),
    v.maxLength(MOST_TALK_STEPS),
    v.check(
      (steps) => steps.every(({ atMs }, i) => i === 0 || atMs >= steps[i - 1]!.atMs),
      fault('unusable'),
    ),
    v.check(
      (steps) => steps.reduce((sum, { changes }) => sum + changes.length, 0) <= MOST_TALK_CHANGES,
      fault('too-many', MOST_TALK_CHANGES),
    ),
  ),
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
/** The ink of a talk-through, as it is read: its sheet as it was left, and how it came there. */
export const InkOfTalk = v.strictObject({ ...InkDocument.entries, talk: Talk })
export type InkOfTalk = v.InferOutput<typeof InkOfTalk>

/**
 * POST /api/pieces/:id/parts/:partId/ink: what was drawn, in its order. What arrived before changes
 * nothing when it arrives again; 409 `piece/drawing-full` when a drawing would hold more than one may.
 */
export const DrawOn = v.strictObject({
  changes: v.pipe(v.array(InkChange), v.minLength(1), v.maxLength(MOST_CHANGES)),
})
export type DrawOn = v.InferOutput<typeof DrawOn>

/**
 * PUT /api/pieces/:id/parts/:partId/talk: puts a talk-through into the piece, last; the same again
 * changes nothing. `sound` has arrived before; pictures under it hang on the piece already, or were
 * sent by whoever talks. 409 `piece/drawing-full` when a drawing would hold more than one may.
 */
export const AddTalk = v.strictObject({
  name: text(MAX_PART_NAME_LENGTH),
  sound: Id,
  talk: Talk,
})
export type AddTalk = v.InferOutput<typeof AddTalk>

/**
 * What a teacher expects on a starter sheet: which thing on which spot, and which words. No pupil
 * is told.
 */
export const Expected = v.strictObject({
  lies: v.pipe(
    v.array(v.strictObject({ thingId: ThingId, spotId: ThingId })),
    v.maxLength(MOST_EXPECTED),
  ),
  says: v.pipe(
    v.array(
      v.strictObject({
        spotId: ThingId,
        words: v.pipe(v.string(), v.maxLength(MOST_LABEL_LETTERS)),
      }),
    ),
    v.maxLength(MOST_EXPECTED),
  ),
})

/**
 * PUT /api/tasks/:id/sheet: the starter sheet of a task, or none. `seenMediaId`: of the sheet its
 * teacher began from; where another is there by now, nothing is written over (409 `task/stale`).
 * An offer of the sheet before ends with it.
 */
export const PutSheet = v.strictObject({
  ink: v.nullable(InkDocument),
  seenMediaId: v.nullable(Id),
  expected: Expected,
})
export type PutSheet = v.InferOutput<typeof PutSheet>

/**
 * PUT /api/review/pieces/:id/mark-ups/:versionId/:partId: what a teacher writes on a copy of a part as
 * it was handed in; null takes it away. `seenMediaId`: of the ink its teacher began from, null for
 * none; 409 `piece/marked-already` where another is there by now.
 */
export const PutMarkUp = v.strictObject({
  ink: v.nullable(InkDocument),
  seenMediaId: v.nullable(Id),
})
export type PutMarkUp = v.InferOutput<typeof PutMarkUp>
