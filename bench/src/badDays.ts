import { AloneServer } from '@nibquill/server/testing/alone'
import { takeDatabaseAway } from '@nibquill/server/testing/databaseAway'
import { SmallSchool, TestServer } from '@nibquill/server/testing/testServer'
import { line, median, type Line } from './measure.ts'

const AWAY_MS = 20_000
const SECONDS = 4
const ROUNDS = 3
const AT_ONCE = 24

/**
 * The database away for twenty seconds under twenty requests a second; and two processes against
 * one.
 */
export async function benchBadDays(): Promise<Line[]> {
  process.env.NIBQUILL_TEST_CLUSTER = process.env.NIBQUILL_BENCH_CLUSTER
  const { secondsToHealthy, descriptors, asked, there } = await takeDatabaseAway(AWAY_MS)
  const [two, one] = await countRequests()
  return [
    line('database away 20 s: until healthy (s)', secondsToHealthy, 5, 's', '<=', 1),
    line(
      'database away 20 s: descriptors after against before',
      descriptors.after,
      descriptors.before,
      'open files',
      '<=',
      1.2,
    ),
    line('database away 20 s: pieces there of those asked for', there, asked, 'pieces', '>=', 1),
    line('two processes against one (requests a second)', two, one, 'requests/s', '>=', 1),
  ]
}

/**
 * Lists of a teacher's and a pupil's, asked for by many at once: of two processes in turn, and of
 * one.
 * @returns requests a second, medians
 */
async function countRequests(): Promise<[two: number, one: number]> {
  const test = await TestServer.start()
  const school = await SmallSchool.open(test)
  for (let i = 0; i < 10; i++) await school.submitted()
  const servers = [await AloneServer.start(test.config), await AloneServer.start(test.config)]
  const counts = { two: [] as number[], one: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    counts.two.push(
      await countAt(
        school,
        servers.map(({ at }) => at),
      ),
    )
    counts.one.push(await countAt(school, [servers[0]!.at]))
  }
  for (const server of servers) await server.end()
  await test.stop()
  return [median(counts.two), median(counts.one)]
}

async function countAt(school: SmallSchool, places: readonly string[]): Promise<number> {
  const until = performance.now() + SECONDS * 1000
  let count = 0
  const ask = async (i: number) => {
    const at = places[i % places.length]!
    const [teacher, wren] = [school.teacher, school.wren].map((person) =>
      person.copiedInto(person.browser, at),
    )
    while (performance.now() < until) {
      for (const [person, address] of [
        [teacher!, '/review/tray'],
        [wren!, '/pieces'],
        [wren!, '/tasks'],
      ] as const) {
        const { status } = await person.ask('GET', address)
        if (status !== 200) throw new Error(`${address} was answered with ${status}`)
        count += 1
      }
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, (_, i) => ask(i)))
  return count / SECONDS
}
