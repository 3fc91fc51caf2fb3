import {
  emptySheet,
  newInk,
  type NibLine,
  type Paper,
  type Pen,
  type Thing,
} from '@nibquill/core/ink/document'
import type { Talk } from '@nibquill/core/ink/talk'
import { STAMP_SIZES } from '@nibquill/core/ink/stamps'
import { packPoints } from '@nibquill/core/ink/points'

/** A stroke in Sea from one corner towards the other, in units. */
export const SEA_LINE: NibLine = {
  kind: 'line',
  id: 'line',
  pen: { ink: ['sea'], water: 0, edge: null, width: 800 },
  points: packPoints([
    { x: 2000, y: 2000, timeMs: 0, pressure: 1 },
    { x: 14_000, y: 10_000, timeMs: 900, pressure: 1 },
  ]),
}

/** The file of a drawing, as a tablet sends it. */
export const inkFile = (paper: Paper = 'plain', things: readonly Thing[] = [SEA_LINE]): Buffer =>
  Buffer.from(JSON.stringify({ ...newInk('s'), sheets: [{ ...emptySheet('s', paper), things }] }))

/** A stroke in Sea, drawn in the second second of what was said. */
export const talkOf = (things: readonly Thing[] = []): Talk => ({
  start: { ...emptySheet('s'), things },
  steps: [
    {
      atMs: 1900,
      changes: [{ kind: 'put', sheetId: 's', things: [SEA_LINE], below: null }],
    },
  ],
})

const pen = (change: Partial<Pen>): Pen => ({
  ...{ ink: ['sea'], water: 0, edge: null, width: 180 },
  ...change,
})
const wave = (fromY: number, steps: number) =>
  packPoints(
    Array.from({ length: steps }, (_, i) => ({
      x: 1000 + (i * 14_000) / steps,
      y: fromY + 900 * Math.sin(i / 9),
      timeMs: i * 16,
      pressure: 0.5 + 0.5 * Math.sin(i / 17),
    })),
  )

/** One of everything: each kind of thing, an edge, water, a mixed ink. */
export const EVERYTHING: readonly Thing[] = [
  {
    kind: 'patch',
    id: 'a',
    pen: pen({ ink: ['sea', 'straw'], edge: ['soot'] }),
    points: wave(8000, 60),
  },
  { kind: 'line', id: 'b', pen: pen({ ink: ['soot'] }), points: wave(2500, 120) },
  {
    kind: 'line',
    id: 'c',
    pen: pen({ ink: ['straw'], water: 2, width: 800 }),
    points: wave(3000, 120),
  },
  {
    kind: 'line',
    id: 'd',
    pen: pen({ ink: ['heather'], edge: ['soot'], width: 360 }),
    points: wave(5000, 90),
  },
  {
    ...{ kind: 'ruled', id: 'e', pen: pen({ ink: ['clay'], edge: ['soot'] }), shape: 'circle' },
    ...{ from: { x: 12_000, y: 9000 }, to: { x: 13_500, y: 10_000 } },
  },
  {
    ...{ kind: 'ruled', id: 'f', pen: pen({ ink: ['moss'], water: 1, width: 400 }), shape: 'line' },
    ...{ from: { x: 2000, y: 11_000 }, to: { x: 9000, y: 10_200 } },
  },
  {
    ...{ kind: 'label', id: 'g', pen: pen({ ink: ['aubergine'] }), turn: 345, locked: false },
    ...{ at: { x: 4000, y: 5800 }, lines: ['the crab', 'walks sideways'], size: 1 },
    ...{ ground: 'straw', pointer: { x: 6500, y: 7600 } },
  },
  {
    ...{ kind: 'stamp', id: 'h', pen: pen({ ink: ['madder'] }), turn: 0, locked: true },
    ...{ at: { x: 13_500, y: 3400 }, what: { of: 'clock', hours: 9, minutes: 45 } },
    ...STAMP_SIZES.clock,
  },
  {
    ...{ kind: 'stamp', id: 'i', pen: pen({ ink: ['sea'], water: 2 }), turn: 30, locked: false },
    ...{ at: { x: 2500, y: 9500 }, what: { of: 'little', name: 'sun' }, width: 2400, height: 2400 },
  },
  {
    ...{ kind: 'spot', id: 'j', takes: 'sort', words: 'in the water', turn: 12, locked: false },
    ...{ at: { x: 11_000, y: 6000 }, width: 4000, height: 2600 },
  },
  {
    ...{ kind: 'spot', id: 'k', takes: 'gap', words: '', turn: 0, locked: false },
    ...{ at: { x: 8000, y: 1500 }, width: 4200, height: 1200 },
  },
]
