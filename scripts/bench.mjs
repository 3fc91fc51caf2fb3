// npm run bench: measures against floors taken in the same run, on a throwaway cluster.
import { spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { startCluster } from './cluster.mjs'
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './setup.mjs'

ensureNpmPackages()
ensureDebianPackages(['postgresql', 'poppler-utils', 'ffmpeg', 'qpdf'])
const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-bench-cluster-'))
chmodSync(folder, 0o755)
const cluster = await startCluster(folder, { throwaway: true })
const done = spawnSync(
  process.execPath,
  ['--import', 'tsx', path.join(ROOT, 'bench/src/main.ts'), ...process.argv.slice(2)],
  {
    stdio: 'inherit',
    env: { ...process.env, NIBQUILL_BENCH_CLUSTER: cluster.url('postgres') },
  },
)
await cluster.stop()
rmSync(folder, { recursive: true, force: true })
process.exit(done.status ?? 1)
