import { isYoungYearGroup } from '@nibquill/core/school/youngYears'
import type { ClassList, ConfirmClassList } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { schoolDay } from '@nibquill/core/school/calendar'
import {
  overfull,
  planClassList,
  type KnownClass,
  type KnownPupil,
  type ListPlan,
  type ReadList,
} from '@nibquill/core/school/classList'
import { writeCsv } from '@nibquill/core/school/csv'
import { writeOneRoster, type OneRosterVersion, type Roster } from '@nibquill/core/school/oneRoster'
import { MOST_PEGS } from '@nibquill/core/school/pegs'
import { strToU8, zipSync } from 'fflate'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import { addJob } from '../platform/queue.ts'
import { tell } from '../platform/live.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ClassListRow, ClassRow, SchoolRow, type ListChanges } from './rows.ts'
import { readList, type Named } from './readList.ts'
import { listTerms, type School } from './school.ts'
import { schoolDayOf } from './schoolDayOf.ts'

const SHOWN = 500
/** Rows taken over in one transaction: a stop in between loses none and doubles none. */
const BATCH = 250

/** Class lists coming in and going out. */
export class ClassLists {
  readonly #platform: Platform
  readonly #school: School
  constructor(platform: Platform, school: School) {
    this.#platform = platform
    this.#school = school
  }

  /**
   * Reads a list and says what it would do; nothing happens yet.
   * @param classId - Where rows go that name no class; pupils are then looked for in this class and
   *   nowhere else.
   * @param kind - Which kind of class of a register is a class here, where that was asked.
   * @throws DomainError `school/list-unreadable`
   */
  async show(
    viewer: SignedIn,
    bytes: Uint8Array,
    classId: string | null,
    kind: string | null,
  ): Promise<ClassList> {
    const manager = this.#platform.db.manager
    const { list, named, encoding, kinds } = readList(bytes, kind)
    const read = await this.#withoutStrangers(list, classId)
    if (read.pupils.length + read.faults.length + kinds.length === 0)
      throw new DomainError('school/list-unreadable')
    const { classes, newClasses } = await this.#classesFor(manager, named, classId)
    const pupils = await manager.query<KnownPupil[]>(
      `select p.id, p.external_id as "externalId", p.first_name as "firstName", p.last_name as "lastName", e.class_id as "classId"
       from person p left join lateral (select e.class_id from enrolment e where e.person_id = p.id and e.class_id = any($2) limit 1) e on true
       where p.school_id = $1 and p.role = 'pupil' and p.left_at is null and ($3::uuid is null or e.class_id = $3) order by p.created_at, p.id`,
      [viewer.schoolId, classes.map(({ id }) => id), classId],
    )
    const plan = planClassList(read, {
      pupils,
      classes: [...classes, ...newClasses],
      defaultClassId: classId,
    })
    const names = new Map([...classes, ...newClasses].map((one) => [one.id, one.name]))
    const full = overfull(plan.steps, await this.#sizesOf(manager, [...names.keys()])).map(
      (one) => ({ name: names.get(one.classId) ?? '', count: one.count }),
    )
    const id = newId()
    await manager.insert(ClassListRow, {
      id,
      schoolId: viewer.schoolId,
      askedBy: viewer.personId,
      plan: { ...plan, newClasses, encoding, kinds, kind, overfull: full },
      state: 'shown',
      changes: { added: [], changed: [] },
      rowsDone: 0,
      createdAt: this.#platform.clock.now(),
      finishedAt: null,
    })
    return this.describe(viewer, id)
  }

