import { setTimeout as sleep } from 'node:timers/promises'
import pg from 'pg'
import {
  DataSource,
  DefaultNamingStrategy,
  type EntitySchema,
  type MigrationInterface,
  type NamingStrategyInterface,
  type Table,
} from 'typeorm'
const snake = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)
const tableOf = (table: Table | string | { name: string }) =>
  (typeof table === 'string' ? table : table.name).split('.').at(-1)!

/** Names as a person would write them, so that hand-written migrations and entities agree. */
class PlainNames extends DefaultNamingStrategy implements NamingStrategyInterface {
  override columnName = (property: string, custom: string | undefined) => custom ?? snake(property)
  override primaryKeyName = (table: Table | string) => `${tableOf(table)}_pkey`
  override foreignKeyName = (table: Table | string, columns: string[]) =>
    `${tableOf(table)}_${columns.join('_')}_fkey`
  override uniqueConstraintName = (table: Table | string, columns: string[]) =>
    `${tableOf(table)}_${columns.join('_')}_key`
  override indexName = (table: Table | string | { name: string }, columns: string[]) =>
    `${tableOf(table)}_${columns.join('_')}_idx`
}

/** What a database holds: its tables, and the migrations that made them, in order. */
export type Schema = { rows: EntitySchema[]; migrations: (new () => MigrationInterface)[] }

/** How long somebody waits for the database, in milliseconds. */
export type Patience = {
  connectionTimeoutMillis: number
  query_timeout: number
  statement_timeout: number
}
/** Of a page: so long for an answer, and somewhat less for a connection where none is open. */
export const pagePatience = (mostMs: number): Patience => ({
  connectionTimeoutMillis: 0.6 * mostMs,
  query_timeout: mostMs,
  statement_timeout: mostMs,
})
/** Of a job: as long as its longest statement takes. */
export const JOB_PATIENCE: Patience = {
  connectionTimeoutMillis: 5000,
  query_timeout: 120_000,
  statement_timeout: 120_000,
}

/**
 * A connection that is closed the moment a question on it goes unanswered: given back to its pool
 * it would be in the middle of
 * somebody's transaction, and the next one to use it as well.
 */
class PatientClient extends pg.Client {
  override query(...words: unknown[]): never {
    const answer = (pg.Client.prototype.query as (...words: unknown[]) => unknown).apply(
      this,
      words,
    )
    if (answer instanceof Promise)
      answer.catch((error: unknown) => {
        if (error instanceof Error && error.message === 'Query read timeout') this.#hangUp()
      })
    return answer as never
  }

  #hangUp(): void {
    ;(
      this as unknown as { connection: { stream: { destroy: () => void } } }
    ).connection.stream.destroy()
  }
}

/** What every pool of ours is made with. @param most - Connections at once. */
export const poolOptions = (url: string, patience: Patience, most: number): pg.PoolConfig => ({
  connectionString: url,
  max: most,
  Client: PatientClient,
  ...patience,
  keepAlive: true,
})

export function openDatabase(
  schema: Schema,
  url: string,
  patience: Patience,
  most: number,
  onPoolError: (error: Error) => void,
): Promise<DataSource> {
  const { connectionString: _url, ...extra } = poolOptions(url, patience, most)
  return new DataSource({
    type: 'postgres',
    url,
    entities: schema.rows,
    migrations: schema.migrations,
    migrationsTableName: 'migration',
    namingStrategy: new PlainNames(),
    poolErrorHandler: onPoolError,
    extra,
  }).initialize()
}

/** What a database says that is there but will not have us: waiting mends none of these. */
const REFUSED = /^(28|3D|42)/
const LOOKING_AGAIN_MS = 500

/**
 * Waits for a database that is still starting, or busy: after a power cut both machines come back,
 * and not in the order one would like.
 * @param atMostMs - Then the last trouble is thrown; a wrong password or name is thrown at once.
 */
export async function untilAnswering(
  url: string,
  onWait: (error: Error) => void,
  atMostMs = 60_000,
): Promise<void> {
  for (const began = Date.now(); ;) {
    const client = new pg.Client({ connectionString: url, ...JOB_PATIENCE })
    client.on('error', () => undefined)
    try {
      await client.connect()
      return
    } catch (error) {
      if (!(error instanceof Error)) throw error
      const refused = error instanceof pg.DatabaseError && REFUSED.test(error.code ?? '')
      if (refused || Date.now() - began > atMostMs) throw error
      onWait(error)
      await sleep(LOOKING_AGAIN_MS)
    } finally {
      await client.end().catch(() => undefined)
    }
  }
}

const MIGRATING = 'hashtextextended($1, 20262)'

/**
 * Brings the tables up to date. Of several processes starting at once one does it, the others wait.
 */
export async function migrate(schema: Schema, url: string): Promise<void> {
  const holder = new pg.Client({
    connectionString: url,
    connectionTimeoutMillis: JOB_PATIENCE.connectionTimeoutMillis,
  })
  await holder.connect()
  try {
    // Held by the connection: whoever dies in the middle lets go.
    await holder.query(`select pg_advisory_lock(${MIGRATING})`, ['migration'])
    const db = await openDatabase(schema, url, JOB_PATIENCE, 2, () => undefined)
    try {
      await db.runMigrations({ transaction: 'each' })
    } finally {
      await db.destroy()
    }
  } finally {
    await holder.end()
  }
}
