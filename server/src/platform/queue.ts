import { Logger, run, type Runner, type TaskList } from 'graphile-worker'
import type { Pool } from 'pg'
import type { EntityManager } from 'typeorm'
import type { Log } from './log.ts'
import { Vouching } from './vouching.ts'

/**
 * Every job there is, with what it is told: ids, never the thing itself, so that it can safely run
 * twice.
 */
export type Jobs = {
  'media.prepare': { mediaId: string }
  'media.let-go': { mediaId: string }
  'media.film-talk': { mediaId: string }
  'book.make': { bookId: string }
  'mail.send': { mailId: string }
  'accounts.draw-cards': { sheetId: string }
  /** `personId` null: somebody typed an address nobody has. */
  'accounts.mail-way-in': { by: 'password' | 'code'; personId: string | null; anyway: boolean }
  'accounts.forget-cards': { sheetId: string }
  'school.take-list': { classListId: string }
}
export type JobHandlers = { [Name in keyof Jobs]: (payload: Jobs[Name]) => Promise<void> }
/** Chores by the clock. */
export type Chores = Record<string, () => Promise<unknown>>

const MOST_TRIES = 8
const WORKERS = 2

/**
 * Puts a job into the queue in the caller's transaction: it runs if and only if that commits, after
 * `waitMs` at the earliest.
 * @param line - One after the other with others of that name, while the rest goes on beside them.
 */
export async function addJob<Name extends keyof Jobs>(
  manager: EntityManager,
  name: Name,
  payload: Jobs[Name],
  key: string,
  { waitMs = 0, line = null }: { waitMs?: number; line?: string | null } = {},
): Promise<void> {
  await manager.query(
    `select graphile_worker.add_job($1, $2, max_attempts => $3, job_key => $4, run_at => now() + make_interval(secs => $5), queue_name => $6)`,
    [name, JSON.stringify(payload), MOST_TRIES, `${name}:${key}`, waitMs / 1000, line],
  )
}

/**
 * PostgreSQL's own queue: at least once, across restarts. A database that went away is waited for.
 */
export class Queue {
  readonly #pool: Pool
  readonly #log: Log
  #runner: Runner | null = null
  #closing = false
  #supervisor: Promise<void> | null = null
  readonly #vouching: Vouching

  constructor(pool: Pool, url: string, log: Log) {
    this.#pool = pool
    this.#log = log
    this.#vouching = new Vouching(url, log)
  }

  async start(handlers: JobHandlers, chores: Chores): Promise<void> {
    const taskList = {
      ...Object.fromEntries(
        Object.entries(handlers).map(([name, handle]) => [
          name,
          (payload: unknown) => handle(payload as never),
        ]),
      ),
      ...chores,
    } as TaskList
    const crontab = Object.keys(chores)
      .map((name) => `17 3 * * * ${name}`)
      .join('\n')
    this.#runner = await this.#run(taskList, crontab)
    await this.#vouching.start()
    this.#supervisor = this.#supervise(taskList, crontab)
  }

  #run(taskList: TaskList, crontab: string): Promise<Runner> {
    return run({
      pgPool: this.#pool,
      taskList,
      crontab,
      concurrency: WORKERS,
      noHandleSignals: true,
      events: this.#vouching.events,
      pollInterval: 2000,
      logger: new Logger(() => (level, message, meta) => this.#note(level, message, meta)),
    })
  }

  #note(level: string, message: string, meta?: Record<string, unknown>): void {
    const error =
      meta?.error instanceof Error ? { error: meta.error.message, stack: meta.error.stack } : {}
    if (level === 'error') this.#log.error({ ...error }, message)
    else if (level === 'warning') this.#log.warn({ ...error }, message)
    else this.#log.debug(message)
  }

  /** A runner gives up when the database goes away; another is started as soon as it is back. */
  async #supervise(taskList: TaskList, crontab: string): Promise<void> {
    while (!this.#closing) {
      await this.#runner?.promise.catch((error: unknown) =>
        this.#log.warn({ error: String(error) }, 'queue stopped'),
      )
      if (this.#closing) return
      this.#runner = null
      await new Promise((resolve) => setTimeout(resolve, 1000))
      this.#runner = await this.#run(taskList, crontab).catch(() => null)
    }
  }

  get isRunning(): boolean {
    return this.#runner !== null
  }

  async stop(): Promise<void> {
    this.#closing = true
    await this.#runner?.stop().catch(() => undefined)
    await this.#supervisor
    await this.#vouching.stop()
  }
}
