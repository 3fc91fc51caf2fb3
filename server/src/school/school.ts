import { namesNotCovered } from '../print/fonts.ts'
import { isYoungYearGroup } from '@nibquill/core/school/youngYears'
import type {
  ChangeClass,
  ChangePupil,
  ChangeSchool,
  SchoolFacts,
  ClassDetail,
  MakeClass,
  PupilDetail,
  PupilLine,
  PutPeg,
  PutYear,
  SchoolClass,
  SchoolYear,
  SchoolYears,
  Term,
} from '@nibquill/contract'
import { DomainError, givePegs, type PegLook, type YearDates } from '@nibquill/core'
import { schoolDay, termOn, weekOfTerm } from '@nibquill/core/school/calendar'
import { In, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { shownTo } from '../access/facts.ts'
import { PersonRow } from './rows.ts'
import { classOfPerson } from './classOfPerson.ts'
import { note } from '../platform/audit.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ClassRow, ClosedDayRow, EnrolmentRow, SchoolRow, SchoolYearRow, TermRow } from './rows.ts'
import { schoolDayOf } from './schoolDayOf.ts'

const FIRST_IDLE_MINUTES = 10

/** The school's calendar, classes and pupils. */
export class School {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  async describe(): Promise<SchoolFacts> {
    const { name, timeZone, filmOriginals } = await this.#platform.db.manager.findOneOrFail(
      SchoolRow,
      {
        where: {},
      },
    )
    return { name, timeZone, filmOriginals }
  }

  async change(viewer: SignedIn, change: ChangeSchool): Promise<SchoolFacts> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(SchoolRow, viewer.schoolId, change)
      await note(
        manager,
        this.#platform.clock.now(),
        viewer.personId,
        'school.change',
        viewer.schoolId,
      )
    })
    return change
  }

  /** The term that runs now, and its week. Null before any term was set up. */
  async runningTerm(manager: EntityManager): Promise<{ term: Term; week: number } | null> {
    const school = await manager.findOne(SchoolRow, { where: {} })
    if (!school) return null
    const today = schoolDay(this.#platform.clock.now(), school.timeZone)
    const term = termOn(today, await listTerms(manager))
    return term ? { term, week: weekOfTerm(today, term) } : null
  }

  async listYears(): Promise<SchoolYears> {
    const manager = this.#platform.db.manager
    const years = await manager.query<Omit<SchoolYear, 'terms' | 'closedDays'>[]>(
      `select id, name, starts_on::text as "startsOn", ends_on::text as "endsOn",
         (select count(*)::int from class c where c.school_year_id = y.id) as "classCount"
       from school_year y order by starts_on desc`,
    )
    const terms = await listTerms(manager)
    const closed = await listClosedDays(manager)
    const running = await this.runningTerm(manager)
    const of = <T extends { yearId: string }>(spans: T[], id: string) =>
      spans.filter(({ yearId }) => yearId === id).map(({ yearId: _yearId, ...span }) => span)
    return {
      runningTermId: running?.term.id ?? null,
      years: years.map((year) => ({
        ...year,
        terms: of(terms, year.id),
        closedDays: of(closed, year.id),
      })),
    }
  }

  /**
   * Makes a year or replaces its dates.
   * @throws DomainError `school/years-overlap`, `school/year-in-use` when a term with work in it
   *   would go
   */
  async putYear(viewer: SignedIn, yearId: string, year: PutYear): Promise<SchoolYears> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('lock table school_year in exclusive mode')
      const { name, startsOn, endsOn } = year
      const others = await manager.query<unknown[]>(
        'select 1 from school_year where id <> $1 and starts_on <= $3 and ends_on >= $2',
        [yearId, startsOn, endsOn],
      )
      if (others.length > 0) throw new DomainError('school/years-overlap')
      await manager.save(SchoolYearRow, {
        id: yearId,
        schoolId: viewer.schoolId,
        name,
        startsOn,
        endsOn,
      })
      const known = await manager.findBy(TermRow, { schoolYearId: yearId })
      const gone = known.filter(({ id }) => !year.terms.some((term) => term.id === id))
      for (const { id } of gone) await this.#refuseTermInUse(manager, id)
      await manager.remove(TermRow, gone)
      for (const term of year.terms) await this.#saveSpan(manager, TermRow, yearId, term)
      const closed = await manager.findBy(ClosedDayRow, { schoolYearId: yearId })
      await manager.remove(
        ClosedDayRow,
        closed.filter(({ id }) => !year.closedDays.some((span) => span.id === id)),
      )
      for (const span of year.closedDays) await this.#saveSpan(manager, ClosedDayRow, yearId, span)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'school.year', yearId)
    })
    return this.listYears()
  }

  /** A span's id may come from another year by mistake; then nothing happens to that year. */
  async #saveSpan(
    manager: EntityManager,
    row: typeof TermRow | typeof ClosedDayRow,
    schoolYearId: string,
    span: { id: string; name: string; startsOn: string; endsOn: string },
  ): Promise<void> {
    const there = await manager.findOneBy(row, { id: span.id })
    if (there && there.schoolYearId !== schoolYearId) throw new DomainError('request/not-found')
    await manager.save(row, { ...span, schoolYearId })
  }

  async #refuseTermInUse(manager: EntityManager, termId: string): Promise<void> {
    const [used] = await manager.query<{ used: boolean }[]>(
      `select exists (select 1 from piece where term_id = $1) or exists (select 1 from chapter where term_id = $1)
         or exists (select 1 from book where term_id = $1) as used`,
      [termId],
    )
    if (used?.used) throw new DomainError('school/year-in-use')
  }

  /** The dates of the year a class belongs to. */
  async yearOfClass(manager: EntityManager, classId: string): Promise<YearDates & { id: string }> {
    const { schoolYearId } = await manager.findOneByOrFail(ClassRow, { id: classId })
    const year = await manager.findOneByOrFail(SchoolYearRow, { id: schoolYearId })
    const only = <T extends { yearId: string }>(spans: T[]) =>
      spans.filter(({ yearId }) => yearId === schoolYearId)
    return {
      id: schoolYearId,
      startsOn: year.startsOn,
      endsOn: year.endsOn,
      terms: only(await listTerms(manager)),
      closedDays: only(await listClosedDays(manager)),
    }
  }

  /**
   * A teacher's classes of years that have not ended; all of them for whoever leads the school, the
   * own ones first.
   */
  async listClasses(viewer: SignedIn): Promise<SchoolClass[]> {
    const now = this.#platform.clock.now()
    return ask(
      this.#platform.db.manager,
      sql`${selectClasses(viewer.personId, now)} where y.school_id = ${viewer.schoolId} and y.ends_on >= ${schoolDayOf(now)} and (${viewer.leads} or ${teaches(viewer.personId)}) order by running desc, mine desc, c.name`,
    )
  }

  /** Again with the same id it answers with the class that is there. */
  async makeClass(viewer: SignedIn, classId: string, input: MakeClass): Promise<ClassDetail> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, ClassRow, classId, {
        found: () => undefined,
        make: () => this.#insertClass(manager, viewer, classId, input),
      })
    })
    return this.describeClass(viewer, classId)
  }

  async #insertClass(
    manager: EntityManager,
    viewer: SignedIn,
    classId: string,
    { mine, ...input }: MakeClass,
  ): Promise<void> {
    if (
      !(await manager.existsBy(SchoolYearRow, {
        id: input.schoolYearId,
        schoolId: viewer.schoolId,
      }))
    )
      throw new DomainError('request/not-found')
    await manager.insert(ClassRow, {
      id: classId,
      ...input,
      idleMinutes: FIRST_IDLE_MINUTES,
      pupilsPropose: false,
      young: isYoungYearGroup(input.yearGroup),
      sounds: false,
      externalId: null,
      version: 1,
    })
    if (viewer.role === 'teacher' && mine)
      await manager.insert(EnrolmentRow, { classId, personId: viewer.personId })
    await note(manager, this.#platform.clock.now(), viewer.personId, 'class.make', classId)
  }

  async describeClass(viewer: SignedIn, classId: string): Promise<ClassDetail> {
    const now = this.#platform.clock.now()
    const [found] = await ask<SchoolClass>(
      this.#platform.db.manager,
      sql`${selectClasses(viewer.personId, now)} where c.id = ${classId}`,
    )
    if (!found) throw new DomainError('request/not-found')
    const pupils = await ask<FlatPupil>(
      this.#platform.db.manager,
      sql`select ${pupilColumns(now)} from person p join enrolment e on e.person_id = p.id where e.class_id = ${classId} and p.role = 'pupil' and p.left_at is null
       order by p.first_name, p.last_name, p.id`,
    )
    const left = await ask<{ id: string; name: string; leftAt: Date }>(
      this.#platform.db.manager,
      sql`select p.id, trim(p.first_name || ' ' || p.last_name) as name, p.left_at as "leftAt"
       from person p join enrolment e on e.person_id = p.id where e.class_id = ${classId} and p.role = 'pupil' and p.left_at is not null
       order by p.left_at desc, p.id`,
    )
    return {
      ...found,
      pupils: pupils.map(pupilLine),
      notPrintable: namesNotCovered(
        pupils.map(({ firstName, lastName }) => `${firstName} ${lastName}`.trim()),
      ),
      left: left.map(({ leftAt, ...pupil }) => ({ ...pupil, leftAt: leftAt.toISOString() })),
    }
  }

  /** @throws DomainError `school/stale` when a second teacher changed it first */
  async changeClass(
    viewer: SignedIn,
    classId: string,
    { seenVersion, ...change }: ChangeClass,
  ): Promise<ClassDetail> {
    const { affected } = await this.#platform.db.manager.update(
      ClassRow,
      { id: classId, version: seenVersion },
      { ...change, version: seenVersion + 1 },
    )
    if (!affected) throw new DomainError('school/stale')
    return this.describeClass(viewer, classId)
  }

  async describePupil(pupilId: string): Promise<PupilDetail> {
    const now = this.#platform.clock.now()
    const [row] = await ask<
      FlatPupil & { classId: string; className: string; leftAt: Date | null }
    >(
      this.#platform.db.manager,
      sql`select ${pupilColumns(now)}, p.left_at as "leftAt", k.id as "classId", k.name as "className"
       from person p join lateral (select c.id, c.name ${classOfPerson(raw('p.id'), now)}) k on true where p.id = ${pupilId}`,
    )
    if (!row) throw new DomainError('request/not-found')
    return {
      ...pupilLine(row),
      classId: row.classId,
      className: row.className,
      leftAt: row.leftAt?.toISOString() ?? null,
    }
  }

  /** Names, class, leaving and coming back. Who left signs in no more; what they made stays. */
  async changePupil(viewer: SignedIn, pupilId: string, change: ChangePupil): Promise<PupilDetail> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const { classId, left, ...names } = change
      if (Object.keys(names).length > 0) await manager.update(PersonRow, pupilId, names)
      if (left !== undefined)
        await manager.update(PersonRow, pupilId, { leftAt: left ? now : null })
      if (classId) await this.movePupil(manager, pupilId, classId)
      await note(manager, now, viewer.personId, left ? 'pupil.left' : 'pupil.change', pupilId)
    })
    return this.describePupil(pupilId)
  }

  /**
   * Into another class of the same school year; the peg changes only when somebody there has the
   * same.
   */
  async movePupil(manager: EntityManager, pupilId: string, classId: string): Promise<void> {
    const { schoolYearId } = await manager.findOneByOrFail(ClassRow, { id: classId })
    await manager.query(
      `delete from enrolment e using class c where c.id = e.class_id and c.school_year_id = $2 and e.person_id = $1 and e.class_id <> $3`,
      [pupilId, schoolYearId, classId],
    )
    await manager.query(
      'insert into enrolment (class_id, person_id) values ($1, $2) on conflict do nothing',
      [classId, pupilId],
    )
    await this.hangPegs(manager, classId, [pupilId])
  }

  /**
   * Gives a peg to each of these pupils who has none, or one that hangs in the class already.
   * @throws DomainError `school/pegs-full`
   */
  async hangPegs(
    manager: EntityManager,
    classId: string,
    pupilIds: readonly string[],
  ): Promise<void> {
    // Two lists at once for one class: the second waits, and sees what the first hung.
    await manager.query('select 1 from class where id = $1 for update', [classId])
    const pupils = await manager.query<
      { id: string; symbol: PegLook['symbol'] | null; colour: PegLook['colour'] }[]
    >(
      `select p.id, p.peg_symbol as symbol, p.peg_colour as colour from enrolment e join person p on p.id = e.person_id
       where e.class_id = $1 and p.role = 'pupil' and p.left_at is null order by p.created_at, p.id`,
      [classId],
    )
    const key = ({ symbol, colour }: { symbol: string | null; colour: string }) =>
      `${symbol}/${colour}`
    const fixed = pupils.filter(({ id }) => !pupilIds.includes(id))
    const hanging = new Set(fixed.map(key))
    const taken: PegLook[] = fixed.flatMap(({ symbol, colour }) =>
      symbol ? [{ symbol, colour }] : [],
    )
    const bare: string[] = []
    for (const { id, symbol, colour } of pupils.filter((pupil) => pupilIds.includes(pupil.id))) {
      if (!symbol || hanging.has(key({ symbol, colour }))) bare.push(id)
      else {
        hanging.add(key({ symbol, colour }))
        taken.push({ symbol, colour })
      }
    }
    const given = giveOrRefuse(taken, bare.length)
    if (bare.length > 0)
      await manager.query(
        `update person p set peg_symbol = n.symbol, peg_colour = n.colour
         from unnest($1::uuid[], $2::text[], $3::text[]) as n(id, symbol, colour) where p.id = n.id`,
        [bare, given.map(({ symbol }) => symbol), given.map(({ colour }) => colour)],
      )
  }

  /** Hangs a peg; who had the same one in the class gets the mover's old peg. */
  async putPeg(viewer: SignedIn, classId: string, { pupilId, peg }: PutPeg): Promise<ClassDetail> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('select 1 from class where id = $1 for update', [classId])
      const ids = (await manager.findBy(EnrolmentRow, { classId })).map(({ personId }) => personId)
      const pupils = await manager.findBy(PersonRow, { id: In(ids), role: 'pupil' })
      const mover = pupils.find(({ id }) => id === pupilId)
      if (!mover) throw new DomainError('request/not-found')
      const other = pupils.find(
        ({ id, pegSymbol, pegColour }) =>
          id !== pupilId && pegSymbol === peg.symbol && pegColour === peg.colour,
      )
      await manager.update(PersonRow, pupilId, { pegSymbol: peg.symbol, pegColour: peg.colour })
      if (other)
        await manager.update(PersonRow, other.id, {
          pegSymbol: mover.pegSymbol,
          pegColour: mover.pegColour,
        })
    })
    return this.describeClass(viewer, classId)
  }

  /** One more pupil, with a peg. */
  async addPupils(
    manager: EntityManager,
    schoolId: string,
    classId: string,
    pupils: readonly NewPupil[],
  ): Promise<void> {
    const now = this.#platform.clock.now()
    const ids = pupils.map(({ id }) => id ?? newId())
    // One statement for all, so that a long list takes one round trip.
    await manager.query(
      `insert into person (id, school_id, role, first_name, last_name, external_id, leads, created_at)
       select n.id, $1, 'pupil', n.first, n.last, n.number, false, $2 from unnest($3::uuid[], $4::text[], $5::text[], $6::text[]) as n(id, first, last, number)`,
      [
        schoolId,
        now,
        ids,
        pupils.map(({ firstName }) => firstName),
        pupils.map(({ lastName }) => lastName),
        pupils.map(({ externalId }) => externalId),
      ],
    )
    await manager.query(
      'insert into enrolment (class_id, person_id) select $1, unnest($2::uuid[])',
      [classId, ids],
    )
    await this.hangPegs(manager, classId, ids)
  }
}

