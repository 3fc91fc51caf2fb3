import type {
  ChangeTask,
  DueAdvice,
  LyingOnCopies,
  MakeTask,
  Standing,
  Task,
} from '@nibquill/contract'
import { DomainError, fault } from '@nibquill/core'
import {
  isSchoolDay,
  schoolDay,
  schoolMoment,
  schoolTime,
  shiftBySchoolWeeks,
} from '@nibquill/core/school/calendar'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { shownTo } from '../access/facts.ts'
import { ATTACHMENT_JSON, refuseForeign } from '../media/attachments.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import type { School } from '../school/school.ts'
import { ITS_PUPILS, pupilOf, type FlatPupil } from './itsPupils.ts'
import { NudgeRow, TaskMediaRow, TaskPupilRow, TaskRow, UnitRow } from './rows.ts'
import type { NewSheet, StarterSheets } from './starterSheets.ts'
import { strings } from './strings.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

/** Work set by teachers. */
export class Tasks {
  readonly #platform: Platform
  readonly #school: School
  readonly #sheets: StarterSheets
  constructor(platform: Platform, school: School, sheets: StarterSheets) {
    this.#platform = platform
    this.#school = school
    this.#sheets = sheets
  }

  /**
   * Open tasks by due moment, those without one last: with a pupil's own pieces, or with a
   * teacher's counts.
   */
  async list(viewer: SignedIn, options: { closed: boolean }): Promise<Task[]> {
    const now = this.#platform.clock.now()
    return this.#select(
      viewer,
      sql`where (${options.closed} or t.closed_at is null) and y.ends_on >= ${schoolDayOf(now)}
         and exists (select 1 from enrolment e where e.class_id = t.class_id and e.person_id = ${viewer.personId})
         and ${viewer.role === 'pupil' ? shownTo(viewer.personId, now) : sql`true`}
       order by t.closed_at is not null, t.due_at nulls last, t.position, t.created_at`,
    )
  }

  async describe(viewer: SignedIn, taskId: string): Promise<Task> {
    const [task] = await this.#select(viewer, sql`where t.id = ${taskId}`)
    if (!task) throw new DomainError('task/not-found')
    return task
  }

  async #select(viewer: SignedIn, tail: Sql): Promise<Task[]> {
    const pupil = viewer.role === 'pupil'
    const rows = await ask<FlatTask>(
      this.#platform.db.manager,
      sql`select t.id, t.title, t.instructions, t.due_at as "dueAt", t.opens_at as "opensAt", t.closed_at is not null as closed, t.steps, t.asks, t.version,
         t.folder_changeable as "folderChangeable", t.asks_thoughts as "asksThoughts", t.class_id as "classId", c.name as "className", t.strand_id as "strandId",
         (select s.media_id from task_sheet s where s.task_id = t.id and s.role = 'ink') as "sheetId",
         t.sheet_offered as offered, ${pupil ? sql`null` : sql`t.sheet_expected`} as sorting,
         f.id as "folderId", f.name as "folderName", f.symbol, f.colour, u.id as "unitId", u.title as "unitTitle",
         coalesce((select json_agg(json_build_object('role', k.role, ${raw(ATTACHMENT_JSON)}) order by k.position) from task_media k
           join media m on m.id = k.media_id where k.task_id = t.id), '[]') as media, ${pupil ? forPupil(viewer.personId) : raw(FOR_TEACHER)}
       from task t join class c on c.id = t.class_id join folder f on f.id = t.folder_id join school_year y on y.id = c.school_year_id
         left join unit u on u.id = t.unit_id ${tail}`,
    )
    return rows.map(
      ({
        folderId,
        folderName,
        symbol,
        colour,
        dueAt,
        opensAt,
        unitId,
        unitTitle,
        nudgedAt,
        sheetId,
        offered,
        sorting,
        ...task
      }) => ({
        ...task,
        dueAt: dueAt?.toISOString() ?? null,
        opensAt: opensAt?.toISOString() ?? null,
        nudgedAt: nudgedAt?.toISOString() ?? null,
        sheet: sheetId ? { mediaId: sheetId, offered, sorting } : null,
        unit: unitId ? { id: unitId, title: unitTitle } : null,
        folder: { id: folderId, name: folderName, symbol, colour },
      }),
    )
  }

  /** Again with the same id it answers with the task that is there. */
  async make(viewer: SignedIn, taskId: string, { classId, ...input }: MakeTask): Promise<Task> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, TaskRow, taskId, {
        found: (there) => {
          if (there.classId !== classId) throw new DomainError('task/not-found')
        },
        make: () => this.#insert(manager, viewer, taskId, classId, input),
      })
    })
    return this.describe(viewer, taskId)
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    taskId: string,
    classId: string,
    input: Omit<MakeTask, 'classId'>,
  ): Promise<void> {
    const { media, pupilIds, ...row } = await this.#rowOf(manager, classId, input)
    await refuseForeign(
      manager,
      viewer.personId,
      media.map(({ mediaId }) => mediaId),
    )
    const position = await manager.countBy(TaskRow, { classId })
    await manager.insert(TaskRow, {
      id: taskId,
      classId,
      ...row,
      sheetExpected: null,
      sheetOffered: false,
      forAll: pupilIds === null,
      position,
      version: 1,
      createdAt: this.#platform.clock.now(),
      closedAt: null,
    })
    await this.#hang(manager, taskId, classId, media, pupilIds)
    await note(manager, this.#platform.clock.now(), viewer.personId, 'task.make', taskId)
  }

  /** @throws DomainError `task/stale` when a second teacher changed it first */
  async change(
    viewer: SignedIn,
    taskId: string,
    { seenVersion, ...input }: ChangeTask,
  ): Promise<Task> {
    await this.#platform.db.transaction(async (manager) => {
      const task = await manager.findOne(TaskRow, {
        where: { id: taskId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!task) throw new DomainError('task/not-found')
      if (task.version !== seenVersion)
        throw new DomainError('task/stale', { version: task.version })
      const { media, pupilIds, ...row } = await this.#rowOf(manager, task.classId, input)
      const hanging = (await manager.findBy(TaskMediaRow, { taskId })).map(({ mediaId }) => mediaId)
      await refuseForeign(
        manager,
        viewer.personId,
        media.map(({ mediaId }) => mediaId),
        hanging,
      )
      await manager.update(TaskRow, taskId, {
        ...row,
        forAll: pupilIds === null,
        version: seenVersion + 1,
      })
      await this.#hang(manager, taskId, task.classId, media, pupilIds)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'task.change', taskId)
    })
    return this.describe(viewer, taskId)
  }

  /** School time becomes moments; folder and unit must be the class's own. */
  async #rowOf(
    manager: EntityManager,
    classId: string,
    { opens, due, ...input }: Omit<MakeTask, 'classId'>,
  ) {
    const [fits] = await manager.query<{ folder: boolean; unit: boolean; strand: boolean }[]>(
      `select exists (select 1 from folder f where f.id = $2 and f.put_away_at is null and (f.whole_school
           or exists (select 1 from folder_class h where h.folder_id = f.id and h.class_id = $1))) as folder,
         $3::uuid is null or exists (select 1 from unit u where u.id = $3 and u.class_id = $1) as unit,
         $4::uuid is null or exists (select 1 from strand s where s.id = $4) as strand`,
      [classId, input.folderId, input.unitId, input.strandId],
    )
    if (!fits?.folder) throw new DomainError('folder/not-found')
    if (!fits.unit || !fits.strand) throw new DomainError('request/not-found')
    const { timeZone } = await this.#school.describe()
    const at = (moment: MakeTask['due']) =>
      moment && schoolMoment(moment.day, moment.time, timeZone)
    const [opensAt, dueAt] = [at(opens), at(due)]
    if (opensAt && dueAt && dueAt <= opensAt)
      throw new DomainError('request/invalid', { fields: { due: [fault('due-before-it-opens')] } })
    return { ...input, opensAt, dueAt }
  }

  async #hang(
    manager: EntityManager,
    taskId: string,
    classId: string,
    media: MakeTask['media'],
    pupilIds: string[] | null,
  ): Promise<void> {
    await manager.delete(TaskMediaRow, { taskId })
    if (media.length > 0)
      await manager.insert(
        TaskMediaRow,
        media.map(({ mediaId, role }, position) => ({ taskId, mediaId, role, position })),
      )
    await manager.delete(TaskPupilRow, { taskId })
    if (pupilIds)
      await manager.query(
        `insert into task_pupil select $1, e.person_id from enrolment e join person p on p.id = e.person_id and p.role = 'pupil'
         where e.class_id = $2 and e.person_id = any($3)`,
        [taskId, classId, pupilIds],
      )
    await this.#tellClass(manager, classId)
  }

  async close(viewer: SignedIn, taskId: string, options: { open: boolean }): Promise<Task> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('update task set closed_at = $2, version = version + 1 where id = $1', [
        taskId,
        options.open ? null : now,
      ])
      const { classId } = await manager.findOneByOrFail(TaskRow, { id: taskId })
      await note(manager, now, viewer.personId, options.open ? 'task.open' : 'task.close', taskId)
      await this.#tellClass(manager, classId)
    })
    return this.describe(viewer, taskId)
  }

  /** A copy that pupils do not see yet: it opens a week later than now unless it is changed. */
  async duplicate(viewer: SignedIn, taskId: string): Promise<Task> {
    const copyId = newId()
    await this.#platform.db.transaction(async (manager) => {
      const task = await manager.findOneByOrFail(TaskRow, { id: taskId })
      const opensAt = new Date(this.#platform.clock.now().getTime() + 7 * 24 * 3600 * 1000)
      await this.#copy(manager, task, copyId, {
        title: strings.copyOf(task.title),
        opensAt,
        dueAt: null,
        position: await manager.countBy(TaskRow, { classId: task.classId }),
      })
      await manager.query(
        'insert into task_pupil select $2, person_id from task_pupil where task_id = $1',
        [taskId, copyId],
      )
      await note(manager, this.#platform.clock.now(), viewer.personId, 'task.make', copyId)
    })
    return this.describe(viewer, copyId)
  }

  async #copy(
    manager: EntityManager,
    task: TaskRow,
    id: string,
    change: Partial<TaskRow>,
  ): Promise<void> {
    const createdAt = this.#platform.clock.now()
    await manager.insert(TaskRow, {
      ...{ ...task, id, version: 1, createdAt, closedAt: null, sheetOffered: false },
      ...change,
    })
    await manager.query(
      'insert into task_media select $2, media_id, role, position from task_media where task_id = $1',
      [task.id, id],
    )
    await this.#sheets.copy(manager, task.id, id)
  }

  /**
   * Puts a starter sheet on a task, or takes it away. Who has begun keeps theirs.
   * @throws DomainError as `StarterSheets.put`
   */
  async putSheet(viewer: SignedIn, taskId: string, input: NewSheet): Promise<Task> {
    await this.#platform.db.transaction(async (manager) => {
      const task = await manager.findOne(TaskRow, {
        where: { id: taskId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!task) throw new DomainError('task/not-found')
      await this.#sheets.put(manager, viewer, taskId, input)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'task.sheet', taskId)
      await this.#tellClass(manager, task.classId)
    })
    return this.describe(viewer, taskId)
  }

  /** @throws DomainError as `StarterSheets.offer` */
  async offerSheet(
    viewer: SignedIn,
    taskId: string,
    offer: { offered: boolean; seenMediaId: string },
  ): Promise<Task> {
    await this.#platform.db.transaction(async (manager) => {
      const task = await manager.findOne(TaskRow, {
        where: { id: taskId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!task) throw new DomainError('task/not-found')
      await this.#sheets.offer(manager, taskId, offer)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'task.offer', taskId)
      await this.#tellClass(manager, task.classId)
    })
    return this.describe(viewer, taskId)
  }

  async listLying(taskId: string): Promise<LyingOnCopies> {
    return this.#sheets.listLying(this.#platform.db.manager, taskId)
  }

  /**
   * A unit again for another class or year: its tasks with their dates shifted by school weeks.
   * The same folder is taken where the class has it, else one of the same name, else the class's
   * first.
   * @throws DomainError `folder/not-found` when the class has no folder yet
   */
  async reuseUnit(
    viewer: SignedIn,
    newUnitId: string,
    unitId: string,
    classId: string,
  ): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      await holdName(manager, newUnitId)
      if (await manager.existsBy(UnitRow, { id: newUnitId })) return
      const unit = await manager.findOneByOrFail(UnitRow, { id: unitId })
      const { timeZone } = await this.#school.describe()
      const [from, to] = [
        await this.#school.yearOfClass(manager, unit.classId),
        await this.#school.yearOfClass(manager, classId),
      ]
      const now = this.#platform.clock.now()
      await manager.insert(UnitRow, { id: newUnitId, classId, title: unit.title, createdAt: now })
      const shift = (at: Date | null) =>
        at &&
        schoolMoment(
          shiftBySchoolWeeks(schoolDay(at, timeZone), from, to),
          schoolTime(at, timeZone),
          timeZone,
        )
      for (const task of await manager.find(TaskRow, {
        where: { unitId },
        order: { position: 'ASC' },
      })) {
        await this.#copy(manager, task, newId(), {
          classId,
          unitId: newUnitId,
          folderId: await this.#folderFor(manager, task.folderId, classId),
          forAll: true,
          // Without a day of its own a task is open at once; its due moment never comes before it
          // opens.
          opensAt: shift(task.opensAt),
          dueAt: shift(task.dueAt),
        })
      }
      await note(manager, now, viewer.personId, 'unit.reuse', newUnitId)
      await this.#tellClass(manager, classId)
    })
  }

  async #folderFor(manager: EntityManager, folderId: string, classId: string): Promise<string> {
    const [folder] = await manager.query<{ id: string }[]>(
      `select f.id from folder f left join folder_class h on h.folder_id = f.id and h.class_id = $2
       where f.put_away_at is null and f.owner_id is null and (f.whole_school or h.class_id is not null)
       order by f.id = $1 desc, f.name = (select name from folder where id = $1) desc, h.class_id is null, f.position limit 1`,
      [folderId, classId],
    )
    if (!folder) throw new DomainError('folder/not-found')
    return folder.id
  }

  /** What a due day means, before it is chosen. */
  async adviseDue(classId: string, day: string, time: string): Promise<DueAdvice> {
    const { timeZone } = await this.#school.describe()
    const year = await this.#school.yearOfClass(this.#platform.db.manager, classId)
    const at = schoolMoment(day, time, timeZone)
    const closed = year.closedDays.find((span) => span.startsOn <= day && day <= span.endsOn)
    const warn = (): DueAdvice['warning'] => {
      const dueTime = schoolTime(at, timeZone)
      if (dueTime !== time) return { code: 'clocks-change', about: dueTime }
      if (at < this.#platform.clock.now()) return { code: 'past', about: '' }
      if (closed) return { code: 'closed', about: closed.name }
      return isSchoolDay(day, year) ? null : { code: 'no-lessons', about: '' }
    }
    return { at: at.toISOString(), warning: warn() }
  }

  /** Who stands where, by first name. */
  async listStandings(taskId: string): Promise<Standing[]> {
    type Flat = FlatPupil & {
      standing: Standing['standing']
      pieceId: string | null
      nudgedAt: Date | null
    }
    const rows = await this.#platform.db.manager.query<Flat[]>(
      `select u.id, u.first_name as "firstName", u.last_name as "lastName", u.peg_symbol as symbol, u.peg_colour as colour, s.id as "pieceId",
         coalesce(s.state, case when k.task_id is null then 'none' else 'ticked' end) as standing, n.nudged_at as "nudgedAt"
       from task t ${ITS_PUPILS} left join task_tick k on k.task_id = t.id and k.person_id = u.id
         left join nudge n on n.task_id = t.id and n.person_id = u.id
       where t.id = $1 order by u.first_name, u.last_name, u.id`,
      [taskId],
    )
    return rows.map(({ standing, pieceId, nudgedAt, ...pupil }) => ({
      pupil: pupilOf(pupil),
      standing,
      pieceId,
      nudgedAt: nudgedAt?.toISOString() ?? null,
    }))
  }

  /** Reminds pupils on their desks. Those who have handed in are left alone. */
  async nudge(viewer: SignedIn, taskId: string, pupilIds: readonly string[]): Promise<Standing[]> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const owing = (await this.listStandings(taskId)).filter(
        ({ pupil, standing }) =>
          pupilIds.includes(pupil.id) && ['none', 'draft', 'returned'].includes(standing),
      )
      for (const { pupil } of owing)
        await manager.upsert(
          NudgeRow,
          { taskId, personId: pupil.id, nudgedBy: viewer.personId, nudgedAt: now },
          ['taskId', 'personId'],
        )
      await note(manager, now, viewer.personId, 'task.nudge', taskId, {
        pupilIds: owing.map(({ pupil }) => pupil.id),
      })
      await tell(
        manager,
        owing.map(({ pupil }) => pupil.id),
        { topic: 'tasks' },
      )
    })
    return this.listStandings(taskId)
  }

  /** Done elsewhere, as the pupil says; or not after all. @throws DomainError `task/closed` */
  async tick(viewer: SignedIn, taskId: string, options: { on: boolean }): Promise<Task> {
    await this.#platform.db.transaction(async (manager) => {
      const task = await manager.findOneByOrFail(TaskRow, { id: taskId })
      if (task.closedAt) throw new DomainError('task/closed')
      if (options.on)
        await manager.query(
          'insert into task_tick (task_id, person_id, ticked_at) values ($1, $2, $3) on conflict (task_id, person_id) do nothing',
          [taskId, viewer.personId, this.#platform.clock.now()],
        )
      else
        await manager.query('delete from task_tick where task_id = $1 and person_id = $2', [
          taskId,
          viewer.personId,
        ])
      await this.#tellClass(manager, task.classId, 'teacher')
    })
    return this.describe(viewer, taskId)
  }

  /** What hangs a file tells everyone that more can be shown of it. */
  async tellPrepared(manager: EntityManager, mediaId: string): Promise<void> {
    const tasks = await manager.query<{ classId: string }[]>(
      'select t.class_id as "classId" from task t join task_media k on k.task_id = t.id where k.media_id = $1',
      [mediaId],
    )
    for (const { classId } of tasks) await this.#tellClass(manager, classId)
  }

  async #tellClass(manager: EntityManager, classId: string, only?: 'teacher'): Promise<void> {
    const people = await manager.query<{ id: string }[]>(
      'select e.person_id as id from enrolment e join person p on p.id = e.person_id where e.class_id = $1 and ($2::text is null or p.role = $2)',
      [classId, only ?? null],
    )
    await tell(
      manager,
      people.map(({ id }) => id),
      { topic: 'tasks' },
    )
  }
}

