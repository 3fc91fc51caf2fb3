import type { Health } from '@nibquill/contract'
import type { Platform } from './platform.ts'

const PATIENCE_MS = 3000

/** Asks each thing Nibquill stands on. */
export async function checkHealth(platform: Platform): Promise<Health> {
  const check = (question: Promise<unknown>): Promise<'ok' | 'down'> =>
    Promise.race([
      question.then(() => 'ok' as const),
      new Promise<'down'>((resolve) => setTimeout(resolve, PATIENCE_MS, 'down').unref()),
    ]).catch(() => 'down')
  const [database, storage, jobs] = await Promise.all([
    check(platform.db.query('select 1')),
    check(platform.storage.check()),
    check(platform.db.query('select 1 from graphile_worker.jobs limit 1')),
  ])
  const queue = jobs === 'ok' && platform.queue.isRunning ? 'ok' : 'down'
  return {
    status: [database, storage, queue].every((part) => part === 'ok') ? 'ok' : 'down',
    database,
    storage,
    queue,
  }
}
