import { drawOn } from './changes.ts'
import { newInk, type NibLine, type Thing } from './document.ts'
import { packPoints, unpackPoints } from './points.ts'
import { rubSheet, thingAt } from './rubSheet.ts'

const pen = { ink: ['sea'], water: 0, edge: null, width: 100 } as const
const point = (x: number, y: number, timeMs = 0) => ({ x, y, timeMs, pressure: 0.5 })
const line = (id: string, y: number): Thing => ({
  ...{ kind: 'line', id, pen },
  points: packPoints([point(0, y), point(5000, y, 100), point(10_000, y, 200)]),
})
const patch: Thing = {
  ...{ kind: 'patch', id: 'patch', pen },
  points: packPoints([point(0, 0), point(4000, 0), point(4000, 4000), point(0, 4000)]),
}
const circle: Thing = {
  ...{ kind: 'ruled', id: 'round', pen, shape: 'circle' },
  ...{ from: { x: 6000, y: 6000 }, to: { x: 8000, y: 6000 } },
}
const inkOf = (...things: Thing[]) =>
  drawOn(newInk('s'), [{ kind: 'put', sheetId: 's', things, below: null }])
let count = 0
const newId = () => `piece${count++}`

test('a line rubbed in its middle lies there in two pieces, in its place between the others', () => {
  const ink = inkOf(line('under', 0), line('it', 1000), line('over', 2000))
  const rubbed = { from: { x: 5000, y: 900 }, to: { x: 5000, y: 1100 }, radius: 450 }
  const now = drawOn(ink, rubSheet(ink.sheets[0]!, rubbed, newId)).sheets[0]!.things
  expect(now.map(({ id }) => id)).toEqual(['under', 'piece0', 'piece1', 'over'])
  const [left, right] = now.slice(1, 3).map((thing) => unpackPoints((thing as NibLine).points))
  expect([left![0]!.x, left!.at(-1)!.x, right![0]!.x, right!.at(-1)!.x]).toEqual([
    0, 4500, 5500, 10_000,
  ])
  expect(right![0]!.timeMs).toBe(0)
})
test('a circle loses a stretch and keeps the rest; what lies away from the rubber is not touched', () => {
  const ink = inkOf(circle, line('far', 500))
  const at = { x: 8000, y: 6000 }
  const now = drawOn(ink, rubSheet(ink.sheets[0]!, { from: at, to: at, radius: 300 }, newId))
  expect(thingAt(now.sheets[0]!, at, 50)).toBeNull()
  expect(thingAt(now.sheets[0]!, { x: 4000, y: 6000 }, 50)).not.toBeNull()
  expect(now.sheets[0]!.things.at(-1)!.id).toBe('far')
})
test('a patch loses what was rubbed out of it, and a hole in it is no place of it', () => {
  const ink = inkOf(patch)
  const at = { x: 2000, y: 2000 }
  const holed = drawOn(ink, rubSheet(ink.sheets[0]!, { from: at, to: at, radius: 500 }, newId))
  expect(holed.sheets[0]!.things).toMatchObject([{ kind: 'patch', holes: [{}] }])
  expect(thingAt(holed.sheets[0]!, at, 0)).toBeNull()
  expect(thingAt(holed.sheets[0]!, { x: 3500, y: 3500 }, 0)).not.toBeNull()
  const across = { from: { x: -600, y: 2000 }, to: { x: 4600, y: 2000 }, radius: 500 }
  const halves = drawOn(ink, rubSheet(ink.sheets[0]!, across, newId)).sheets[0]!.things
  expect(halves.map(({ kind }) => kind)).toEqual(['patch', 'patch'])
})
test('what is uppermost at a place is found: within a patch, beside a line, not within a circle', () => {
  const [sheet] = inkOf(patch, line('it', 2000), circle).sheets
  const found = (x: number, y: number) => thingAt(sheet!, { x, y }, 100)?.id ?? null
  expect([found(2000, 2100), found(2000, 2500), found(6000, 6000), found(6000, 4050)]).toEqual([
    ...['it', 'patch', null, 'round'],
  ])
})