type FlatTask = Omit<Task, 'folder' | 'dueAt' | 'opensAt' | 'nudgedAt' | 'unit' | 'sheet'> & {
  sheetId: string | null
  offered: boolean
  sorting: NonNullable<Task['sheet']>['sorting']
  dueAt: Date | null
  opensAt: Date | null
  nudgedAt: Date | null
  unitId: string | null
  unitTitle: string
  folderId: string
  folderName: string
  symbol: Task['folder']['symbol']
  colour: Task['folder']['colour']
}

const forPupil = (
  pupilId: string,
): Sql => sql`null as counts, null as "pupilIds", exists (select 1 from task_tick k where k.task_id = t.id and k.person_id = ${pupilId}) as ticked,
  (select n.nudged_at from nudge n where n.task_id = t.id and n.person_id = ${pupilId}) as "nudgedAt",
  coalesce((select json_agg(json_build_object('id', p.id, 'state', p.state) order by p.created_at desc)
  from piece p join piece_maker m on m.piece_id = p.id where p.task_id = t.id and m.person_id = ${pupilId} and p.binned_at is null), '[]') as "myPieces"`

/** Each pupil counts once, by their newest piece for the task. */
const FOR_TEACHER = `'[]'::json as "myPieces", false as ticked, null::timestamptz as "nudgedAt",
  case when t.for_all then null else coalesce((select json_agg(o.person_id) from task_pupil o where o.task_id = t.id), '[]') end as "pupilIds",
  (select json_build_object('pupils', count(*), 'ticked', count(*) filter (where s.state is null and k.task_id is not null),
    'draft', count(*) filter (where s.state = 'draft'), 'submitted', count(*) filter (where s.state = 'submitted'),
    'returned', count(*) filter (where s.state = 'returned'), 'approved', count(*) filter (where s.state = 'approved'))
  from (select t.id, t.class_id, t.for_all) t ${ITS_PUPILS} left join task_tick k on k.task_id = t.id and k.person_id = u.id) as counts`
