// npm run dev: the client with fast refresh before the API, the server starting again when it changes.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import path from 'node:path'
import { ensureDebianPackages, ensureNode, ensureNpmPackages, ROOT } from './setup.mjs'

ensureNode()
ensureNpmPackages()
ensureDebianPackages(['postgresql', 'ffmpeg', 'qpdf', 'poppler-utils', 'espeak-ng'])

const page = Number(process.env.PORT ?? 4310)
const api = page + 1
const dataFolder = process.env.NIBQUILL_DATA ?? path.join(ROOT, '.data-dev')

const server = run(
  process.execPath,
  ['--watch', '--watch-preserve-output', '--import', 'tsx', 'scripts/serve.ts', '--small-demo'],
  ROOT,
  { PORT: String(api), NIBQUILL_DATA: dataFolder, NIBQUILL_URL: `http://localhost:${page}` },
)
const client = run(
  path.join(ROOT, 'node_modules/.bin/expo'),
  ['start', '--web', '--port', String(page)],
  path.join(ROOT, 'client'),
  {
    NIBQUILL_API: `http://localhost:${api}`,
    EXPO_OFFLINE: '1',
    EXPO_NO_TELEMETRY: '1',
    BROWSER: 'none',
    CI: 'false',
  },
)
console.log(`Open http://localhost:${page}: the client there asks the server on port ${api}.`)

function run(command, words, cwd, env) {
  return spawn(command, words, { cwd, stdio: 'inherit', env: { ...process.env, ...env } })
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => [server, client].forEach((child) => child.kill('SIGTERM')))
await Promise.all([once(server, 'exit'), once(client, 'exit')])
