import { connect } from 'node:net'
import { once } from 'node:events'
import { v7 as newId } from 'uuid'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'
import { MOST_STREAMS_A_PERSON } from './live.ts'
import { routeOf } from './log.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

type Page = {
  status: number
  heard: string[]
  over: Promise<'ended' | 'broken'>
  leave: () => void
  type: string
}
async function openPage(person: Person): Promise<Page> {
  const leaving = new AbortController()
  const response = await person.fetch('GET', '/live', { signal: leaving.signal })
  const heard: string[] = []
  const over = (async () => {
    const text = new TextDecoder()
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
      heard.push(text.decode(chunk))
    return 'ended' as const
  })().catch(() => 'broken' as const)
  return {
    status: response.status,
    heard,
    over,
    leave: () => leaving.abort(),
    type: response.headers.get('content-type') ?? '',
  }
}
const soon = <T>(promise: Promise<T>) =>
  Promise.race([promise, new Promise((resolve) => setTimeout(resolve, 3000, 'not yet'))])

test('a person has so many open pages, and a clear answer beyond; a page that closes makes room', async () => {
  const pages = []
  for (let i = 0; i < MOST_STREAMS_A_PERSON; i++) pages.push(await openPage(school.tomasz))
  expect(new Set(pages.map(({ status }) => status))).toEqual(new Set([200]))
  const refused = await school.tomasz.ask('GET', '/live')
  expect([refused.status, refused.body.type]).toEqual([429, '/problems/live/too-many'])
  // Nobody else is kept out by them.
  const other = await openPage(school.wren)
  expect(other.status).toBe(200)
  pages[0]!.leave()
  await until(async () => {
    const page = await openPage(school.tomasz)
    page.leave()
    return page.status === 200
  })
  for (const { leave } of [...pages, other]) leave()
})

test('signing out closes that browser’s pages and no other’s', async () => {
  const code = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.aoife)
  const [here, there] = [test_.visitor(), test_.visitor()]
  for (const person of [here, there]) await person.ask('POST', '/accounts/sign-in/card', { code })
  const [leaving, staying] = [await openPage(here), await openPage(there)]
  await here.ask('POST', '/accounts/sign-out')
  expect(await soon(leaving.over)).toBe('ended')
  expect(await soon(staying.over)).toBe('not yet')
  staying.leave()
})

test('signing in again ends that browser’s earlier session, whoever it was', async () => {
  const issue = (id: string) => test_.server.capabilities.nameCards.issue(test_.manager, id)
  const [aoife, wren] = [await issue(school.ids.aoife), await issue(school.ids.wren)]
  const tablet = test_.visitor()
  await tablet.ask('POST', '/accounts/sign-in/card', { code: aoife })
  const before = tablet.copiedInto(tablet.browser)
  const page = await openPage(before)
  await tablet.ask('POST', '/accounts/sign-in/card', { code: wren })
  expect((await before.ask('GET', '/pieces')).status).toBe(401)
  expect(await soon(page.over)).toBe('ended')
  expect((await tablet.ask('GET', '/pieces')).status).toBe(200)
  await tablet.ask('POST', '/accounts/sign-in/card', { code: wren })
  expect((await tablet.ask('GET', '/pieces')).status).toBe(200)
  const [{ n } = { n: 0 }] = await test_.manager.query<{ n: number }[]>(
    'select count(*)::int as n from session where person_id = $1',
    [school.ids.wren],
  )
  // The one the school was opened with went with its card's renewal or with the limit of two desks;
  // this browser has one.
  expect(n).toBeLessThanOrEqual(2)
  school.wren = tablet
})

