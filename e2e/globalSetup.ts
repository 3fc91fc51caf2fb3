import { rmSync } from 'node:fs'
import { scratch } from './materials.ts'
import { preparedIn, prepareSchool } from './prepareSchool.ts'

/** A scratch folder that goes when the run ends, with a school in it, unless that was made before. */
export default async function setUp(): Promise<() => void> {
  const before = process.env.NIBQUILL_E2E_SCRATCH
  const all = before ?? scratch()
  if (!before) await prepareSchool(all)
  process.env.NIBQUILL_E2E_SCRATCH = all
  process.env.NIBQUILL_E2E_PREPARED = preparedIn(all)
  return () => rmSync(all, { recursive: true, force: true })
}
