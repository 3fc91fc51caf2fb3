import { setTimeout as sleep } from 'node:timers/promises'
import { backOffMs } from '@nibquill/core'
import { v7 as newId } from 'uuid'
import { PAGE_PATIENCE_MS } from '../platform/config.ts'
import { AloneServer } from './alone.ts'
import { WayToDatabase } from './cutOff.ts'
import { type Person, SmallSchool, TestServer } from './testServer.ts'

const EVERY_MS = 50
/**
 * Thirty tablets, three pieces each: without an end to it, a machine too slow for twenty a second
 * would never get through what came meanwhile.
 */
const OPEN_AT_MOST = 90
/** A tablet's, shortened to the twenty seconds. */
const WAITS = { firstMs: 1000, mostMs: 4000, leastMs: 500 }

export type AwayReport = {
  /**
   * Pieces asked for, and how many of them there are, twice or not at all being told apart by the
   * second.
   */
  asked: number
  there: number
  /** How often they were asked for, all in all. */
  requests: number
  /** Answers other than 200 and 503, which nobody should be given. */
  oddAnswers: number[]
  secondsToHealthy: number
  descriptors: { before: number; after: number }
  heldMb: { before: number; after: number }
  /** Connections of that process that listen for events. */
  listeners: number
  /** How often one change after it all was told to one open page. */
  toldTimes: number
}

/**
 * Takes the database away from a server in a process of its own while somebody goes on asking for
 * pieces twenty times a second, as outboxes
 * do: each under its own id, again and again until it is there. Then gives it back.
 */
export async function takeDatabaseAway(awayMs: number): Promise<AwayReport> {
  const test = await TestServer.start()
  const school = await SmallSchool.open(test)
  const way = await WayToDatabase.open(test.config.databaseUrl)
  // Those who waited in vain leave connections behind: what is counted is what the server keeps.
  const alone = await AloneServer.start(test.config, {
    ...{ databaseUrl: way.url, keepConnectionsMs: 1000, pagePatienceMs: PAGE_PATIENCE_MS },
  })
  const wren = school.wren.copiedInto(school.wren.browser, alone.at)
  const outbox = new Outbox(wren)
  const page = openPage(school.teacher, alone.at)
  try {
    outbox.run()
    await sleep(1500)
    const before = { descriptors: alone.descriptors, heldMb: await alone.heldMb() }
    way.cut()
    await sleep(awayMs)
    way.mend()
    const secondsToHealthy = await untilHealthy(alone.at)
    await outbox.stop()
    // Longer than a browser's connection is kept open with nothing on it: those are nobody's leak.
    await sleep(7000)
    const [{ there = 0 } = {}] = await test.manager.query<{ there: number }[]>(
      'select count(*)::int as there from piece',
    )
    page.events.length = 0
    const lastId = newId()
    await wren.ask('PUT', `/pieces/${lastId}`, { taskId: null })
    await sleep(500)
    const [{ listeners = 0 } = {}] = await test.manager.query<{ listeners: number }[]>(
      `select count(*)::int as listeners from pg_stat_activity where datname = current_database() and query = 'listen nibquill'`,
    )
    return {
      asked: outbox.asked,
      requests: outbox.requests,
      there,
      oddAnswers: outbox.oddAnswers,
      secondsToHealthy,
      descriptors: { before: before.descriptors, after: alone.descriptors },
      heldMb: { before: before.heldMb, after: await alone.heldMb() },
      // The server in this process, on the straight way, has one as well.
      listeners: listeners - 1,
      toldTimes: page.events.filter((event) => event.includes(lastId)).length,
    }
  } finally {
    page.close()
    await alone.end()
    await way.close()
    await test.stop()
  }
}

/** Asks for a new piece every 50 ms, and for each again until it is there. */
class Outbox {
  asked = 0
  requests = 0
  readonly oddAnswers: number[] = []
  readonly #person: Person
  readonly #open = new Set<Promise<void>>()
  #timer: NodeJS.Timeout | null = null
  constructor(person: Person) {
    this.#person = person
  }

  run(): void {
    this.#timer = setInterval(() => {
      if (this.#open.size < OPEN_AT_MOST) this.#ask()
    }, EVERY_MS)
  }

  #ask(): void {
    this.asked += 1
    const sent = this.#send(newId()).finally(() => this.#open.delete(sent))
    this.#open.add(sent)
  }

  async #send(id: string): Promise<void> {
    for (let failures = 1; ; failures++) {
      this.requests += 1
      const answer = await this.#person
        .ask('PUT', `/pieces/${id}`, { taskId: null })
        .catch(() => null)
      if (answer?.status === 200) return
      if (answer && answer.status !== 503) this.oddAnswers.push(answer.status)
      await sleep(backOffMs(failures, Math.random(), WAITS))
    }
  }

  /** Asks for nothing new, and waits for what is on its way. */
  async stop(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer)
    await Promise.all(this.#open)
  }
}

/** Somebody's open page, which hears what is told. */
function openPage(person: Person, at: string): { events: string[]; close: () => void } {
  const events: string[] = []
  const leave = new AbortController()
  const there = person.copiedInto(person.browser, at)
  void (async () => {
    const response = await there.fetch('GET', '/live', { signal: leave.signal })
    const text = new TextDecoder()
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
      events.push(text.decode(chunk))
  })().catch(() => undefined)
  return { events, close: () => leave.abort() }
}

async function untilHealthy(at: string): Promise<number> {
  const began = Date.now()
  for (;;) {
    const response = await fetch(`${at}/api/health`).catch(() => null)
    if (response?.status === 200) return (Date.now() - began) / 1000
    if (Date.now() - began > 30_000) return Number.POSITIVE_INFINITY
    await sleep(100)
  }
}
