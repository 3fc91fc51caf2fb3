import fc from 'fast-check'
import {
  cornersOf,
  holdsOf,
  movedTo,
  placedAt,
  sizedBetween,
  sizedBy,
  sizeOfPlaced,
  turnedTo,
  turnedBetween,
} from './arrange.ts'
import { drawOn } from './changes.ts'
import { newInk, type Label, type Stamp } from './document.ts'
import { showThing, type ShownPath } from './display.ts'

const pen = { ink: ['sea'], water: 0, edge: null, width: 180 } as const
const stamp: Stamp = {
  ...{ kind: 'stamp', id: 'stamp', pen, at: { x: 5000, y: 5000 }, turn: 0, locked: false },
  ...{ what: { of: 'shape', name: 'square' }, width: 2000, height: 1000 },
}
const label: Label = {
  ...{ kind: 'label', id: 'label', pen, at: { x: 8000, y: 6000 }, turn: 0, locked: false },
  ...{ lines: ['the claw'], size: 1, ground: 'straw', pointer: { x: 2000, y: 2000 } },
}
const [sheet] = drawOn(newInk('s'), [
  { kind: 'put', sheetId: 's', things: [stamp, label], below: null },
]).sheets

test('a thing is found where it lies, turned as it is', () => {
  const found = (x: number, y: number, turn = 0) => {
    const things = [{ ...stamp, turn }]
    return placedAt({ ...sheet!, things }, { x, y }, 0)?.id ?? null
  }
  expect([found(5900, 5400), found(5900, 5700), found(5000, 5900)]).toEqual(['stamp', null, null])
  expect([found(5000, 5900, 90), found(5900, 5000, 90)]).toEqual(['stamp', null])
})
test('its middle stays on the sheet, wherever it is drawn; what it points at stays', () => {
  expect(movedTo(stamp, { x: -900, y: 99_999 }, sheet!).at).toEqual({ x: 0, y: 12_000 })
  expect(movedTo(label, { x: 1, y: 1 }, sheet!).pointer).toEqual(label.pointer)
})
test('near a fifteenth degree it snaps, and a whole turn is none', () => {
  expect([turnedTo(stamp, 43).turn, turnedTo(stamp, 38).turn]).toEqual([45, 38])
  expect([turnedTo(stamp, 361).turn, turnedTo(stamp, -90).turn]).toEqual([0, 270])
})
test('a stamp keeps its shape as it grows, and can still be caught when it is small', () => {
  expect(sizedBy(stamp, 2)).toMatchObject({ width: 4000, height: 2000 })
  expect(sizedBy(stamp, 0.001)).toMatchObject({ width: 1000, height: 500 })
  expect(sizedBy(stamp, 999)).toMatchObject({ width: 42_000, height: 21_000 })
})
test('a label grows by sizes of letters', () => {
  expect([sizedBy(label, 1.5).size, sizedBy(label, 0.1).size, sizedBy(label, 9).size]).toEqual([
    ...[2, 0, 3],
  ])
})
test('drawn nowhere a hold changes nothing; drawn round a quarter it turns a quarter, drawn twice as far it doubles', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 23 }), fc.nat(900), (fifteenths, beyond) => {
      const lies = { ...stamp, turn: fifteenths * 15 }
      const { turn, size } = holdsOf(lies, beyond)
      expect(turnedBetween(lies, turn, turn).turn).toBe(lies.turn)
      expect(sizedBetween(lies, size, size)).toEqual(lies)
      const quarter = { x: lies.at.x - (turn.y - lies.at.y), y: lies.at.y + turn.x - lies.at.x }
      expect(turnedBetween(lies, turn, quarter).turn).toBe((lies.turn + 90) % 360)
      const far = { x: 2 * size.x - lies.at.x, y: 2 * size.y - lies.at.y }
      expect(sizedBetween(lies, size, far)).toMatchObject({ width: 4000, height: 2000 })
    }),
  )
})
test('holds lie beyond the thing, however slim it is', () => {
  const { turn, size } = holdsOf(label, 300)
  expect(placedAt({ ...sheet!, things: [label] }, turn, 0)).toBeNull()
  expect(Math.hypot(turn.x - size.x, turn.y - size.y)).toBeGreaterThan(600)
})
test('words lie within their label, whatever they say', () => {
  fc.assert(
    fc.property(
      fc.array(fc.stringMatching(/^[a-z ]{0,20}$/), { minLength: 1, maxLength: 4 }),
      (lines) => {
        const one = { ...label, lines, pointer: null }
        const shown = showThing(one).at(-1) as ShownPath
        const numbers = shown.path.match(/-?\d+/g)!.map(Number)
        const [a, , c] = cornersOf(one)
        const [xs, ys] = [0, 1].map((odd) => numbers.filter((_, i) => i % 2 === odd))
        expect(Math.min(a.x, ...xs!)).toBeGreaterThanOrEqual(a.x - 5)
        expect(Math.max(c.x, ...xs!)).toBeLessThanOrEqual(c.x + 5)
        expect(Math.min(a.y, ...ys!)).toBeGreaterThanOrEqual(a.y - 5)
        expect(Math.max(c.y, ...ys!)).toBeLessThanOrEqual(c.y + 5)
      },
    ),
  )
})
test('a label’s own size is told by its longest line', () => {
  const { width } = sizeOfPlaced(label)
  expect(sizeOfPlaced({ ...label, lines: ['the claw', 'it'] }).width).toBe(width)
})
