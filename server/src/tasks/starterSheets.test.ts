import type { LyingOnCopies, Piece, Problem, Task } from '@nibquill/contract'
import { copyOfStarter } from '@nibquill/core/ink/starter'
import { newInk, emptySheet, type InkDocument, type Thing } from '@nibquill/core/ink/document'
import { NOTHING_EXPECTED, type Expected } from '@nibquill/core/ink/sorting'
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
const put = (
  ink: InkDocument | null,
  seenMediaId: string | null,
  who: Person = school.teacher,
  expected: Expected = NOTHING_EXPECTED,
) =>
  who.ask<Task & Problem>('PUT', `/tasks/${school.ids.task}/sheet`, { ink, seenMediaId, expected })
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
  const copy = copyOfStarter(sheetOf(card('first')), before)
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

describe('spots to sort into', () => {
  const water: Thing = {
    ...{ kind: 'spot', id: 'water', takes: 'sort', words: 'In the water', turn: 0, locked: false },
    ...{ at: { x: 10_000, y: 9000 }, width: 6000, height: 4000 },
  }
  const expected: Expected = {
    lies: [{ thingId: 'a', spotId: 'water' }],
    says: [{ spotId: 'gone', words: 'nothing' }],
  }
  /** The sheet with a spot and a card is on the task, and nothing of an earlier test. */
  async function sorted(): Promise<string> {
    const made = await put(sheetOf(water, card('a')), await sheetNow(), school.teacher, expected)
    return made.body.sheet!.mediaId
  }
  /** A pupil's copy with the card where the spot is. */
  async function copyOf(who: Person, mediaId: string): Promise<Piece> {
    const copy = copyOfStarter(sheetOf(water, card('a')), mediaId)
    const things = copy.sheets[0]!.things.map((thing) =>
      thing.id === 'a' ? { ...card('a'), at: { x: 10_000, y: 9000 } } : thing,
    )
    const sent = await who.upload(inkFile('plain', things), { filename: 'drawing.json' })
    const pieceId = newId()
    await who.ask('PUT', `/pieces/${pieceId}`, { taskId: school.ids.task })
    const { body } = await who.ask<Piece>('PUT', `/pieces/${pieceId}/parts/${newId()}`, {
      ...{ kind: 'drawing', name: '', files: { ink: sent.mediaId } },
    })
    return body
  }
  const move = async (who: Person, piece: Piece, to: string) =>
    (await who.ask<Piece>('POST', `/pieces/${piece.id}/${to}`, { seenVersion: piece.version })).body
  const lying = (who: Person = school.teacher) =>
    who.ask<LyingOnCopies>('GET', `/tasks/${school.ids.task}/sheet/lying`)
  const taskFor = async (who: Person) =>
    (await who.ask<Task>('GET', `/tasks/${school.ids.task}`)).body

  test('what a teacher expects is kept beside the sheet: teachers read it, pupils do not', async () => {
    const mediaId = await sorted()
    const told = { mediaId, offered: false }
    expect((await taskFor(school.teacher)).sheet).toEqual({
      ...told,
      // What was expected of a spot that is not there is gone.
      sorting: { lies: expected.lies, says: [] },
    })
    expect((await taskFor(school.wren)).sheet).toEqual({ ...told, sorting: null })
    const ink = await (await school.wren.fetch('GET', `/media/${mediaId}/full`)).text()
    expect(ink).not.toContain('lies')
    await put(sheetOf(card('a')), mediaId, school.teacher, expected)
    expect((await taskFor(school.teacher)).sheet!.sorting).toBeNull()
  })
  test('a teacher is told what lies where on what was handed in, and on nothing else', async () => {
    const piece = await copyOf(school.wren, await sorted())
    expect((await lying()).body).toEqual([])
    const submitted = await move(school.wren, piece, 'hand-in')
    const here = [{ thingId: 'a', spotId: 'water', words: 'floats' }]
    expect((await lying()).body).toMatchObject([
      { pieceId: piece.id, pupil: { id: school.ids.wren }, lies: here },
    ])
    const back = await move(school.wren, submitted, 'withdraw')
    expect((await lying()).body).toEqual([])
    // Approved, it stays told while another go is under way.
    const again = await move(school.wren, back, 'hand-in')
    const decision = { move: 'approve', message: '', seenVersion: again.version }
    const { body } = await school.teacher.ask<Piece>('POST', `/review/pieces/${piece.id}`, decision)
    await move(school.wren, body, 'another-go')
    expect((await lying()).body).toMatchObject([{ lies: here }])
    // A changed sheet leaves what lies on a copy.
    await put(sheetOf(water), await sheetNow())
    expect((await lying()).body).toMatchObject([{ lies: here }])
  })
  test('no pupil, parent or teacher of another class is told', async () => {
    await sorted()
    for (const who of [school.wren, school.parent, school.otherTeacher])
      expect((await lying(who)).status).toBe(404)
  })
  test('a sheet is offered to those who have begun until it is changed', async () => {
    const mediaId = await sorted()
    const offer = (seenMediaId: string, offered = true, who: Person = school.teacher) =>
      who.ask<Task & Problem>('POST', `/tasks/${school.ids.task}/sheet/offer`, {
        ...{ offered, seenMediaId },
      })
    expect((await offer(mediaId)).body.sheet!.offered).toBe(true)
    expect((await taskFor(school.wren)).sheet!.offered).toBe(true)
    expect((await offer(mediaId, false)).body.sheet!.offered).toBe(false)
    await offer(mediaId)
    // A copy of the task is offered to nobody: nobody has begun.
    const copy = await school.teacher.ask<Task>('POST', `/tasks/${school.ids.task}/duplicate`)
    expect(copy.body.sheet).toMatchObject({ offered: false, sorting: { lies: expected.lies } })
    const next = (await put(sheetOf(water), mediaId)).body.sheet!
    expect(next.offered).toBe(false)
    expect((await offer(mediaId)).body.type).toBe('/problems/task/stale')
    expect((await offer(next.mediaId, true, school.wren)).status).toBe(404)
    expect((await offer(next.mediaId, true, school.otherTeacher)).status).toBe(404)
  })
})
