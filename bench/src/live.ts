import type { Piece } from '@nibquill/contract'
import { type Person, SmallSchool, TestServer } from '@nibquill/server/testing/testServer'
import pg from 'pg'
import { line, median, timeMs, type Line } from './measure.ts'

const ROUNDS = 40

/**
 * From the moment a pupil hands in to the event at their teacher's page, over HTTP and server-sent
 * events; against what no way of telling could save: the answer to the pupil, and a bare NOTIFY
 * between two connections.
 */
export async function benchLive(): Promise<Line[]> {
  process.env.NIBQUILL_TEST_CLUSTER = process.env.NIBQUILL_BENCH_CLUSTER
  const test = await TestServer.start()
  const school = await SmallSchool.open(test)
  const heard = await listen(school.teacher)
  const bare = await bareNotify(test.config.databaseUrl)
  let piece: Piece = await school.draft()
  const move = async (to: 'hand-in' | 'withdraw') => {
    const address = `/pieces/${piece.id}/${to}`
    piece = (await school.wren.ask('POST', address, { seenVersion: piece.version })).body
  }
  const times = { event: [] as number[], answer: [] as number[], notify: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    const came = heard.next()
    const began = performance.now()
    const answered = move('hand-in').then(() => performance.now() - began)
    times.event.push((await came) - began)
    times.answer.push(await answered)
    const gone = heard.next()
    await move('withdraw')
    await gone
    times.notify.push(await timeMs(bare.once))
  }
  heard.leave()
  await bare.end()
  await test.stop()
  return [
    line(
      'from hand-in to the teacher’s page: against its answer and a bare NOTIFY (ms)',
      median(times.event),
      median(times.answer) + median(times.notify),
      'ms',
      '<=',
      1.2,
    ),
  ]
}

/** A teacher's open page. `next`: when the next event came. */
async function listen(teacher: Person) {
  const leaving = new AbortController()
  const response = await teacher.fetch('GET', '/live', { signal: leaving.signal })
  let tell: (at: number) => void = () => undefined
  void (async () => {
    const text = new TextDecoder()
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
      if (text.decode(chunk).includes('"topic":"pieces"')) tell(performance.now())
  })().catch(() => undefined)
  return {
    next: () => new Promise<number>((resolve) => (tell = resolve)),
    leave: () => leaving.abort(),
  }
}

async function bareNotify(connectionString: string) {
  const [from, to] = [new pg.Client({ connectionString }), new pg.Client({ connectionString })]
  await from.connect()
  await to.connect()
  await to.query('listen bare')
  return {
    once: () =>
      new Promise<void>((resolve, reject) => {
        to.once('notification', () => resolve())
        from.query("select pg_notify('bare', 'x')").catch(reject)
      }),
    end: async () => {
      await from.end()
      await to.end()
    },
  }
}
