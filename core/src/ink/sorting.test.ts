import fc from 'fast-check'
import {
  emptySheet,
  newInk,
  SPOT_SIZES,
  type InkDocument,
  type Label,
  type Spot,
} from './document.ts'
import { showThing } from './display.ts'
import {
  isAsExpected,
  NOTHING_EXPECTED,
  sortablesOf,
  stillExpected,
  tallyOf,
  whatLiesWhere,
  wordsOn,
} from './sorting.ts'
import { copyOfStarter, hasMovables, isCopiedFrom } from './starter.ts'

const spot = (id: string, x: number, turn = 0): Spot => ({
  ...{ kind: 'spot', id, takes: 'sort', words: id, turn, locked: false },
  ...{ ...SPOT_SIZES.sort, at: { x, y: 6000 } },
})
const card = (id: string, x: number, y: number, words = id): Label => ({
  ...{ kind: 'label', id, at: { x, y }, turn: 0, locked: false, lines: [words], size: 1 },
  ...{ pen: { ink: ['soot'], water: 0, edge: null, width: 180 }, ground: 'straw', pointer: null },
})
const inkOf = (...things: (Spot | Label)[]): InkDocument => ({
  ...newInk('s'),
  sheets: [{ ...emptySheet('s'), things }],
})
const sheet = inkOf(spot('water', 4000), spot('rock', 12000), card('fish', 4000, 1000))

test('spots stay on every copy, cards move; a copy is known by its sheet', () => {
  const copy = copyOfStarter(sheet, 'one')
  expect(copy.sheets[0]!.things.map(({ fixed }) => fixed ?? false)).toEqual([true, true, false])
  expect([hasMovables(copy), isCopiedFrom(copy, 'one'), isCopiedFrom(copy, 'two')]).toEqual([
    ...[true, true, false],
  ])
  expect(hasMovables(copyOfStarter(inkOf(spot('water', 4000)), 'one'))).toBe(false)
})
test('a thing lies where its middle lies; where spots overlap, on the upper one', () => {
  const lies = (ink: InkDocument) => whatLiesWhere(ink).map(({ spotId }) => spotId)
  expect(lies(sheet)).toEqual([null])
  expect(lies(inkOf(spot('a', 4000), spot('b', 12000), card('c', 12000, 6000)))).toEqual(['b'])
  expect(lies(inkOf(spot('a', 4000), spot('b', 5000), card('c', 4500, 6000)))).toEqual(['b'])
  // Turned by a right angle it reaches further up than it is high, less far aside than it is wide.
  expect(lies(inkOf(spot('a', 4000, 90), card('c', 4000, 3000)))).toEqual(['a'])
  expect(lies(inkOf(spot('a', 4000, 90), card('c', 7000, 6000)))).toEqual([null])
  expect(lies(inkOf(card('c', 1, 1)))).toEqual([])
})
test('what the teacher fixed is no answer; what a pupil locked is', () => {
  const fixed = { ...card('title', 4000, 6000), fixed: true as const }
  const locked = { ...card('mine', 4000, 6000), locked: true }
  expect(whatLiesWhere(inkOf(spot('water', 4000), fixed, locked))).toEqual([
    { thingId: 'mine', spotId: 'water', words: 'mine' },
  ])
})
test('as expected: the thing on its spot, or the words, however spaced and large', () => {
  const expected = {
    lies: [{ thingId: 'fish', spotId: 'water' }],
    says: [{ spotId: 'gap', words: 'High tide' }],
  }
  const is = (thingId: string, spotId: string | null, words: string | null = null) =>
    isAsExpected({ thingId, spotId, words }, expected)
  expect([is('fish', 'water'), is('fish', 'rock'), is('fish', null)]).toEqual([true, false, false])
  expect([is('x', 'gap', ' high  TIDE'), is('x', 'gap', 'low tide')]).toEqual([true, false])
  // Nothing was expected of these.
  expect([is('x', 'water', 'y'), is('x', 'gap'), is('x', null, 'high tide')]).toEqual([
    ...[null, null, null],
  ])
})
test('what is expected of a thing or a spot that is gone is forgotten', () => {
  const expected = {
    lies: [
      { thingId: 'fish', spotId: 'water' },
      { thingId: 'fish', spotId: 'gone' },
      { thingId: 'gone', spotId: 'water' },
    ],
    says: [
      { spotId: 'rock', words: 'limpet' },
      { spotId: 'rock', words: ' ' },
      { spotId: 'gone', words: 'x' },
    ],
  }
  expect(stillExpected(expected, sheet)).toEqual({
    lies: [{ thingId: 'fish', spotId: 'water' }],
    says: [{ spotId: 'rock', words: 'limpet' }],
  })
  expect(stillExpected(NOTHING_EXPECTED, sheet)).toEqual(NOTHING_EXPECTED)
  // What is locked stays, and is not sorted.
  expect(sortablesOf(inkOf({ ...card('title', 1, 1), locked: true }))).toEqual([])
})
test('in a class: how many put a thing where, and which words on a gap', () => {
  const at = (spotId: string | null, words: string | null = null) => ({
    ...{ thingId: words ?? 'fish', spotId, words },
  })
  const copies = [
    [at('water'), at('gap', 'Tide')],
    [at('water'), at('gap', 'tide ')],
    [at(null), at('gap', 'sea'), at('gap', 'sea')],
    // One took the fish off.
    [],
  ]
  expect(tallyOf('fish', copies)).toEqual([
    { of: 'water', count: 2 },
    { of: null, count: 1 },
  ])
  expect(wordsOn('gap', copies)).toEqual([
    { of: 'tide', count: 2 },
    { of: 'sea', count: 1 },
  ])
})
test('however cards lie, each is counted once, and no more often than there are copies', () => {
  const place = fc.record({
    x: fc.integer({ min: 0, max: 16000 }),
    y: fc.integer({ min: 0, max: 12000 }),
  })
  fc.assert(
    fc.property(fc.array(place, { minLength: 1, maxLength: 30 }), (places) => {
      const copies = places.map(({ x, y }) =>
        whatLiesWhere(inkOf(spot('water', 4000), spot('rock', 12000), card('fish', x, y))),
      )
      expect(tallyOf('fish', copies).reduce((sum, { count }) => sum + count, 0)).toBe(places.length)
    }),
  )
})
test('the edge of a spot to sort into is dashed all round, from corner to corner', () => {
  const [, edge] = showThing(spot('water', 4000))
  const ends = [...(edge as { path: string }).path.matchAll(/[ML](-?\d+) (-?\d+)/g)].map(
    ([, x, y]) => `${x} ${y}`,
  )
  const { width, height } = SPOT_SIZES.sort
  for (const [x, y] of [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const)
    expect(ends).toContain(`${4000 + (x * width) / 2} ${6000 + (y * height) / 2}`)
})
