import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { readdir, utimes } from 'node:fs/promises'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import type { Book } from '@nibquill/contract'
import { film } from '../testing/madeFiles.ts'
import {
  type Person,
  picture,
  SmallSchool,
  TestServer,
  until,
  pictureOf,
} from '../testing/testServer.ts'
import { begin } from '../testing/uploadSteps.ts'
import { RETENTION } from './retention.ts'

let test_: TestServer
let school: SmallSchool
const START = new Date('2026-11-23T10:00:00Z')
const daysLater = (days: number) =>
  test_.clock.set(new Date(START.getTime() + days * 24 * 3600 * 1000))
const count = async (table: string, where = 'true', parameters: unknown[] = []) =>
  (
    await test_.manager.query<{ n: number }[]>(
      `select count(*)::int as n from ${table} where ${where}`,
      parameters,
    )
  )[0]!.n
/** What lies in the file store, by its names. */
const stored = async () =>
  (await readdir(path.join(test_.config.dataFolder, 'files'), { recursive: true })).filter((name) =>
    name.includes('.'),
  )
const settled = () => until(async () => (await count('media', "state = 'arrived'")) === 0)
const hashOf = async (mediaId: string) =>
  (
    await test_.manager.query<{ hash: string }[]>(
      'select kept_sha256 as hash from media where id = $1',
      [mediaId],
    )
  )[0]!.hash

beforeEach(async () => {
  test_ = await TestServer.start()
  school = await SmallSchool.open(test_)
})
afterEach(() => test_.stop())

test('what was thrown away is gone after thirty days: rows, files and previews, and not a day before', async () => {
  const bytes = await picture(400, 300, '#224466')
  const piece = await school.draft({ bytes })
  const hash = await hashOf(pictureOf(piece.parts[0]))
  await settled()
  expect((await stored()).filter((name) => name.includes(hash))).toHaveLength(4)
  await school.wren.ask('DELETE', `/pieces/${piece.id}`)

  daysLater(29)
  expect(await test_.server.retention.run()).toMatchObject({
    'binned pieces': 0,
    'files nobody refers to': 0,
  })
  expect(await count('piece', 'id = $1', [piece.id])).toBe(1)

  daysLater(31)
  const restored = await school.wren.ask('POST', `/pieces/${piece.id}/restore`)
  // Before the job was there, too.
  expect([401, 404]).toContain(restored.status)
  expect(await test_.server.retention.run()).toMatchObject({
    'binned pieces': 1,
    'files nobody refers to': 1,
  })
  for (const table of ['piece', 'part', 'piece_maker']) expect(await count(table)).toBe(0)
  expect((await stored()).filter((name) => name.includes(hash))).toEqual([])
  expect(await test_.server.retention.run()).toMatchObject({
    'binned pieces': 0,
    'files nobody refers to': 0,
  })
})

test('taken back within thirty days it stays for good', async () => {
  const piece = await school.draft()
  await school.wren.ask('DELETE', `/pieces/${piece.id}`)
  expect((await school.wren.ask('POST', `/pieces/${piece.id}/restore`)).status).toBe(200)
  daysLater(400)
  await test_.server.retention.run()
  expect(await count('piece')).toBe(1)
  expect(await count('media')).toBe(1)
})

test('a file goes when the last thing that refers to it goes, and not before', async () => {
  const bytes = await picture(400, 300, '#664422')
  const [first, second] = [
    await school.draft({ bytes }),
    await school.draft({ bytes, person: school.tomasz }),
  ]
  const hash = await hashOf(pictureOf(first.parts[0]))
  await settled()
  await school.wren.ask('DELETE', `/pieces/${first.id}`)
  daysLater(31)
  expect(await test_.server.retention.run()).toMatchObject({ 'files nobody refers to': 1 })
  expect((await stored()).filter((name) => name.includes(hash))).toHaveLength(4)
  await test_.manager.query('update piece set binned_at = $1 where id = $2', [
    test_.clock.now(),
    second.id,
  ])
  daysLater(62)
  expect(await test_.server.retention.run()).toMatchObject({ 'files nobody refers to': 1 })
  expect((await stored()).filter((name) => name.includes(hash))).toEqual([])
})

