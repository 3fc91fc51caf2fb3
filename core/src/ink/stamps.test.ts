import { showThing, type ShownPath } from './display.ts'
import {
  ARROW_NAMES,
  COIN_VALUES,
  LITTLE_NAMES,
  SHAPE_NAMES,
  type Stamp,
  type StampWhat,
} from './document.ts'
import { STAMP_SIZES } from './stamps.ts'

const EVERY: StampWhat[] = [
  ...SHAPE_NAMES.map((name) => ({ of: 'shape' as const, name })),
  ...ARROW_NAMES.map((name) => ({ of: 'arrow' as const, name })),
  ...LITTLE_NAMES.map((name) => ({ of: 'little' as const, name })),
  ...COIN_VALUES.map((value) => ({ of: 'coin' as const, value })),
  { of: 'tile', words: 'sh' },
  { of: 'ten-frame', count: 7 },
  { of: 'number-line', from: -10, to: 10 },
  { of: 'clock', hours: 3, minutes: 30 },
]
const stampOf = (what: StampWhat, turn = 0): Stamp => ({
  ...{ kind: 'stamp', id: 's', at: { x: 0, y: 0 }, turn, locked: false, what },
  pen: { ink: ['clay'], water: 0, edge: null, width: 180 },
  ...STAMP_SIZES[what.of],
})
const pathsOf = (stamp: Stamp) => showThing(stamp) as ShownPath[]
/** Ends of what is drawn; the middles of bows are left out. */
const pointsOf = (path: string) =>
  [...path.matchAll(/([MLQA])([^MLQAZ]*)/g)].map(([, , numbers]) => {
    const values = numbers!.trim().split(/[ ,]/).map(Number)
    return { x: values.at(-2)!, y: values.at(-1)! }
  })

test.each(EVERY.map((what) => [JSON.stringify(what), what] as const))(
  '%s lies within its size',
  (_name, what) => {
    const stamp = stampOf(what)
    const shown = pathsOf(stamp)
    expect(shown.length).toBeGreaterThan(0)
    for (const { path } of shown)
      for (const { x, y } of pointsOf(path)) {
        expect(Math.abs(x)).toBeLessThanOrEqual(stamp.width / 2 + 30)
        expect(Math.abs(y)).toBeLessThanOrEqual(stamp.height / 2 + 30)
      }
  },
)
test.each([0, 1, 5, 10])('a ten-frame of %i holds as many dots', (count) => {
  const dots = pathsOf(stampOf({ of: 'ten-frame', count })).slice(2)
  expect(
    dots
      .map(({ path }) => path)
      .join('')
      .split('Z').length - 1,
  ).toBe(count)
})
test('at half past three the short hand stands between three and four, the long one at six', () => {
  const hands = pathsOf(stampOf({ of: 'clock', hours: 3, minutes: 30 })).slice(-3, -1)
  const [short, long] = hands.map(({ path }) => pointsOf(path).at(-1)!)
  expect(short!.x).toBeGreaterThan(0)
  expect(Math.atan2(short!.y, short!.x)).toBeCloseTo(Math.PI / 12, 1)
  expect([long!.x, Math.sign(long!.y)]).toEqual([0, 1])
})
test('a number line of a hundred names every fifth', () => {
  const shown = showThing(stampOf({ of: 'number-line', from: 0, to: 100 }))
  expect(shown).toHaveLength(1 + 21)
})
