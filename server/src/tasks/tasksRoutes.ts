import { Tasks as TasksAnswer } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router } from 'express'
import { answer, signedIn } from '../platform/routes.ts'
import type { Tasks } from './tasks.ts'

export function tasksRoutes(tasks: Tasks): Router {
  const router = Router()
  router.get('/', async (request, response) => {
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (viewer.role !== 'pupil' && viewer.role !== 'teacher') throw new DomainError('task/not-found')
    answer(response, TasksAnswer, await tasks.list(viewer))
  })
  return router
}
