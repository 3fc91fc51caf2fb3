import type { Sentences } from '@nibquill/contract'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SentenceStockRow } from './rows.ts'

/** Sentences a teacher says again and again: their own, seen by nobody else. */
export class SentenceStock {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  async list({ personId }: SignedIn): Promise<Sentences> {
    const row = await this.#platform.db.manager.findOneBy(SentenceStockRow, { personId })
    return { sentences: row ? [...row.sentences] : [] }
  }

  /** The whole stock, each sentence once. */
  async put(viewer: SignedIn, { sentences }: Sentences): Promise<Sentences> {
    const row = { personId: viewer.personId, sentences: [...new Set(sentences)] }
    await this.#platform.db.manager.upsert(SentenceStockRow, row, ['personId'])
    return this.list(viewer)
  }
}
