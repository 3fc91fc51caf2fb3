import { rmSync } from 'node:fs'

export default async function tearDown() {
  const { cluster, folder } = globalThis.nibquillTestCluster
  await cluster.stop()
  rmSync(folder, { recursive: true, force: true })
  rmSync(cluster.folder, { recursive: true, force: true })
}
