import type { MadePage } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import type { Platform } from '../platform/platform.ts'
import { ProgramFailed, runProgram } from '../platform/runProgram.ts'
import { fullKey } from './keys.ts'
import { outside } from './kinds/kinds.ts'
import type { Media } from './media.ts'
import { MediaRow } from './rows.ts'

const BOUNDS = { seconds: 30, memoryMb: 1024 }
/** Of a page's longer edge: as fine as a sheet prints. */
const PAGE_PX = 2048
/** What cannot be drawn comes out as next to nothing, and poppler calls it done. */
const LEAST_BYTES = 500

/** Pages of papers, as pictures to draw on. */
export class Pages {
  readonly #platform: Platform
  readonly #media: Media
  constructor(platform: Platform, media: Media) {
    this.#platform = platform
    this.#media = media
  }

  /**
   * Makes a picture of a page, owned by whoever asks.
   * @param page - From 1.
   * @throws DomainError `media/no-such-page`, `media/file-unreadable`, `media/not-taken` for what is
   *   no paper, `media/id-taken`
   */
  async make(ownerId: string, paperId: string, page: number, mediaId: string): Promise<MadePage> {
    const { manager } = this.#platform.db
    const paper = await manager.findOneBy(MediaRow, { id: paperId })
    if (!paper) throw new DomainError('media/not-found')
    if (paper.kind !== 'paper') throw new DomainError('media/not-taken')
    const pages = await this.#platform.storage.withFile(fullKey(paper), async (file) => {
      const count = await readable(() => countPages(file))
      if (page > count) throw new DomainError('media/no-such-page')
      // Asked again because its answer was lost.
      if (!(await manager.existsBy(MediaRow, { id: mediaId, ownerId })))
        await this.#arrive(file, page, { ownerId, mediaId, name: paper.name })
      return count
    })
    const { width, height } = await manager.findOneByOrFail(MediaRow, { id: mediaId, ownerId })
    return { mediaId, width, height, pages }
  }

  async #arrive(
    file: string,
    page: number,
    picture: { ownerId: string; mediaId: string; name: string },
  ): Promise<void> {
    const scratch = await mkdtemp(path.join(os.tmpdir(), 'nibquill-pages-'))
    try {
      const drawn = await readable(() => drawPage(file, page, scratch))
      await this.#media.arrive({ ...picture, sha256: null, use: 'part' }, { file: drawn })
    } finally {
      await rm(scratch, { recursive: true, force: true })
    }
  }
}

async function readable<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await outside(work)
  } catch (error) {
    if (error instanceof ProgramFailed) throw new DomainError('media/file-unreadable')
    throw error
  }
}

async function countPages(file: string): Promise<number> {
  const said = await runProgram('pdfinfo', [file], BOUNDS)
  return Number(/^Pages:\s+(\d+)$/m.exec(said)?.[1] ?? 0)
}

/** One page a call, by its pixels and never by its size on paper, which may be enormous. */
async function drawPage(file: string, page: number, scratch: string): Promise<string> {
  const into = path.join(scratch, 'page')
  await runProgram(
    'pdftoppm',
    [
      ...['-f', `${page}`, '-l', `${page}`, '-singlefile', '-scale-to', `${PAGE_PX}`],
      ...['-jpeg', '-jpegopt', 'quality=90', file, into],
    ],
    BOUNDS,
  )
  const made = `${into}.jpg`
  const size = await stat(made).then(
    (about) => about.size,
    () => 0,
  )
  if (size < LEAST_BYTES) throw new DomainError('media/file-unreadable')
  return made
}
