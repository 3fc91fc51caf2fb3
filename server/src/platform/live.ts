import type { LiveEvent } from '@nibquill/contract'
import { backOffMs, DomainError } from '@nibquill/core'
import type { Response } from 'express'
import pg from 'pg'
import type { EntityManager } from 'typeorm'
import type { Log } from './log.ts'
import type { SignedIn } from './routes.ts'

const CHANNEL = 'nibquill'
/** Proxies close silent connections after a minute or so. */
const HEARTBEAT_MS = 25_000
const CONNECTING_TAKES_AT_MOST_MS = 2000
/** PostgreSQL refuses notifications of 8,000 bytes; 150 ids are 6,000. */
const MOST_PEOPLE_A_NOTE = 150
/** Tabs and tablets of one person; the next one is told that there are enough. */
export const MOST_STREAMS_A_PERSON = 8
/** Events are under a hundred bytes: whoever has so much of them unread does not read. */
const MOST_UNREAD_BYTES = 64 * 1024
/**
 * A page asks its first questions before its stream is open: what was told in between is told again.
 */
const TOLD_AGAIN_FOR_MS = 2000
const MOST_TOLD_AGAIN = 200

const LISTEN_AGAIN = { firstMs: 400, mostMs: 2000, leastMs: 150 }

type Told = { to: string[]; event: LiveEvent } | { ended: string[] }

/**
 * Tells people, when the caller's transaction commits, that something of theirs changed. Ids only.
 */
export async function tell(
  manager: EntityManager,
  personIds: readonly string[],
  event: LiveEvent,
): Promise<void> {
  for (const to of inNotes(personIds)) await send(manager, { to, event })
}

/**
 * Tells every process, when the caller's transaction commits, that these sessions are over: their
 * streams close.
 */
export async function tellEnded(
  manager: EntityManager,
  sessionIds: readonly string[],
): Promise<void> {
  for (const ended of inNotes(sessionIds)) await send(manager, { ended })
}

const send = (manager: EntityManager, told: Told): Promise<unknown> =>
  manager.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(told)])

function inNotes(ids: readonly string[]): string[][] {
  const all = [...new Set(ids)]
  return Array.from({ length: Math.ceil(all.length / MOST_PEOPLE_A_NOTE) }, (_, i) =>
    all.slice(i * MOST_PEOPLE_A_NOTE, (i + 1) * MOST_PEOPLE_A_NOTE),
  )
}

/** Says which of these sessions still stand. */
export type StillOpen = (sessionIds: readonly string[]) => Promise<Set<string>>

/** Fans out notifications to the people connected to this process. */
export class Live {
  readonly #url: string
  readonly #log: Log
  /** Each stream with the session it was opened by, for each person. */
  readonly #streams = new Map<string, Map<Response, string>>()
  /** Told a moment ago, oldest first. */
  #lately: { at: number; to: ReadonlySet<string>; data: string }[] = []
  readonly #heartbeat: NodeJS.Timeout
  #stillOpen: StillOpen = (ids) => Promise.resolve(new Set(ids))
  #client: pg.Client | null = null
  #retry: NodeJS.Timeout | null = null
  #failures = 0
  #closing = false

  constructor(url: string, log: Log) {
    this.#url = url
    this.#log = log
    this.#heartbeat = setInterval(() => void this.#beat(), HEARTBEAT_MS)
    this.#heartbeat.unref()
  }

  /** @throws when the database is not there at the start */
  async start(stillOpen: StillOpen): Promise<void> {
    this.#stillOpen = stillOpen
    await this.#listen()
  }

