import type { Ink } from './inks.ts'
import type { PackedPoints } from './points.ts'
import { SHEET_SIZE, UNITS_PER_MM } from './sheetSize.ts'

export { SHEET_SIZE, UNITS_PER_MM }

/**
 * Everything drawn, as data: what is looked at on a screen, printed, and drawn further years later.
 * Written down for everybody in docs/ink-document.md.
 */
export const INK_FORMAT = 'nibquill-ink'
/** Of the format. One that is later than this is shown as far as it is understood, never changed. */
export const INK_VERSION = 1

/** A3, the long way: no sheet, and nothing on one, is larger. */
export const LONGEST_EDGE = 420 * UNITS_PER_MM

export const MOST_SHEETS = 20
/** Of one sheet: more than an hour of scribbling makes. */
export const MOST_THINGS = 5000
/** Of one line: five minutes without lifting the hand. */
export const MOST_POINTS = 20_000

export const PAPERS = [
  'plain',
  'ruled-8',
  'ruled-10',
  'ruled-12',
  'squared',
  'dotted',
  'isometric',
  'staves',
  'map',
] as const
export type Paper = (typeof PAPERS)[number]

/** How far the nib is pulled out: the width of its line in units, from a hair to a finger. */
export const NIB_WIDTHS = [40, 90, 180, 360, 800] as const

/** No pen draws wider. */
export const WIDEST_LINE = 20 * UNITS_PER_MM

/** How much water an ink takes: none, and three strengths, each more see-through. */
export const WATERS = [0, 1, 2, 3] as const
export type Water = (typeof WATERS)[number]

/** What an ink is put down with. `edge`: the ink that edges it, or none. */
export type Pen = { ink: Ink; water: Water; edge: Ink | null; width: number }

/** `fixed`: the teacher put it on a starter sheet to stay; absent on whatever else. */
type Drawn = { id: string; pen: Pen; fixed?: true | undefined }
/** A line of the Nib, as the hand moved. */
export type NibLine = Drawn & { kind: 'line'; points: PackedPoints }
/**
 * What was drawn round with the Patch, filled. `holes`: what was rubbed out of it, each going round
 * the other way than `points`.
 */
export type Patch = Drawn & {
  kind: 'patch'
  points: PackedPoints
  holes?: readonly PackedPoints[] | undefined
}
export const MOST_HOLES = 200
/** A straight line, or a circle around `from` through `to`, of the Ruler. */
export type Ruled = Drawn & { kind: 'ruled'; shape: 'line' | 'circle'; from: At; to: At }
export type At = { x: number; y: number }

/** What is put down and can be moved: by its middle; `turn`: whole degrees, with the clock. */
type Placed = { id: string; at: At; turn: number; locked: boolean; fixed?: true | undefined }

/** How large the words of a label are, from the top of a letter's room to its bottom. */
export const LABEL_SIZES = [450, 650, 950, 1400] as const
/** What lies behind the words. */
export const LABEL_GROUNDS = {
  ...{ none: null, white: '#FFFFFF', straw: '#FBEBD0', sea: '#E1EAF4' },
  ...{ moss: '#DDEFEC', clay: '#F8E2DB' },
} as const
export type LabelGround = keyof typeof LABEL_GROUNDS
export const LABEL_GROUND_NAMES = Object.keys(LABEL_GROUNDS) as readonly LabelGround[]
export const MOST_LABEL_LINES = 12
export const MOST_LABEL_LETTERS = 200
/** Words on the work; `pointer`: what they name. Every renderer sets these lines. */
export type Label = Placed & {
  kind: 'label'
  pen: Pen
  lines: readonly string[]
  size: number
  ground: LabelGround
  pointer: At | null
}

export const SHAPE_NAMES = [
  ...(['square', 'circle', 'triangle', 'right-triangle'] as const),
  ...(['diamond', 'pentagon', 'hexagon', 'star'] as const),
] as const
export const ARROW_NAMES = ['straight', 'both', 'bent'] as const
export const COIN_VALUES = [1, 2, 5, 10, 20, 50, 100, 200] as const
export const LITTLE_NAMES = [
  ...(['sun', 'cloud', 'drop', 'tree', 'leaf'] as const),
  ...(['fish', 'bird', 'shell', 'boat', 'house'] as const),
] as const
export const LONGEST_TILE = 3
export const FURTHEST_NUMBER = 1000
export const LONGEST_NUMBER_LINE = 100
/** Shapes and school things, each with what is set on it. Coins are of no country. */
export type StampWhat =
  | { of: 'shape'; name: (typeof SHAPE_NAMES)[number] }
  | { of: 'arrow'; name: (typeof ARROW_NAMES)[number] }
  /** A number, a letter or a sign. */
  | { of: 'tile'; words: string }
  | { of: 'ten-frame'; count: number }
  | { of: 'number-line'; from: number; to: number }
  | { of: 'clock'; hours: number; minutes: number }
  | { of: 'coin'; value: (typeof COIN_VALUES)[number] }
  | { of: 'little'; name: (typeof LITTLE_NAMES)[number] }
export type StampOf<Of extends StampWhat['of']> = Extract<StampWhat, { of: Of }>
/** `width`, `height`: unturned. */
export type Stamp = Placed & {
  kind: 'stamp'
  pen: Pen
  what: StampWhat
  width: number
  height: number
}
/** `mediaId`: a picture that hangs on the same part. */
export type LaidPicture = Placed & {
  kind: 'picture'
  mediaId: string
  width: number
  height: number
}

/** What a spot takes: things to be sorted, or words. */
export const SPOT_KINDS = ['sort', 'gap'] as const
export type SpotKind = (typeof SPOT_KINDS)[number]
export const SPOT_SIZES = {
  sort: { width: 65 * UNITS_PER_MM, height: 45 * UNITS_PER_MM },
  gap: { width: 42 * UNITS_PER_MM, height: 12 * UNITS_PER_MM },
} as const satisfies Record<SpotKind, { width: number; height: number }>
export const LONGEST_SPOT_NAME = 60
/**
 * A place on a starter sheet that things are sorted into, or that words are put on. It stays on
 * every copy. `words`: what it is called, shown in it; may be empty.
 */
export type Spot = Placed & {
  kind: 'spot'
  takes: SpotKind
  words: string
  width: number
  height: number
}

/** What is drawn stays where the hand was; what is put down can be moved. */
export type DrawnThing = NibLine | Patch | Ruled
export type PlacedThing = Label | Stamp | LaidPicture | Spot
export type Thing = DrawnThing | PlacedThing
export const isPlaced = (thing: Thing): thing is PlacedThing => 'locked' in thing

/** One sheet of a drawing. What comes first in `things` lies lowest. */
export type InkSheet = {
  id: string
  width: number
  height: number
  paper: Paper
  things: readonly Thing[]
}
export type InkDocument = {
  format: typeof INK_FORMAT
  version: number
  sheets: readonly InkSheet[]
}

export const emptySheet = (id: string, paper: Paper = 'plain'): InkSheet => ({
  id,
  ...SHEET_SIZE,
  paper,
  things: [],
})
export const newInk = (sheetId: string): InkDocument => ({
  format: INK_FORMAT,
  version: INK_VERSION,
  sheets: [emptySheet(sheetId)],
})
