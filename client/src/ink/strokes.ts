import type { InkChange } from '@nibquill/core/ink/changes'
import { drawOn } from '@nibquill/core/ink/changes'
import { showLine, showPatch, showRuled, type Shown } from '@nibquill/core/ink/display'
import {
  MOST_POINTS,
  UNITS_PER_MM,
  type At,
  type InkSheet,
  type Thing,
} from '@nibquill/core/ink/document'
import { Hand, type Sample } from '@nibquill/core/ink/hand'
import { roundOf } from '@nibquill/core/ink/paths'
import { packPoints } from '@nibquill/core/ink/points'
import { rubSheet, thingAt } from '@nibquill/core/ink/rubSheet'
import { measureOf, snapRuler } from '@nibquill/core/ink/ruler'
import { v7 as newId } from 'uuid'
import { penOf, RUBBERS, type Hold } from './hold'
import type { Frame } from '../sheets/paint'

/** What a hand does between putting down and lifting. */
export type Stroke = {
  move: (sample: Sample) => void
  /** What is to be seen of it, above the sheet. */
  shown: () => readonly Shown[]
  /** The sheet as it is meanwhile, where that is changed already. */
  sheet: () => InkSheet | null
  measure: () => { at: At; cm: number; degrees: number | null } | null
  /** Round what it moves. @param reach - Of a finger, in units. */
  frame: (reach: number) => Frame | null
  /** @returns what it did, once the hand is lifted */
  lift: () => readonly InkChange[]
}

/** A hand that moved less was only put down. */
const TAP = 1.5 * UNITS_PER_MM
/** Smaller than this nothing was drawn round. */
const LEAST_PATCH = 3
const on = (sheet: InkSheet, thing: Thing): InkChange[] => [
  { kind: 'put', sheetId: sheet.id, things: [thing], below: null },
]
const NOTHING_ELSE = { sheet: () => null, measure: () => null, frame: () => null }

export function beginStroke(hold: Hold, sheet: InkSheet, first: Sample): Stroke {
  switch (hold.tool) {
    case 'nib':
    case 'patch':
      return handStroke(hold, sheet, first)
    case 'ruler':
      return rulerStroke(hold, sheet, first)
    case 'rubber':
      return rubberStroke(RUBBERS[hold.rubber]!, sheet, first)
  }
}

function handStroke(hold: Hold, sheet: InkSheet, first: Sample): Stroke {
  const hand = new Hand()
  const pen = penOf(hold)
  hand.add(first)
  return {
    ...NOTHING_ELSE,
    move: (sample) => {
      if (hand.points.length < MOST_POINTS) hand.add(sample)
    },
    shown: () => [hold.tool === 'nib' ? showLine(pen, hand.points) : showPatch(pen, hand.points)],
    lift: () => {
      const points = packPoints(hand.points)
      if (hold.tool === 'nib') return on(sheet, { kind: 'line', id: newId(), pen, points })
      return hand.points.length < LEAST_PATCH
        ? []
        : on(sheet, { kind: 'patch', id: newId(), pen, points })
    },
  }
}

function rulerStroke(hold: Hold, sheet: InkSheet, { x, y }: Sample): Stroke {
  const pen = penOf(hold)
  const from = { x: Math.round(x), y: Math.round(y) }
  let to = from
  return {
    ...NOTHING_ELSE,
    move: (sample) => {
      to = snapRuler(hold.ruled, from, { x: Math.round(sample.x), y: Math.round(sample.y) })
    },
    shown: () => showRuled(pen, hold.ruled, from, to),
    measure: () => {
      const { cm, degrees } = measureOf({ from, to })
      return { at: to, cm, degrees: hold.ruled === 'line' ? degrees : null }
    },
    lift: () =>
      Math.hypot(to.x - from.x, to.y - from.y) < TAP
        ? []
        : on(sheet, { kind: 'ruled', id: newId(), pen, shape: hold.ruled, from, to }),
  }
}

/** Over lines it takes parts of them away; put down on one and lifted, the whole of it. */
function rubberStroke(radius: number, before: InkSheet, first: Sample): Stroke {
  const changes: InkChange[] = []
  let sheet = before
  let last: At = first
  let rubs = false
  const rub = (to: At) => {
    const more = rubSheet(sheet, { from: last, to, radius }, newId)
    last = to
    if (more.length === 0) return
    changes.push(...more)
    sheet = drawOn({ format: 'nibquill-ink', version: 1, sheets: [sheet] }, more).sheets[0]!
  }
  return {
    move: ({ x, y }) => {
      rubs ||= Math.hypot(x - first.x, y - first.y) > TAP
      if (rubs) rub({ x, y })
    },
    shown: () => [ringOf(last, radius)],
    sheet: () => (changes.length > 0 ? sheet : null),
    measure: () => null,
    frame: () => null,
    lift: () => {
      if (rubs) return changes
      const thing = thingAt(before, first, radius)
      return thing ? [{ kind: 'take', sheetId: before.id, ids: [thing.id] }] : []
    },
  }
}

/** Where the rubber is. */
const ringOf = (at: At, radius: number): Shown => ({
  ...{ path: roundOf(at, radius), fill: '#E3A9A3' },
  ...{ line: { colour: '#5E5146', width: 30 }, cover: 0.6 },
})