  /**
   * One listener at a time: a client that failed is closed and says nothing any more, and only its
   * end asks for the next.
   */
  async #listen(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.#url,
      connectionTimeoutMillis: CONNECTING_TAKES_AT_MOST_MS,
      query_timeout: CONNECTING_TAKES_AT_MOST_MS,
      keepAlive: true,
    })
    // Without a listener an error of a lost connection would end the process.
    client.on('error', (error) => this.#log.warn({ error: error.message }, 'live connection lost'))
    try {
      await client.connect()
      client.on('notification', ({ payload }) => this.#deliver(payload ?? '{}'))
      await client.query(`listen ${CHANNEL}`)
    } catch (error) {
      void client.end().catch(() => undefined)
      throw error
    }
    if (this.#closing) return client.end()
    this.#client = client
    client.once('end', () => this.#listenLater())
  }

  #listenLater(): void {
    this.#client = null
    if (this.#closing || this.#retry) return
    this.#retry = setTimeout(
      () => {
        this.#retry = null
        if (this.#closing) return
        this.#listen().then(
          () => {
            this.#failures = 0
            // Whatever happened meanwhile was missed: everybody asks again.
            this.#toAll('event: missed\ndata: {}\n\n')
          },
          () => this.#listenLater(),
        )
      },
      backOffMs(++this.#failures, Math.random(), LISTEN_AGAIN),
    )
    this.#retry.unref()
  }

  get isListening(): boolean {
    return this.#client !== null
  }

  #deliver(payload: string): void {
    const told = JSON.parse(payload) as Told
    if ('ended' in told) return this.#closeSessions(new Set(told.ended))
    const data = `data: ${JSON.stringify(told.event)}\n\n`
    const at = performance.now()
    this.#lately = [...this.#lately.slice(1 - MOST_TOLD_AGAIN), { at, to: new Set(told.to), data }]
    for (const personId of told.to)
      for (const stream of this.#streams.get(personId)?.keys() ?? []) this.#write(stream, data)
  }

  /** Each once. */
  #toldLately(personId: string): Set<string> {
    const since = performance.now() - TOLD_AGAIN_FOR_MS
    const theirs = this.#lately.filter(({ at, to }) => at >= since && to.has(personId))
    return new Set(theirs.map(({ data }) => data))
  }

  #write(stream: Response, text: string): void {
    if (stream.writableLength > MOST_UNREAD_BYTES) stream.destroy()
    else stream.write(text)
  }

  #closeSessions(sessionIds: ReadonlySet<string>): void {
    for (const streams of this.#streams.values())
      for (const [stream, sessionId] of streams) if (sessionIds.has(sessionId)) stream.end()
  }

  /**
   * Also closes what ended without anybody saying so: a card that was renewed, an invitation that
   * ran out.
   */
  async #beat(): Promise<void> {
    this.#toAll(': still here\n\n')
    const sessionIds = [
      ...new Set([...this.#streams.values()].flatMap((streams) => [...streams.values()])),
    ]
    if (sessionIds.length === 0) return
    const open = await this.#stillOpen(sessionIds).catch(() => null)
    if (open) this.#closeSessions(new Set(sessionIds.filter((id) => !open.has(id))))
  }

  #toAll(text: string): void {
    for (const streams of this.#streams.values())
      for (const stream of streams.keys()) this.#write(stream, text)
  }

  /** Keeps a response open as one person's stream of events. @throws DomainError `live/too-many` */
  connect(
    { personId, sessionId }: Pick<SignedIn, 'personId' | 'sessionId'>,
    stream: Response,
  ): void {
    const streams = this.#streams.get(personId) ?? new Map<Response, string>()
    if (streams.size >= MOST_STREAMS_A_PERSON)
      throw new DomainError('live/too-many', { most: MOST_STREAMS_A_PERSON })
    this.#streams.set(personId, streams.set(stream, sessionId))
    stream.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
      Connection: 'keep-alive',
    })
    stream.write('retry: 2000\n\n')
    for (const data of this.#toldLately(personId)) this.#write(stream, data)
    stream.on('close', () => {
      streams.delete(stream)
      if (streams.size === 0) this.#streams.delete(personId)
    })
  }

  async stop(): Promise<void> {
    this.#closing = true
    clearInterval(this.#heartbeat)
    if (this.#retry) clearTimeout(this.#retry)
    for (const streams of this.#streams.values()) for (const stream of streams.keys()) stream.end()
    await this.#client?.end().catch(() => undefined)
  }
}
