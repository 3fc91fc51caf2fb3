import type { Intent, IntentBody, Tidying, Words } from '@nibquill/core'
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction } from 'idb'
import { v7 as newId } from 'uuid'

/** An intent as it lies on the tablet. `order` tells which was wanted first. */
export type Kept = { id: string; ownerId: string; order: number; tried: boolean; intent: Intent }
/** What is known of a file whose bytes lie here in slices. */
type FileHere = {
  mediaId: string
  ownerId: string
  name: string
  type: string
  lastModified: number
}
/**
 * A recording that runs: its slices lie under its own id until it is wanted as what it becomes.
 * Found again by the next page, it is wanted then.
 */
export type RunningHere = {
  recordingId: string
  ownerId: string
  pieceId: string
  /** What is wanted of the school once it has ended; the file among them is `mediaId`. */
  bodies: readonly IntentBody[]
  mediaId: string
}
type Slice = { mediaId: string; place: number; data: ArrayBuffer }

/** Versions 1 and 2: files and words apart, each with the piece they belong to. */
type OldLine = {
  partId: string
  mediaId: string
  pieceId: string
  ownerId: string
  name: string
  taskId: string | null
  keptAt: number
  instead?: { partId: string; tidying: Tidying } | null
}
type OldBytes = { partId: string; type: string; lastModified: number; data: ArrayBuffer }
type OldDraft = {
  pieceId: string
  ownerId: string
  taskId: string | null
  words: Words
  base: Words
  handIn: boolean
  keptAt: number
}

interface Schema extends DBSchema {
  intents: { key: string; value: Kept; indexes: { owner: string } }
  files: { key: string; value: FileHere }
  slices: { key: [string, number]; value: Slice }
  recordings: { key: string; value: RunningHere; indexes: { owner: string } }
}
type Upgrade = IDBPTransaction<
  Schema,
  ('intents' | 'files' | 'slices' | 'recordings')[],
  'versionchange'
>

const NAME = 'nibquill.outbox'
/** Raised with every change of shape; `upgrade` brings what an older Nibquill wrote along. */
const VERSION = 4
/** A file is written and read so much at a time, so that a long one never lies in memory whole. */
const SLICE_BYTES = 4 * 1024 * 1024

/** Why something could not be kept on this tablet. */
export class NotKept extends Error {
  readonly full: boolean
  constructor(full: boolean) {
    super(full ? 'the tablet is full' : 'this browser keeps nothing')
    this.full = full
  }
}
const notKept = (error: unknown): NotKept =>
  new NotKept(error instanceof DOMException && error.name === 'QuotaExceededError')

/**
 * Work on this tablet that has not reached the school. It outlives a reload, a closed tab and a
 * dead network, apart for each pupil: it is listed for its owner only, and waits until they are
 * back.
 */
export class OutboxStore {
  readonly #name: string
  #db: Promise<IDBPDatabase<Schema>> | null = null
  constructor(name = NAME) {
    this.#name = name
  }

