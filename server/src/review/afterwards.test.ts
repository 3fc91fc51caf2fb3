import type { ChildWork, FolderDetail, Piece, WorkNews } from '@nibquill/contract'
import { v7 as newId } from 'uuid'
import { type Person, type SmallSchool, useSmallSchool } from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

const fileInto = (piece: Piece, folderId: string, by: Person = school.teacher) =>
  by.ask('POST', `/review/pieces/${piece.id}/file`, { folderId, seenVersion: piece.version })
const sendBack = (piece: Piece) =>
  school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    move: 'send-back',
    message: 'Add labels.',
    seenVersion: piece.version,
  })
const isIn = async (folderId: string, piece: Piece) =>
  (await school.wren.ask<FolderDetail>('GET', `/folders/${folderId}`)).body.pieces.some(
    ({ id }) => id === piece.id,
  )
const isAtHome = async (piece: Piece) => {
  const { body } = await school.parent.ask<ChildWork>('GET', `/sharing/children/${school.ids.wren}`)
  return (body.chapters ?? []).some(({ pieces }) => pieces.some(({ id }) => id === piece.id))
}

beforeAll(() =>
  school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/consents/sharing`, {
    granted: true,
  }),
)

test('what is approved is filed elsewhere, and who sees it follows the folder', async () => {
  const approved = await school.approved()
  const hidden = school.ids.closed
  expect(await isAtHome(approved)).toBe(true)
  const { status, body } = await fileInto(approved, hidden)
  expect([status, body.state, body.folder?.id]).toEqual([200, 'approved', hidden])
  expect(await isIn(hidden, approved)).toBe(true)
  expect(await isIn(school.ids.open, approved)).toBe(false)
  expect(await isAtHome(approved)).toBe(false)
  // The news of its approval says where it lies now.
  const news = await school.wren.ask<WorkNews[]>('GET', '/notices/news')
  expect(news.body.find(({ pieceId }) => pieceId === approved.id)?.folderName).toBe(
    body.folder?.name,
  )
  const back = (await fileInto(body, school.ids.open)).body
  expect(back.folder?.id).toBe(school.ids.open)
  expect(await isAtHome(approved)).toBe(true)
})

test('another go is asked for later: what is approved stays where it is until the next is', async () => {
  const approved = await school.approved()
  const { body: returned } = await sendBack(approved)
  expect([returned.state, returned.approved]).toEqual(['returned', true])
  expect(await isIn(school.ids.open, approved)).toBe(true)
  expect(await isAtHome(approved)).toBe(true)
  const news = await school.wren.ask<WorkNews[]>('GET', '/notices/news')
  expect(news.body[0]).toMatchObject({ kind: 'returned', pieceId: approved.id })
  const again = await school.wren.ask('POST', `/pieces/${approved.id}/hand-in`, {
    seenVersion: returned.version,
  })
  expect([again.body.state, again.body.versions.length]).toEqual(['submitted', 2])
})

test('and taken back at once, it is approved again and lies in the folder it lay in', async () => {
  const hidden = school.ids.closed
  const filed = (await fileInto(await school.approved(), hidden)).body
  const { body: returned } = await sendBack(filed)
  const taken = await school.teacher.ask('POST', `/review/pieces/${filed.id}/take-back`, {
    seenVersion: returned.version,
  })
  expect([taken.body.state, taken.body.folder?.id]).toEqual(['approved', hidden])
})

test('nothing else is filed elsewhere, by nobody else, and nowhere it does not belong', async () => {
  const waiting = await school.submitted()
  expect((await fileInto(waiting, school.ids.whole)).body.type).toBe('/problems/piece/move-refused')
  const approved = await school.approved()
  for (const stranger of [school.otherTeacher, school.wren, school.parent])
    expect((await fileInto(approved, school.ids.whole, stranger)).status).toBe(404)
  expect((await fileInto({ ...approved, version: 1 }, school.ids.whole)).body.type).toBe(
    '/problems/piece/stale',
  )
  const own = newId()
  await school.tomasz.ask('PUT', `/folders/proposals/${own}`, {
    name: 'Mine',
    symbol: 'wind',
    colour: 'madder',
  })
  await school.teacher.ask('POST', `/folders/${own}/agree`)
  expect((await fileInto(approved, own)).status).toBe(404)
  expect((await fileInto(approved, newId())).status).toBe(404)
})
