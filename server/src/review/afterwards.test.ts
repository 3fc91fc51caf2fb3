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

test('where it was filed instead, and why, is read by its makers; taken back, nothing is said any more', async () => {
  const filedOf = async (piece: Piece) =>
    (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body.versions[0]?.decision?.filed
  const handedIn = await school.submitted()
  const { body: approved } = await school.teacher.ask<Piece>(
    'POST',
    `/review/pieces/${handedIn.id}`,
    {
      ...{ move: 'approve', message: '', seenVersion: handedIn.version },
      ...{ folderId: school.ids.closed, because: 'It is more of a plan.' },
    },
  )
  const [from, into] = [handedIn.folder!.name, approved.folder!.name]
  expect(await filedOf(approved)).toEqual({ from, into, because: 'It is more of a plan.' })
  // Back where its pupil thought: there is nothing to explain.
  const back = (await fileInto(approved, school.ids.open)).body
  expect(await filedOf(approved)).toBeNull()
  const again = await school.teacher.ask<Piece>('POST', `/review/pieces/${back.id}/file`, {
    ...{ folderId: school.ids.closed, because: 'Look again.', seenVersion: back.version },
  })
  expect(await filedOf(approved)).toMatchObject({ into, because: 'Look again.' })
  // It is news once more, also to who had seen where it lay before.
  const newsOf = async () =>
    (await school.wren.ask<WorkNews[]>('GET', '/notices/news')).body.find(
      ({ pieceId }) => pieceId === approved.id,
    )
  await school.wren.ask('POST', '/notices/news/seen', { ids: [(await newsOf())!.id] })
  expect(await newsOf()).toMatchObject({ folderName: into, seen: true })
  await fileInto(again.body, school.ids.open)
  expect(await newsOf()).toMatchObject({ kind: 'approved', folderName: from, seen: false })
  // At home it is the school's affair.
  const home = await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)
  expect(JSON.stringify(home.body)).not.toContain('Look again.')
  // Approved where it was put: nothing is kept of a reason.
  const plain = await school.submitted()
  await school.teacher.ask('POST', `/review/pieces/${plain.id}`, {
    ...{ move: 'approve', message: '', seenVersion: plain.version, because: 'Hm.' },
  })
  expect(await filedOf(plain)).toBeNull()
  expect(again.status).toBe(200)
})
