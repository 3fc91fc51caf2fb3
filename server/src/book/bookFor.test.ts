import type { Book, BookForecast, Piece, PupilSharing } from '@nibquill/contract'
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
})
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

test('a family takes home what its page shows, picked or not, with nobody at school doing anything for it', async () => {
  const order = { pupilId: school.ids.wren, termId: school.ids.term }
  const taken = (person = school.parent) => person.ask<Book>('POST', '/book/take-home', order)
  const second = await school.approved()
  await school.wren.ask('PUT', `/portfolio/${school.ids.wren}/picks/${second.id}`, { reason: '' })

  const asked = await taken()
  expect([asked.status, asked.body.byFamily, asked.body.madeFor]).toEqual([202, true, 'home'])
  const seen = async (id: string) => school.parent.ask<Book>('GET', `/book/${id}`)
  const book = await until(async () => {
    const { body } = await seen(asked.body.id)
    return body.state === 'ready' && body
  })
  const page = await school.parent.ask<{ chapters: { pieces: { id: string }[] }[] }>(
    'GET',
    `/sharing/children/${school.ids.wren}`,
  )
  const onPage = page.body.chapters.flatMap(({ pieces }) => pieces)
  expect(onPage.length).toBeGreaterThan(1)
  expect(book.openLinks).toBe(onPage.length)
  const file = () => school.parent.fetch('GET', `/book/${book.id}/file`)
  expect((await file()).headers.get('content-type')).toBe('application/pdf')
  // Asked twice, it is the same one; the teacher sees who asked, and can end its page codes.
  expect((await taken()).body.id).toBe(book.id)
  expect(await again(book)).toMatchObject({ byFamily: true })

  // One for school, another family, one's own child with the consent gone: nothing is said of them.
  const forSchool = await make('school')
  expect((await seen(forSchool.id)).status).toBe(404)
  expect((await taken(school.otherParent)).status).toBe(404)
  expect((await school.otherParent.fetch('GET', `/book/${book.id}/file`)).status).toBe(404)
  expect((await taken(school.teacher)).status).toBe(404)
  await consent(school.ids.wren, false)
  expect((await taken()).status).toBe(404)
  expect((await file()).status).toBe(404)
  await consent(school.ids.wren, true)

  // A folder is closed to families: the book taken home before is handed out no more.
  const close = (open: boolean) =>
    test_.manager.query('update folder set parents_see = $2 where id = $1', [school.ids.open, open])
  await close(false)
  expect((await file()).status).toBe(409)
  const nothing = await school.parent.ask('POST', '/book/take-home', order)
  expect(nothing.body.type).toBe('/problems/book/nothing-to-print')
  await close(true)
  expect((await file()).status).toBe(200)
})

test('where the school takes a parent’s way in back, the codes of what they took home end; invited anew, they take a book with codes that open', async () => {
  const order = { pupilId: school.ids.wren, termId: school.ids.term }
  const asked = (await school.parent.ask<Book>('POST', '/book/take-home', order)).body
  const ready = (id: string) =>
    until(async () => {
      const { body } = await school.parent.ask<Book>('GET', `/book/${id}`)
      return body.state === 'ready' && body
    })
  expect((await ready(asked.id)).openLinks).toBeGreaterThan(0)
  const fromSchool = await make('home')
  const at = `/sharing/pupils/${school.ids.wren}`
  const { body: sharing } = await school.teacher.ask<PupilSharing>('GET', at)
  const invitation = sharing.guardians.find(({ invitation: one }) => one)!.invitation!
  await school.teacher.ask('POST', `${at}/invitations/${invitation.id}/withdraw`)
  expect(await again(asked)).toMatchObject({ byFamily: true, openLinks: 0 })
  expect((await again(fromSchool)).openLinks).toBeGreaterThan(0)
  expect((await openedBy(test_.visitor(), asked, open)).status).toBe(410)

  // Signed out with it; let in again as an invitation would.
  await test_.manager.query('update invitation set withdrawn_at = null where id = $1', [
    invitation.id,
  ])
  const anew = await school.parent.ask<Book>('POST', '/book/take-home', order)
  expect(anew.body.id).not.toBe(asked.id)
  expect((await ready(anew.body.id)).openLinks).toBeGreaterThan(0)
})
