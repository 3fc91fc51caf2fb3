import { Arrived, IdParams, MediaParams, MediaQuery } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import type { Platform } from '../platform/platform.ts'
import { answer, read, signedIn, type SignedIn } from '../platform/routes.ts'
import type { Media } from './media.ts'
import type { Uploads } from './uploads.ts'

export function mediaRoutes(
  platform: Platform,
  guard: Guard,
  media: Media,
  uploads: Uploads,
): Router {
  const router = Router()
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    answer(response, Arrived, await uploads.findArrived(sender(request).personId, id))
  })
  router.get('/:id/:size', async (request, response) => {
    const { id, size } = read(MediaParams, request.params)
    const { link, save } = read(MediaQuery, request.query)
    await allowReading(guard, media, request, id, link)
    const found = await media.locate(id, size)
    // A size that is still to be made is answered with the full picture, so only what never changes
    // may be kept for good.
    const forGood = size === 'full' || found.key.includes('-')
    response.set({
      'Content-Type': found.type,
      'Cache-Control':
        link || !forGood ? 'private, no-cache' : 'private, max-age=31536000, immutable',
      Vary: 'Cookie',
      'Content-Disposition':
        save === undefined
          ? 'inline'
          : `attachment; filename*=UTF-8''${encodeURIComponent(found.name || 'photo')}`,
      'Content-Security-Policy': "default-src 'none'; sandbox",
    })
    await platform.storage.serve(found.key, response)
  })
  return router
}

/**
 * A file may be read through any piece it hangs in; people outside the school only through what was
 * approved.
 */
async function allowReading(
  guard: Guard,
  media: Media,
  request: Request,
  mediaId: string,
  link: string | undefined,
): Promise<void> {
  const viewer = signedIn(request)
  const pieces = await media.findPieces(mediaId)
  if (link) {
    const { pieceId } = await guard.linkedPiece(viewer, link)
    if (pieces.some((piece) => piece.pieceId === pieceId && piece.approved)) return
    throw new DomainError('media/not-found')
  }
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'parent' && (await media.ownerOf(mediaId)) === viewer.personId) return
  for (const { pieceId, approved } of pieces) {
    if (await guard.allowsPiece(viewer, 'piece.read', pieceId)) return
    if (approved && (await guard.allowsPiece(viewer, 'piece.read-approved', pieceId))) return
  }
  const { tasks, notices } = await media.findHangers(mediaId)
  for (const id of tasks)
    if (await guard.task(viewer, 'task.read', id).then(() => true, isRefusal)) return
  for (const id of notices)
    if (await guard.notice(viewer, 'notice.read', id).then(() => true, isRefusal)) return
  throw new DomainError('media/not-found')
}

/** Those who send files. */
function sender(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'pupil' && viewer.role !== 'teacher') throw new DomainError('media/not-found')
  return viewer
}

function isRefusal(error: unknown): false {
  if (error instanceof DomainError) return false
  throw error
}
