import { AloneServer } from '../testing/alone.ts'
import { WayToDatabase } from '../testing/cutOff.ts'
import { PAGE_PATIENCE_MS } from './config.ts'
import { untilAnswering } from './database.ts'
import { takeDatabaseAway } from '../testing/databaseAway.ts'
import { SmallSchool, TestServer, until } from '../testing/testServer.ts'

test('twenty seconds without the database, under twenty requests a second, lose nothing, double nothing and leave nothing behind', async () => {
  const report = await takeDatabaseAway(20_000)
  // Measured 1,074; a busy machine asks less often.
  expect(report.requests).toBeGreaterThan(250)
  expect(report.there).toBe(report.asked)
  expect(report.oddAnswers).toEqual([])
  // Five, and twice as much again where other tests keep the machine busy.
  expect(report.secondsToHealthy).toBeLessThan(15)
  expect(report.descriptors.after).toBeLessThan(report.descriptors.before + 15)
  // Measured 1.7.
  expect(report.heldMb.after).toBeLessThan(report.heldMb.before + 25)
  expect([report.listeners, report.toldTimes]).toEqual([1, 1])
})

test('a database that has stopped answering is said to be away within three seconds, and its connections are not used again', async () => {
  const test_ = await TestServer.start()
  const school = await SmallSchool.open(test_)
  const way = await WayToDatabase.open(test_.config.databaseUrl)
  const alone = await AloneServer.start(test_.config, {
    ...{ databaseUrl: way.url, pagePatienceMs: PAGE_PATIENCE_MS },
  })
  const wren = school.wren.copiedInto(school.wren.browser, alone.at)
  expect((await wren.ask('GET', '/pieces')).status).toBe(200)
  way.freeze()
  for (let i = 0; i < 3; i++) {
    const began = Date.now()
    const answers = await Promise.all(Array.from({ length: 10 }, () => wren.ask('GET', '/pieces')))
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([503]))
    // Three seconds, and as much again where other tests keep the machine busy.
    expect(Date.now() - began).toBeLessThan(6000)
  }
  way.mend()
  await until(async () => (await wren.ask('GET', '/pieces')).status === 200)
  const answers = await Promise.all(Array.from({ length: 30 }, () => wren.ask('GET', '/pieces')))
  expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]))
  await until(async () => {
    const [row] = await test_.manager.query<{ n: number }[]>(
      `select count(*)::int as n from pg_stat_activity where datname = current_database() and state like 'idle in transaction%'`,
    )
    return row!.n === 0
  })
  await alone.end()
  await way.close()
  await test_.stop()
})

test('a server that is up before its database waits for it; one that is not let in says so at once', async () => {
  const test_ = await TestServer.start()
  const way = await WayToDatabase.open(test_.config.databaseUrl)
  way.cut()
  const starting = AloneServer.start(test_.config, { databaseUrl: way.url })
  await until(() => Promise.resolve(way.tried >= 2))
  way.mend()
  const alone = await starting
  expect((await fetch(`${alone.at}/api/health`)).status).toBe(200)
  await alone.end()
  await way.close()
  const stranger = new URL(test_.config.databaseUrl)
  stranger.password = 'not the password'
  const began = Date.now()
  await expect(untilAnswering(stranger.toString(), () => undefined)).rejects.toThrow(/password/)
  expect(Date.now() - began).toBeLessThan(10_000)
  await test_.stop()
})
