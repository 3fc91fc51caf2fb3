import { Id } from '@nibquill/contract'
import { DomainError, MAX_UPLOAD_BYTES } from '@nibquill/core'
import { FileStore } from '@tus/file-store'
import { Server, type Upload } from '@tus/server'
import { AsyncLocalStorage } from 'node:async_hooks'
import { mkdir, rm } from 'node:fs/promises'
import path from 'node:path'
import type { Request, Response } from 'express'
import * as v from 'valibot'
import type { Platform } from '../platform/platform.ts'
import { problemOf } from '../platform/problem.ts'
import { signedIn, type SignedIn } from '../platform/routes.ts'
import type { Media } from './media.ts'

export const UPLOADS_PATH = '/api/media/uploads'
/** Half-arrived files wait this long for their sender. */
const WAITS_MS = 7 * 24 * 3600 * 1000

const Metadata = v.object({
  mediaId: Id,
  filename: v.optional(v.pipe(v.string(), v.maxLength(1000)), ''),
  sha256: v.nullish(v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/))),
})

/** Resumable uploads. @see tus.io resumable upload protocol 1.0.0 */
export async function openUploads(
  platform: Platform,
  media: Media,
): Promise<{ handle: (request: Request, response: Response) => Promise<void>; cleanUp: () => Promise<unknown> }> {
  const folder = path.join(platform.config.dataFolder, 'arriving')
  await mkdir(folder, { recursive: true })
  const store = new FileStore({ directory: folder, expirationPeriodInMilliseconds: WAITS_MS })

  /** Carries the signed-in person past the upload library, which sees plain requests only. */
  const sender = new AsyncLocalStorage<SignedIn>()

  const finish = async (upload: Upload) => {
    const { mediaId, filename, sha256 } = v.parse(Metadata, upload.metadata)
    const file = path.join(folder, upload.id)
    try {
      const ownerId = upload.metadata?.ownerId ?? ''
      const done = await media.arrive(
        {
          mediaId, ownerId, name: filename.toWellFormed().slice(0, 200), sha256: sha256 ?? null,
          takes: upload.metadata?.takes === 'materials' ? 'materials' : 'pictures',
        }, // prettier-ignore
        { file },
      )
      return { status_code: 200, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(done) }
    } catch (error) {
      if (problemOf(error).status >= 500)
        platform.log.error({ error: String(error), stack: error instanceof Error ? error.stack : '' }, 'upload failed')
      throw tusError(error)
    } finally {
      await rm(file, { force: true })
      await rm(`${file}.json`, { force: true })
    }
  }

  const server = new Server({
    path: UPLOADS_PATH,
    datastore: store,
    relativeLocation: true,
    maxSize: MAX_UPLOAD_BYTES,
    onUploadCreate: async (_request, upload) => {
      const parsed = v.safeParse(Metadata, upload.metadata)
      if (!parsed.success) throw tusError(new v.ValiError(parsed.issues))
      if (upload.size === 0) throw tusError(new DomainError('media/empty'))
      const { personId = '', role } = sender.getStore() ?? {}
      return { metadata: { ...upload.metadata, ownerId: personId, takes: role === 'pupil' ? 'pictures' : 'materials' } }
    },
    onIncomingRequest: async (request, uploadId) => {
      if (request.method === 'POST') return
      const upload = await store.getUpload(uploadId).catch(() => null)
      if (upload && upload.metadata?.ownerId !== sender.getStore()?.personId) throw tusError(new DomainError('media/not-found'))
    },
    onUploadFinish: async (_request, upload) => finish(upload),
  })

  return {
    handle: async (request, response) => {
      const viewer = signedIn(request)
      if (!viewer) throw new DomainError('accounts/signed-out')
      if (viewer.role !== 'pupil' && viewer.role !== 'teacher') throw new DomainError('request/not-found')
      await sender.run(viewer, () => server.handle(request, response))
    },
    cleanUp: () => server.cleanUpExpiredUploads(),
  }
}

function tusError(error: unknown): { status_code: number; body: string } {
  const problem = problemOf(error)
  return { status_code: problem.status, body: JSON.stringify(problem) }
}
