import type { DataSource } from 'typeorm'
import type { Clock } from './clock.ts'
import type { Config } from './config.ts'
import type { Live } from './live.ts'
import type { Log } from './log.ts'
import type { Queue } from './queue.ts'
import type { Secrets } from './secrets.ts'
import type { Storage } from './storage.ts'

/** What carries every capability. */
export type Platform = {
  config: Config
  clock: Clock
  log: Log
  db: DataSource
  storage: Storage
  secrets: Secrets
  queue: Queue
  live: Live
}
