import { AddStaff, ChangeStaff, IdParams, Staff as StaffAnswer } from '@nibquill/contract'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import type { Staff } from './staff.ts'

type Services = { guard: Guard; staffList: Staff }

export function staffRoutes({ guard, staffList }: Services): Router {
  const router = Router()
  router.get('/', async (request, response) => {
    guard.school(signedIn(request), 'staff.change')
    answer(response, StaffAnswer, await staffList.list())
  })
  router.put('/:id', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'staff.change')
    answer(
      response,
      StaffAnswer,
      await staffList.add(viewer, read(IdParams, request.params).id, read(AddStaff, request.body)),
    )
  })
  router.patch('/:id', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'staff.change')
    answer(
      response,
      StaffAnswer,
      await staffList.change(
        viewer,
        read(IdParams, request.params).id,
        read(ChangeStaff, request.body),
      ),
    )
  })
  return router
}
