import {
  emptySheet,
  newInk,
  type InkDocument as Ink,
  type Thing,
} from '@nibquill/core/ink/document'
import { packPoints } from '@nibquill/core/ink/points'
import * as v from 'valibot'
import { InkDocument } from './ink.ts'

const PEN = { ink: ['sea', 'straw'], water: 1, edge: ['soot'], width: 90 } as const
const points = packPoints([
  { x: 100, y: 100, timeMs: 0, pressure: 0.5 },
  { x: 900, y: 400, timeMs: 16, pressure: 1 },
])
const THINGS: Thing[] = [
  { kind: 'line', id: 'a', pen: PEN, points },
  { kind: 'patch', id: 'b', pen: { ...PEN, edge: null }, points },
  { kind: 'ruled', id: 'c', pen: PEN, shape: 'circle', from: { x: 1, y: 2 }, to: { x: 3, y: 4 } },
]
const drawn: Ink = { ...newInk('s'), sheets: [{ ...emptySheet('s'), things: THINGS }] }
const withThing = (thing: object) => ({
  ...drawn,
  sheets: [{ ...drawn.sheets[0]!, things: [thing] }],
})
const withSheet = (change: object) => ({ ...drawn, sheets: [{ ...drawn.sheets[0]!, ...change }] })

test('what is drawn is taken as it is', () => {
  expect(v.parse(InkDocument, JSON.parse(JSON.stringify(drawn)))).toEqual(drawn)
})

test.each([
  ['of a later version', { ...drawn, version: 2 }],
  ['of another format', { ...drawn, format: 'other' }],
  ['without a sheet', { ...drawn, sheets: [] }],
  ['with something nobody knows', { ...drawn, made: 'by hand' }],
  ['sixty centimetres wide', withSheet({ width: 60_000 })],
  ['without a width', withSheet({ width: 0 })],
  ['on a paper there is not', withSheet({ paper: 'wall' })],
  ['with half a unit', withSheet({ width: 100.5 })],
  ['with a thing of no kind', withThing({ kind: 'sprite', id: 'a', pen: PEN, points })],
  ['with an ink of no well', withThing({ ...THINGS[0], pen: { ...PEN, ink: ['neon'] } })],
  ['with no ink at all', withThing({ ...THINGS[0], pen: { ...PEN, ink: [] } })],
  ['with a pen as broad as a hand', withThing({ ...THINGS[0], pen: { ...PEN, width: 9000 } })],
  ['with a name that is markup', withThing({ ...THINGS[0], id: '"><script>' })],
  ['with lists of unequal length', withThing({ ...THINGS[0], points: { ...points, t: [0] } })],
  ['that runs away step by step', withThing({ ...THINGS[0], points: away() })],
  ['pressed harder than can be', withThing({ ...THINGS[0], points: { ...points, p: [200, 100] } })],
])('a document %s is refused', (_why, document) => {
  expect(v.safeParse(InkDocument, document).success).toBe(false)
})

/** Each difference is small; what they add up to is not. */
function away() {
  const steps = Array<number>(2000).fill(100)
  const still = Array<number>(2000).fill(0)
  return { x: steps, y: still, t: still, p: still }
}

test('a line of 20,000 points is taken, one more is not', () => {
  const of = (count: number) => {
    const still = Array<number>(count).fill(0)
    return withThing({ ...THINGS[0], points: { x: still, y: still, t: still, p: still } })
  }
  expect(v.safeParse(InkDocument, of(20_000)).success).toBe(true)
  expect(v.safeParse(InkDocument, of(20_001)).success).toBe(false)
})
