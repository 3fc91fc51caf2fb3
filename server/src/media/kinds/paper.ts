import { DomainError, MOST_PAGES, pageForm } from '@nibquill/core'
import { stat, writeFile } from 'node:fs/promises'
import path from 'node:path'
import sharp from 'sharp'
import * as v from 'valibot'
import { ProgramFailed, runProgram } from '../../platform/runProgram.ts'
import type { Kept, MadeForm } from './kinds.ts'
import { makeSizes } from './makeSizes.ts'

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

const POPPLER = { seconds: 30, memoryMb: 1024 }
/** Of a page's longer edge: as fine as a sheet prints. */
const PAGE_PX = 2048
/** What cannot be drawn comes out as next to nothing, and poppler calls it done. */
const LEAST_BYTES = 500
/** Papers made to take long are shown as far as they came by then. */
const ALL_PAGES_MS = 180_000

/** @throws DomainError `media/file-unreadable` */
export async function takePaper(file: string, scratch: string): Promise<Kept> {
  const clean = path.join(scratch, 'clean')
  await writeWithoutTraces(file, clean)
  const pages = await countPages(clean).catch((error: unknown) => {
    if (error instanceof ProgramFailed) throw new DomainError('media/file-unreadable')
    throw error
  })
  return { file: clean, type: 'application/pdf', width: 0, height: 0, pages }
}

/** @throws ProgramFailed */
export async function countPages(file: string): Promise<number> {
  const said = await runProgram('pdfinfo', [file], POPPLER)
  return Number(/^Pages:\s+(\d+)$/m.exec(said)?.[1] ?? 0)
}

/**
 * A page as a JPEG: one a call, by its pixels and never by its size on paper, which may be enormous.
 * @param page - From 1.
 * @throws ProgramFailed; DomainError `media/file-unreadable` where nothing came out
 */
export async function drawPage(file: string, page: number, scratch: string): Promise<string> {
  const into = path.join(scratch, `page-${page}`)
  await runProgram(
    'pdftoppm',
    [
      ...['-f', `${page}`, '-l', `${page}`, '-singlefile', '-scale-to', `${PAGE_PX}`],
      ...['-jpeg', '-jpegopt', 'quality=90', file, into],
    ],
    POPPLER,
  )
  const made = `${into}.jpg`
  const size = await stat(made).then(
    (about) => about.size,
    () => 0,
  )
  if (size < LEAST_BYTES) throw new DomainError('media/file-unreadable')
  return made
}

/**
 * Makes pictures of the first pages, and sizes of the first one. A page that cannot be drawn is left
 * out; without the first there are none.
 * @throws ProgramFailed, DomainError `media/file-unreadable`
 */
export async function makePages(file: string, into: string): Promise<MadeForm[]> {
  const since = performance.now()
  const count = Math.min(MOST_PAGES, await countPages(file))
  const forms: MadeForm[] = []
  for (let page = 1; page <= count && performance.now() - since < ALL_PAGES_MS; page++) {
    const drawn = await drawPage(file, page, into).catch((error: unknown) => {
      if (page === 1) throw error
      return null
    })
    if (drawn === null) continue
    if (page === 1) forms.push(...(await makeSizes(drawn, into)))
    forms.push({
      ...{ form: pageForm(page), file: drawn, type: 'image/jpeg', ending: 'jpg' },
      ...(await sizeOf(drawn)),
      durationMs: null,
    })
  }
  return forms
}

async function sizeOf(picture: string): Promise<{ width: number; height: number }> {
  const { width, height } = await sharp(picture).metadata()
  return { width, height }
}
