import { rmSync } from 'node:fs'
import { scratch } from './materials.ts'
import { startApart } from './apart.ts'

/** Loads the small demo once; every worker's school is a copy of what this leaves behind. */
export default async function prepareSchool(): Promise<() => void> {
  const folder = scratch()
  const server = await startApart(['--small-demo'], '0', folder)
  await server.stop()
  process.env.NIBQUILL_E2E_PREPARED = folder
  return () => rmSync(folder, { recursive: true, force: true })
}
