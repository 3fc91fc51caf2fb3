import { randomUUID } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import pg from 'pg'
import { v7 as newId } from 'uuid'
import type { Book, Session } from '@nibquill/contract'
import { AloneServer } from '../testing/alone.ts'
import {
  type Person,
  picture,
  SmallSchool,
  testConfig,
  TestServer,
  until,
} from '../testing/testServer.ts'
import { addressOf, begin, send } from '../testing/uploadSteps.ts'

test('two processes that start on one empty database both come up, and the tables are made once', async () => {
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
  await main.connect()
  await main.query(`create database ${name}`)
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-data-'))
  const config = testConfig(name, folder)
  const servers = await Promise.all([AloneServer.start(config), AloneServer.start(config)])
  for (const { at } of servers) expect((await fetch(`${at}/api/health`)).status).toBe(200)
  const client = new pg.Client({ connectionString: config.databaseUrl })
  await client.connect()
  const { rows } = await client.query<{ name: string; n: number }>(
    'select name, count(*)::int as n from migration group by name',
  )
  expect(rows.length).toBeGreaterThan(5)
  expect(new Set(rows.map(({ n }) => n))).toEqual(new Set([1]))
  await client.end()
  await main.end()
  await Promise.all(servers.map((server) => server.end()))
  await rm(folder, { recursive: true, force: true })
})

describe('on one database and one file store', () => {
  let test_: TestServer
  let school: SmallSchool
  let other: AloneServer
  const there = (person: Person) => person.copiedInto(person.browser, other.at)
  beforeAll(async () => {
    test_ = await TestServer.start()
    school = await SmallSchool.open(test_)
    other = await AloneServer.start(test_.config)
  })
  afterAll(async () => {
    await other.end()
    await test_.stop()
  })

  test('somebody who came in at one goes on at the other, and who left at one has left at both', async () => {
    const person = test_.visitor()
    const code = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.tomasz)
    await person.ask('POST', '/accounts/sign-in/card', { code })
    expect(
      (await there(person).ask<Session>('GET', '/accounts/session')).body.person,
    ).toMatchObject({ id: school.ids.tomasz })
    const copy = there(person)
    await person.ask('POST', '/accounts/sign-out')
    expect((await copy.ask<Session>('GET', '/accounts/session')).body.person).toBeNull()
  })

  test('what happens at one is told to a page of the other, and a page closes when its session ends at the other', async () => {
    const teacher = there(school.teacher)
    const leave = new AbortController()
    const stream = await teacher.fetch('GET', '/live', { signal: leave.signal })
    const heard: string[] = []
    const ended = (async () => {
      const text = new TextDecoder()
      for await (const chunk of stream.body as unknown as AsyncIterable<Uint8Array>)
        heard.push(text.decode(chunk))
      return 'ended'
    })().catch(() => 'broken')
    const piece = await school.submitted()
    await until(async () => heard.some((line) => line.includes(piece.id)))
    const again = await school.teacher.ask<Session>('POST', '/accounts/sign-in/password', {
      email: 'a@saltmarsh.example',
      password: 'a long enough password',
    })
    expect(again.status).toBe(200)
    expect(await ended).toBe('ended')
    leave.abort()
  })

  test('an upload begun at one ends at the other, and is counted once', async () => {
    const bytes = await picture(1500, 1200, '#807040')
    const mediaId = newId()
    const address = addressOf(await begin(school.wren, bytes.length, mediaId))
    const half = Math.floor(bytes.length / 2)
    expect((await send(school.wren, address, 0, bytes.subarray(0, half))).status).toBe(204)
    const done = await send(there(school.wren), address, half, bytes.subarray(half))
    expect([done.status, await done.json()]).toEqual([200, expect.objectContaining({ mediaId })])
    expect((await school.wren.ask('GET', `/media/${mediaId}`)).status).toBe(200)
    expect(await test_.manager.query('select 1 from upload')).toEqual([])
  })

  test('a job under way is nobody else’s, however many processes come and look', async () => {
    const holder = new pg.Client({ connectionString: test_.config.databaseUrl })
    await holder.connect()
    await holder.query('begin; lock table media_form in access exclusive mode')
    await school.wren.upload(await picture())
    type Locked = { by: string; attempts: number }
    const underWay = () =>
      test_.manager.query<Locked[]>(
        'select locked_by as by, attempts from graphile_worker.jobs where locked_by is not null',
      )
    const before = await until(async () => {
      const found = await underWay()
      return found.length > 0 && found
    })
    // Whoever starts gives back what was cut off; this was not.
    const third = await AloneServer.start(test_.config)
    expect(await underWay()).toEqual(before)
    await holder.query('rollback')
    await holder.end()
    await until(async () => (await underWay()).length === 0)
    await third.end()
  })

  test('a job whose worker is killed is finished by the other process, once', async () => {
    await school.approved()
    await until(
      async () =>
        (await test_.manager.query<unknown[]>("select 1 from media where state = 'arrived'"))
          .length === 0,
    )
    await test_.server.platform.queue.stop()
    // The table a book needs is held, so that the job is under way when its process dies.
    const holder = new pg.Client({ connectionString: test_.config.databaseUrl })
    await holder.connect()
    await holder.query('begin; lock table media_form in access exclusive mode')
    const asked = await there(school.teacher)
      .ask<Book>('POST', '/book', {
        pupilId: school.ids.wren,
        termId: school.ids.term,
        madeFor: 'school',
      })
      .catch(() => null)
    const making = () =>
      test_.manager.query<{ id: string }[]>("select id from book where state = 'making'")
    const { id } = await until(async () => (await making())[0])
    await other.end('SIGKILL')
    const third = await AloneServer.start(test_.config)
    await holder.query('rollback')
    await holder.end()
    await until(
      async () =>
        (await test_.manager.query<unknown[]>("select 1 from book where state = 'ready'"))
          .length === 1,
      40_000,
    )
    expect(await test_.manager.query('select id from book')).toEqual([{ id }])
    expect(asked === null || asked.status === 202 || asked.status === 503).toBe(true)
    await third.end()
  })
})
