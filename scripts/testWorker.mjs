// A process that runs test files one after the other, by Jest's own circus: its hooks, time limits
// and expectations.
import { jestExpect } from '@jest/expect'
import circus, { getState, resetState, run as runCircus } from 'jest-circus'
import { formatResultsErrors } from 'jest-message-util'
import { pathToFileURL } from 'node:url'

Object.assign(globalThis, circus, { expect: jestExpect })

// What is thrown beside a test fails the one that runs.
process.on('uncaughtException', (error) =>
  (getState().currentlyRunningTest?.errors ?? getState().unhandledErrors).push(error),
)

const ROOT = 'ROOT_DESCRIBE_BLOCK'
const STATUS = { done: 'passed', skip: 'pending', todo: 'todo' }
let seen = 0

/** @returns what Jest calls a TestResult. @throws whatever the file throws while it is loaded */
export async function run(file, { testTimeout, testNamePattern, config }) {
  const start = Date.now()
  resetState()
  Object.assign(getState(), {
    testTimeout,
    testNamePattern: testNamePattern ? new RegExp(testNamePattern, 'i') : null,
  })
  jestExpect.setState({ testPath: file })
  // Named anew, so that a file asked for twice is run twice.
  seen += 1
  await import(`${pathToFileURL(file).href}?run=${seen}`)
  const { testResults, unhandledErrors } = await runCircus()
  if (unhandledErrors.length > 0) throw new Error(unhandledErrors.join('\n'))
  const tests = testResults.map(asAssertion)
  const count = (status) => tests.filter((test) => test.status === status).length
  const end = Date.now()
  return {
    testResults: tests,
    failureMessage: formatResultsErrors(tests, config, { noStackTrace: false }, file),
    numFailingTests: count('failed'),
    numPassingTests: count('passed'),
    numPendingTests: count('pending'),
    numTodoTests: count('todo'),
    perfStats: {
      start,
      end,
      runtime: end - start,
      slow: (end - start) / 1000 > config.slowTestThreshold,
    },
    snapshot: {
      added: 0,
      fileDeleted: false,
      matched: 0,
      unchecked: 0,
      uncheckedKeys: [],
      unmatched: 0,
      updated: 0,
    },
    testFilePath: file,
    displayName: config.displayName,
    leaks: false,
    openHandles: [],
    skipped: false,
    console: null,
  }
}

function asAssertion({
  testPath,
  errors,
  errorsDetailed,
  status,
  duration,
  invocations,
  numPassingAsserts,
}) {
  const names = testPath.filter((name) => name !== ROOT)
  return {
    ancestorTitles: names.slice(0, -1),
    title: names.at(-1),
    fullName: names.join(' '),
    status: errors.length > 0 ? 'failed' : STATUS[status],
    duration,
    // Where a test stands is of interest, not who called it.
    failureMessages: errors.map((text) => text.replaceAll(/\n.*testWorker\.mjs.*/g, '')),
    failureDetails: errorsDetailed,
    invocations,
    numPassingAsserts,
    location: null,
  }
}
