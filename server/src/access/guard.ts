import {
  DomainError,
  may,
  schoolDay,
  type Action,
  type DomainErrorCode,
  type Fact,
  type Relation,
  type Subject,
  type Viewer,
} from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'

/** Loads the facts that `may` decides by. One query a question; the SQL names facts and never decides. */
export class Guard {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /**
   * @throws DomainError `accounts/signed-out` for visitors; for everyone else the code given, which also hides what is there
   */
  #demand(viewer: SignedIn | null, action: Action, subject: Subject, hidden: DomainErrorCode): void {
    const verdict = may(asViewer(viewer), action, subject)
    if (verdict === 'sign-in') throw new DomainError('accounts/signed-out')
    if (verdict === 'hidden') throw new DomainError(hidden)
  }

  async piece(viewer: SignedIn | null, action: Action, pieceId: string, manager = this.#platform.db.manager): Promise<void> {
    const subject = viewer ? await this.#pieceSubject(viewer, pieceId, manager) : NOTHING
    this.#demand(viewer, action, subject, 'piece/not-found')
  }

  async #pieceSubject(viewer: SignedIn, pieceId: string, manager: EntityManager): Promise<Subject> {
    const [row] = await manager.query<PieceFacts[]>(
      `select ${PIECE_FACTS},
         exists (select 1 from piece_maker m where m.piece_id = p.id and m.person_id = $2) as maker,
         exists (select 1 from enrolment t where t.class_id = p.class_id and t.person_id = $2)
           or exists (select 1 from piece_maker m where m.piece_id = p.id and ${taughtNow('m.person_id', '$2', '$3')}) as teaches,
         exists (select 1 from piece_maker m join guardian g on g.pupil_id = m.person_id where m.piece_id = p.id and g.parent_id = $2) as guards
       from piece p where p.id = $1`,
      [pieceId, viewer.personId, await this.#today(manager)],
    )
    if (!row) return NOTHING
    const relations: Relation[] = []
    if (row.maker) relations.push('maker')
    if (row.teaches) relations.push('class-teacher')
    if (row.guards) relations.push('guardian')
    return { relations, facts: factsOf(row) }
  }

  /** A piece looked at by whoever holds a printed page. @returns its id @throws DomainError `sharing/link-over` */
  async linkedPiece(token: string, manager = this.#platform.db.manager): Promise<{ pieceId: string; expiresAt: Date }> {
    const [row] = await manager.query<(PieceFacts & { pieceId: string; live: boolean; expiresAt: Date })[]>(
      `select ${PIECE_FACTS}, p.id as "pieceId", l.expires_at as "expiresAt", l.withdrawn_at is null and l.expires_at > $2 as live
       from page_link l join piece p on p.id = l.piece_id where l.token_hash = $1`,
      [this.#platform.secrets.hash('page-link', token), this.#platform.clock.now()],
    )
    const facts = row ? [...factsOf(row), ...(row.live ? (['link-live'] as const) : [])] : []
    const verdict = may({ role: 'link-holder' }, 'piece.read-approved', { relations: row ? ['holder'] : [], facts })
    if (!row || verdict !== 'yes') throw new DomainError('sharing/link-over')
    return row
  }

  async pupil(viewer: SignedIn | null, action: Action, pupilId: string, manager = this.#platform.db.manager): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await manager.query<
        { self: boolean; teaches: boolean; guards: boolean; school: boolean; consent: boolean }[]
      >(
        `select p.id = $2 as self, ${taughtNow('p.id', '$2', '$3')} as teaches, p.school_id = $4 as school,
           exists (select 1 from guardian g where g.pupil_id = p.id and g.parent_id = $2) as guards,
           ${consents('p.id')} as consent
         from person p where p.id = $1 and p.role = 'pupil'`,
        [pupilId, viewer.personId, await this.#today(manager), viewer.schoolId],
      )
      if (row) subject = { relations: relationsOf(row), facts: row.consent ? ['sharing-consent'] : [] }
    }
    this.#demand(viewer, action, subject, 'request/not-found')
  }

  async schoolClass(
    viewer: SignedIn | null,
    action: Action,
    classId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await manager.query<{ teaches: boolean; school: boolean }[]>(
        `select exists (select 1 from enrolment e where e.class_id = c.id and e.person_id = $2) as teaches, y.school_id = $3 as school
         from class c join school_year y on y.id = c.school_year_id where c.id = $1`,
        [classId, viewer.personId, viewer.schoolId],
      )
      if (row) subject = { relations: relationsOf(row), facts: [] }
    }
    this.#demand(viewer, action, subject, 'request/not-found')
  }

  async folder(viewer: SignedIn | null, action: Action, folderId: string, manager = this.#platform.db.manager): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await manager.query<{ member: boolean; school: boolean; files: boolean }[]>(
        `select f.school_id = $3 and (f.class_id is null or exists
             (select 1 from enrolment e where e.class_id = f.class_id and e.person_id = $2)) as member,
           f.school_id = $3 as school, f.pupils_file and f.put_away_at is null as files
         from folder f where f.id = $1`,
        [folderId, viewer.personId, viewer.schoolId],
      )
      if (row) {
        const relations: Relation[] = row.member ? ['classmate', 'class-teacher'] : []
        subject = { relations: row.school ? [...relations, 'same-school'] : relations, facts: row.files ? ['pupils-file'] : [] }
      }
    }
    this.#demand(viewer, action, subject, 'folder/not-found')
  }

  async task(viewer: SignedIn | null, action: Action, taskId: string, manager = this.#platform.db.manager): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await manager.query<{ member: boolean }[]>(
        `select exists (select 1 from enrolment e where e.class_id = t.class_id and e.person_id = $2) as member from task t where t.id = $1`,
        [taskId, viewer.personId],
      )
      if (row?.member) subject = { relations: ['classmate', 'class-teacher'], facts: [] }
    }
    this.#demand(viewer, action, subject, 'task/not-found')
  }

  /** What concerns nobody but the person themselves. @throws DomainError `accounts/signed-out`, or `request/not-found` for other roles */
  own(viewer: SignedIn | null, role: SignedIn['role']): SignedIn {
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (viewer.role !== role) throw new DomainError('request/not-found')
    return viewer
  }

  async #today(manager: EntityManager): Promise<string> {
    const [school] = await manager.query<{ timeZone: string }[]>('select time_zone as "timeZone" from school limit 1')
    return schoolDay(this.#platform.clock.now(), school?.timeZone ?? 'UTC')
  }
}

