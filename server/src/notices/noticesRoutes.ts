import {
  Done,
  DONE,
  IdParams,
  MakeNotice,
  News,
  Notices as NoticesAnswer,
  Readers,
  SeeNews,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff, type SignedIn } from '../platform/routes.ts'
import type { Notices } from './notices.ts'

export function noticesRoutes(guard: Guard, notices: Notices): Router {
  const router = Router()
  router.get('/news', async (request, response) =>
    answer(response, News, await notices.listNews(pupilOrStaff(request))),
  )
  router.post('/news/seen', async (request, response) => {
    await notices.markSeen(pupilOrStaff(request), read(SeeNews, request.body).ids)
    answer(response, Done, DONE)
  })
  router.get('/', async (request, response) => {
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    answer(response, NoticesAnswer, await notices.list(viewer))
  })
  router.put('/:id', async (request, response) => {
    const input = read(MakeNotice, request.body)
    await guard.schoolClass(signedIn(request), 'notice.make', input.classId)
    answer(
      response,
      NoticesAnswer,
      await notices.make(staff(request), read(IdParams, request.params).id, input),
    )
  })
  for (const move of ['withdraw', 'restore'] as const)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.notice(signedIn(request), 'notice.change', id)
      answer(
        response,
        NoticesAnswer,
        await notices.withdraw(staff(request), id, { back: move === 'restore' }),
      )
    })
  router.get('/:id/readers', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.notice(signedIn(request), 'notice.change', id)
    answer(response, Readers, await notices.listReaders(id))
  })
  router.post('/:id/seen', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.notice(signedIn(request), 'notice.read', id)
    await notices.read(signedIn(request)!, id)
    answer(response, Done, DONE)
  })
  return router
}

/** News go to pupils and staff. */
function pupilOrStaff(request: Request): SignedIn {
  const viewer = signedIn(request)
  return viewer?.role === 'pupil' ? viewer : staff(request)
}
