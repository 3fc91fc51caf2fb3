import type { MakingReady, Arrived, FileState } from '@nibquill/contract'
import type { InkDocument } from '@nibquill/core/ink/document'
import {
  DomainError,
  formsOf,
  MEDIA,
  mayStandIn,
  mayBeSentFor,
  mostBytesFor,
  type MediaForm,
  type MediaKind,
  type MediaUse,
} from '@nibquill/core'
import { createHash } from 'node:crypto'
import { readFile, stat, writeFile } from 'node:fs/promises'
import path from 'node:path'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { hashFile } from '../platform/hashFile.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import { ProgramFailed } from '../platform/runProgram.ts'
import { withScratch } from '../platform/scratch.ts'
import { formKey, fullKey } from './keys.ts'
import { KIND_WORK, type Kept } from './kinds/kinds.ts'
import { makeSizes } from './kinds/makeSizes.ts'
import { MediaFormRow, MediaRow } from './rows.ts'
import { sniff } from './sniff.ts'

export type Sent = {
  mediaId: string
  ownerId: string
  name: string
  sha256: string | null
  use: MediaUse
}
/** Told, in its transaction, when everything that is made of a file has been made, or cannot be. */
export type OnPrepared = (manager: EntityManager, mediaId: string) => Promise<void>
type NoForms = Extract<FileState, 'damaged' | 'unmade'>
type Located = { key: string; type: string; name: string; asAsked: boolean }

/** What is laid on a drawing is drawn from this one. */
const LARGEST_FORM = '2048'
/** Films take minutes: each waits for the one before it, and nothing else waits for them. */
const LINE_OF: Partial<Record<MediaKind, string>> = { film: 'films' }
/** While somebody draws, pictures of what stood there a moment ago are not made. */
const HAND_RESTS_MS = 6000

/** Files, whatever they hang on: arrival, the forms made of them, where they lie. */
export class Media {
  readonly #platform: Platform
  readonly #onPrepared: readonly OnPrepared[]
  constructor(platform: Platform, onPrepared: readonly OnPrepared[]) {
    this.#platform = platform
    this.#onPrepared = onPrepared
  }

  /**
   * Takes in a file that has arrived whole: hashed, told by its bytes, cleaned, stored once under
   * its hash; its forms are asked for. The same id with the same bytes again changes nothing.
   * @throws DomainError `media/differs` when the hash the sender gave is another; `media/id-taken`;
   *   `media/too-large`, `media/empty`; whatever its kind refuses
   */
  async arrive(sent: Sent, content: { file: string } | Uint8Array): Promise<Arrived> {
    return withScratch(async (scratch) => {
      const file = content instanceof Uint8Array ? path.join(scratch, 'sent') : content.file
      if (content instanceof Uint8Array) await writeFile(file, content)
      const { size } = await stat(file)
      if (size === 0) throw new DomainError('media/empty')
      if (size > mostBytesFor(sent.use)) throw new DomainError('media/too-large')
      const sentSha256 = await hashFile(file)
      if (sent.sha256 && sent.sha256 !== sentSha256) throw new DomainError('media/differs')
      // Before it is read and cleaned, which takes a while; looked at again below, where nobody can
      // come between.
      const there = await this.#platform.db.manager.findOneBy(MediaRow, { id: sent.mediaId })
      if (there) return arrivedAgain(there, sent, sentSha256)
      return this.#keep(sent, sentSha256, await this.#clean(sent, file, scratch), file)
    })
  }

