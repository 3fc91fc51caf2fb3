import { ChangeClass, ClassDetail, IdParams, PupilDetail, SchoolClasses, SchoolYears } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, type SignedIn } from '../platform/routes.ts'
import type { School } from './school.ts'

export function schoolRoutes(guard: Guard, school: School): Router {
  const router = Router()
  router.get('/classes', async (request, response) => answer(response, SchoolClasses, await school.listClasses(staff(request))))
  router.get('/classes/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.read', id)
    answer(response, ClassDetail, await school.describeClass(id))
  })
  router.patch('/classes/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.change', id)
    answer(response, ClassDetail, await school.changeClass(id, read(ChangeClass, request.body)))
  })
  router.get('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    staff(request)
    await guard.pupil(signedIn(request), 'pupil.read', id)
    answer(response, PupilDetail, await school.describePupil(id))
  })
  router.get('/years', async (request, response) => {
    staff(request)
    answer(response, SchoolYears, await school.listYears())
  })
  return router
}

function staff(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role !== 'teacher' && viewer.role !== 'office') throw new DomainError('request/not-found')
  return viewer
}
