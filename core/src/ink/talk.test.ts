import fc from 'fast-check'
import { drawOn } from './changes.ts'
import { emptySheet, type NibLine } from './document.ts'
import { packPoints, unpackPoints } from './points.ts'
import {
  inkOfTalk,
  picturesInTalk,
  TalkNotes,
  TalkReplay,
  type Talk,
  type TalkChange,
} from './talk.ts'

const pen = { ink: ['sea'], water: 0, edge: null, width: 180 } as const
/** Drawn over so many milliseconds, a point every ten. */
const line = (id: string, ms: number): NibLine => ({
  ...{ kind: 'line', id, pen: pen as unknown as NibLine['pen'] },
  points: packPoints(
    Array.from({ length: ms / 10 + 1 }, (_, i) => ({
      ...{ x: 100 * i, y: 500, timeMs: 10 * i, pressure: 0.5 },
    })),
  ),
})
const put = (...things: NibLine[]): TalkChange => ({
  ...{ kind: 'put', sheetId: 's', things, below: null },
})
const take = (id: string): TalkChange => ({ kind: 'take', sheetId: 's', ids: [id] })
const start = emptySheet('s')
const idsAt = (replay: TalkReplay, ms: number) => replay.at(ms).sheet.things.map(({ id }) => id)

test('a line grows on the clock of the voice, and lies there when the hand was lifted', () => {
  const replay = new TalkReplay({ start, steps: [{ atMs: 1500, changes: [put(line('a', 500))] }] })
  expect(replay.at(999)).toEqual({ sheet: start, growing: [] })
  const { sheet, growing } = replay.at(1250)
  expect(sheet.things).toEqual([])
  const [grown] = growing as NibLine[]
  expect(unpackPoints(grown!.points).at(-1)).toMatchObject({ x: 2500, timeMs: 250 })
  expect([idsAt(replay, 1500), replay.at(1500).growing]).toEqual([['a'], []])
})

test('what is rubbed out goes when it was rubbed out, and is there again earlier', () => {
  const replay = new TalkReplay({
    start,
    steps: [
      { atMs: 100, changes: [put(line('a', 100))] },
      { atMs: 300, changes: [put(line('b', 100))] },
      { atMs: 500, changes: [take('a')] },
    ],
  })
  expect([600, 400, 50, 300].map((ms) => idsAt(replay, ms))).toEqual([
    ['b'],
    ['a', 'b'],
    [],
    ['a', 'b'],
  ])
})

test('as it is kept, its sheet is what everything done to it leads to', () => {
  const steps = [
    { atMs: 1, changes: [put(line('a', 10)), put(line('b', 10))] },
    { atMs: 2, changes: [take('a')] },
  ]
  const ink = inkOfTalk({ start, steps })
  expect(ink.sheets).toEqual([{ ...start, things: [line('b', 10)] }])
  expect(ink.talk.steps).toBe(steps)
})

test('every picture on it counts, also one that was taken off again', () => {
  const picture = (id: string, mediaId: string) => ({
    ...{ kind: 'picture' as const, id, mediaId, at: { x: 1, y: 1 }, turn: 0, locked: true },
    ...{ width: 100, height: 100 },
  })
  const talk: Talk = {
    start: { ...start, things: [picture('p', 'under')] },
    steps: [
      { atMs: 1, changes: [{ ...put(), things: [picture('q', 'over')] } as TalkChange] },
      { atMs: 2, changes: [take('q')] },
    ],
  }
  expect(picturesInTalk(talk)).toEqual(['under', 'over'])
})

test('notes follow the clock, which stands still in pauses and never runs back', () => {
  let ms = 0
  const notes = new TalkNotes(start, () => ms)
  for (const now of [10.4, 900, 899.6]) {
    ms = now
    notes.add([put(line(`at ${now}`, 10))])
  }
  expect(notes.talk.steps.map(({ atMs }) => atMs)).toEqual([10, 900, 900])
})

test('played on or leapt about in, a moment always shows what was done until then', () => {
  const step = fc.record({
    after: fc.integer({ min: 0, max: 400 }),
    id: fc.constantFrom('a', 'b', 'c', 'd'),
    puts: fc.boolean(),
    took: fc.integer({ min: 1, max: 30 }),
  })
  fc.assert(
    fc.property(
      fc.array(step, { maxLength: 30 }),
      fc.array(fc.integer({ min: 0, max: 13_000 }), { minLength: 1, maxLength: 20 }),
      (made, moments) => {
        let atMs = 0
        const steps = made.map(({ after, id, puts, took }) => ({
          atMs: (atMs += after),
          changes: [puts ? put(line(id, took * 10)) : take(id)],
        }))
        const replay = new TalkReplay({ start, steps })
        for (const ms of moments) {
          const until = steps.filter((one) => one.atMs <= ms).flatMap(({ changes }) => changes)
          const [wanted] = drawOn({ ...inkOfTalk({ start, steps: [] }) }, until).sheets
          expect(replay.at(ms).sheet).toEqual(wanted)
        }
        expect(inkOfTalk({ start, steps }).sheets[0]).toEqual(replay.at(Infinity).sheet)
      },
    ),
  )
})
