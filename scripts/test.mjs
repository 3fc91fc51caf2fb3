// npm test: everything from a fresh clone to one last line `tests: N passed, N failed`. Beside a running demo: own cluster, folders and ports.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, chmodSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { DEBIAN, ensureDebianPackages, ensureNode, ensureNpmPackages, ROOT } from './setup.mjs'

ensureNode()
ensureNpmPackages()
ensureDebianPackages(Object.keys(DEBIAN))
const { buildClient } = await import('./buildClient.mjs')
const { freePort } = await import('./cluster.mjs')
const { runChecks } = await import('./check.mjs')

const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-tests-'))
chmodSync(folder, 0o755)
let passed = 0
let failed = 0

console.log('Checking types, lint, format and directions ...')
const checks = await runChecks()
passed += checks.passed.length
failed += checks.failed.length

console.log('Unit and server tests ...')
// Apart, since core and server run as ES modules and the client as Expo's preset compiles it; Jest mixes them up in one process.
jest('server', ['--experimental-vm-modules'], ['core', 'contract', 'server'])
jest('client', [], ['client'])

console.log('Interface tests ...')
await buildClient()
const webReport = path.join(folder, 'playwright.json')
run(path.join(ROOT, 'node_modules/.bin/playwright'), ['test'], path.join(ROOT, 'e2e'), {
  NIBQUILL_E2E_PORT: String(await freePort()),
  NIBQUILL_E2E_DATA: path.join(folder, 'e2e'),
  NIBQUILL_E2E_REPORT: webReport,
})
let secondTries = 0
count(webReport, ({ stats }) => {
  secondTries = stats.flaky
  return { passed: stats.expected + stats.flaky, failed: stats.unexpected }
})

rmSync(folder, { recursive: true, force: true })
if (secondTries > 0) console.log(`${secondTries} of the interface tests passed only at a second try`)
console.log(`tests: ${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)

function jest(name, nodeFlags, projects) {
  const report = path.join(folder, `jest-${name}.json`)
  run(
    process.execPath,
    [
      ...nodeFlags,
      '--no-warnings',
      'node_modules/jest/bin/jest.js',
      // Jest alone would leave one of two cores idle.
      `--maxWorkers=${os.availableParallelism()}`,
      '--json',
      `--outputFile=${report}`,
      '--selectProjects',
      ...projects,
    ],
    ROOT,
  )
  count(report, (found) => ({ passed: found.numPassedTests, failed: found.numFailedTests + found.numRuntimeErrorTestSuites }))
}

function run(command, words, cwd, env = {}) {
  spawnSync(command, words, { cwd, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, NODE_OPTIONS: '', ...env } })
}

/** A runner that left no report failed, whatever else it said. */
function count(report, read) {
  if (!existsSync(report)) return void (failed += 1)
  const found = read(JSON.parse(readFileSync(report, 'utf8')))
  if (found.passed === 0) failed += 1
  passed += found.passed
  failed += found.failed
}
