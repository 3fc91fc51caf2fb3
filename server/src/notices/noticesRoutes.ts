import { Done, DONE, News } from '@nibquill/contract'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, signedIn } from '../platform/routes.ts'
import type { Notices } from './notices.ts'

export function noticesRoutes(guard: Guard, notices: Notices): Router {
  const router = Router()
  router.get('/news', async (request, response) =>
    answer(response, News, await notices.listNews(guard.own(signedIn(request), 'pupil'))),
  )
  router.post('/news/seen', async (request, response) => {
    await notices.markSeen(guard.own(signedIn(request), 'pupil'))
    answer(response, Done, DONE)
  })
  return router
}