export type NewPupil = {
  id?: string
  firstName: string
  lastName: string
  externalId: string | null
}

function giveOrRefuse(taken: readonly PegLook[], count: number): PegLook[] {
  try {
    return givePegs(taken, count)
  } catch {
    throw new DomainError('school/pegs-full')
  }
}

type Dated = { id: string; name: string; startsOn: string; endsOn: string; yearId: string }
export const listTerms = (manager: EntityManager): Promise<Dated[]> => listSpans(manager, 'term')
export const listClosedDays = (manager: EntityManager): Promise<Dated[]> =>
  listSpans(manager, 'closed_day')
const listSpans = (manager: EntityManager, table: 'term' | 'closed_day'): Promise<Dated[]> =>
  manager.query(
    `select id, name, starts_on::text as "startsOn", ends_on::text as "endsOn", school_year_id as "yearId" from ${table} order by starts_on, name`,
  )

/** SQL: whether somebody is of a class `c`. */
const teaches = (personId: string): Sql =>
  sql`exists (select 1 from enrolment e where e.class_id = c.id and e.person_id = ${personId})`
/** SQL: classes `c` of years `y`. @param personId - Whose own ones are told apart. */
const selectClasses = (
  personId: string,
  now: Date,
): Sql => sql`select c.id, c.name, c.year_group as "yearGroup", c.idle_minutes as "idleMinutes", c.version, c.pupils_propose as "pupilsPropose", c.young, c.sounds,
    (select count(*) from enrolment e join lateral (select 1 from name_card k where k.pupil_id = e.person_id and k.revoked_at is null limit 1) k on true
      where e.class_id = c.id) > 0 as "hasCards",
    (select count(*) from enrolment e join lateral (select 1 from guardian g where g.pupil_id = e.person_id limit 1) g on true
      where e.class_id = c.id) > 0 as "hasFamilies",
    y.id as "schoolYearId", y.name as "yearName", ${schoolDayOf(now)} between y.starts_on and y.ends_on as running, ${teaches(personId)} as mine,
    (select count(*)::int from enrolment e join person p on p.id = e.person_id where e.class_id = c.id and p.role = 'pupil' and p.left_at is null) as "pupilCount",
    coalesce((select json_agg(json_build_object('id', p.id, 'name', trim(p.first_name || ' ' || p.last_name)) order by p.first_name)
      from enrolment e join person p on p.id = e.person_id where e.class_id = c.id and p.role = 'teacher' and p.left_at is null), '[]') as teachers
  from class c join school_year y on y.id = c.school_year_id`

