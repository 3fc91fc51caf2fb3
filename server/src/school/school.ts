import type { ChangeClass, ClassDetail, PupilDetail, PupilLine, SchoolClass, SchoolYears, Term } from '@nibquill/contract'
import { DomainError, schoolDay, termOn, weekOfTerm } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SchoolRow } from './rows.ts'

/** The school's calendar, classes and people. */
export class School {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
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
    const years = await manager.query<{ id: string; name: string }[]>('select id, name from school_year order by starts_on desc')
    const terms = await listTerms(manager)
    const running = await this.runningTerm(manager)
    return {
      runningTermId: running?.term.id ?? null,
      years: years.map((year) => ({
        ...year,
        terms: terms
          .filter((term) => term.yearId === year.id)
          .map(({ id, name, startsOn, endsOn }) => ({ id, name, startsOn, endsOn })),
      })),
    }
  }

  /** A teacher's classes of years that have not ended; all of them for the office lead. */
  async listClasses(viewer: SignedIn): Promise<SchoolClass[]> {
    return this.#platform.db.manager.query(
      `${CLASS_COLUMNS} where y.school_id = $1 and y.ends_on >= $3::date and ($2::uuid is null or exists
         (select 1 from enrolment e where e.class_id = c.id and e.person_id = $2)) order by c.name`,
      [viewer.schoolId, viewer.role === 'office' ? null : viewer.personId, this.#platform.clock.now()],
    )
  }

  async describeClass(classId: string): Promise<ClassDetail> {
    const [found] = await this.#platform.db.manager.query<SchoolClass[]>(`${CLASS_COLUMNS} where c.id = $1`, [classId])
    if (!found) throw new DomainError('request/not-found')
    const pupils = await this.#platform.db.manager.query<FlatPupil[]>(
      `${PUPIL_COLUMNS} join enrolment e on e.person_id = p.id where e.class_id = $1 and p.role = 'pupil' order by p.first_name, p.last_name, p.id`,
      [classId],
    )
    return { ...found, pupils: pupils.map(pupilLine) }
  }

  /** @throws DomainError `piece/stale` when a second teacher changed it first */
  async changeClass(classId: string, change: ChangeClass): Promise<ClassDetail> {
    const [, changed] = await this.#platform.db.manager.query<[unknown, number]>(
      'update class set idle_minutes = $2, version = version + 1 where id = $1 and version = $3',
      [classId, change.idleMinutes, change.seenVersion],
    )
    if (!changed) throw new DomainError('piece/stale')
    return this.describeClass(classId)
  }

  async describePupil(pupilId: string): Promise<PupilDetail> {
    const [row] = await this.#platform.db.manager.query<(FlatPupil & { classId: string; className: string })[]>(
      `${PUPIL_COLUMNS.replace('from person p', ', k.id as "classId", k.name as "className" from person p')}
       join lateral (select c.id, c.name from enrolment e join class c on c.id = e.class_id join school_year y on y.id = c.school_year_id
         where e.person_id = p.id order by y.starts_on desc limit 1) k on true where p.id = $1`,
      [pupilId],
    )
    if (!row) throw new DomainError('request/not-found')
    return { ...pupilLine(row), classId: row.classId, className: row.className }
  }
}

export async function listTerms(manager: EntityManager): Promise<(Term & { yearId: string })[]> {
  return manager.query(
    `select id, name, starts_on::text as "startsOn", ends_on::text as "endsOn", school_year_id as "yearId" from term order by starts_on`,
  )
}

const CLASS_COLUMNS = `select c.id, c.name, c.year_group as "yearGroup", c.idle_minutes as "idleMinutes", c.version,
    (select count(*)::int from enrolment e join person p on p.id = e.person_id where e.class_id = c.id and p.role = 'pupil') as "pupilCount"
  from class c join school_year y on y.id = c.school_year_id`

const COUNT = (state: string) =>
  `(select count(*)::int from piece_maker m join piece x on x.id = m.piece_id where m.person_id = p.id and x.binned_at is null and x.state = '${state}') as ${state}`
const PUPIL_COLUMNS = `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as "symbol", p.peg_colour as "colour",
    p.last_seen_at as "lastSeenAt", ${['draft', 'submitted', 'returned', 'approved'].map(COUNT).join(', ')}
  from person p`

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
}
const pupilLine = (row: FlatPupil): PupilLine => ({
  id: row.id,
  firstName: row.firstName,
  lastName: row.lastName,
  peg: { symbol: row.symbol, colour: row.colour },
  counts: { draft: row.draft, submitted: row.submitted, returned: row.returned, approved: row.approved },
  lastSeenAt: row.lastSeenAt?.toISOString() ?? null,
})
