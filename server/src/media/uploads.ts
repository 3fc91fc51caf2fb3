import { Id, type Arrived } from '@nibquill/contract'
import { DomainError, fault, MEDIA_USES, mostBytesFor, type MediaUse } from '@nibquill/core'
import { EVENTS, Server, type Upload } from '@tus/server'
import type { Request, Response } from 'express'
import * as v from 'valibot'
import { holdName } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { problemOf } from '../platform/problem.ts'
import { signedIn, type SignedIn } from '../platform/routes.ts'
import { openArriving, type Arriving } from './arriving.ts'
import type { Media } from './media.ts'
import { UploadRow } from './rows.ts'

export const UPLOADS_PATH = '/api/media/uploads'
/** Half-arrived files wait this long for their sender. */
const WAITS_MS = 7 * 24 * 3600 * 1000
/**
 * What one person may have begun and not finished: a tablet sends two at a time, so this is many
 * tablets with a bad network.
 */
export const MOST_BEGUN = 40
const MOST_BEGUN_BYTES = 400 * 1024 * 1024
/**
 * Begun longer ago than this, an upload makes room for new ones: its tablet has the file and sends
 * it again from the start.
 */
const FRESH_MS = 3600 * 1000

const Metadata = v.object({
  mediaId: Id,
  filename: v.optional(
    v.pipe(
      v.string(),
      v.maxLength(1000),
      v.check((name) => !name.includes('\u0000'), fault('unkeepable')),
    ),
    '',
  ),
  sha256: v.nullish(v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/))),
})
/** What its sender says when it begins. */
const Announced = v.object({ ...Metadata.entries, use: v.nullish(v.literal('pages')) })
/** What this server wrote beside it when it began. */
const Begun = v.object({ ownerId: v.string(), use: v.optional(v.picklist(MEDIA_USES), 'part') })
/** Pupils make pieces; teachers hang something on a task or a notice. */
const useOf = (viewer: SignedIn | null): MediaUse =>
  viewer?.role === 'pupil' ? 'part' : 'attachment'

/** What the upload library makes of a request carries the one it was made from. */
type Wrapped = { runtime: { node: { req: Request } } }
const senderOf = (request: object): SignedIn | null =>
  signedIn((request as Wrapped).runtime.node.req)

/** Resumable uploads. @see tus.io resumable upload protocol 1.0.0 */
export class Uploads {
  readonly #platform: Platform
  readonly #media: Media
  readonly #arriving: Arriving
  readonly #server: Server

