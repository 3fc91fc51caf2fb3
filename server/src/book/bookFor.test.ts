import type { Book, BookForecast, Piece } from '@nibquill/contract'
import {
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const consent = (pupilId: string, granted: boolean) =>
  school.teacher.ask('PUT', `/sharing/pupils/${pupilId}/consents/sharing`, { granted })
const about = (madeFor: 'home' | 'school') => ({
  pupilId: school.ids.wren,
  termId: school.ids.term,
  madeFor,
})
async function make(madeFor: 'home' | 'school'): Promise<Book> {
  const { body } = await school.teacher.ask<Book>('POST', '/book', about(madeFor))
  return until(async () => {
    const book = (await school.teacher.ask<Book>('GET', `/book/${body.id}`)).body
    return book.state === 'ready' && book
  })
}
const plan = async (madeFor: 'home' | 'school') =>
  (
    await school.teacher.ask<BookForecast>(
      'GET',
      `/book/plan?${new URLSearchParams(about(madeFor)).toString()}`,
    )
  ).body
const again = async (book: Book) => (await school.teacher.ask<Book>('GET', `/book/${book.id}`)).body
const download = (book: Book) => school.teacher.fetch('GET', `/book/${book.id}/file`)
const tokenOf = (book: Book, piece: Piece) =>
  test_.server.platform.secrets.tokenFor('page-link', `${book.id}/${piece.id}`)
const openedBy = (person: { ask: typeof school.teacher.ask }, book: Book, piece: Piece) =>
  person.ask('GET', `/sharing/links/${tokenOf(book, piece)}`)

let open: Piece
let closed: Piece
let together: Piece
beforeAll(async () => {
  open = await school.approved()
  closed = await school.approved({ folderId: school.ids.closed })
  const draft = await school.draft()
  const shared = (
    await school.wren.ask('PUT', `/pieces/${draft.id}/makers`, { makerIds: [school.ids.tomasz] })
  ).body
  const handedIn = (
    await school.wren.ask('POST', `/pieces/${draft.id}/hand-in`, { seenVersion: shared.version })
  ).body
  together = (
    await school.teacher.ask('POST', `/review/pieces/${draft.id}`, {
      move: 'approve',
      message: '',
      seenVersion: handedIn.version,
    })
  ).body
  await consent(school.ids.tomasz, false)
}, 60_000)
afterEach(() => consent(school.ids.wren, true))

test('for home, what the family may not see stays out, and is named with the reason before the book is made', async () => {
  const forHome = await plan('home')
  expect(forHome).toMatchObject({ pieces: 1, pages: 3 })
  expect(forHome.leftOut).toEqual([
    { pieceId: closed.id, title: closed.title, reason: 'folder', withoutConsent: [] },
    { pieceId: together.id, title: together.title, reason: 'consent', withoutConsent: ['tomasz'] },
  ])
  expect(await plan('school')).toMatchObject({ pieces: 3, pages: 5, leftOut: [] })
  const book = await make('home')
  expect(book).toMatchObject({ pageCount: 3, openLinks: 1, stopped: false, madeFor: 'home' })
  expect((await download(book)).status).toBe(200)
})

test('a picked piece is no exception', async () => {
  for (const { id } of [open, together])
    await school.wren.ask('PUT', `/portfolio/${school.ids.wren}/picks/${id}`, { reason: '' })
  expect(await plan('home')).toMatchObject({
    pieces: 1,
    leftOut: [{ pieceId: together.id, reason: 'consent' }],
  })
  for (const { id } of [open, together])
    await school.wren.ask('DELETE', `/portfolio/${school.ids.wren}/picks/${id}`)
})

test('page codes of a book for home open for whoever holds it; those of one for school for teachers who may read the piece', async () => {
  const [home, atSchool] = [await make('home'), await make('school')]
  const stranger = test_.visitor()
  expect((await openedBy(stranger, home, open)).status).toBe(200)
  for (const piece of [open, closed, together]) {
    for (const person of [stranger, school.parent, school.wren, school.otherTeacher]) {
      const answer = await openedBy(person, atSchool, piece)
      expect([answer.status, answer.body.type]).toEqual([403, '/problems/sharing/link-for-school'])
    }
    const picture = `/media/${pictureOf(piece.parts[0])}/320?link=${tokenOf(atSchool, piece)}`
    expect((await stranger.fetch('GET', picture)).status).toBe(403)
    expect((await openedBy(school.teacher, atSchool, piece)).status).toBe(200)
    expect((await school.teacher.fetch('GET', picture)).status).toBe(200)
  }
})

test('withdrawing consent stops books and page codes for home from that moment, and giving it again lets them go on', async () => {
  const book = await make('home')
  await consent(school.ids.wren, false)
  const stopped = await download(book)
  expect([stopped.status, ((await stopped.json()) as { type: string }).type]).toEqual([
    409,
    '/problems/book/not-for-home',
  ])
  expect(await again(book)).toMatchObject({ stopped: true, openLinks: 0 })
  expect((await openedBy(test_.visitor(), book, open)).status).toBe(410)
  expect((await school.teacher.ask('POST', '/book', about('home'))).body.type).toBe(
    '/problems/book/nothing-to-print',
  )
  expect((await plan('home')).leftOut.map(({ withoutConsent }) => withoutConsent)).toEqual([
    ['wren'],
    ['wren'],
    ['tomasz', 'wren'],
  ])
  await consent(school.ids.wren, true)
  expect((await download(book)).status).toBe(200)
  expect((await openedBy(test_.visitor(), book, open)).status).toBe(200)
})

test('closing a folder to parents, or approving another version, stops the book for home; the one for school stays', async () => {
  const [home, atSchool] = [await make('home'), await make('school')]
  await test_.manager.query('update folder set parents_see = false where id = $1', [
    school.ids.open,
  ])
  expect(await again(home)).toMatchObject({ stopped: true })
  expect((await openedBy(test_.visitor(), home, open)).status).toBe(410)
  expect((await download(atSchool)).status).toBe(200)
  await test_.manager.query('update folder set parents_see = true where id = $1', [school.ids.open])
  expect(await again(home)).toMatchObject({ stopped: false })

  const draft = (
    await school.wren.ask('POST', `/pieces/${open.id}/another-go`, { seenVersion: open.version })
  ).body
  expect(await again(home)).toMatchObject({ stopped: false })
  const handedIn = (
    await school.wren.ask('POST', `/pieces/${open.id}/hand-in`, { seenVersion: draft.version })
  ).body
  await school.teacher.ask('POST', `/review/pieces/${open.id}`, {
    move: 'approve',
    message: '',
    seenVersion: handedIn.version,
  })
  expect(await again(home)).toMatchObject({ stopped: true })
  expect((await make('home')).id).not.toBe(home.id)
})
