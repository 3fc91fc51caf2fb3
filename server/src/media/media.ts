import type { Arrived } from '@nibquill/contract'
import { DomainError, MAX_UPLOAD_BYTES, PICTURE_SIZES } from '@nibquill/core'
import { webcrypto } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import { fullKey, sizeKey } from './keys.ts'
import { makeSizes } from './makeSizes.ts'
import { readMaterial } from './readMaterial.ts'
import { readPicture } from './readPicture.ts'
import { MediaRow } from './rows.ts'

/** `materials`: recordings and papers as well, which hang on tasks and notices. */
export type Sent = {
  mediaId: string
  ownerId: string
  name: string
  sha256: string | null
  takes: 'pictures' | 'materials'
}

/** On another thread: a class sending at once must not hold up everything else. */
const sha256 = async (bytes: Uint8Array): Promise<string> =>
  Buffer.from(await webcrypto.subtle.digest('SHA-256', bytes)).toString('hex')
/** Files of pieces: arrival, sizes, reading. */
export class Media {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /**
   * Takes in a file that has arrived whole: checks it, cleans it, stores it once under its hash and
   * asks for its sizes.
   * The same id with the same bytes again changes nothing.
   * @throws DomainError `media/differs` when the hash the sender gave is another; `media/id-taken`;
   *   whatever `readPicture` refuses
   */
  async arrive(sent: Sent, content: { file: string } | Uint8Array): Promise<Arrived> {
    const bytes = content instanceof Uint8Array ? content : await readFile(content.file)
    if (bytes.length > MAX_UPLOAD_BYTES) throw new DomainError('media/too-large')
    const sentSha256 = await sha256(bytes)
    if (sent.sha256 && sent.sha256 !== sentSha256) throw new DomainError('media/differs')
    const there = await this.#platform.db.manager.findOneBy(MediaRow, { id: sent.mediaId })
    // Before it is read and cleaned, which takes a while; looked at again below, where nobody can
    // come between.
    if (there) return arrivedAgain(there, sent, sentSha256)
    const picture =
      (sent.takes === 'materials' && (await readMaterial(bytes))) || (await readPicture(bytes))
    const isPicture = picture.width > 0
    const row: MediaRow = {
      id: sent.mediaId,
      ownerId: sent.ownerId,
      name: sent.name,
      type: picture.type,
      sizeBytes: picture.bytes.length,
      width: picture.width,
      height: picture.height,
      sentSha256,
      keptSha256:
        Buffer.compare(picture.bytes, bytes) === 0 ? sentSha256 : await sha256(picture.bytes),
      state: isPicture ? 'arrived' : 'ready',
      arrivedAt: this.#platform.clock.now(),
    }
    return this.#platform.db.transaction((manager) =>
      makeOrFind(manager, MediaRow, row.id, {
        found: (other) => arrivedAgain(other, sent, sentSha256),
        make: async () => {
          // The nightly job holds the same name while it takes a file away that nobody refers to.
          await holdName(manager, `file:${row.keptSha256}`)
          if (!(await this.#platform.storage.has(fullKey(row))))
            await this.#platform.storage.put(fullKey(row), picture.bytes)
          await manager.insert(MediaRow, row)
          if (isPicture) await addJob(manager, 'media.make-sizes', { mediaId: row.id }, row.id)
          return arrived(row)
        },
      }),
    )
  }

  async findArrived(ownerId: string, mediaId: string): Promise<Arrived | null> {
    const row = await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId, ownerId })
    return row && arrived(row)
  }

  /**
   * The job `media.make-sizes`. A picture nothing can be made of is marked damaged; its full file
   * stays.
   */
  async makeSizes(mediaId: string): Promise<void> {
    const row = await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId })
    if (!row) return
    const state = await this.#storeSizes(row)
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(MediaRow, mediaId, { state })
      const pieces = await manager.query<{ pieceId: string }[]>(
        'select distinct piece_id as "pieceId" from part where media_id = $1',
        [mediaId],
      )
      for (const { pieceId } of pieces)
        await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
    })
  }

  async #storeSizes(row: MediaRow): Promise<MediaRow['state']> {
    if (await this.#platform.storage.has(sizeKey(row, Math.max(...PICTURE_SIZES)))) return 'ready'
    const full = await this.#platform.storage.read(fullKey(row))
    const sizes = await makeSizes(full).catch((error: unknown) => {
      this.#platform.log.warn({ mediaId: row.id, error: String(error) }, 'picture has no sizes')
      return null
    })
    if (!sizes) return 'damaged'
    // The largest is stored last: where it is, all are.
    for (const [i, size] of PICTURE_SIZES.entries())
      await this.#platform.storage.put(sizeKey(row, size), sizes[i]!)
    return 'ready'
  }

  /**
   * What to read for a size: until sizes are made, and where none can be, the full picture stands
   * in.
   */
  async locate(
    mediaId: string,
    size: string,
  ): Promise<{ key: string; type: string; name: string }> {
    const row = await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId })
    if (!row) throw new DomainError('media/not-found')
    if (size === 'full' || row.state !== 'ready' || row.width === 0)
      return { key: fullKey(row), type: row.type, name: row.name }
    return { key: sizeKey(row, Number(size)), type: 'image/jpeg', name: row.name }
  }

  /** Pieces a file hangs in, and whether in what was approved. */
  async findPieces(mediaId: string): Promise<{ pieceId: string; approved: boolean }[]> {
    return this.#platform.db.manager.query(
      `select t.piece_id as "pieceId", exists (select 1 from version_part w join piece p on p.approved_version_id = w.version_id
         where w.part_id = t.id) and t.media_id = $1 as approved from part t where t.media_id = $1 or t.original_media_id = $1`,
      [mediaId],
    )
  }

  /** Tasks and notices a file hangs on. */
  async findHangers(mediaId: string): Promise<{ tasks: string[]; notices: string[] }> {
    const manager = this.#platform.db.manager
    const tasks = await manager.query<{ id: string }[]>(
      'select task_id as id from task_media where media_id = $1',
      [mediaId],
    )
    const notices = await manager.query<{ id: string }[]>(
      'select notice_id as id from notice_media where media_id = $1',
      [mediaId],
    )
    return { tasks: tasks.map(({ id }) => id), notices: notices.map(({ id }) => id) }
  }

  async ownerOf(mediaId: string): Promise<string | null> {
    return (await this.#platform.db.manager.findOneBy(MediaRow, { id: mediaId }))?.ownerId ?? null
  }
}

const arrived = (row: MediaRow): Arrived => ({
  mediaId: row.id,
  sentSha256: row.sentSha256,
  keptSha256: row.keptSha256,
  sizeBytes: row.sizeBytes,
})

function arrivedAgain(there: MediaRow, sent: Sent, sentSha256: string): Arrived {
  if (there.ownerId !== sent.ownerId || there.sentSha256 !== sentSha256)
    throw new DomainError('media/id-taken')
  return arrived(there)
}
