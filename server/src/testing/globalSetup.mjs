// One throwaway cluster for all server tests, with a database that has every table: each test file
// copies it, which takes a tenth of the
// time of making them anew. Answers of the servers under test are held to their contracts to the
// letter.
import { spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { startCluster } from '../../../scripts/cluster.mjs'

export default async function setUp() {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-test-'))
  chmodSync(folder, 0o755)
  const cluster = await startCluster(folder, { throwaway: true })
  globalThis.nibquillTestCluster = { cluster, folder }
  process.env.NIBQUILL_TEST_CLUSTER = cluster.url('postgres')
  process.env.NIBQUILL_STRICT_ANSWERS = '1'
  const made = spawnSync(
    process.execPath,
    ['--import', 'tsx', path.join(import.meta.dirname, 'makeTemplate.ts')],
    {
      env: { ...process.env, NODE_OPTIONS: '' },
      stdio: ['ignore', 'inherit', 'inherit'],
    },
  )
  if (made.status !== 0) throw new Error('the database to copy could not be made')
}
