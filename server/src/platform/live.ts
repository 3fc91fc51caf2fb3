import type { LiveEvent } from '@nibquill/contract'
import type { Response } from 'express'
import pg from 'pg'
import type { EntityManager } from 'typeorm'
import type { Log } from './log.ts'

const CHANNEL = 'nibquill'
/** Proxies close silent connections after a minute or so. */
const HEARTBEAT_MS = 25_000
const RECONNECT_MS = 1000
/** PostgreSQL refuses notifications of 8,000 bytes; 150 ids are 6,000. */
const MOST_PEOPLE_A_NOTE = 150

/** Tells people, when the caller's transaction commits, that something of theirs changed. Ids only. */
export async function tell(manager: EntityManager, personIds: readonly string[], event: LiveEvent): Promise<void> {
  const people = [...new Set(personIds)]
  for (let i = 0; i < people.length; i += MOST_PEOPLE_A_NOTE) {
    await manager.query('select pg_notify($1, $2)', [
      CHANNEL,
      JSON.stringify({ to: people.slice(i, i + MOST_PEOPLE_A_NOTE), event }),
    ])
  }
}

/** Fans out notifications to the people connected to this process. */
export class Live {
  readonly #url: string
  readonly #log: Log
  readonly #listeners = new Map<string, Set<Response>>()
  readonly #heartbeat: NodeJS.Timeout
  #client: pg.Client | null = null
  #closing = false

  constructor(url: string, log: Log) {
    this.#url = url
    this.#log = log
    this.#heartbeat = setInterval(() => this.#toAll(': still here\n\n'), HEARTBEAT_MS)
    this.#heartbeat.unref()
  }

  async start(): Promise<void> {
    const client = new pg.Client({ connectionString: this.#url })
    client.on('notification', ({ payload }) => this.#deliver(payload ?? '{}'))
    client.on('error', (error) => this.#log.warn({ error: error.message }, 'live connection lost'))
    client.on('end', () => this.#reconnect())
    await client.connect()
    await client.query(`listen ${CHANNEL}`)
    this.#client = client
  }

  #reconnect(): void {
    this.#client = null
    if (this.#closing) return
    setTimeout(() => {
      if (this.#closing) return
      this.start().then(
        // Whatever happened meanwhile was missed: everybody asks again.
        () => this.#toAll('event: missed\ndata: {}\n\n'),
        () => this.#reconnect(),
      )
    }, RECONNECT_MS).unref()
  }

  #deliver(payload: string): void {
    const { to, event } = JSON.parse(payload) as { to: string[]; event: LiveEvent }
    for (const personId of to) {
      for (const stream of this.#listeners.get(personId) ?? []) stream.write(`data: ${JSON.stringify(event)}\n\n`)
    }
  }

  #toAll(text: string): void {
    for (const streams of this.#listeners.values()) for (const stream of streams) stream.write(text)
  }

  /** Keeps a response open as one person's stream of events. */
  connect(personId: string, stream: Response): void {
    stream.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
      Connection: 'keep-alive',
    })
    stream.write('retry: 2000\n\n')
    const streams = this.#listeners.get(personId) ?? new Set()
    this.#listeners.set(personId, streams.add(stream))
    stream.on('close', () => {
      streams.delete(stream)
      if (streams.size === 0) this.#listeners.delete(personId)
    })
  }

  async stop(): Promise<void> {
    this.#closing = true
    clearInterval(this.#heartbeat)
    for (const streams of this.#listeners.values()) for (const stream of streams) stream.end()
    await this.#client?.end().catch(() => undefined)
  }
}
