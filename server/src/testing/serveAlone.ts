// A server in a process of its own, for tests that kill it. Its settings come as JSON in
// NIBQUILL_TEST_CONFIG.
import { startServer } from '../server.ts'
import { SetClock } from '../platform/clock.ts'
import type { Config } from '../platform/config.ts'

const server = await startServer(
  JSON.parse(process.env.NIBQUILL_TEST_CONFIG!) as Config,
  new SetClock(new Date('2026-11-23T10:00:00Z')),
)
process.on('SIGTERM', () => void server.close().then(() => process.exit(0)))
// Who started it may be killed before it ends anything, and what outlives it keeps whoever reads its
// output waiting for more.
process.on('disconnect', () => process.exit(1))
process.on('message', () => {
  globalThis.gc?.()
  const { heapUsed, external } = process.memoryUsage()
  process.send?.(heapUsed + external)
})
process.stdout.write(`${server.url.replace('localhost', '127.0.0.1')}\n`)