  async #clean(sent: Sent, file: string, scratch: string): Promise<Kept & Pick<MediaRow, 'kind'>> {
    const sniffed = await sniff(file)
    if (!sniffed || !mayBeSentFor(sent.use, sniffed.kind))
      throw new DomainError(sent.use === 'part' ? 'media/not-opened' : 'media/not-taken')
    const { kind } = sniffed
    if ((await stat(file)).size > MEDIA[kind].mostBytes) throw new DomainError('media/too-large')
    return { kind, ...(await KIND_WORK[kind].takeIn(file, sniffed, scratch)) }
  }

  async #keep(
    sent: Sent,
    sentSha256: string,
    { kind, file, type, width, height, pages = null }: Kept & Pick<MediaRow, 'kind'>,
    sentFile: string,
  ): Promise<Arrived> {
    const row: MediaRow = {
      id: sent.mediaId,
      ownerId: sent.ownerId,
      name: sent.name,
      kind,
      type,
      sizeBytes: (await stat(file)).size,
      width,
      height,
      pages,
      transcript: '',
      madePercent: 0,
      sentSha256,
      keptSha256: file === sentFile ? sentSha256 : await hashFile(file),
      state: 'arrived',
      arrivedAt: this.#platform.clock.now(),
    }
    return this.#platform.db.transaction((manager) =>
      makeOrFind(manager, MediaRow, row.id, {
        found: (other) => arrivedAgain(other, sent, sentSha256),
        make: async () => {
          // The nightly job holds the same name while it takes a file away that nobody refers to.
          await holdName(manager, `file:${row.keptSha256}`)
          if (!(await this.#platform.storage.about(fullKey(row))))
            await this.#platform.storage.put(fullKey(row), { file, given: file !== sentFile })
          await manager.insert(MediaRow, row)
          await addJob(manager, 'media.prepare', { mediaId: row.id }, row.id, {
            line: LINE_OF[kind],
          })
          return arrived(row)
        },
      }),
    )
  }

  /**
   * What was drawn, as it stands now, in the caller's transaction: a file of its own, pictures of
   * which are made when the hand has rested for a moment.
   * @returns its id
   * @throws DomainError `piece/drawing-full` when it has grown too long
   */
  async keepInk(manager: EntityManager, ownerId: string, ink: InkDocument): Promise<string> {
    const bytes = Buffer.from(JSON.stringify(ink))
    if (bytes.length > MEDIA.ink.mostBytes) throw new DomainError('piece/drawing-full')
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    const { width, height } = ink.sheets[0]!
    const row: MediaRow = {
      ...{ id: newId(), ownerId, name: 'drawing.json', kind: 'ink', type: 'application/json' },
      ...{
        sizeBytes: bytes.length,
        width,
        height,
        pages: null,
        transcript: '',
        madePercent: 0,
        sentSha256: sha256,
        keptSha256: sha256,
      },
      ...{ state: 'arrived', arrivedAt: this.#platform.clock.now() },
    }
    await holdName(manager, `file:${sha256}`)
    if (!(await this.#platform.storage.about(fullKey(row))))
      await this.#platform.storage.put(fullKey(row), bytes)
    await manager.insert(MediaRow, row)
    await addJob(manager, 'media.prepare', { mediaId: row.id }, row.id, { waitMs: HAND_RESTS_MS })
    return row.id
  }

  /** Ink as it was kept: looked through when it came, so that a class drawing at once is not held up. */
  async readInk(manager: EntityManager, mediaId: string): Promise<InkDocument> {
    const row = await manager.findOneByOrFail(MediaRow, { id: mediaId, kind: 'ink' })
    return JSON.parse((await this.#platform.storage.read(fullKey(row))).toString()) as InkDocument
  }

  async findArrived(ownerId: string, mediaId: string): Promise<Arrived | null> {
    const row = await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId, ownerId })
    return row && arrived(row)
  }

  /**
   * The job `media.prepare`: makes the forms of its kind. Where none can be made the file says why;
   * it stays as it is.
   */
  async prepare(mediaId: string): Promise<void> {
    const row = await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId })
    if (!row) return
    const made = await this.#formsOf(row)
    const [forms, state] = typeof made === 'string' ? [[], made] : [made, 'ready' as const]
    await this.#platform.db.transaction(async (manager) => {
      for (const form of forms) await manager.upsert(MediaFormRow, form, ['mediaId', 'form'])
      await manager.update(MediaRow, mediaId, { state })
      for (const tell of this.#onPrepared) await tell(manager, mediaId)
    })
  }

  /**
   * @returns them, or why they cannot be made
   * @throws when the store is away: the job is tried again
   */
  async #formsOf(row: MediaRow): Promise<MediaFormRow[] | NoForms> {
    const made = await this.#platform.db.manager.query<MediaFormRow[]>(
      `select $1::uuid as "mediaId", f.form, min(f.key) as key, min(f.type) as type, min(f.size_bytes) as "sizeBytes", min(f.width) as width,
         min(f.height) as height, min(f.duration_ms) as "durationMs"
       from media_form f join media m on m.id = f.media_id where m.kept_sha256 = $2 group by f.form`,
      [row.id, row.keptSha256],
    )
    const wanted = formsOf(row.kind)
    // The same file sent twice is prepared once.
    if (wanted.every((form) => made.some((other) => other.form === form))) return made
    const { makeForms } = KIND_WORK[row.kind]
    return withScratch(async (scratch) => {
      const fresh = await this.#platform.storage.withFile(fullKey(row), (file) =>
        makeForms(file, scratch, {
          pictureOf: (mediaId) => this.pictureOf(mediaId),
          onPercent: (madePercent) => this.#noteProgress(row.id, madePercent),
        }).catch((error: unknown): NoForms => {
          this.#platform.log.warn({ mediaId: row.id, error: String(error) }, 'no forms can be made')
          return error instanceof ProgramFailed && error.why === 'time' ? 'unmade' : 'damaged'
        }),
      )
      if (typeof fresh === 'string') return fresh
      const rows: MediaFormRow[] = []
      for (const { file, ending, ...form } of fresh) {
        const key = formKey(row, form.form, ending)
        const sizeBytes = (await stat(file)).size
        await this.#platform.storage.put(key, { file, given: true })
        rows.push({ mediaId: row.id, key, sizeBytes, ...form })
      }
      return rows
    })
  }

  /** Said, not waited for: the next one comes soon. */
  #noteProgress(mediaId: string, madePercent: number): void {
    this.#platform.db.manager
      .update(MediaRow, mediaId, { madePercent })
      .catch((error: unknown) => this.#platform.log.warn({ error: String(error) }, 'no progress'))
  }

  /** How far a file is that is being made ready. @throws DomainError `media/not-found` */
  async progress(mediaId: string): Promise<MakingReady> {
    const [found] = await this.#platform.db.manager.query<MakingReady[]>(
      `select m.made_percent as percent, (select count(*)::int from graphile_worker.jobs j
           where j.queue_name = $3 and j.id < (select id from graphile_worker.jobs where key = $2)) as before
       from media m where m.id = $1`,
      [mediaId, `media.prepare:${mediaId}`, LINE_OF.film],
    )
    if (!found) throw new DomainError('media/not-found')
    return found
  }

  /** The largest size of a picture, made now where it has not been yet. */
  async pictureOf(mediaId: string): Promise<Buffer | null> {
    const manager = this.#platform.db.manager
    const row = await manager.findOneBy(MediaRow, { id: mediaId, kind: 'picture' })
    if (!row) return null
    const form = LARGEST_FORM
    const made = await manager.findOneBy(MediaFormRow, { mediaId, form })
    if (made) return this.#platform.storage.read(made.key)
    return withScratch(async (scratch) => {
      const forms = await this.#platform.storage.withFile(fullKey(row), (file) =>
        makeSizes(file, scratch),
      )
      return readFile(forms.find((one) => one.form === form)!.file)
    })
  }

  /**
   * What to read for a form: until it is made, and where none can be, the file itself stands in
   * (`asAsked` false), where it may.
   */
  async locate(mediaId: string, form: MediaForm | 'full'): Promise<Located> {
    const manager = this.#platform.db.manager
    const row = await manager.findOneBy(MediaRow, { id: mediaId })
    if (!row) throw new DomainError('media/not-found')
    const { name, type } = row
    if (form === 'full') return { key: fullKey(row), type, name, asAsked: true }
    const made = await manager.findOneBy(MediaFormRow, { mediaId, form })
    if (!made && !mayStandIn(row.kind, form)) throw new DomainError('media/not-found')
    return made
      ? { key: made.key, type: made.type, name, asAsked: true }
      : { key: fullKey(row), type, name, asAsked: false }
  }
}

const arrived = (row: MediaRow): Arrived => ({
  mediaId: row.id,
  sentSha256: row.sentSha256,
  keptSha256: row.keptSha256,
  sizeBytes: row.sizeBytes,
  kind: row.kind,
})

function arrivedAgain(there: MediaRow, sent: Sent, sentSha256: string): Arrived {
  if (there.ownerId !== sent.ownerId || there.sentSha256 !== sentSha256)
    throw new DomainError('media/id-taken')
  return arrived(there)
}
