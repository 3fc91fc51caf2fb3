// One throwaway cluster for all server tests; each test file makes its own database in it.
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
}
