import { EventEmitter } from 'node:events'
import pg from 'pg'
import type { WorkerEvents } from 'graphile-worker'
import type { Log } from './log.ts'

/**
 * A lock that is not given within this time is asked for at the next sweep, on a new connection.
 */
const ANSWER_WITHIN_MS = 5000
const SWEEP_EVERY_MS = 15_000
const LOCK = 'pg_try_advisory_lock(hashtextextended($1, 20261))'
const UNLOCK = 'pg_advisory_unlock(hashtextextended($1, 20261))'

/**
 * Says for each pool of workers of this process that it lives, by a lock that PostgreSQL drops the
 * moment the process is gone. The queue locks jobs in the name of the pool.
 * A job whose pool nobody vouches for was cut off, and is given back to the queue: by itself the
 * queue would wait four hours.
 */
export class Vouching {
  /** To be handed to the queue, which announces its pools here. */
  readonly events: WorkerEvents = new EventEmitter()
  readonly #url: string
  readonly #log: Log
  readonly #poolIds = new Set<string>()
  #client: Promise<pg.Client> | null = null
  #timer: NodeJS.Timeout | null = null
  #turn: Promise<void> = Promise.resolve()

  constructor(url: string, log: Log) {
    this.#url = url
    this.#log = log
    this.events.on('pool:create', ({ workerPool }) => {
      this.#poolIds.add(workerPool.id)
      void this.#vouch(workerPool.id)
    })
  }

  async start(): Promise<void> {
    this.#timer = setInterval(() => void this.#sweep(), SWEEP_EVERY_MS)
    this.#timer.unref()
    await this.#sweep()
  }

  async stop(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer)
    await this.#turn
    await this.#client?.then((client) => client.end()).catch(() => undefined)
  }

  /** One connection for all, however many ask at once. */
  #connect(): Promise<pg.Client> {
    return (this.#client ??= this.#open().catch((error: unknown) => {
      this.#client = null
      throw error
    }))
  }

  async #open(): Promise<pg.Client> {
    const client = new pg.Client({
      connectionString: this.#url,
      connectionTimeoutMillis: 2000,
      query_timeout: ANSWER_WITHIN_MS,
      keepAlive: true,
    })
    client.on('error', () => undefined)
    try {
      await client.connect()
      for (const poolId of this.#poolIds) await client.query(`select ${LOCK}`, [poolId])
    } catch (error) {
      void client.end().catch(() => undefined)
      throw error
    }
    client.once('end', () => {
      this.#client = null
    })
    return client
  }

  /** One question after the other: it is one connection. */
  #inTurn(work: () => Promise<void>): Promise<void> {
    this.#turn = this.#turn.then(work)
    return this.#turn
  }

  #vouch(poolId: string): Promise<void> {
    return this.#inTurn(async () => {
      await this.#connect()
        .then((client) => client.query(`select ${LOCK}`, [poolId]))
        .catch(() => undefined)
    })
  }

  #sweep(): Promise<void> {
    return this.#inTurn(() => this.#giveBack())
  }

  async #giveBack(): Promise<void> {
    try {
      const client = await this.#connect()
      const { rows } = await client.query<{ id: string }>(
        'select distinct locked_by as id from graphile_worker.jobs where locked_by is not null',
      )
      for (const { id } of rows) {
        if (this.#poolIds.has(id)) continue
        const { rows: got } = await client.query<{ free: boolean }>(`select ${LOCK} as free`, [id])
        if (!got[0]?.free) continue
        await client.query('select graphile_worker.force_unlock_workers($1::text[])', [[id]])
        await client.query(`select ${UNLOCK}`, [id])
        this.#log.info({ pool: id }, 'gave back jobs of workers that are gone')
      }
    } catch (error) {
      // Whatever hung or broke: the next sweep connects anew.
      const client = this.#client
      this.#client = null
      void client?.then((open) => open.end()).catch(() => undefined)
      this.#log.debug({ error: String(error) }, 'sweep put off')
    }
  }
}
