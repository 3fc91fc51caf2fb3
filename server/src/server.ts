import type { Express } from 'express'
import { createServer, type Server } from 'node:http'
import { setTimeout as sleep } from 'node:timers/promises'
import pg from 'pg'
import { openApp } from './app.ts'
import { openCapabilities, type Capabilities } from './capabilities.ts'
import { Uploads } from './media/uploads.ts'
import { systemClock, type Clock } from './platform/clock.ts'
import type { Config } from './platform/config.ts'
import {
  JOB_PATIENCE,
  migrate,
  openDatabase,
  pagePatience,
  poolOptions,
  untilAnswering,
  type Patience,
} from './platform/database.ts'
import { Live } from './platform/live.ts'
import { openLog } from './platform/log.ts'
import type { Platform } from './platform/platform.ts'
import { openStorage } from './platform/openStorage.ts'
import { Queue } from './platform/queue.ts'
import { Secrets } from './platform/secrets.ts'
import { SCHEMA } from './schema.ts'
import { Retention } from './retention/retention.ts'

/** Requests that are being answered when it is time to stop may finish, for so long. */
const DRAIN_MS = 10_000

/**
 * `platform` and `capabilities` answer people; `jobs` are the same with more patience, for what
 * nobody waits for.
 */
export type OpenNibquill = {
  platform: Platform
  capabilities: Capabilities
  jobs: Capabilities
  uploads: Uploads
  retention: Retention
  close: () => Promise<void>
}
export type RunningServer = OpenNibquill & { app: Express; url: string }

/** Opens everything but the door: database (migrated), storage, queue; nobody works on jobs. */
export async function openNibquill(config: Config, clock: Clock): Promise<OpenNibquill> {
  const log = openLog(config.logLevel)
  const lost = (error: Error) => log.warn({ error: error.message }, 'database connection lost')
  await untilAnswering(config.databaseUrl, (error) =>
    log.warn({ error: error.message }, 'waiting for the database'),
  )
  await migrate(SCHEMA, config.databaseUrl)
  const page = pagePatience(config.pagePatienceMs)
  const db = await openDatabase(SCHEMA, config.databaseUrl, page, 12, lost)
  const jobsDb = await openDatabase(SCHEMA, config.databaseUrl, JOB_PATIENCE, 4, lost)
  const openPool = (patience: Patience, most: number) => {
    const pool = new pg.Pool(poolOptions(config.databaseUrl, patience, most))
    pool.on('error', lost)
    pool.on('connect', (client) => client.on('error', lost))
    return pool
  }
  const [limitsPool, queuePool] = [openPool(page, 4), openPool(JOB_PATIENCE, 4)]
  const platform: Platform = {
    config,
    clock,
    log,
    db,
    storage: await openStorage(config),
    secrets: await Secrets.open(config.dataFolder),
    queue: new Queue(queuePool, config.databaseUrl, log),
    live: new Live(config.databaseUrl, log),
  }
  await platform.storage.check()
  const capabilities = openCapabilities(platform, limitsPool)
  const jobs = openCapabilities({ ...platform, db: jobsDb }, limitsPool)
  const uploads = await Uploads.open(platform, capabilities.media)
  const retention = new Retention({ ...platform, db: jobsDb }, uploads)
  const close = async () => {
    await platform.queue.stop()
    await platform.live.stop()
    await Promise.all([limitsPool.end(), queuePool.end(), db.destroy(), jobsDb.destroy()])
  }
  return { platform, capabilities, jobs, uploads, retention, close }
}

/** @throws the listening error as Node gives it (`EADDRINUSE` for a port in use) */
export async function startServer(
  config: Config,
  clock: Clock = systemClock,
): Promise<RunningServer> {
  const opened = await openNibquill(config, clock)
  const { platform, capabilities, jobs, uploads, retention, close } = opened
  try {
    const app = openApp(platform, capabilities, uploads)
    await platform.queue.start(
      {
        'media.prepare': ({ mediaId }) => jobs.media.prepare(mediaId),
        'media.film-talk': ({ mediaId }) => jobs.talkFilms.make(mediaId),
        'media.let-go': ({ mediaId }) => retention.letGo(mediaId),
        'book.make': ({ bookId }) => jobs.book.make(bookId),
        'mail.send': ({ mailId }) => jobs.mail.deliver(mailId),
        'accounts.draw-cards': ({ sheetId }) => jobs.cardSheets.draw(sheetId),
        'accounts.forget-cards': ({ sheetId }) => jobs.cardSheets.forget(sheetId),
        'accounts.mail-way-in': async ({ by, personId, anyway }) => {
          if (personId && by === 'password') await jobs.passwords.mailForgotten(personId, anyway)
          if (personId && by === 'code') await jobs.parentDoor.mailCode(personId, anyway)
        },
        'school.take-list': ({ classListId }) => jobs.classLists.take(classListId),
      },
      { retention: () => retention.run() },
    )
    await platform.live.start((sessionIds) => capabilities.sessions.stillOpen(sessionIds))
    await uploads.takeInWhole()
    const server = createServer({ keepAliveTimeout: config.keepConnectionsMs }, app)
    await listen(server, config)
    const address = server.address()
    const port = typeof address === 'object' && address ? address.port : config.port
    return {
      ...opened,
      app,
      url: `http://localhost:${port}`,
      close: async () => {
        await drain(server, platform.live)
        await close()
      },
    }
  } catch (error) {
    await close()
    throw error
  }
}

/**
 * Takes no more requests and lets those that are here finish: a photo whose last byte has come is
 * taken in before the process goes.
 */
async function drain(server: Server, live: Live): Promise<void> {
  let closed = false
  const over = new Promise<void>((resolve) =>
    server.close(() => {
      closed = true
      resolve()
    }),
  )
  await live.stop()
  for (const began = Date.now(); !closed && Date.now() - began < DRAIN_MS;) {
    // Kept-open connections with nothing on them would hold the door for their whole time.
    server.closeIdleConnections()
    await Promise.race([over, sleep(20)])
  }
  server.closeAllConnections()
  await over
}

function listen(server: Server, { port, host }: Config): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => resolve())
  })
}
