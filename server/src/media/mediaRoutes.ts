import {
  Arrived,
  IdParams,
  MadePage,
  MakePage,
  MakingReady,
  MediaParams,
  MediaQuery,
  PageParams,
  TalkFilm,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { FileGuard } from '../access/fileGuard.ts'
import type { Platform } from '../platform/platform.ts'
import { answer, read, signedIn, type SignedIn } from '../platform/routes.ts'
import { serveStored } from '../platform/serveStored.ts'
import type { Media } from './media.ts'
import type { Pages } from './pages.ts'
import type { TalkFilms } from './talkFilms.ts'
import type { Uploads } from './uploads.ts'

export function mediaRoutes(
  platform: Platform,
  guard: FileGuard,
  media: Media,
  uploads: Uploads,
  pages: Pages,
  talkFilms: TalkFilms,
): Router {
  const router = Router()
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    answer(response, Arrived, await uploads.findArrived(sender(request).personId, id))
  })
  router.get('/:id/progress', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.demand(signedIn(request), id, read(MediaQuery, request.query).link)
    answer(response, MakingReady, await media.progress(id))
  })
  router.get('/:id/:form', async (request, response) => {
    const { id, form } = read(MediaParams, request.params)
    const { link, save } = read(MediaQuery, request.query)
    await guard.demand(signedIn(request), id, link)
    const { key, type, name, asAsked } = await media.locate(id, form)
    response.set({
      'Content-Type': type,
      // What stands in for a form that is still to be made must not be kept in its place.
      'Cache-Control':
        link || !asAsked ? 'private, no-cache' : 'private, max-age=31536000, immutable',
      Vary: 'Cookie',
      'Content-Disposition':
        save === undefined
          ? 'inline'
          : `attachment; filename*=UTF-8''${encodeURIComponent(name || 'photo')}`,
      'Content-Security-Policy': "default-src 'none'; sandbox",
    })
    await serveStored(platform.storage, key, request, response)
  })
  router.post('/:id/film', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.demand(signedIn(request), id, undefined)
    answer(response, TalkFilm, await talkFilms.ask(id))
  })
  router.post('/:id/pages/:page', async (request, response) => {
    const { id, page } = read(PageParams, request.params)
    const { mediaId } = read(MakePage, request.body)
    const { personId } = sender(request)
    await guard.demand(signedIn(request), id, undefined)
    answer(response, MadePage, await pages.make(personId, id, page, mediaId))
  })
  return router
}

/** Those who send files. */
function sender(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'pupil' && viewer.role !== 'teacher') throw new DomainError('media/not-found')
  return viewer
}
