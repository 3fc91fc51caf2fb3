import { DomainError } from '@nibquill/core'
import { writeFile } from 'node:fs/promises'
import * as v from 'valibot'
import { ProgramFailed, runProgram } from '../../platform/runProgram.ts'

/**
 * Where a paper tells of its author, program and moments: the document's information, and XMP and
 * private data on any of its objects.
 * @see ISO 32000-1, 14.3 Metadata and 14.5 Page-Piece Dictionaries
 */
const TELLING = new Set(['/Metadata', '/PieceInfo', '/LastModified'])

type Value = null | boolean | number | string | Value[] | { [key: string]: Value }
const Listing = v.object({
  qpdf: v.tuple([v.record(v.string(), v.unknown()), v.record(v.string(), v.unknown())]),
})
type Listed = { value: Value } | { stream: { dict: Value } }

const QPDF = { seconds: 60, memoryMb: 1024 }
/** qpdf repaired something and said so. */
const WITH_WARNINGS = 3

/**
 * Writes a paper anew without what tells of its author, program and moments; its pages stay as they
 * are. One that may not be changed but can be read is taken as any other.
 * @throws DomainError `media/file-unreadable`, also for a paper that opens by a password only
 */
export async function writeWithoutTraces(file: string, into: string): Promise<void> {
  try {
    const said = await runProgram(
      'qpdf',
      [file, '--json', '--json-key=qpdf', '--json-stream-data=none'],
      QPDF,
      [0, WITH_WARNINGS],
    )
    const { qpdf } = v.parse(Listing, JSON.parse(said))
    const [about, objects] = qpdf
    const changes: Record<string, unknown> = {}
    for (const [name, object] of Object.entries(objects as Record<string, Listed>)) {
      const held = 'stream' in object ? object.stream.dict : object.value
      const kept = without(held, name === 'trailer' ? new Set(['/Info']) : TELLING)
      if (kept === held) continue
      changes[name] = 'stream' in object ? { stream: { dict: kept } } : { value: kept }
    }
    const update = `${into}.json`
    await writeFile(update, JSON.stringify({ qpdf: [about, changes] }))
    await runProgram('qpdf', [file, `--update-from-json=${update}`, '--decrypt', into], QPDF, [
      0,
      WITH_WARNINGS,
    ])
  } catch (error) {
    if (error instanceof ProgramFailed || error instanceof SyntaxError)
      throw new DomainError('media/file-unreadable')
    throw error
  }
}

/** @returns the same value where nothing in it has these keys, or a copy without them */
function without(value: Value, keys: ReadonlySet<string>): Value {
  if (Array.isArray(value)) {
    const kept = value.map((one) => without(one, keys))
    return kept.some((one, i) => one !== value[i]) ? kept : value
  }
  if (value === null || typeof value !== 'object') return value
  const entries = Object.entries(value)
  const kept = entries
    .filter(([key]) => !keys.has(key))
    .map(([key, one]) => [key, without(one, keys)] as const)
  const same = kept.length === entries.length && kept.every(([key, one]) => one === value[key])
  return same ? value : Object.fromEntries(kept)
}