test('somebody who does not read is dropped, and the others go on', async () => {
  const socket = connect(Number(new URL(test_.visitor().at).port), '127.0.0.1')
  await once(socket, 'connect')
  const { cookie, browser } = school.teacher
  socket.write(
    `GET /api/live HTTP/1.1\r\nHost: x\r\nCookie: ${cookie}\r\nUser-Agent: ${browser}\r\n\r\n`,
  )
  const [head] = (await once(socket, 'data')) as [Buffer]
  expect(head.toString()).toMatch(/^HTTP\/1.1 200/)
  socket.pause()
  const reader = await openPage(school.teacher)
  let dropped = false
  socket.on('close', () => (dropped = true))
  socket.on('error', () => undefined)
  const teacher = await test_.manager.query<{ id: string }[]>(
    "select id from person where email = 'a@saltmarsh.example'",
  )
  // What the system itself holds for a connection comes on top of what the server would.
  for (let i = 0; i < 400 && !dropped; i++) {
    await test_.manager.query(
      `select pg_notify('nibquill', json_build_object('to', json_build_array($1::text), 'event', json_build_object('topic', 'pieces', 'id', repeat('x', 7000) || n))::text)
       from generate_series(1, 20) n`,
      [teacher[0]!.id],
    )
    if (i % 20 === 0) await new Promise((resolve) => setTimeout(resolve, 20))
    if (reader.heard.join('').length > 30_000_000) break
  }
  socket.resume()
  await until(async () => dropped)
  expect(await soon(reader.over)).toBe('not yet')
  reader.leave()
})

test.each([
  ['/api/sharing/links/AbC-dEf_123456789012', '/api/sharing/links/:'],
  [
    '/api/accounts/password-links/0123456789abcdef0123456789abcdef',
    '/api/accounts/password-links/:',
  ],
  ['/invitation/abcdefghijklmnopqrstuvwxyzabcd', '/invitation/:'],
  ['/p/Zm9vYmFy', '/p/:'],
  ['/api/media/0190a4f6-0000-7000-8000-000000000001/320?link=secret', '/api/media/:/:'],
  ['/api/school/classes', '/api/school/classes'],
  [
    '/api/pieces/for-everyone/0190a4f6-0000-7000-8000-000000000001/close',
    '/api/pieces/for-everyone/:/close',
  ],
])('a log keeps of %s its shape', (originalUrl, shape) => {
  expect(routeOf({ originalUrl })).toBe(shape)
})

test('a teacher’s open page hears that somebody has seen a notice: once, and only theirs', async () => {
  const id = newId()
  const notice = { classId: school.ids.heron, audience: 'class', words: 'Boots!', mediaIds: [] }
  expect((await school.teacher.ask('PUT', `/notices/${id}`, notice)).status).toBe(200)
  const [own, other] = [await openPage(school.teacher), await openPage(school.otherTeacher)]
  for (let i = 0; i < 2; i++) await school.wren.ask('POST', `/notices/${id}/seen`)
  const notes = ({ heard }: Page) => heard.join('').match(/"topic":"notices"/g)?.length ?? 0
  await until(() => Promise.resolve(notes(own) > 0))
  await new Promise((resolve) => setTimeout(resolve, 300))
  expect([notes(own), notes(other)]).toEqual([1, 0])
  for (const page of [own, other]) page.leave()
})

test('what was told while a page was opening is told to it as well: once, and nobody else’s', async () => {
  const { wren, teacher, otherTeacher, ids } = school
  const notice = { classId: ids.heron, audience: 'class', words: 'Hats!', mediaIds: [] }
  const id = newId()
  expect((await teacher.ask('PUT', `/notices/${id}`, notice)).status).toBe(200)
  for (let i = 0; i < 2; i++) await wren.ask('POST', `/notices/${id}/seen`)
  // It is told to those who are there: its own process hears of it a moment later.
  await new Promise((resolve) => setTimeout(resolve, 200))
  const pages = [await openPage(teacher), await openPage(otherTeacher)]
  const notes = ({ heard }: Page) => heard.join('').match(/"topic":"notices"/g)?.length ?? 0
  await until(() => Promise.resolve(notes(pages[0]!) > 0))
  expect(pages.map(notes)).toEqual([1, 0])
  for (const page of pages) page.leave()
  // What is longer ago, the page has asked for by itself.
  await new Promise((resolve) => setTimeout(resolve, 2200))
  const later = await openPage(teacher)
  await new Promise((resolve) => setTimeout(resolve, 200))
  expect(notes(later)).toBe(0)
  later.leave()
})