  private constructor(platform: Platform, media: Media, arriving: Arriving) {
    this.#platform = platform
    this.#media = media
    this.#arriving = arriving
    this.#server = new Server({
      path: UPLOADS_PATH,
      datastore: arriving.store,
      relativeLocation: true,
      maxSize: (request) => mostBytesFor(useOf(senderOf(request))),
      onUploadCreate: (request, upload) => this.#begin(senderOf(request), upload),
      onIncomingRequest: (request, uploadId) =>
        this.#refuseStrangers(senderOf(request), request.method, uploadId),
      onUploadFinish: (_request, upload) => this.#answerFinished(upload),
    })
    this.#server.on(EVENTS.POST_TERMINATE, (_request, _response, id) => void this.#forget(id))
  }

  static async open(platform: Platform, media: Media): Promise<Uploads> {
    return new Uploads(platform, media, await openArriving(platform.config, WAITS_MS))
  }

  async handle(request: Request, response: Response): Promise<void> {
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (viewer.role !== 'pupil' && viewer.role !== 'teacher')
      throw new DomainError('request/not-found')
    await this.#server.handle(request, response)
  }

  async #begin(sender: SignedIn | null, upload: Upload): Promise<{ metadata: Upload['metadata'] }> {
    const parsed = v.safeParse(Announced, upload.metadata)
    if (!parsed.success) throw tusError(new v.ValiError(parsed.issues))
    if (upload.size === 0) throw tusError(new DomainError('media/empty'))
    const personId = sender?.personId ?? ''
    const { mediaId, sha256, use } = parsed.output
    const there = await this.#media.findArrived(personId, mediaId)
    // Its last answer was lost on the way: the file need not come again.
    if (there && there.sentSha256 === sha256)
      throw tusError(new DomainError('media/arrived-already'))
    await this.#count(personId, mediaId, upload).catch((error: unknown) => {
      throw tusError(error)
    })
    return {
      metadata: {
        ...upload.metadata,
        ...({ ownerId: personId, use: use ?? useOf(sender) } satisfies v.InferOutput<typeof Begun>),
      },
    }
  }

  /** @throws DomainError `media/too-many-uploads` */
  async #count(
    ownerId: string,
    mediaId: string,
    { id, size = mostBytesFor('part') }: Upload,
  ): Promise<void> {
    const now = this.#platform.clock.now()
    const tooOld = await this.#platform.db.transaction(async (manager) => {
      await holdName(manager, `uploads:${ownerId}`)
      const begun = await manager.find(UploadRow, {
        where: { ownerId },
        order: { createdAt: 'ASC', id: 'ASC' },
      })
      const away: UploadRow[] = []
      const fits = () =>
        begun.length < MOST_BEGUN &&
        begun.reduce((sum, { sizeBytes }) => sum + sizeBytes, size) <= MOST_BEGUN_BYTES
      while (!fits() && begun[0] && now.getTime() - begun[0].createdAt.getTime() > FRESH_MS)
        away.push(begun.shift()!)
      if (!fits()) throw new DomainError('media/too-many-uploads')
      for (const old of away) await manager.delete(UploadRow, old.id)
      await manager.insert(UploadRow, { id, ownerId, mediaId, sizeBytes: size, createdAt: now })
      return away
    })
    for (const old of tooOld) await this.#drop(old.id)
  }

  async #refuseStrangers(sender: SignedIn | null, method: string, uploadId: string): Promise<void> {
    if (method === 'POST') return
    const upload = await this.#arriving.store.getUpload(uploadId).catch(() => null)
    if (upload && upload.metadata?.ownerId !== sender?.personId)
      throw tusError(new DomainError('media/not-found'))
  }

  async #answerFinished(
    upload: Upload,
  ): Promise<{ status_code: number; headers: Record<string, string>; body: string }> {
    const done = await this.#takeIn(upload).catch((error: unknown) => {
      throw tusError(error)
    })
    return {
      status_code: 200,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(done),
    }
  }

  /**
   * Takes in a file that is here whole. Safe to repeat: whoever was stopped after the last byte
   * left everything as it was.
   * What is refused for good goes; what failed on our side waits for the next try.
   */
  async #takeIn(upload: Upload): Promise<Arrived> {
    const { mediaId, filename, sha256 } = v.parse(Metadata, upload.metadata)
    const { ownerId, use } = v.parse(Begun, upload.metadata)
    try {
      const name = filename.toWellFormed().slice(0, 200)
      const done = await this.#arriving.withFile(upload.id, (file) =>
        this.#media.arrive({ mediaId, ownerId, name, sha256: sha256 ?? null, use }, { file }),
      )
      await this.#drop(upload.id)
      return done
    } catch (error) {
      if (problemOf(error).status < 500) await this.#drop(upload.id)
      else
        this.#platform.log.error(
          { error: String(error), stack: error instanceof Error ? error.stack : '' },
          'upload failed',
        )
      throw error
    }
  }

  async #drop(uploadId: string): Promise<void> {
    await this.#arriving.remove(uploadId)
    await this.#forget(uploadId)
  }

  async #forget(uploadId: string): Promise<void> {
    // A count that cannot be taken back now is taken back by the nightly job.
    await this.#platform.db.manager.delete(UploadRow, uploadId).catch(() => undefined)
  }

  /**
   * Whether a file of this person has arrived: what an uploader asks that never heard the answer.
   * @throws DomainError `media/not-found`
   */
  async findArrived(ownerId: string, mediaId: string): Promise<Arrived> {
    const there = await this.#media.findArrived(ownerId, mediaId)
    if (there) return there
    for (const { id } of await this.#platform.db.manager.findBy(UploadRow, { ownerId, mediaId })) {
      const whole = await this.#findWhole(id)
      if (whole) return this.#takeIn(whole)
    }
    throw new DomainError('media/not-found')
  }

  async #findWhole(uploadId: string): Promise<Upload | null> {
    const upload = await this.#arriving.store.getUpload(uploadId).catch(() => null)
    return upload && upload.size !== undefined && upload.offset === upload.size ? upload : null
  }

  /** At the start: what arrived whole just before the process was stopped. */
  async takeInWhole(): Promise<void> {
    for (const { id } of await this.#platform.db.manager.find(UploadRow)) {
      const whole = await this.#findWhole(id)
      if (whole)
        await this.#takeIn(whole).catch((error: unknown) =>
          this.#platform.log.warn({ error: String(error) }, 'not taken in'),
        )
    }
  }

  /** Half-arrived files nobody has come back for. @returns how many went */
  async cleanUp(
    before = new Date(this.#platform.clock.now().getTime() - WAITS_MS),
  ): Promise<number> {
    const old = await this.#platform.db.manager.query<{ id: string }[]>(
      'select id from upload where created_at < $1',
      [before],
    )
    for (const { id } of old) await this.#drop(id)
    // Beginnings from before they were counted.
    if (this.#arriving.store.hasExtension('expiration')) await this.#server.cleanUpExpiredUploads()
    return old.length
  }
}

function tusError(error: unknown): { status_code: number; body: string } {
  const problem = problemOf(error)
  return { status_code: problem.status, body: JSON.stringify(problem) }
}
