import { EventEmitter } from 'node:events'
import pg from 'pg'
import type { WorkerEvents } from 'graphile-worker'
import type { Log } from './log.ts'

const SWEEP_EVERY_MS = 15_000
const LOCK = 'pg_try_advisory_lock(hashtextextended($1, 20261))'
const UNLOCK = 'pg_advisory_unlock(hashtextextended($1, 20261))'

/**
 * Says for each worker of this process that it lives, by a lock that PostgreSQL drops the moment the process is gone.
 * A job whose worker nobody vouches for was cut off, and is given back to the queue: by itself the queue would wait four hours.
 */
export class Vouching {
  /** To be handed to the queue, which announces its workers here. */
  readonly events: WorkerEvents = new EventEmitter()
  readonly #url: string
  readonly #log: Log
  readonly #workerIds = new Set<string>()
  #client: pg.Client | null = null
  #timer: NodeJS.Timeout | null = null

  constructor(url: string, log: Log) {
    this.#url = url
    this.#log = log
    this.events.on('worker:create', ({ worker }) => {
      this.#workerIds.add(worker.workerId)
      void this.#vouch(worker.workerId)
    })
  }

  async start(): Promise<void> {
    this.#timer = setInterval(() => void this.#sweep(), SWEEP_EVERY_MS)
    this.#timer.unref()
    await this.#sweep()
  }

  async stop(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer)
    await this.#client?.end().catch(() => undefined)
  }

  async #connect(): Promise<pg.Client> {
    if (this.#client) return this.#client
    const client = new pg.Client({ connectionString: this.#url })
    client.on('error', () => {
      this.#client = null
    })
    await client.connect()
    this.#client = client
    for (const workerId of this.#workerIds) await client.query(`select ${LOCK}`, [workerId])
    return client
  }

  async #vouch(workerId: string): Promise<void> {
    await this.#connect()
      .then((client) => client.query(`select ${LOCK}`, [workerId]))
      .catch(() => undefined)
  }

  async #sweep(): Promise<void> {
    try {
      const client = await this.#connect()
      const { rows } = await client.query<{ id: string }>(
        'select distinct locked_by as id from graphile_worker.jobs where locked_by is not null',
      )
      for (const { id } of rows) {
        if (this.#workerIds.has(id)) continue
        const { rows: got } = await client.query<{ free: boolean }>(`select ${LOCK} as free`, [id])
        if (!got[0]?.free) continue
        await client.query('select graphile_worker.force_unlock_workers($1::text[])', [[id]])
        await client.query(`select ${UNLOCK}`, [id])
        this.#log.info({ worker: id }, 'gave back jobs of a worker that is gone')
      }
    } catch (error) {
      this.#log.debug({ error: String(error) }, 'sweep put off')
    }
  }
}
