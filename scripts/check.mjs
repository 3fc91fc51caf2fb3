// npm run check: types, lint, format, directions of imports. Each is run whatever the others say.
import { spawnSync } from 'node:child_process'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './setup.mjs'

const WORKSPACES = ['core', 'contract', 'server', 'client', 'demo', 'e2e', 'bench']
const bin = (name) => path.join(ROOT, 'node_modules/.bin', name)
const CHECKS = [
  ...WORKSPACES.map((name) => [`types of ${name}`, bin('tsc'), ['-p', name]]),
  ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
  ['format', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
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
export function runChecks() {
  const failed = []
  const passed = []
  for (const [name, command, words] of CHECKS) {
    const done = spawnSync(command, words, { cwd: ROOT, encoding: 'utf8', env: { ...process.env, NO_COLOR: '1' } })
    if (done.status === 0) passed.push(name)
    else {
      failed.push(name)
      console.error(`\n${name}:\n${done.stdout}${done.stderr}`)
    }
  }
  return { passed, failed }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { passed, failed } = runChecks()
  console.log(failed.length === 0 ? `all ${passed.length} checks passed` : `failed: ${failed.join(', ')}`)
  process.exit(failed.length === 0 ? 0 : 1)
}
