import {
  ChangeTask,
  DueAdvice,
  DueQuery,
  IdParams,
  LyingOnCopies,
  MakeTask,
  Nudge,
  OfferSheet,
  PutUnit,
  ReuseUnit,
  Standings,
  Task,
  Tasks as TasksAnswer,
  TasksQuery,
  Units as UnitsAnswer,
} from '@nibquill/contract'
import { PutSheet } from '@nibquill/contract/ink'
import { DomainError } from '@nibquill/core'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { Tasks } from './tasks.ts'
import type { Units } from './units.ts'

export function tasksRoutes(guard: Guard, tasks: Tasks, units: Units): Router {
  const router = Router()
  router.use('/units', unitRoutes(guard, tasks, units))
  router.use(sheetRoutes(guard, tasks))
  router.get('/', async (request, response) => {
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (viewer.role === 'parent') throw new DomainError('task/not-found')
    const { closed } = read(TasksQuery, request.query)
    answer(
      response,
      TasksAnswer,
      await tasks.list(viewer, { closed: closed !== undefined && viewer.role !== 'pupil' }),
    )
  })
  router.get('/due', async (request, response) => {
    const { classId, day, time } = read(DueQuery, request.query)
    await guard.schoolClass(signedIn(request), 'task.make', classId)
    answer(response, DueAdvice, await tasks.adviseDue(classId, day, time))
  })
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.read', id)
    answer(response, Task, await tasks.describe(signedIn(request)!, id))
  })
  router.put('/:id', async (request, response) => {
    const input = read(MakeTask, request.body)
    await guard.schoolClass(signedIn(request), 'task.make', input.classId)
    answer(
      response,
      Task,
      await tasks.make(staff(request), read(IdParams, request.params).id, input),
    )
  })
  router.patch('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(response, Task, await tasks.change(staff(request), id, read(ChangeTask, request.body)))
  })
  for (const move of ['close', 'open'] as const)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.task(signedIn(request), 'task.change', id)
      answer(response, Task, await tasks.close(staff(request), id, { open: move === 'open' }))
    })
  router.post('/:id/duplicate', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(response, Task, await tasks.duplicate(staff(request), id))
  })
  router.get('/:id/standings', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(response, Standings, await tasks.listStandings(id))
  })
  router.post('/:id/nudge', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(
      response,
      Standings,
      await tasks.nudge(staff(request), id, read(Nudge, request.body).pupilIds),
    )
  })
  for (const method of ['post', 'delete'] as const)
    router[method]('/:id/tick', async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.task(signedIn(request), 'task.tick', id)
      answer(
        response,
        Task,
        await tasks.tick(guard.own(signedIn(request), 'pupil'), id, { on: method === 'post' }),
      )
    })
  return router
}

/** Of starter sheets, and of what lies where on the copies of one. */
function sheetRoutes(guard: Guard, tasks: Tasks): Router {
  const router = Router()
  router.put('/:id/sheet', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(response, Task, await tasks.putSheet(staff(request), id, read(PutSheet, request.body)))
  })
  router.post('/:id/sheet/offer', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(
      response,
      Task,
      await tasks.offerSheet(staff(request), id, read(OfferSheet, request.body)),
    )
  })
  router.get('/:id/sheet/lying', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.task(signedIn(request), 'task.change', id)
    answer(response, LyingOnCopies, await tasks.listLying(id))
  })
  return router
}

function unitRoutes(guard: Guard, tasks: Tasks, units: Units): Router {
  const router = Router()
  router.get('/', async (request, response) =>
    answer(response, UnitsAnswer, await units.list(staff(request))),
  )
  router.put('/:id', async (request, response) => {
    const input = read(PutUnit, request.body)
    await guard.schoolClass(signedIn(request), 'task.make', input.classId)
    answer(
      response,
      UnitsAnswer,
      await units.put(staff(request), read(IdParams, request.params).id, input),
    )
  })
  router.delete('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = staff(request)
    await guard.schoolClass(viewer, 'task.make', await units.classOf(id))
    answer(response, UnitsAnswer, await units.dissolve(viewer, id))
  })
  router.post('/:id/reuse', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const { unitId, classId } = read(ReuseUnit, request.body)
    const viewer = staff(request)
    // Whose unit it is, and where it shall go.
    await guard.schoolClass(viewer, 'class.read', await units.classOf(unitId))
    await guard.schoolClass(signedIn(request), 'task.make', classId)
    await tasks.reuseUnit(staff(request), id, unitId, classId)
    answer(response, UnitsAnswer, await units.list(staff(request)))
  })
  return router
}