const COUNT = (state: string) =>
  `(select count(*)::int from piece_maker m join piece x on x.id = m.piece_id where m.person_id = p.id and x.binned_at is null and x.state = '${state}') as ${state}`
const toDo = (
  now: Date,
): Sql => sql`(select count(*)::int from task t join enrolment h on h.class_id = t.class_id and h.person_id = p.id
    join class hc on hc.id = t.class_id join school_year hy on hy.id = hc.school_year_id
    where t.closed_at is null and hy.ends_on >= ${schoolDayOf(now)} and ${shownTo(raw('p.id'), now)}
      and not exists (select 1 from task_tick k where k.task_id = t.id and k.person_id = p.id)
      and not exists (select 1 from piece x join piece_maker m on m.piece_id = x.id and m.person_id = p.id where x.task_id = t.id and x.binned_at is null)) as "toDo"`
/** SQL: pupils `p` as a class page shows them. */
const pupilColumns = (
  now: Date,
): Sql => sql`p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as "symbol", p.peg_colour as "colour",
    p.last_seen_at as "lastSeenAt", ${raw(['draft', 'submitted', 'returned', 'approved'].map(COUNT).join(', '))}, ${toDo(now)}`

type FlatPupil = {
  id: string
  firstName: string
  lastName: string
  symbol: PupilLine['peg']['symbol']
  colour: PupilLine['peg']['colour']
  lastSeenAt: Date | null
  draft: number
  submitted: number
  returned: number
  approved: number
  toDo: number
}
const pupilLine = (row: FlatPupil): PupilLine => ({
  id: row.id,
  firstName: row.firstName,
  lastName: row.lastName,
  peg: { symbol: row.symbol, colour: row.colour },
  counts: {
    draft: row.draft,
    submitted: row.submitted,
    returned: row.returned,
    approved: row.approved,
  },
  toDo: row.toDo,
  lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
})