test('a part taken out of a draft goes; one that a handed-in version holds stays with its file, and so does a tidied photo’s original', async () => {
  const draft = await school.draft()
  const kept = draft.parts[0]!
  const { mediaId } = await school.wren.upload(await picture(300, 300, '#abcdef'))
  const partId = newId()
  await school.wren.ask('PUT', `/pieces/${draft.id}/parts/${partId}`, {
    kind: 'photo',
    files: { picture: mediaId },
    name: '',
  })
  await school.wren.ask('DELETE', `/pieces/${draft.id}/parts/${partId}`)
  const tidied = await school.wren.upload(await picture(200, 200, '#112233'))
  await school.wren.ask('PUT', `/pieces/${draft.id}/parts/${newId()}`, {
    kind: 'photo',
    files: { picture: tidied.mediaId },
    name: '',
    instead: {
      partId: kept.id,
      tidying: {
        corners: null,
        quarters: 1,
        degrees: 0,
        trim: { left: 0, top: 0, right: 1, bottom: 1 },
        brighten: null,
      },
    },
  })
  const { version } = (await school.wren.ask('GET', `/pieces/${draft.id}`)).body
  const handedIn = (
    await school.wren.ask('POST', `/pieces/${draft.id}/hand-in`, { seenVersion: version })
  ).body
  expect(handedIn.state).toBe('submitted')
  daysLater(31)
  const removed = await test_.server.retention.run()
  // The photo that was taken out, and the row of the one that was tidied; its file is the original
  // of what was handed in.
  expect(removed).toMatchObject({ 'removed parts': 2, 'files nobody refers to': 1 })
  expect(await count('media', 'id = $1', [pictureOf(kept)])).toBe(1)
  expect(await count('version_part')).toBe(1)
})

test('files that no row names go after two days, and nothing else in the store does', async () => {
  const piece = await school.draft()
  await settled()
  const { storage } = test_.server.platform
  const [stray, draft] = [`${'ab'.repeat(32)}.jpg`, `${'cd'.repeat(32)}.jpg`]
  for (const key of [stray, draft, 'kept-by-hand.txt']) await storage.put(key, Buffer.from('x'))
  const before = (await stored()).length
  expect(await test_.server.retention.run()).toMatchObject({ 'stray files': 0 })
  const longAgo = new Date(START.getTime() - 1000)
  for (const name of await stored())
    await utimes(path.join(test_.config.dataFolder, 'files', name), longAgo, longAgo)
  daysLater(3)
  expect(await test_.server.retention.run()).toMatchObject({ 'stray files': 2 })
  expect((await stored()).length).toBe(before - 2)
  expect(
    (await school.teacher.fetch('GET', `/media/${pictureOf(piece.parts[0])}/320`)).status,
  ).toBe(200)
})

test('ways in that are over, letters, lists, sheets and news go in their time', async () => {
  await school.teacher.ask('POST', '/accounts/cards', { pupilId: school.ids.tomasz })
  await until(async () => (await count('card_sheet', "state = 'ready'")) === 1)
  await school.teacher.ask('POST', '/accounts/password-forgotten', { email: 'o@saltmarsh.example' })
  await until(async () => (await count('password_link')) === 1)
  await begin(school.wren, 100)
  const { sessions, invitations } = test_.server.capabilities
  await sessions.endAllOf(test_.manager, school.ids.aoife)
  await invitations.invite(test_.manager, school.ids.wren, school.ids.wrensParent)
  expect([
    await count('upload'),
    await count('name_card', 'revoked_at is not null'),
    await count('invitation', 'withdrawn_at is not null'),
  ]).toEqual([1, 1, 1])
  daysLater(2)
  expect(await test_.server.retention.run()).toMatchObject({
    'password links': 1,
    'card sheets': 1,
    'half-arrived uploads': 0,
    letters: 0,
  })
  daysLater(8)
  expect(await test_.server.retention.run()).toMatchObject({ 'half-arrived uploads': 1 })
  daysLater(32)
  const month = await test_.server.retention.run()
  expect(month).toMatchObject({ letters: 1, 'replaced cards': 1, 'withdrawn invitations': 1 })
  expect(await readdir(path.join(test_.config.dataFolder, 'arriving'))).toEqual([])
  daysLater(366)
  await test_.server.retention.run()
  // Whatever was signed in at the beginning has ended by itself long ago.
  expect(await count('session')).toBe(0)
  daysLater(1200)
  await test_.server.retention.run()
  expect(
    await count('audit', 'happened_at < $1', [new Date(START.getTime() + 24 * 3600 * 1000)]),
  ).toBe(0)
})