  #open(): Promise<IDBPDatabase<Schema>> {
    this.#db ??= openDB<Schema>(this.#name, VERSION, {
      upgrade: (db, from, _to, change) => {
        db.createObjectStore('recordings', { keyPath: 'recordingId' }).createIndex(
          'owner',
          'ownerId',
        )
        if (from === 3) return
        db.createObjectStore('intents', { keyPath: 'id' }).createIndex('owner', 'ownerId')
        db.createObjectStore('files', { keyPath: 'mediaId' })
        db.createObjectStore('slices', { keyPath: ['mediaId', 'place'] })
        // Half brought along is not brought along: everything stays as it was, for the next try.
        if (from === 0) return
        change.done.catch(() => undefined)
        bringAlong(db as unknown as IDBPDatabase, change, from).catch(() => change.abort())
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

  /**
   * Writes what changed, all or nothing; resolves once it is on the disk.
   * @throws NotKept
   */
  async write(put: readonly Kept[], gone: readonly string[]): Promise<void> {
    try {
      const db = await this.#open()
      // `strict`: written to the disk, not only promised. @see Indexed Database API 3.0, durability
      const change = db.transaction('intents', 'readwrite', { durability: 'strict' })
      for (const kept of put) void change.store.put(kept)
      for (const id of gone) void change.store.delete(id)
      await change.done
    } catch (error) {
      throw notKept(error)
    }
  }

  /** Resolves once the file is safely on this tablet, and not before. @throws NotKept */
  async putFile(mediaId: string, ownerId: string, file: File): Promise<void> {
    try {
      const db = await this.#open()
      for (let place = 0; place * SLICE_BYTES < file.size; place++) {
        const slice = file.slice(place * SLICE_BYTES, (place + 1) * SLICE_BYTES)
        await db.put('slices', { mediaId, place, data: await slice.arrayBuffer() })
      }
      const { name, type, lastModified } = file
      const change = db.transaction('files', 'readwrite', { durability: 'strict' })
      void change.store.put({ mediaId, ownerId, name, type, lastModified })
      await change.done
    } catch (error) {
      await this.dropFile(mediaId)
      throw notKept(error)
    }
  }

  /** The file as it was put; null when its bytes are gone. @throws when it cannot be read */
  async takeFile(mediaId: string): Promise<File | null> {
    const db = await this.#open()
    const about = await db.get('files', mediaId)
    if (!about) return null
    const slices: Blob[] = []
    for (let place = 0; ; place++) {
      const slice = await db.get('slices', [mediaId, place])
      if (!slice) break
      // A blob of its own each: the browser may lay it aside before the next one is read.
      slices.push(new Blob([slice.data]))
    }
    const { name, type, lastModified } = about
    return new File(slices, name, { type, lastModified })
  }

  async dropFile(mediaId: string): Promise<void> {
    try {
      const change = (await this.#open()).transaction(['files', 'slices'], 'readwrite')
      void change.objectStore('files').delete(mediaId)
      void change.objectStore('slices').delete(IDBKeyRange.bound([mediaId], [mediaId, []]))
      await change.done
    } catch {
      // Nothing was kept, so nothing is left.
    }
  }

  /** Nothing is lost of what runs from now on, slice by slice. @throws NotKept */
  async beginRecording(running: RunningHere, name: string, type: string): Promise<void> {
    try {
      const db = await this.#open()
      const change = db.transaction(['recordings', 'files'], 'readwrite')
      const { recordingId: mediaId, ownerId } = running
      void change.objectStore('recordings').put(running)
      void change
        .objectStore('files')
        .put({ mediaId, ownerId, name, type, lastModified: Date.now() })
      await change.done
    } catch (error) {
      throw notKept(error)
    }
  }

  /** @param place - From 0, without a gap. */
  async addSlice(recordingId: string, place: number, slice: Blob): Promise<void> {
    const data = await slice.arrayBuffer()
    await (await this.#open()).put('slices', { mediaId: recordingId, place, data })
  }

  /** What it is to become is something else by now. */
  async changeRecording(running: RunningHere): Promise<void> {
    await (await this.#open()).put('recordings', running)
  }

  /** It is kept as what it became, or nobody wants it. */
  async endRecording(recordingId: string): Promise<void> {
    await this.dropFile(recordingId)
    await (await this.#open()).delete('recordings', recordingId).catch(() => undefined)
  }

  /** Recordings a page of this browser left behind when it ended. */
  async leftRecordings(ownerId: string): Promise<RunningHere[]> {
    return (await this.#open()).getAllFromIndex('recordings', 'owner', ownerId)
  }

  /**
   * What waits for one pupil, in the order it was wanted.
   * @throws when it cannot be read, now or ever
   */
  async list(ownerId: string): Promise<Kept[]> {
    const kept = await (await this.#open()).getAllFromIndex('intents', 'owner', ownerId)
    return kept.sort((a, b) => a.order - b.order || a.id.localeCompare(b.id))
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

/** What waited in the shape of versions 1 and 2, as intents. */
async function bringAlong(db: IDBPDatabase, change: Upgrade, from: number): Promise<void> {
  const old = change as unknown as IDBPTransaction<unknown, string[], 'versionchange'>
  const lines = (await old.objectStore('lines').getAll()) as OldLine[]
  const drafts = from < 2 ? [] : ((await old.objectStore('drafts').getAll()) as OldDraft[])
  const intents = change.objectStore('intents')
  let order = 0
  const keep = async (ownerId: string, intent: Intent) => {
    await intents.put({ id: intent.id, ownerId, order: order++, tried: true, intent })
  }
  const started = new Set<string>()
  const start = async ({ pieceId, ownerId, taskId, keptAt: at }: OldLine | OldDraft) => {
    if (started.has(pieceId)) return
    started.add(pieceId)
    await keep(ownerId, { id: newId(), pieceId, at, kind: 'start', taskId })
  }
  for (const line of lines.sort((a, b) => a.keptAt - b.keptAt)) {
    const { partId, mediaId, pieceId, ownerId, name, keptAt: at, instead = null } = line
    const bytes = (await old.objectStore('bytes').get(partId)) as OldBytes | undefined
    if (!bytes) continue
    await start(line)
    const { type, lastModified, data } = bytes
    await change.objectStore('files').put({ mediaId, ownerId, name, type, lastModified })
    for (let place = 0; place * SLICE_BYTES < data.byteLength; place++)
      await change.objectStore('slices').put({
        mediaId,
        place,
        data: data.slice(place * SLICE_BYTES, (place + 1) * SLICE_BYTES),
      })
    const sizeBytes = data.byteLength
    await keep(ownerId, { id: newId(), pieceId, at, kind: 'file', mediaId, name, sizeBytes })
    const part = { kind: 'photo', name: instead ? '' : name, mediaId, instead } as const
    await keep(ownerId, { id: newId(), pieceId, at, kind: 'add-part', partId, part })
  }
  for (const draft of drafts) {
    const { pieceId, ownerId, words, base, handIn, keptAt: at } = draft
    await start(draft)
    await keep(ownerId, { id: newId(), pieceId, at, kind: 'words', words, base })
    if (handIn) await keep(ownerId, { id: newId(), pieceId, at, kind: 'hand-in' })
  }
  for (const name of ['lines', 'bytes', 'drafts'])
    if (db.objectStoreNames.contains(name)) db.deleteObjectStore(name)
}
