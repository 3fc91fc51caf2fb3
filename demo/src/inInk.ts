import {
  emptySheet,
  newInk,
  NIB_WIDTHS,
  type At,
  type InkDocument,
  type Paper,
  type Pen,
  type Thing,
} from '@nibquill/core/ink/document'
import type { Talk } from '@nibquill/core/ink/talk'
import type { Ink } from '@nibquill/core/ink/inks'
import { packPoints } from '@nibquill/core/ink/points'
import { STAMP_SIZES } from '@nibquill/core/ink/stamps'
import type { Chance } from './chance.ts'
import type { DrawingName } from './drawings/index.ts'

const MM = 100
export const SHEET = 'sheet'

/** A child's hand on a tablet: places in millimetres, and a little beside them. */
export class Child {
  readonly things: Thing[] = []
  readonly #chance: Chance
  constructor(chance: Chance) {
    this.#chance = chance
  }

  #off = (mm: number): number => this.#chance.between(-mm, mm)
  #id = (): string => `t${this.things.length + 1}`

  /** From place to place, not quite straight, pressed now more, now less. */
  #hand(places: readonly At[], shake: number) {
    const points: At[] = []
    for (const [i, to] of places.entries()) {
      const from = places[Math.max(0, i - 1)]!
      const steps = Math.max(1, Math.round(Math.hypot(to.x - from.x, to.y - from.y) / 2.5))
      for (let n = i === 0 ? steps : 1; n <= steps; n++)
        points.push({
          x: from.x + ((to.x - from.x) * n) / steps + this.#off(shake),
          y: from.y + ((to.y - from.y) * n) / steps + this.#off(shake),
        })
    }
    return packPoints(
      points.map(({ x, y }, i) => ({
        ...{ x: x * MM, y: y * MM, timeMs: i * 24 },
        pressure: 0.5 + 0.22 * Math.sin(i / 5) + this.#off(0.06),
      })),
    )
  }

  line(ink: Ink, nib: number, ...places: [x: number, y: number][]): this {
    const pen: Pen = { ink, water: 0, edge: null, width: NIB_WIDTHS[nib]! }
    const points = this.#hand(places.map(at), 0.35)
    this.things.push({ kind: 'line', id: this.#id(), pen, points })
    return this
  }

  patch(
    ink: Ink,
    water: Pen['water'],
    edge: Ink | null,
    ...places: [x: number, y: number][]
  ): this {
    const pen: Pen = { ink, water, edge, width: 180 }
    const points = this.#hand(places.map(at), 0.4)
    this.things.push({ kind: 'patch', id: this.#id(), pen, points })
    return this
  }

  label(words: string, x: number, y: number, pointer: [x: number, y: number] | null): this {
    this.things.push({
      ...{ kind: 'label', id: this.#id(), lines: [words], size: 1, ground: 'white', locked: false },
      ...{ at: { x: x * MM, y: y * MM }, turn: 0 },
      pen: { ink: ['soot'], water: 0, edge: null, width: 180 },
      pointer: pointer && { x: pointer[0] * MM, y: pointer[1] * MM },
    })
    return this
  }

  stamp(what: Extract<Thing, { kind: 'stamp' }>['what'], ink: Ink, x: number, y: number): this {
    const { width, height } = STAMP_SIZES[what.of]
    this.things.push({
      ...{ kind: 'stamp', id: this.#id(), what, width, height, locked: false, turn: 0 },
      ...{ at: { x: x * MM, y: y * MM } },
      pen: { ink, water: 0, edge: null, width: 180 },
    })
    return this
  }
}

const at = ([x, y]: [x: number, y: number]): At => ({ x, y })
/** Round, as well as a child can. */
export const round = (
  x: number,
  y: number,
  rx: number,
  ry: number,
  steps = 18,
): [number, number][] =>
  Array.from({ length: steps + 1 }, (_, i) => [
    x + rx * Math.cos((2 * Math.PI * i) / steps),
    y + ry * Math.sin((2 * Math.PI * i) / steps),
  ])
export const wave = (y: number, from: number, to: number): [number, number][] =>
  Array.from({ length: 20 }, (_, i) => [from + ((to - from) * i) / 19, y + 2.4 * Math.sin(i * 1.1)])

function crab(child: Child): Child {
  child.patch(
    ['straw'],
    1,
    null,
    [2, 96],
    [50, 92],
    [110, 97],
    [158, 93],
    [158, 118],
    [2, 118],
    [2, 97],
  )
  for (const side of [-1, 1])
    for (const leg of [0, 1, 2])
      child.line(
        ['clay'],
        3,
        [80 + side * 26, 70 + leg * 6],
        [80 + side * (44 + leg * 2), 62 + leg * 12],
        [80 + side * (50 + leg * 3), 82 + leg * 9],
      )
  for (const side of [-1, 1]) {
    child.line(['clay'], 3, [80 + side * 24, 56], [80 + side * 40, 44], [80 + side * 42, 34])
    child.patch(['clay'], 0, ['soot'], ...round(80 + side * 43, 26, 9, 7, 12))
    child.line(['chalk'], 2, [80 + side * 36, 22], [80 + side * 45, 27])
  }
  child.patch(['clay', 'ochre'], 0, ['soot'], ...round(80, 66, 30, 19))
  for (const side of [-1, 1]) {
    child.line(['soot'], 1, [80 + side * 9, 48], [80 + side * 10, 39])
    child.patch(['soot'], 0, null, ...round(80 + side * 10, 37, 2.4, 2.4, 10))
  }
  child.line(['soot'], 2, [70, 70], [75, 76], [84, 77], [91, 70])
  return child
    .label('claw', 22, 12, [34, 24])
    .label('shell', 82, 108, [84, 84])
    .label('eye', 118, 34, [92, 37])
}

function fish(child: Child): Child {
  for (const x of [14, 26, 142])
    child.line(['moss'], 3, [x, 118], [x - 5, 100], [x + 5, 84], [x - 3, 66])
  child.patch(['sea'], 0, ['indigo'], ...round(78, 58, 40, 21))
  child.patch(
    ['sea', 'heather'],
    0,
    ['indigo'],
    [116, 58],
    [142, 38],
    [136, 58],
    [142, 80],
    [116, 60],
  )
  child.line(['indigo'], 2, [62, 44], [68, 58], [62, 72])
  for (const [x, y] of [
    [80, 50],
    [92, 56],
    [82, 66],
    [98, 64],
  ] as const)
    child.line(['chalk'], 1, [x, y - 4], [x + 5, y], [x, y + 4])
  child.patch(['chalk'], 0, ['soot'], ...round(52, 52, 4, 4, 12))
  child.patch(['soot'], 0, null, ...round(51, 52, 1.8, 1.8, 8))
  for (const [x, y] of [
    [30, 40],
    [24, 28],
    [31, 16],
  ] as const)
    child.line(['sea'], 1, ...round(x, y, 3, 3, 10))
  return child.label('gills', 66, 96, [64, 70]).label('tail', 138, 20, [138, 42])
}

function lighthouse(child: Child): Child {
  child.patch(
    ['verdigris'],
    0,
    null,
    [0, 100],
    [40, 92],
    [76, 90],
    [118, 94],
    [160, 100],
    [160, 120],
    [0, 120],
    [0, 101],
  )
  child.patch(['chalk'], 0, ['soot'], [64, 96], [70, 34], [94, 34], [101, 96], [64, 96])
  child.patch(['madder'], 0, null, [67, 74], [68, 60], [97, 60], [98, 74], [67, 74])
  child.patch(['madder'], 0, null, [69, 48], [70, 36], [94, 36], [95, 48], [69, 48])
  child.patch(['straw'], 0, ['soot'], [72, 34], [72, 22], [92, 22], [92, 34], [72, 34])
  child.patch(['soot'], 0, null, [69, 22], [82, 10], [95, 22], [69, 22])
  child.patch(['straw'], 2, null, [94, 26], [158, 8], [158, 44], [94, 30], [94, 26])
  for (const y of [104, 110, 116]) child.line(['sea'], 2, ...wave(y, 6, 154))
  return child
    .stamp({ of: 'little', name: 'boat' }, ['clay'], 30, 86)
    .label('the light turns', 42, 26, [72, 28])
}

function ten(child: Child): Child {
  for (const [i, count] of [7, 4, 9].entries()) {
    const y = 22 + i * 36
    child.stamp(
      { of: 'ten-frame', count },
      (['sea', 'moss', 'madder'] as const).slice(i, i + 1),
      44,
      y,
    )
    for (const [n, words] of [`${count}`, '+', `${10 - count}`, '='].entries())
      child.stamp({ of: 'tile', words }, ['indigo'], 90 + n * 15.2, y)
    // The answer is written by hand.
    child.line(['soot'], 2, [148, y - 6], [148, y + 6])
    child.line(['soot'], 2, ...round(154, y, 3, 6, 14))
  }
  return child
}

function clocks(child: Child): Child {
  const times = [
    [7, 30, 'I wake up'],
    [9, 0, 'school'],
    [12, 15, 'lunch'],
  ] as const
  for (const [i, [hours, minutes, words]] of times.entries()) {
    const x = 30 + i * 50
    child.stamp({ of: 'clock', hours, minutes }, ['sea'], x, 40).label(words, x, 76, null)
  }
  child.stamp({ of: 'little', name: 'sun' }, ['straw', 'ochre'], 30, 100)
  child.stamp({ of: 'little', name: 'house' }, ['clay'], 80, 100)
  child.patch(['madder'], 0, ['soot'], ...round(130, 103, 11, 10, 12))
  child.line(['soot'], 2, [130, 94], [132, 87])
  child.patch(['moss'], 0, null, [132, 90], [140, 85], [142, 91], [132, 91])
  return child
}

/** What of the demo's work can also be drawn on a tablet, and on which paper. */
const IN_INK: Partial<Record<DrawingName, { paper: Paper; draw: (child: Child) => Child }>> = {
  crab: { paper: 'plain', draw: crab },
  fish: { paper: 'plain', draw: fish },
  lighthouse: { paper: 'plain', draw: lighthouse },
  tenFrames: { paper: 'squared', draw: ten },
  clockFaces: { paper: 'plain', draw: clocks },
}
export const canBeInk = (drawing: DrawingName): boolean => drawing in IN_INK

/** A work as a child draws it on a tablet. @returns null for what is made otherwise */
export function drawInInk(drawing: DrawingName, chance: Chance): InkDocument | null {
  const work = IN_INK[drawing]
  if (!work) return null
  const { things } = work.draw(new Child(chance))
  return { ...newInk(SHEET), sheets: [{ ...emptySheet(SHEET, work.paper), things }] }
}

/** A child's words about their work last about so long. */
const TALK_MS = 6000
const FIRST_LINE_MS = 400

/**
 * A work drawn on a tablet while its child talks about it, each thing after the other.
 * @param drawing - One of those that can be drawn.
 */
export function drawWhileTalking(drawing: DrawingName, chance: Chance): Talk {
  const [sheet] = drawInInk(drawing, chance)!.sheets
  const { things, ...bare } = sheet!
  const each = (TALK_MS - FIRST_LINE_MS) / things.length
  return {
    start: { ...bare, things: [] },
    steps: things.map((thing, i) => ({
      atMs: Math.round(FIRST_LINE_MS + (i + 1) * each),
      changes: [
        { kind: 'put', sheetId: bare.id, things: [inTime(thing, 0.8 * each)], below: null },
      ],
    })),
  }
}

/** As fast as is needed for a line to be drawn in so long. */
function inTime(thing: Thing, ms: number): Thing {
  if (!('points' in thing)) return thing
  const took = thing.points.t.reduce((sum, more) => sum + more, 0)
  const t = thing.points.t.map((more) => Math.floor((more * ms) / Math.max(took, ms)))
  return { ...thing, points: { ...thing.points, t } }
}
