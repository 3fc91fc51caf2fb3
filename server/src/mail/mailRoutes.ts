import { IdParams, OpenedMail, PostBox } from '@nibquill/contract'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import type { Mail } from './mail.ts'

export function mailRoutes(guard: Guard, mail: Mail): Router {
  const router = Router()
  router.get('/', async (request, response) => {
    guard.school(signedIn(request), 'post-box.read')
    answer(response, PostBox, await mail.openPostBox())
  })
  router.post('/:id/open', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'post-box.read')
    answer(response, OpenedMail, await mail.open(viewer, read(IdParams, request.params).id))
  })
  return router
}
