import type { Piece, Problem, Task } from '@nibquill/contract'
import { copyOfStarter } from '@nibquill/core/ink/starter'
import { newInk, emptySheet, type InkDocument, type Thing } from '@nibquill/core/ink/document'
import { v7 as newId } from 'uuid'
import { inkFile, SEA_LINE } from '../testing/ink.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

const card = (id: string): Thing => ({
  ...{ kind: 'label', id, at: { x: 4000, y: 4000 }, turn: 0, locked: false },
  ...{ pen: SEA_LINE.pen, lines: ['floats'], size: 1, ground: 'straw', pointer: null },
})
const sheetOf = (...things: Thing[]): InkDocument => ({
  ...newInk('s'),
  sheets: [{ ...emptySheet('s'), things }],
})
const put = (ink: InkDocument | null, seenMediaId: string | null, who: Person = school.teacher) =>
  who.ask<Task & Problem>('PUT', `/tasks/${school.ids.task}/sheet`, { ink, seenMediaId })
const sheetNow = async (who: Person = school.teacher) =>
  (await who.ask<Task>('GET', `/tasks/${school.ids.task}`)).body.sheet?.mediaId ?? null
const statusOf = async (mediaId: string, who: Person) =>
  (await who.fetch('GET', `/media/${mediaId}/full`)).status

test('a teacher puts a sheet on a task; its pupils read it, another class does not', async () => {
  const { body } = await put(sheetOf(SEA_LINE, card('a')), await sheetNow())
  const mediaId = body.sheet!.mediaId
  expect(await sheetNow(school.wren)).toBe(mediaId)
  expect(await statusOf(mediaId, school.wren)).toBe(200)
  expect(await statusOf(mediaId, school.aoife)).toBe(404)
  expect(await statusOf(mediaId, school.parent)).toBe(404)
})
test('two teachers do not write over each other, and nobody else puts one', async () => {
  const before = await sheetNow()
  await put(sheetOf(card('a')), before)
  expect((await put(sheetOf(card('b')), before)).body.type).toBe('/problems/task/stale')
  expect((await put(null, await sheetNow(), school.wren)).status).toBe(404)
  expect((await put(null, await sheetNow(), school.otherTeacher)).status).toBe(404)
})
test('a sheet that is changed or taken away leaves the copies of those who have begun', async () => {
  const before = (await put(sheetOf(card('first')), await sheetNow())).body.sheet!.mediaId
  const copy = copyOfStarter(sheetOf(card('first')))
  const { mediaId } = await school.wren.upload(inkFile('plain', copy.sheets[0]!.things), {
    filename: 'drawing.json',
  })
  const pieceId = newId()
  await school.wren.ask('PUT', `/pieces/${pieceId}`, { taskId: school.ids.task })
  await school.wren.ask('PUT', `/pieces/${pieceId}/parts/${newId()}`, {
    ...{ kind: 'drawing', name: '', files: { ink: mediaId } },
  })
  await put(sheetOf(card('second')), before)
  await put(null, await sheetNow())
  expect(await sheetNow()).toBeNull()
  const ink = (await (
    await school.wren.fetch('GET', `/media/${mediaId}/full`)
  ).json()) as InkDocument
  expect(ink.sheets[0]!.things.map(({ id }) => id)).toEqual(['first'])
  await until(async () => (await statusOf(before, school.teacher)) === 404)
})
test('a picture on it is the teacher’s own; a pupil’s copy may hold it too', async () => {
  const photo = async (who: Person) => (await who.upload(await picture())).mediaId
  const laid = (mediaId: string): Thing => ({
    ...{ kind: 'picture', id: 'photo', mediaId, at: { x: 8000, y: 6000 }, turn: 0 },
    ...{ width: 4000, height: 3000, locked: true },
  })
  const theirs = await photo(school.otherTeacher)
  expect((await put(sheetOf(laid(theirs)), await sheetNow())).status).toBe(404)
  const mine = await photo(school.teacher)
  await put(sheetOf(laid(mine)), await sheetNow())
  expect(await statusOf(mine, school.wren)).toBe(200)
  const pieceId = newId()
  const partId = newId()
  const { mediaId } = await school.wren.upload(inkFile('plain', []), { filename: 'drawing.json' })
  await school.wren.ask('PUT', `/pieces/${pieceId}`, { taskId: school.ids.task })
  await school.wren.ask('PUT', `/pieces/${pieceId}/parts/${partId}`, {
    ...{ kind: 'drawing', name: '', files: { ink: mediaId } },
  })
  const things = [{ ...laid(mine), fixed: true as const }]
  const drawn = await school.wren.ask<Piece>('POST', `/pieces/${pieceId}/parts/${partId}/ink`, {
    changes: [{ kind: 'put', sheetId: 's', things, below: null }],
  })
  expect(drawn.status).toBe(200)
  // Also when the sheet is another by now.
  await put(null, await sheetNow())
  expect(await statusOf(mine, school.wren)).toBe(200)
})
test('a task made again has the sheet as well', async () => {
  await put(sheetOf(card('a')), await sheetNow())
  const { body } = await school.teacher.ask<Task>('POST', `/tasks/${school.ids.task}/duplicate`)
  expect(body.sheet!.mediaId).toBe(await sheetNow())
  // Taken from one, it stays on the other.
  await put(null, await sheetNow())
  expect(await statusOf(body.sheet!.mediaId, school.teacher)).toBe(200)
})
