import { SetClock, type Config, type RunningServer } from '@nibquill/server'
import { PAGE_PATIENCE_MS } from '@nibquill/server/platform/config'
import { PersonRow } from '@nibquill/server/school/rows'
import { randomUUID } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import pg from 'pg'

export const clock = new SetClock(new Date('2026-11-23T10:00:00Z'))

/** A fresh database in the bench's cluster and a fresh data folder. */
export async function benchConfig(
  name: string,
): Promise<{ config: Config; stop: () => Promise<void> }> {
  const database = `bench_${name}_${randomUUID().slice(0, 8)}`
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_BENCH_CLUSTER })
  await main.connect()
  await main.query(`create database ${database}`)
  await main.end()
  const dataFolder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const config: Config = {
    port: 0,
    host: '127.0.0.1',
    dataFolder,
    s3: null,
    databaseUrl: process.env.NIBQUILL_BENCH_CLUSTER!.replace(/\/postgres$/, `/${database}`),
    pagePatienceMs: PAGE_PATIENCE_MS,
    publicUrl: 'http://nibquill.example',
    clientFolder: null,
    trustProxy: false,
    keepConnectionsMs: 75_000,
    smtpUrl: null,
    mailFrom: 'bench',
    logLevel: 'error',
  }
  return { config, stop: () => rm(dataFolder, { recursive: true, force: true }) }
}

/** A school with one teacher, who owns what the bench makes. */
export async function makeOwner(server: RunningServer): Promise<string> {
  await server.capabilities.accounts.setUp({
    schoolName: 'Saltmarsh Primary School',
    timeZone: 'Europe/London',
    firstName: 'Mr',
    lastName: 'Adeyemi',
    email: 'a@saltmarsh.example',
    password: 'a long enough password',
  })
  return (
    await server.platform.db.manager.findOneByOrFail(PersonRow, { email: 'a@saltmarsh.example' })
  ).id
}
