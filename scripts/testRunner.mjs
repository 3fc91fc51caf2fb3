// Runs Jest's test files in plain Node, several to a process. Jest's own runner gives each file a
// world of its own and loads the whole
// server into it anew, which takes two seconds a file; here each process loads it once. What files
// of one process share is modules:
// a test leaves none of them changed, and each has a server, a database and a folder of its own.
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Worker } from 'jest-worker'

/**
 * What a file has in it that starts servers of its own: it takes longest, and waits most of that
 * time. Begun first, it waits beside the others, not alone at the end.
 */
const WAITS = /AloneServer|takeDatabaseAway/

/** @see jest-runner, CallbackTestRunner: the shape Jest asks of a runner */
export default class TestRunner {
  isSerial = false
  #globalConfig

  constructor(globalConfig) {
    this.#globalConfig = globalConfig
  }

  async runTests(tests, watcher, onStart, onResult, onFailure) {
    const { maxWorkers, testTimeout = 180_000, testNamePattern } = this.#globalConfig
    const pool = new Worker(fileURLToPath(new URL('testWorker.mjs', import.meta.url)), {
      exposedMethods: ['run'],
      numWorkers: Math.min(maxWorkers, tests.length),
      forkOptions: { execArgv: ['--import', 'tsx'] },
      maxRetries: 0,
    })
    for (const [from, to] of [
      [pool.getStdout(), process.stdout],
      [pool.getStderr(), process.stderr],
    ])
      from?.pipe(to)
    const waits = new Set(tests.filter(({ path }) => WAITS.test(readFileSync(path, 'utf8'))))
    const waiting = [...waits, ...tests.filter((test) => !waits.has(test))]
    const work = async () => {
      for (let test = waiting.shift(); test && !watcher.isInterrupted(); test = waiting.shift()) {
        await onStart(test)
        try {
          await onResult(
            test,
            await pool.run(test.path, {
              testTimeout,
              testNamePattern,
              config: test.context.config,
            }),
          )
        } catch (error) {
          await onFailure(test, { message: error.message, stack: error.stack ?? '' })
        }
      }
    }
    // One more than the pool has hands would only wait there.
    await Promise.all(Array.from({ length: Math.min(maxWorkers, tests.length) }, work))
    await pool.end()
  }
}
