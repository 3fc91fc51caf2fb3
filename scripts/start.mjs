// npm start: everything from a fresh clone to a running Nibquill.
import { spawn } from 'node:child_process'
import path from 'node:path'
import { ensureDebianPackages, ensureNode, ensureNpmPackages, ROOT } from './setup.mjs'

ensureNode()
ensureNpmPackages()
ensureDebianPackages(['postgresql', 'ffmpeg', 'qpdf'])
const { buildClient } = await import('./buildClient.mjs')
await buildClient()

const child = spawn(
  process.execPath,
  ['--import', 'tsx', path.join(ROOT, 'scripts/serve.ts'), ...process.argv.slice(2)],
  {
    cwd: ROOT,
    stdio: 'inherit',
  },
)
// The terminal tells both; the child closes what it started, and we leave with its word.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal))
child.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 0)))
