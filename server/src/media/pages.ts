import type { MadePage } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { Platform } from '../platform/platform.ts'
import { ProgramFailed } from '../platform/runProgram.ts'
import { withScratch } from '../platform/scratch.ts'
import { fullKey } from './keys.ts'
import { outside } from './kinds/kinds.ts'
import { countPages, drawPage } from './kinds/paper.ts'
import type { Media } from './media.ts'
import { MediaRow } from './rows.ts'

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
    await withScratch(async (scratch) => {
      const drawn = await readable(() => drawPage(file, page, scratch))
      await this.#media.arrive({ ...picture, sha256: null, use: 'part' }, { file: drawn })
    })
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