  async #sizesOf(manager: EntityManager, classIds: string[]): Promise<Map<string, number>> {
    const rows = await ask<{ id: string; count: number }>(
      manager,
      sql`select e.class_id as id, count(*)::int as count from enrolment e join person p on p.id = e.person_id
        where e.class_id = any(${classIds}) and p.role = 'pupil' and p.left_at is null group by e.class_id`,
    )
    return new Map(rows.map(({ id, count }) => [id, count]))
  }

  /** A list for one class takes no pupil out of another: a number that belongs there is a fault. */
  async #withoutStrangers(read: ReadList, classId: string | null): Promise<ReadList> {
    if (!classId) return read
    const rows = await this.#platform.db.manager.query<{ number: string }[]>(
      `select p.external_id as number from person p where p.external_id = any($1) and p.left_at is null
         and not exists (select 1 from enrolment e where e.person_id = p.id and e.class_id = $2)`,
      [read.pupils.map(({ externalId }) => externalId).filter(Boolean), classId],
    )
    const elsewhere = new Set(rows.map(({ number }) => number))
    return {
      pupils: read.pupils.filter(({ externalId }) => !elsewhere.has(externalId)),
      faults: [
        ...read.faults,
        ...read.pupils
          .filter(({ externalId }) => elsewhere.has(externalId))
          .map(({ line, externalId, firstName, lastName }) => ({
            line,
            cells: [externalId, firstName, lastName],
            reason: 'number-elsewhere' as const,
            about: externalId,
          })),
      ],
    }
  }

  /** The classes a shown list would put pupils into. */
  async classesOf(
    viewer: SignedIn,
    id: string,
  ): Promise<{ classIds: string[]; newClasses: boolean }> {
    const row = await this.#platform.db.manager.findOneBy(ClassListRow, {
      id,
      askedBy: viewer.personId,
    })
    if (!row) throw new DomainError('request/not-found')
    const { steps, newClasses } = row.plan
    const fresh = new Set(newClasses.map((one) => one.id))
    return {
      classIds: [...new Set(steps.map(({ classId }) => classId))].filter(
        (classId) => !fresh.has(classId),
      ),
      newClasses: fresh.size > 0,
    }
  }

  /**
   * The classes of the running year (or the one to come), and those a register names that are not
   * there yet.
   */
  async #classesFor(
    manager: EntityManager,
    named: readonly Named[],
    classId: string | null,
  ): Promise<{ classes: KnownClass[]; newClasses: ClassListRow['plan']['newClasses'] }> {
    const year = await this.#currentYear(manager)
    const rows = await manager.query<KnownClass[]>(
      `select c.id, coalesce(c.external_id, c.id::text) as "externalId", c.name from class c
       where ($1::uuid is null and c.school_year_id = $2) or c.id = $1`,
      [classId, year?.id ?? null],
    )
    if (classId) return { classes: rows, newClasses: [] }
    const missing = named.filter(
      ({ externalId, name }) =>
        !rows.some(
          (row) =>
            (externalId !== null && row.externalId === externalId) ||
            row.name.toLowerCase() === name.toLowerCase(),
        ),
    )
    if (!year && missing.length > 0) throw new DomainError('portfolio/no-term')
    // A register's class that is here under its name is the same class.
    const byName = rows.map((row) => ({
      ...row,
      externalId:
        named.find(({ name }) => name.toLowerCase() === row.name.toLowerCase())?.externalId ??
        row.externalId,
    }))
    return {
      classes: byName,
      newClasses: missing.map((one) => ({
        id: newId(),
        schoolYearId: year!.id,
        ...one,
        name: one.name || (one.externalId ?? ''),
      })),
    }
  }

  async #currentYear(
    manager: EntityManager,
  ): Promise<{ id: string; name: string; startsOn: string; endsOn: string } | undefined> {
    const [year] = await ask<{ id: string; name: string; startsOn: string; endsOn: string }>(
      manager,
      sql`select id, name, starts_on::text as "startsOn", ends_on::text as "endsOn" from school_year where ends_on >= ${schoolDayOf(this.#platform.clock.now())}
       order by starts_on limit 1`,
    )
    return year
  }

  async describe(viewer: SignedIn, id: string): Promise<ClassList> {
    const manager = this.#platform.db.manager
    const row = await manager.findOneBy(ClassListRow, { id, askedBy: viewer.personId })
    if (!row) throw new DomainError('request/not-found')
    const { steps, faults, newClasses } = row.plan
    const names = new Map((await manager.find(ClassRow)).map((one) => [one.id, one.name]))
    for (const one of newClasses) names.set(one.id, one.name)
    const count = (does: string) => steps.filter((step) => step.does === does).length
    return {
      id,
      state: row.state,
      rowsDone: row.rowsDone,
      counts: {
        add: count('add'),
        change: count('change'),
        nothing: count('nothing'),
        faults: faults.length,
        newClasses: newClasses.length,
      },
      newClasses: newClasses.map(({ name }) => name),
      encoding: row.plan.encoding ?? 'utf-8',
      kinds: row.plan.kinds ?? [],
      kind: row.plan.kind ?? null,
      overfull: row.plan.overfull ?? [],
      mostInClass: MOST_PEGS,
      // What needs a look comes first.
      steps: [
        ...steps.filter(({ twin }) => twin),
        ...steps.filter(({ does, twin }) => does !== 'nothing' && !twin),
        ...steps.filter(({ does }) => does === 'nothing'),
      ]
        .slice(0, SHOWN)
        .map(({ line, does, firstName, lastName, classId, changes, twin }) => ({
          line,
          does,
          firstName,
          lastName,
          className: names.get(classId) ?? '',
          changes,
          twin,
        })),
      faults: faults.slice(0, SHOWN).map((fault) => ({
        ...fault,
        cells: fault.cells.map((cell) => cell.slice(0, 80)).slice(0, 8),
      })),
    }
  }

  /**
   * Takes a shown list over, as a job.
   * @param leaveOut - Lines that name a pupil once more and are not another one.
   * @throws DomainError `school/list-used`; `school/class-overfull`
   */
  async confirm(viewer: SignedIn, id: string, { leaveOut }: ConfirmClassList): Promise<ClassList> {
    await this.#platform.db.transaction(async (manager) => {
      const row = await manager.findOne(ClassListRow, {
        where: { id, askedBy: viewer.personId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!row) throw new DomainError('request/not-found')
      if (row.state !== 'shown') throw new DomainError('school/list-used')
      if (row.plan.overfull?.length) throw new DomainError('school/class-overfull')
      const twice = new Set(leaveOut)
      const steps = row.plan.steps.filter(({ line, twin }) => !(twin && twice.has(line)))
      await manager.update(ClassListRow, id, { state: 'running', plan: { ...row.plan, steps } })
      await addJob(manager, 'school.take-list', { classListId: id }, id)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'class.enrol', id)
    })
    return this.describe(viewer, id)
  }

  /** The job `school.take-list`: goes on where it was stopped. */
  async take(id: string): Promise<void> {
    try {
      await this.#takeAll(id)
    } catch (error) {
      // What the school refuses it refuses again: it is said, with how far it came.
      if (!(error instanceof DomainError)) throw error
      const manager = this.#platform.db.manager
      const row = await manager.findOneByOrFail(ClassListRow, { id })
      const finishedAt = this.#platform.clock.now()
      await manager.update(ClassListRow, id, { state: 'failed', finishedAt })
      await tell(manager, [row.askedBy], { topic: 'school' })
    }
  }

  async #takeAll(id: string): Promise<void> {
    for (;;) {
      const left = await this.#platform.db.transaction(async (manager) => {
        const row = await manager.findOne(ClassListRow, {
          where: { id },
          lock: { mode: 'pessimistic_write' },
        })
        if (!row || row.state !== 'running') return 0
        const { steps } = row.plan
        // Class by class, so that each class's pegs are looked at once or twice and not in every
        // batch.
        const doing = steps
          .filter(({ does }) => does !== 'nothing')
          .sort((a, b) => a.classId.localeCompare(b.classId) || a.line - b.line)
        if (row.rowsDone === 0)
          for (const one of row.plan.newClasses) await this.#makeClass(manager, one)
        const batch = doing.slice(row.rowsDone, row.rowsDone + BATCH)
        const did = await this.#takeBatch(manager, row.schoolId, batch)
        const changes = {
          added: [...(row.changes?.added ?? []), ...did.added],
          changed: [...(row.changes?.changed ?? []), ...did.changed],
        }
        const rowsDone = row.rowsDone + batch.length
        const over = rowsDone >= doing.length
        const end = over ? { state: 'done' as const, finishedAt: this.#platform.clock.now() } : {}
        await manager.update(ClassListRow, id, { rowsDone, changes, ...end })
        await tell(manager, [row.askedBy], { topic: 'school' })
        return doing.length - rowsDone
      })
      if (left <= 0) return
    }
  }

  async #makeClass(
    manager: EntityManager,
    one: ClassListRow['plan']['newClasses'][number],
  ): Promise<void> {
    await manager
      .createQueryBuilder()
      .insert()
      .into(ClassRow)
      .values({
        ...one,
        idleMinutes: 10,
        pupilsPropose: false,
        young: isYoungYearGroup(one.yearGroup),
        sounds: false,
        version: 1,
      })
      .orIgnore()
      .execute()
  }

  async #takeBatch(
    manager: EntityManager,
    schoolId: string,
    batch: ListPlan['steps'],
  ): Promise<ListChanges> {
    const added = new Map<string, (ListPlan['steps'][number] & { id: string })[]>()
    for (const step of batch) {
      if (step.does === 'add') {
        const group = added.get(step.classId) ?? []
        group.push({ ...step, id: newId() })
        added.set(step.classId, group)
      }
    }
    for (const [classId, steps] of added)
      await this.#school.addPupils(manager, schoolId, classId, steps)
    const toChange = batch.filter(({ does }) => does === 'change')
    const before = await this.#asTheyAre(manager, toChange)
    for (const step of toChange) {
      await manager.query(
        'update person set first_name = $2, last_name = $3, external_id = coalesce($4, external_id) where id = $1',
        [step.pupilId, step.firstName, step.lastName, step.externalId],
      )
      if (step.changes.includes('class'))
        await this.#school.movePupil(manager, step.pupilId!, step.classId)
    }
    const after = await this.#asTheyAre(manager, toChange)
    return {
      added: [...added.values()].flat().map(({ id }) => id),
      changed: [...before].map(([id, was]) => ({ id, before: was, after: after.get(id)! })),
    }
  }

  /** Pupils as they stand, each with their class of the year the list is for. */
  async #asTheyAre(
    manager: EntityManager,
    steps: ListPlan['steps'],
  ): Promise<Map<string, ListChanges['changed'][number]['before']>> {
    type Flat = ListChanges['changed'][number]['before'] & { id: string }
    const rows = await manager.query<Flat[]>(
      `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.external_id as "externalId",
         (select e.class_id from enrolment e join class c on c.id = e.class_id
            where e.person_id = p.id and c.school_year_id = (select school_year_id from class where id = n.class_id) limit 1) as "classId"
       from unnest($1::uuid[], $2::uuid[]) as n(id, class_id) join person p on p.id = n.id`,
      [steps.map(({ pupilId }) => pupilId), steps.map(({ classId }) => classId)],
    )
    return new Map(rows.map(({ id, ...pupil }) => [id, pupil]))
  }

  async noteDownload(viewer: SignedIn, format: string, classId: string | null): Promise<void> {
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      viewer.personId,
      'list.download',
      classId,
      { format },
    )
  }

  /** One class or all of the year as CSV that can be taken in again. */
  async writeCsv(classId: string | null): Promise<string> {
    const roster = await this.#roster(classId)
    const classes = new Map(roster.classes.map((one) => [one.id, one]))
    const rows = roster.people
      .filter(({ role }) => role === 'pupil')
      .map((person) => {
        const home = classes.get(person.classIds[0] ?? '')
        return [
          person.externalId ?? person.id,
          person.firstName,
          person.lastName,
          home?.name ?? '',
          home?.yearGroup ?? '',
        ]
      })
    // A byte-order mark, since spreadsheets take UTF-8 for another encoding without one.
    return `\uFEFF${writeCsv(['Number', 'First name', 'Last name', 'Class', 'Year group'], rows)}`
  }

  /** The whole school's year as a OneRoster zip. */
  async writeOneRoster(version: OneRosterVersion): Promise<Uint8Array> {
    const files = writeOneRoster(await this.#roster(null), version)
    return zipSync(
      Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])),
    )
  }

  async #roster(classId: string | null): Promise<Roster> {
    const manager = this.#platform.db.manager
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    const now = this.#platform.clock.now()
    const year = await this.#currentYear(manager)
    const today = schoolDay(now, school.timeZone)
    const terms = (await listTerms(manager)).filter(({ yearId }) => yearId === year?.id)
    const classes = await manager.query<Roster['classes']>(
      `select id, external_id as "externalId", name, year_group as "yearGroup" from class where school_year_id = $1 and ($2::uuid is null or id = $2) order by name`,
      [year?.id ?? null, classId],
    )
    const people = await manager.query<Roster['people']>(
      `select p.id, p.external_id as "externalId", p.role, p.first_name as "firstName", p.last_name as "lastName", coalesce(p.email, '') as email,
         json_agg(e.class_id) as "classIds"
       from enrolment e join person p on p.id = e.person_id where e.class_id = any($1) and p.left_at is null group by p.id
       order by p.role, p.first_name, p.last_name, p.id`,
      [classes.map(({ id }) => id)],
    )
    return {
      school: { id: school.id, name: school.name },
      year: { ...(year ?? { id: school.id, name: '', startsOn: today, endsOn: today }), terms },
      classes,
      people,
      at: now.toISOString(),
    }
  }
}
