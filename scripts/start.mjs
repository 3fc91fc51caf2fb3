// npm start: everything from a fresh clone to a running Nibquill.
import { spawn } from 'node:child_process'
import { ensureDebianPackages, ensureNode, ensureNpmPackages, ROOT } from './setup.mjs'

ensureNode()
ensureNpmPackages()
ensureDebianPackages(['postgresql', 'ffmpeg', 'qpdf', 'poppler-utils', 'espeak-ng'])
const { plainScript } = await import('./plainScript.mjs')

const child = spawn(
  process.execPath,
  [
    '--enable-source-maps',
    await plainScript('scripts/serve.ts'),
    '--build',
    ...process.argv.slice(2),
  ],
  {
    cwd: ROOT,
    stdio: 'inherit',
  },
)
// The terminal tells both; the child closes what it started, and we leave with its word.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal))
child.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 0)))
