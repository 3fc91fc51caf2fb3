import type { PieceStep } from '@nibquill/core'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Line } from '../media/uploader'

/** A file that has not reached the school yet, with everything needed to bring it there. */
export type OutboxLine = Line & {
  /** Starts the piece, where that has not happened. */
  taskId: string | null
  /** When it was put here: lines go in this order. */
  keptAt: number
}
/** The bytes apart from the line, so that listing a full outbox stays quick. */
type Bytes = { partId: string; type: string; lastModified: number; data: ArrayBuffer }

/** What a pupil wrote or chose about a piece. */
export type Words = { title: string; reflection: string; step: PieceStep; folderId: string | null }
/** A piece's words, and whether it shall be handed in, that the school has not got yet. */
export type OutboxDraft = {
  pieceId: string
  ownerId: string
  taskId: string | null
  /** As the pupil wants it. */
  words: Words
  /**
   * As the school had it when the pupil began: whatever differs there now was written elsewhere.
   */
  base: Words
  handIn: boolean
  keptAt: number
}

interface Schema extends DBSchema {
  lines: { key: string; value: OutboxLine; indexes: { owner: string } }
  bytes: { key: string; value: Bytes }
  drafts: { key: string; value: OutboxDraft; indexes: { owner: string } }
}

const NAME = 'nibquill.outbox'
/** Raised with every change of shape; `upgrade` brings what an older Nibquill wrote along. */
const VERSION = 2

/** Why something could not be kept on this tablet. */
export class NotKept extends Error {
  readonly full: boolean
  constructor(full: boolean) {
    super(full ? 'the tablet is full' : 'this browser keeps nothing')
    this.full = full
  }
}

/**
 * Work on this tablet that has not reached the school. It outlives a reload, a closed tab and a
 * dead network, apart for each pupil:
 * it is listed for its owner only, and waits until they are back.
 */
export class Outbox {
  readonly #name: string
  #db: Promise<IDBPDatabase<Schema>> | null = null
  constructor(name = NAME) {
    this.#name = name
  }

  #open(): Promise<IDBPDatabase<Schema>> {
    this.#db ??= openDB<Schema>(this.#name, VERSION, {
      upgrade: async (db, from, _to, change) => {
        if (from < 1) {
          db.createObjectStore('lines', { keyPath: 'partId' }).createIndex('owner', 'ownerId')
          db.createObjectStore('bytes', { keyPath: 'partId' })
        }
        if (from < 2) {
          db.createObjectStore('drafts', { keyPath: 'pieceId' }).createIndex('owner', 'ownerId')
          // Version 1 knew photos only, and none that were tidied.
          for (
            let at = await change.objectStore('lines').openCursor();
            at;
            at = await at.continue()
          )
            await at.update({ ...at.value, kind: 'photo', instead: null })
        }
      },
      // A newer Nibquill in another tab wants to change the shape: step aside rather than hold it
      // up.
      blocking: () => void this.close(),
    }).catch((error: unknown) => {
      this.#db = null
      throw error
    })
    return this.#db
  }

  /** Resolves once the file is safely on this tablet, and not before. @throws NotKept */
  async put(line: OutboxLine, file: File): Promise<void> {
    try {
      const data = await file.arrayBuffer()
      const db = await this.#open()
      // `strict`: written to the disk, not only promised. @see Indexed Database API 3.0, durability
      const change = db.transaction(['lines', 'bytes'], 'readwrite', { durability: 'strict' })
      await Promise.all([
        change.objectStore('lines').put(line),
        change
          .objectStore('bytes')
          .put({ partId: line.partId, type: file.type, lastModified: file.lastModified, data }),
        change.done,
      ])
    } catch (error) {
      throw new NotKept(error instanceof DOMException && error.name === 'QuotaExceededError')
    }
  }

  /**
   * What waits for one pupil, in the order it was made.
   * @throws when it cannot be read, now or ever
   */
  async list(ownerId: string): Promise<OutboxLine[]> {
    const lines = await (await this.#open()).getAllFromIndex('lines', 'owner', ownerId)
    return lines.sort((a, b) => a.keptAt - b.keptAt || a.partId.localeCompare(b.partId))
  }

  /** The file as it was put; null when its bytes are gone. @throws when it cannot be read */
  async take(line: OutboxLine): Promise<File | null> {
    const bytes = await (await this.#open()).get('bytes', line.partId)
    return bytes
      ? new File([bytes.data], line.name, { type: bytes.type, lastModified: bytes.lastModified })
      : null
  }

  /** It has arrived, or its owner took it out. */
  async drop(partId: string): Promise<void> {
    try {
      const change = (await this.#open()).transaction(['lines', 'bytes'], 'readwrite')
      await Promise.all([
        change.objectStore('lines').delete(partId),
        change.objectStore('bytes').delete(partId),
        change.done,
      ])
    } catch {
      // Nothing was kept, so nothing is left.
    }
  }

  /** Resolves once the words are safely on this tablet. @throws NotKept */
  async putDraft(draft: OutboxDraft): Promise<void> {
    try {
      const db = await this.#open()
      const change = db.transaction('drafts', 'readwrite', { durability: 'strict' })
      await Promise.all([change.store.put(draft), change.done])
    } catch (error) {
      throw new NotKept(error instanceof DOMException && error.name === 'QuotaExceededError')
    }
  }

  /** Words that wait for one pupil. @throws when they cannot be read, now or ever */
  async listDrafts(ownerId: string): Promise<OutboxDraft[]> {
    return (await this.#open()).getAllFromIndex('drafts', 'owner', ownerId)
  }

  async dropDraft(pieceId: string): Promise<void> {
    try {
      await (await this.#open()).delete('drafts', pieceId)
    } catch {
      // Nothing was kept, so nothing is left.
    }
  }

  /** Whether this browser keeps anything at all; a private window may not. */
  async works(): Promise<boolean> {
    try {
      await this.#open()
      return true
    } catch {
      return false
    }
  }

  async close(): Promise<void> {
    const db = await this.#db?.catch(() => null)
    this.#db = null
    db?.close()
  }
}
