// npm test: everything from a fresh clone to one last line `tests: N passed, N failed`. Beside a
// running demo: own clusters, folders and ports.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statfsSync,
} from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import {
  DEBIAN,
  ensureDebianPackages,
  ensureNode,
  ensureNpmPackages,
  ROOT,
  stop,
} from './setup.mjs'

/** What databases, photos and browsers of the tests take on the disk at most, in megabytes. */
const ROOM_MB = 2000

ensureNode()
ensureRoom()
ensureNpmPackages()
ensureDebianPackages(Object.keys(DEBIAN))
const { runChecks } = await import('./check.mjs')

const CORES = os.availableParallelism()
const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-tests-'))
chmodSync(folder, 0o755)
const began = performance.now()
const times = []
let passed = 0
let failed = 0

/** `npm test -- server|client|e2e [name]`: one part, or what in it has a name like this. */
const PARTS = ['server', 'client', 'e2e']
const [only, ...named] = process.argv.slice(2)
if (only !== undefined && !PARTS.includes(only))
  stop(`There is no part "${only}". Say one of: ${PARTS.join(', ')}.`)
const wants = (name) => only === undefined || only === name

if (only === undefined)
  await part(
    'checks, and the client built',
    'Checking types, lint, format and directions; building the client beside it ...',
    async () => {
      const built = buildClient()
      const checks = await runChecks()
      passed += checks.passed.length
      failed += checks.failed.length
      if (!(await built)) failed += 1
    },
  )
// Many of the server's wait, for a database to go and come: meanwhile the client's are run, and the
// school of the interface tests is made.
const scratch = path.join(folder, 'interface')
let prepared = false
if (only !== 'e2e')
  await part(
    'core, contract, server and client',
    'Core, contract, server and client tests ...',
    () =>
      Promise.all([
        wants('server') && jest('server', ['core', 'contract', 'server'], CORES + 1),
        wants('client') && jest('client', ['client'], only === 'client' ? CORES : 1),
        only === undefined && prepareSchool(),
      ]),
  )
if (wants('e2e'))
  await part('interface', 'Interface tests ...', async () => {
    if (only !== undefined) await buildClient()
    const report = path.join(folder, 'playwright.json')
    await run(
      path.join(ROOT, 'node_modules/.bin/playwright'),
      ['test', ...named],
      path.join(ROOT, 'e2e'),
      {
        NIBQUILL_E2E_REPORT: report,
        ...(prepared ? { NIBQUILL_E2E_SCRATCH: scratch } : {}),
      },
    )
    count(report, ({ stats }) => ({
      passed: stats.expected,
      failed: stats.unexpected + stats.flaky,
    }))
  })

rmSync(folder, { recursive: true, force: true })
console.log()
for (const { name, seconds } of times) console.log(`${name}: ${minutes(seconds)}`)
console.log(`all of it: ${minutes((performance.now() - began) / 1000)}`)
console.log(`tests: ${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)

/** A full disk looks like a hundred faults. */
function ensureRoom() {
  const { bavail, bsize } = statfsSync(os.tmpdir())
  const free = Math.floor((bavail * bsize) / 1_000_000)
  if (free < ROOM_MB)
    stop(`There are ${free} MB free in ${os.tmpdir()}; the tests take up to ${ROOM_MB} MB there.`)
}

async function part(name, says, work) {
  console.log(says)
  const since = performance.now()
  await work()
  times.push({ name, seconds: (performance.now() - since) / 1000 })
}

function minutes(seconds) {
  return `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`
}

/**
 * In a process of its own: it holds its own up while it works.
 * @returns whether it could be built
 */
async function buildClient() {
  return (await run(process.execPath, [path.join(ROOT, 'scripts/buildClient.mjs')], ROOT)) === 0
}

/** Where it could not be made, the interface tests try themselves, and say why not. */
async function prepareSchool() {
  mkdirSync(scratch)
  const words = ['--import', 'tsx', path.join(ROOT, 'e2e/prepareBeside.ts'), scratch]
  prepared = (await run(process.execPath, words, ROOT)) === 0
}

async function jest(name, projects, workers) {
  const report = path.join(folder, `jest-${name}.json`)
  await run(
    process.execPath,
    [
      '--no-warnings',
      'node_modules/jest/bin/jest.js',
      // What a failed test left running does not keep the others' results waiting.
      '--forceExit',
      `--maxWorkers=${workers}`,
      '--json',
      `--outputFile=${report}`,
      '--selectProjects',
      ...projects,
      ...(named.length > 0 ? ['--', ...named] : []),
    ],
    ROOT,
  )
  count(report, (found) => ({
    passed: found.numPassedTests,
    failed: found.numFailedTests + found.numRuntimeErrorTestSuites,
  }))
}

/** @returns its exit code */
async function run(command, words, cwd, env = {}) {
  const child = spawn(command, words, {
    cwd,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '', ...env },
  })
  const [code] = await once(child, 'close')
  return code
}

/** A runner that left no report failed, whatever else it said. */
function count(report, read) {
  if (!existsSync(report)) return void (failed += 1)
  const found = read(JSON.parse(readFileSync(report, 'utf8')))
  if (found.passed === 0) failed += 1
  passed += found.passed
  failed += found.failed
}
