import pg from 'pg'
import { v7 as newId } from 'uuid'
import { startServer } from '../server.ts'
import { AloneServer } from '../testing/alone.ts'
import {
  type Person,
  picture,
  type SmallSchool,
  TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'
import { addressOf, begin, send, TUS } from '../testing/uploadSteps.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const at = (person: Person, address: string): Person => person.copiedInto(person.browser, address)

test('an upload goes on where it stopped after the server was killed and started again', async () => {
  const bytes = await picture(2000, 1500, '#3b3f7a')
  const mediaId = newId()
  const first = await AloneServer.start(test_.config)
  const before = at(school.wren, first.at)
  const address = addressOf(await begin(before, bytes.length, mediaId))
  const half = Math.floor(bytes.length / 2)
  expect((await send(before, address, 0, bytes.subarray(0, half))).status).toBe(204)
  await first.end()

  const second = await AloneServer.start(test_.config)
  const after = at(school.wren, second.at)
  const head = await after.fetch('HEAD', address, { headers: TUS })
  expect(head.headers.get('upload-offset')).toBe(String(half))
  const done = await send(after, address, half, bytes.subarray(half))
  expect(await done.json()).toMatchObject({ mediaId, sizeBytes: expect.any(Number) })
  await second.end()
})

test('a book whose maker was killed is made after the restart, once', async () => {
  for (let i = 0; i < 3; i++) await school.approved()
  await until(
    async () =>
      (await test_.manager.query<unknown[]>("select 1 from media where state = 'arrived'"))
        .length === 0,
  )
  await test_.server.platform.queue.stop()
  const alone = await AloneServer.start(test_.config)
  // The job is taken and then never finished: the table it needs is held.
  const holder = new pg.Client({ connectionString: test_.config.databaseUrl })
  await holder.connect()
  await holder.query('begin; lock table media_form in access exclusive mode')
  const asked = at(school.teacher, alone.at)
    .ask('POST', '/book', { pupilId: school.ids.wren, termId: school.ids.term, madeFor: 'school' })
    .catch(() => null)
  const bookId = (
    await until(
      async () =>
        (
          await test_.manager.query<{ id: string }[]>('select id from book where state = $1', [
            'making',
          ])
        )[0],
    )
  ).id
  await alone.end()
  await asked
  await holder.query('rollback')
  await holder.end()
  expect(
    (
      await test_.manager.query<unknown[]>(
        'select 1 from graphile_worker.jobs where locked_by is not null',
      )
    ).length,
  ).toBe(1)

  const again = await startServer({ ...test_.config }, test_.clock)
  const book = await until(
    async () =>
      (await test_.manager.query<{ id: string }[]>("select id from book where state = 'ready'"))[0],
    30_000,
  )
  expect(book.id).toBe(bookId)
  const teacher = at(school.teacher, again.url.replace('localhost', '127.0.0.1'))
  const pdf = Buffer.from(await (await teacher.fetch('GET', `/book/${bookId}/file`)).arrayBuffer())
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  const second = await teacher.ask<{ id: string; state: string }>('POST', '/book', {
    pupilId: school.ids.wren,
    termId: school.ids.term,
    madeFor: 'school',
  })
  expect(second.body).toMatchObject({ id: bookId, state: 'ready' })
  expect((await test_.manager.query<unknown[]>('select 1 from book')).length).toBe(1)
  await again.close()
})

test('with its database gone it answers 503 in plain words, and is well again when the database is back', async () => {
  const own = await TestServer.start()
  const visitor = own.visitor()
  expect((await visitor.ask('GET', '/health')).status).toBe(200)
  const name = own.config.databaseUrl.split('/').at(-1)!
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
  await main.connect()
  await main.query(`alter database ${name} allow_connections false`)
  await main.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
    name,
  ])
  try {
    const down = await visitor.ask('GET', '/health')
    expect(down.status).toBe(503)
    expect(down.body).toMatchObject({ status: 'down', database: 'down', storage: 'ok' })
    const refused = await visitor.ask('POST', '/accounts/sign-in/card', {
      code: 'ACDEFGHJKMNPRTWX',
    })
    expect(refused.body).toMatchObject({
      status: 503,
      type: '/problems/service/unavailable',
      title: expect.stringMatching(/safe/),
    })
  } finally {
    await main.query(`alter database ${name} allow_connections true`)
    await main.end()
  }
  await until(async () => (await visitor.ask('GET', '/health')).status === 200)
  expect(
    (await visitor.ask('POST', '/accounts/sign-in/card', { code: 'ACDEFGHJKMNPRTWX' })).status,
  ).toBe(401)
  await own.stop()
})
