import {
  ChangeClass,
  ChangePupil,
  ChangeSchool,
  ClassDetail,
  ClassList,
  ConfirmClassList,
  ClassListQuery,
  Done,
  DONE,
  DoRollOver,
  ExportQuery,
  IdParams,
  LatestRollOver,
  MakeClass,
  MAX_CLASS_LIST_BYTES,
  PupilDetail,
  PutPeg,
  PutYear,
  RollOverPlan,
  RollOverQuery,
  SchoolClasses,
  SchoolFacts,
  SchoolYears,
  TakenLists as TakenListsAnswer,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import express, { Router, type Response } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { ClassLists } from './classLists.ts'
import type { TakenLists } from './takenLists.ts'
import type { RollOver } from './rollOver.ts'
import type { School } from './school.ts'

type Services = {
  guard: Guard
  school: School
  classLists: ClassLists
  takenLists: TakenLists
  rollOver: RollOver
}

export function schoolRoutes(services: Services): Router {
  const router = Router()
  router.use(
    calendarRoutes(services),
    classRoutes(services),
    listRoutes(services),
    rollOverRoutes(services),
  )
  return router
}

function calendarRoutes({ guard, school }: Services): Router {
  const router = Router()
  router.get('/', async (request, response) => {
    staff(request)
    answer(response, SchoolFacts, await school.describe())
  })
  router.patch('/', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'school.change')
    answer(response, SchoolFacts, await school.change(viewer, read(ChangeSchool, request.body)))
  })
  router.get('/years', async (request, response) => {
    staff(request)
    answer(response, SchoolYears, await school.listYears())
  })
  router.put('/years/:id', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'school.change')
    answer(
      response,
      SchoolYears,
      await school.putYear(viewer, read(IdParams, request.params).id, read(PutYear, request.body)),
    )
  })
  return router
}

function classRoutes({ guard, school }: Services): Router {
  const router = Router()
  router.get('/classes', async (request, response) =>
    answer(response, SchoolClasses, await school.listClasses(staff(request))),
  )
  router.get('/classes/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.read', id)
    answer(response, ClassDetail, await school.describeClass(staff(request), id))
  })
  router.put('/classes/:id', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'school.change')
    answer(
      response,
      ClassDetail,
      await school.makeClass(
        viewer,
        read(IdParams, request.params).id,
        read(MakeClass, request.body),
      ),
    )
  })
  router.patch('/classes/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.change', id)
    answer(
      response,
      ClassDetail,
      await school.changeClass(staff(request), id, read(ChangeClass, request.body)),
    )
  })
  router.put('/classes/:id/pegs', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.enrol', id)
    answer(
      response,
      ClassDetail,
      await school.putPeg(staff(request), id, read(PutPeg, request.body)),
    )
  })
  router.get('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    staff(request)
    await guard.pupil(signedIn(request), 'pupil.read', id)
    answer(response, PupilDetail, await school.describePupil(id))
  })
  router.patch('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const change = read(ChangePupil, request.body)
    await guard.pupil(signedIn(request), 'pupil.change', id)
    if (change.classId) await guard.schoolClass(signedIn(request), 'class.enrol', change.classId)
    answer(response, PupilDetail, await school.changePupil(staff(request), id, change))
  })
  return router
}

function listRoutes({ guard, classLists, takenLists }: Services): Router {
  const router = Router()
  // Any kind of body: what it is, its bytes say.
  const body = express.raw({ type: () => true, limit: MAX_CLASS_LIST_BYTES })
  router.post('/class-lists', body, async (request, response) => {
    const { classId, kind } = read(ClassListQuery, request.query)
    const viewer = staff(request)
    if (classId) await guard.schoolClass(viewer, 'class.enrol', classId)
    else guard.school(viewer, 'school.change')
    const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0)
    if (bytes.length === 0) throw new DomainError('school/list-unreadable')
    answer(response, ClassList, await classLists.show(viewer, bytes, classId ?? null, kind ?? null))
  })
  router.get('/class-lists', async (request, response) =>
    answer(response, TakenListsAnswer, await takenLists.list(staff(request))),
  )
  router.post('/class-lists/:id/take-back', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = staff(request)
    const { classIds, newClasses } = await takenLists.reachOf(viewer, id)
    if (newClasses) guard.school(viewer, 'school.change')
    for (const classId of classIds) await guard.schoolClass(viewer, 'class.enrol', classId)
    answer(response, TakenListsAnswer, await takenLists.takeBack(viewer, id))
  })
  router.get('/class-lists/:id', async (request, response) =>
    answer(
      response,
      ClassList,
      await classLists.describe(staff(request), read(IdParams, request.params).id),
    ),
  )
  router.post('/class-lists/:id/confirm', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = staff(request)
    // What was allowed when the list was shown may not be any more.
    const { classIds, newClasses } = await classLists.classesOf(viewer, id)
    if (newClasses) guard.school(viewer, 'school.change')
    for (const classId of classIds) await guard.schoolClass(viewer, 'class.enrol', classId)
    answer(
      response,
      ClassList,
      await classLists.confirm(viewer, id, read(ConfirmClassList, request.body ?? {})),
      202,
    )
  })
  router.get('/export', async (request, response) => {
    const { format, classId } = read(ExportQuery, request.query)
    if (classId) await guard.schoolClass(signedIn(request), 'class.read', classId)
    else guard.school(signedIn(request), 'school.change')
    await classLists.noteDownload(staff(request), format, classId ?? null)
    if (format === 'csv')
      return save(
        response,
        'class-list.csv',
        'text/csv; charset=utf-8',
        await classLists.writeCsv(classId ?? null),
      )
    guard.school(signedIn(request), 'school.change')
    const version = format === 'oneroster-1.1' ? '1.1' : '1.2'
    save(
      response,
      `${format}.zip`,
      'application/zip',
      Buffer.from(await classLists.writeOneRoster(version)),
    )
  })
  return router
}

function save(response: Response, name: string, type: string, content: string | Buffer): void {
  response
    .set({ 'Content-Type': type, 'Content-Disposition': `attachment; filename="${name}"` })
    .send(content)
}

function rollOverRoutes({ guard, rollOver }: Services): Router {
  const router = Router()
  router.get('/roll-over', async (request, response) => {
    guard.school(signedIn(request), 'roll-over.do')
    const { fromYearId, toYearId } = read(RollOverQuery, request.query)
    answer(response, RollOverPlan, await rollOver.propose(fromYearId, toYearId))
  })
  router.get('/roll-over/latest', async (request, response) => {
    guard.school(signedIn(request), 'roll-over.do')
    answer(response, LatestRollOver, await rollOver.latest())
  })
  router.post('/roll-over', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'roll-over.do')
    answer(response, LatestRollOver, await rollOver.turn(viewer, read(DoRollOver, request.body)))
  })
  router.post('/roll-over/:id/undo', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'roll-over.do')
    await rollOver.undo(viewer, read(IdParams, request.params).id)
    answer(response, Done, DONE)
  })
  return router
}
