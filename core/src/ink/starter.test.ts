import { placedAt } from './arrange.ts'
import { emptySheet, newInk, type Label, type NibLine } from './document.ts'
import { packPoints } from './points.ts'
import { rubSheet, thingAt } from './rubSheet.ts'
import { copyOfStarter, hasMovables } from './starter.ts'

const pen = { ink: ['soot'], water: 0, edge: null, width: 180 } as const
const at = { x: 5000, y: 5000 }
const label = (id: string, locked: boolean, x: number): Label => ({
  ...{ kind: 'label', id, pen, at: { ...at, x }, turn: 0, locked },
  ...{ lines: ['float'], size: 1, ground: 'white', pointer: null },
})
const line: NibLine = {
  ...{ kind: 'line', id: 'line', pen },
  points: packPoints([
    { x: 0, y: 9000, timeMs: 0, pressure: 0.5 },
    { x: 9000, y: 9000, timeMs: 9, pressure: 0.5 },
  ]),
}
const starter = {
  ...newInk('s'),
  sheets: [
    { ...emptySheet('s'), things: [line, label('title', true, 3000), label('card', false, 9000)] },
  ],
}
const copy = copyOfStarter(starter, 'mine')
const sheet = copy.sheets[0]!

test('on a copy the teacher’s lines and what was locked stay; what was left open can be moved', () => {
  expect(sheet.things.map(({ fixed }) => fixed ?? false)).toEqual([true, true, false])
  expect(placedAt(sheet, { ...at, x: 3000 }, 0)).toBeNull()
  expect(placedAt(sheet, { ...at, x: 9000 }, 0)?.id).toBe('card')
})
test('no rubber touches what stays, and no tap lifts it', () => {
  const rubbed = { from: { x: 4000, y: 8800 }, to: { x: 4000, y: 9200 }, radius: 500 }
  expect(rubSheet(sheet, rubbed, () => 'new')).toEqual([])
  expect(thingAt(sheet, { x: 4000, y: 9000 }, 200)).toBeNull()
})
test('a sheet with something to move begins with moving', () => {
  expect([
    hasMovables(copy),
    hasMovables(copyOfStarter({ ...starter, sheets: [emptySheet('s')] }, 'mine')),
  ]).toEqual([...[true, false]])
})
