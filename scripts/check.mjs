// npm run check: types, lint, format, directions of imports, as many at a time as there are cores.
// Each is run whatever the others say.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import os from 'node:os'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { writeRouteTypes } from './routeTypes.mjs'
import { ROOT } from './setup.mjs'

const bin = (name) => path.join(ROOT, 'node_modules/.bin', name)
const CHECKS = [
  // Each file by the settings that lie nearest to it: core knows of no browser.
  [
    'types and lint',
    bin('oxlint'),
    ['--type-aware', '--type-check', '--deny-warnings', '--report-unused-disable-directives'],
  ],
  ['format', bin('oxfmt'), ['--check']],
  [
    'directions',
    bin('depcruise'),
    [
      '--config',
      '.dependency-cruiser.cjs',
      '--output-type',
      'err',
      'core',
      'contract',
      'server',
      'client/src',
      'demo',
      'bench',
      'e2e',
    ],
  ],
]

/** @returns the names of the checks that failed, and of those that passed */
export async function runChecks() {
  writeRouteTypes()
  const failed = []
  const passed = []
  const waiting = [...CHECKS]
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [name, command, words] = next
      const { code, said } = await run(command, words)
      if (code === 0) passed.push(name)
      else {
        failed.push(name)
        console.error(`\n${name}:\n${said}`)
      }
    }
  }
  await Promise.all(Array.from({ length: os.availableParallelism() }, work))
  return { passed, failed }
}

async function run(command, words) {
  const child = spawn(command, words, {
    cwd: ROOT,
    env: { ...process.env, NO_COLOR: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream.setEncoding('utf8').on('data', (text) => (said += text))
  const [code] = await once(child, 'close')
  return { code, said }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { passed, failed } = await runChecks()
  console.log(
    failed.length === 0 ? `all ${passed.length} checks passed` : `failed: ${failed.join(', ')}`,
  )
  process.exit(failed.length === 0 ? 0 : 1)
}