type PieceFacts = {
  approved: boolean
  consent: boolean
  parentsSee: boolean
  binned: boolean
  maker?: boolean
  teaches?: boolean
  guards?: boolean
}
const NOTHING: Subject = { relations: [], facts: [] }

/** SQL: whether a parent said yes to sharing for this person. */
export const consents = (person: string) =>
  `exists (select 1 from consent c where c.pupil_id = ${person} and c.kind = 'sharing' and c.granted)`

/** SQL: whether every maker of a piece may be shared: another child in the picture counts as well. */
export const allConsent = (piece: string) =>
  `not exists (select 1 from piece_maker m where m.piece_id = ${piece} and not ${consents('m.person_id')})`

/** SQL: whether a teacher teaches a pupil in a class of a school year that has not ended. */
export const taughtNow = (pupil: string, teacher: string, today: string) =>
  `exists (select 1 from enrolment e join enrolment t on t.class_id = e.class_id join class c on c.id = e.class_id
     join school_year y on y.id = c.school_year_id and y.ends_on >= ${today}::date
     where e.person_id = ${pupil} and t.person_id = ${teacher})`

const PIECE_FACTS = `p.approved_version_id is not null as approved, p.binned_at is not null as binned, ${allConsent('p.id')} as consent,
  coalesce((select f.parents_see from folder f where f.id = p.approved_folder_id), false) as "parentsSee"`

function factsOf(row: PieceFacts): Fact[] {
  const facts: Fact[] = []
  if (row.approved) facts.push('approved')
  if (row.consent) facts.push('sharing-consent')
  if (row.parentsSee) facts.push('parents-see')
  if (!row.binned) facts.push('not-binned')
  return facts
}

function relationsOf(row: { self?: boolean; teaches?: boolean; guards?: boolean; school?: boolean }): Relation[] {
  const relations: Relation[] = []
  if (row.self) relations.push('maker')
  if (row.teaches) relations.push('class-teacher')
  if (row.guards) relations.push('guardian')
  if (row.school) relations.push('same-school')
  return relations
}

const asViewer = (viewer: SignedIn | null): Viewer =>
  viewer ? { role: viewer.role, personId: viewer.personId } : { role: 'visitor' }