test('where a school wants it so, a film goes on as what plays everywhere once its term has ended; not before, and its piece stays as it was', async () => {
  const large = await film({ coder: 'libx264', size: '1920x1080', seconds: 2 })
  const filmed = async (person: Person) => {
    const { mediaId } = await person.upload(large, { filename: 'walk.MOV' })
    const piece = await school.approved({
      ...{ person, part: { kind: 'film', name: '', files: { film: mediaId } } },
    })
    return { mediaId, piece }
  }
  const [one, other] = [await filmed(school.wren), await filmed(school.tomasz)]
  await settled()
  const read = async (form: string, who: Person = school.parent) => {
    const response = await who.fetch('GET', `/media/${one.mediaId}/${form}`)
    return { status: response.status, bytes: Buffer.from(await response.arrayBuffer()) }
  }
  const before = { full: await read('full'), playable: await read('playable') }
  const hash = await hashOf(one.mediaId)
  const keep = (filmOriginals: string) =>
    school.teacher.ask('PATCH', '/school', {
      ...{ name: 'Saltmarsh', timeZone: 'Europe/London', filmOriginals },
    })
  // Whoever is signed in stays so, however the clock is set.
  await test_.manager.query("update session set expires_at = '2030-01-01', ends_at = null")
  // The term ends on the last of December.
  test_.clock.set(new Date('2027-01-02T03:17:00Z'))
  expect(await test_.server.retention.run()).toMatchObject({ 'films as they were sent': 0 })
  expect((await keep('until-term-end')).status).toBe(200)
  test_.clock.set(new Date('2026-12-31T23:59:00Z'))
  expect(await test_.server.retention.run()).toMatchObject({ 'films as they were sent': 0 })
  test_.clock.set(new Date('2027-01-02T03:17:00Z'))
  expect(await test_.server.retention.run()).toMatchObject({ 'films as they were sent': 1 })

  expect((await stored()).filter((name) => name.startsWith(`${hash}.`))).toEqual([])
  const now = { full: await read('full'), playable: await read('playable') }
  expect(now.playable.bytes.equals(before.playable.bytes)).toBe(true)
  expect(now.full.bytes.equals(before.playable.bytes)).toBe(true)
  expect(now.full.bytes.length).toBeLessThan(before.full.bytes.length)
  for (const form of ['320', '960', 'peaks']) expect((await read(form)).status).toBe(200)
  expect(await hashOf(one.mediaId)).toBe(createHash('sha256').update(now.full.bytes).digest('hex'))
  expect(await count('media', "name = 'walk.mp4'")).toBe(2)
  // Again it changes nothing, and takes nothing of it away.
  daysLater(60)
  expect(await test_.server.retention.run()).toMatchObject({
    ...{ 'films as they were sent': 0, 'stray files': 0 },
  })
  // The same film sent anew; then one after the other goes, and what is left can be read.
  const third = await filmed(school.wren)
  await settled()
  await test_.manager.query('delete from piece where id = any($1)', [
    [other.piece.id, third.piece.id],
  ])
  daysLater(91)
  await test_.server.retention.run()
  expect(await count('media')).toBe(1)
  const forms = await test_.manager.query<{ key: string }[]>('select key from media_form')
  const files = (await stored()).map((name) => path.basename(name))
  expect(files.sort()).toEqual([...new Set(forms.map(({ key }) => key))].sort())
})

test('books of a pupil who left go after a year, page codes and file with them; a book goes with the piece it prints', async () => {
  const made: string[] = []
  for (const person of [school.wren, school.tomasz]) {
    await school.approved({ person })
    const pupilId = person === school.wren ? school.ids.wren : school.ids.tomasz
    const { body } = await school.teacher.ask<Book>('POST', '/book', {
      pupilId,
      termId: school.ids.term,
      madeFor: 'home',
    })
    made.push(body.id)
  }
  await until(async () => (await count('book', "state = 'ready'")) === 2)
  await school.teacher.ask('PATCH', `/school/pupils/${school.ids.wren}`, { left: true })
  // As it was before what is in a folder could not be thrown away.
  await test_.manager.query('update piece set binned_at = $1 where pupil_id = $2', [
    START,
    school.ids.tomasz,
  ])
  daysLater(31)
  expect(await test_.server.retention.run()).toMatchObject({
    'books with removed pieces': 1,
    'books of pupils who left': 0,
  })
  expect((await stored()).filter((name) => name.endsWith('.pdf'))).toEqual([
    expect.stringContaining(made[0]!),
  ])
  daysLater(366)
  expect(await test_.server.retention.run()).toMatchObject({ 'books of pupils who left': 1 })
  expect([await count('book'), await count('page_link')]).toEqual([0, 0])
  expect((await stored()).filter((name) => name.endsWith('.pdf'))).toEqual([])
})

test('the table a school reads is the one the job goes by', () => {
  const page = readFileSync(new URL('../../../docs/retention.md', import.meta.url), 'utf8')
  const lines = [...page.matchAll(/^\| (.+?) +\| +(\d+) +\| (.+?) +\|$/gm)].map(
    ([, name, days, after]) => [name, Number(days), after],
  )
  expect(lines).toEqual(
    Object.entries(RETENTION).map(([name, { days, after }]) => [name, days, after]),
  )
})
