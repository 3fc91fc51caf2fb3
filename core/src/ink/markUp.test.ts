import fc from 'fast-check'
import { drawOn } from './changes.ts'
import {
  INK_FORMAT,
  INK_VERSION,
  newInk,
  SHEET_SIZE,
  type InkDocument,
  type Thing,
} from './document.ts'
import { canBeMarked, copyToMark, isMarked, sheetToMark } from './markUp.ts'

const line = (id: string): Thing => ({
  ...{ kind: 'ruled', id, shape: 'line', from: { x: 0, y: 0 }, to: { x: 100, y: 100 } },
  pen: { ink: ['madder'], water: 0, edge: null, width: 90 },
})
const with_ = (ink: InkDocument, ...things: Thing[]): InkDocument =>
  drawOn(ink, [{ kind: 'put', sheetId: ink.sheets[0]!.id, things, below: null }])

test('photos, drawings and pages are written on; what is heard or read is not', () => {
  expect(['photo', 'drawing', 'page'].every((kind) => canBeMarked(kind as 'photo'))).toBe(true)
  expect(
    ['voice', 'talk', 'film', 'writing', 'link'].some((kind) => canBeMarked(kind as 'film')),
  ).toBe(false)
})

test('a copy of a drawing holds all of it, fixed; it is marked once something is written on it', () => {
  const drawn = with_(newInk('s'), line('a'), line('b'))
  const copy = copyToMark(drawn)
  expect(copy.sheets[0]!.things.map(({ id, fixed }) => [id, fixed])).toEqual([
    ['a', true],
    ['b', true],
  ])
  expect(isMarked(copy)).toBe(false)
  expect(isMarked(with_(copy, line('c')))).toBe(true)
  // The drawing itself is as it was.
  expect(drawn.sheets[0]!.things.some(({ fixed }) => fixed)).toBe(false)
})

test('the sheet under a picture has its shape, whatever its size, and is as large as a new sheet', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12_000 }),
      fc.integer({ min: 1, max: 12_000 }),
      (width, height) => {
        fc.pre(Math.max(width, height) / Math.min(width, height) < 50)
        const sheet = sheetToMark({ sheetId: 's', thingId: 't' }, 'm', { width, height })
        expect(Math.max(sheet.width, sheet.height)).toBe(SHEET_SIZE.width)
        expect(sheet.width / sheet.height / (width / height)).toBeCloseTo(1, 1)
        expect(sheet.things).toMatchObject([{ mediaId: 'm', width: sheet.width, fixed: true }])
        expect(isMarked({ format: INK_FORMAT, version: INK_VERSION, sheets: [sheet] })).toBe(false)
      },
    ),
  )
})

test('a picture whose size is not known yet lies as cameras make them', () => {
  const sheet = sheetToMark({ sheetId: 's', thingId: 't' }, 'm', { width: 0, height: 0 })
  expect(sheet.width / sheet.height).toBeCloseTo(4 / 3, 2)
})
