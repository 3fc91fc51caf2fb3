import { createServer, type Server } from 'node:http'
import path from 'node:path'
import pg from 'pg'
import { openApp } from './app.ts'
import { openCapabilities, type Capabilities } from './capabilities.ts'
import { systemClock, type Clock } from './platform/clock.ts'
import type { Config } from './platform/config.ts'
import { openDatabase } from './platform/database.ts'
import { Live } from './platform/live.ts'
import { openLog } from './platform/log.ts'
import type { Platform } from './platform/platform.ts'
import { Queue } from './platform/queue.ts'
import { Secrets } from './platform/secrets.ts'
import { FileStorage } from './platform/storage.ts'

export type OpenNibquill = { platform: Platform; capabilities: Capabilities; close: () => Promise<void> }
export type RunningServer = OpenNibquill & { url: string }

/** Opens everything but the door: database (migrated), storage, queue. */
async function open(config: Config, clock: Clock): Promise<OpenNibquill & { pool: pg.Pool }> {
  const log = openLog(config.logLevel)
  const lost = (error: Error) => log.warn({ error: error.message }, 'database connection lost')
  const db = await openDatabase(config.databaseUrl, lost)
  await db.runMigrations({ transaction: 'each' })
  const pool = new pg.Pool({ connectionString: config.databaseUrl, max: 6, connectionTimeoutMillis: 5000 })
  pool.on('error', lost)
  pool.on('connect', (client) => client.on('error', lost))
  const platform: Platform = {
    config, clock, log, db, storage: new FileStorage(path.join(config.dataFolder, 'files')), secrets: await Secrets.open(config.dataFolder),
    queue: new Queue(pool, config.databaseUrl, log), live: new Live(config.databaseUrl, log),
  } // prettier-ignore
  await platform.storage.check()
  const capabilities = openCapabilities(platform, pool)
  const close = async () => {
    await platform.queue.stop()
    await platform.live.stop()
    await pool.end()
    await db.destroy()
  }
  return { platform, capabilities, close, pool }
}

/** @throws the listening error as Node gives it (`EADDRINUSE` for a port in use) */
export async function startServer(config: Config, clock: Clock = systemClock): Promise<RunningServer> {
  const { platform, capabilities, close } = await open(config, clock)
  try {
    const { app, cleanUpUploads } = await openApp(platform, capabilities)
    await platform.queue.start(
      {
        'media.make-sizes': ({ mediaId }) => capabilities.media.makeSizes(mediaId),
        'book.make': ({ bookId }) => capabilities.book.make(bookId),
        'mail.send': ({ mailId }) => capabilities.mail.deliver(mailId),
        'accounts.draw-cards': ({ sheetId }) => capabilities.cardSheets.draw(sheetId),
        'accounts.forget-cards': ({ sheetId }) => capabilities.cardSheets.forget(sheetId),
        'school.take-list': ({ classListId }) => capabilities.classLists.take(classListId),
      },
      { 'media:clean-up': cleanUpUploads },
    )
    await platform.live.start()
    const server = createServer(app)
    await listen(server, config)
    const address = server.address()
    const port = typeof address === 'object' && address ? address.port : config.port
    return {
      platform,
      capabilities,
      url: `http://localhost:${port}`,
      close: async () => {
        const closed = new Promise((resolve) => server.close(resolve))
        await platform.live.stop()
        server.closeAllConnections()
        await closed
        await close()
      },
    }
  } catch (error) {
    await close()
    throw error
  }
}

function listen(server: Server, { port, host }: Config): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => resolve())
  })
}
