import {
  DomainError,
  may,
  type Action,
  type BookFor,
  type DomainErrorCode,
  type Relation,
  type Subject,
  type Viewer,
} from '@nibquill/core'
import { schoolDay } from '@nibquill/core/school/calendar'
import type { EntityManager } from 'typeorm'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, sql } from '../platform/sql.ts'
import {
  approvedMakers,
  consents,
  factsOf,
  madeApproved,
  PIECE_FACTS,
  shownTo,
  taughtNow,
  teachesPiece,
  type PieceFacts,
} from './facts.ts'

/**
 * Loads the facts that `may` decides by. One query a question; the SQL names facts and never
 * decides.
 */
export class Guard {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /**
   * @throws DomainError `accounts/signed-out` for visitors; for everyone else the code given, which
   *   also hides what is there
   */
  #demand(
    viewer: SignedIn | null,
    action: Action,
    subject: Subject,
    hidden: DomainErrorCode,
  ): void {
    const verdict = may(asViewer(viewer), action, subject)
    if (verdict === 'sign-in') throw new DomainError('accounts/signed-out')
    if (verdict === 'hidden') throw new DomainError(hidden)
  }

  async piece(
    viewer: SignedIn | null,
    action: Action,
    pieceId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    const subject = viewer ? await this.#pieceSubject(viewer, pieceId, manager) : NOTHING
    this.#demand(viewer, action, subject, 'piece/not-found')
  }

  async #pieceSubject(viewer: SignedIn, pieceId: string, manager: EntityManager): Promise<Subject> {
    const today = await this.#today(manager)
    const [row] = await ask<PieceFacts & MadeBy>(
      manager,
      sql`select ${PIECE_FACTS},
         exists (select 1 from piece_maker m where m.piece_id = p.id and m.person_id = ${viewer.personId}) as maker,
         ${madeApproved('p', viewer.personId)} as "madeApproved",
         ${teachesPiece('p', viewer.personId, today)} as teaches,
         exists (${approvedMakers('p')} and exists (select 1 from guardian g where g.pupil_id = m.person_id and g.parent_id = ${viewer.personId})) as guards
       from piece p where p.id = ${pieceId}`,
    )
    if (!row) return NOTHING
    const relations: Relation[] = []
    if (row.maker) relations.push('maker')
    if (row.madeApproved) relations.push('approved-maker')
    if (row.teaches) relations.push('class-teacher')
    if (row.guards) relations.push('guardian')
    return { relations, facts: factsOf(row) }
  }

  /** Whether somebody may; asks no questions aloud. */
  async allowsPiece(viewer: SignedIn | null, action: Action, pieceId: string): Promise<boolean> {
    const subject = viewer
      ? await this.#pieceSubject(viewer, pieceId, this.#platform.db.manager)
      : NOTHING
    return may(asViewer(viewer), action, subject) === 'yes'
  }

  /**
   * A piece looked at by whoever holds a printed page. The codes of a book for school open for
   * staff who may read the piece anyway.
   * @returns its id @throws DomainError `sharing/link-over`, `sharing/link-for-school`
   */
  async linkedPiece(
    viewer: SignedIn | null,
    token: string,
  ): Promise<{ pieceId: string; expiresAt: Date }> {
    const [row] = await ask<
      PieceFacts & { pieceId: string; live: boolean; madeFor: BookFor; expiresAt: Date }
    >(
      this.#platform.db.manager,
      sql`select ${PIECE_FACTS}, p.id as "pieceId", l.expires_at as "expiresAt", l.withdrawn_at is null and l.expires_at > ${this.#platform.clock.now()} as live,
         b.made_for as "madeFor"
       from page_link l join piece p on p.id = l.piece_id join book b on b.id = l.book_id where l.token_hash = ${this.#platform.secrets.hash('page-link', token)}`,
    )
    if (row?.live && row.madeFor === 'school') {
      if (row.approved && (await this.allowsPiece(viewer, 'book.read-page', row.pieceId)))
        return row
      throw new DomainError('sharing/link-for-school')
    }
    const facts = row ? [...factsOf(row), ...(row.live ? (['link-live'] as const) : [])] : []
    const verdict = may({ role: 'link-holder' }, 'piece.read-approved', {
      relations: row ? ['holder'] : [],
      facts,
    })
    if (!row || verdict !== 'yes') throw new DomainError('sharing/link-over')
    return row
  }

  /** What concerns the whole school. */
  school(viewer: SignedIn | null, action: Action): SignedIn {
    this.#demand(
      viewer,
      action,
      viewer?.leads ? { relations: ['school-lead'], facts: [] } : NOTHING,
      'request/not-found',
    )
    return viewer!
  }

  async pupil(
    viewer: SignedIn | null,
    action: Action,
    pupilId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const today = await this.#today(manager)
      const [row] = await ask<{
        self: boolean
        teaches: boolean
        guards: boolean
        school: boolean
        consent: boolean
      }>(
        manager,
        sql`select p.id = ${viewer.personId} as self, ${taughtNow('p.id', viewer.personId, today)} as teaches, p.school_id = ${viewer.schoolId} as school,
           exists (select 1 from guardian g where g.pupil_id = p.id and g.parent_id = ${viewer.personId}) as guards,
           ${consents('p.id')} as consent
         from person p where p.id = ${pupilId} and p.role = 'pupil'`,
      )
      if (row)
        subject = {
          relations: relationsOf(viewer, row),
          facts: row.consent ? ['sharing-consent'] : [],
        }
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
      const [row] = await manager.query<
        { member: boolean; school: boolean; guards: boolean; proposals: boolean }[]
      >(
        `select exists (select 1 from enrolment e where e.class_id = c.id and e.person_id = $2) as member, y.school_id = $3 as school,
           exists (select 1 from enrolment e join guardian g on g.pupil_id = e.person_id where e.class_id = c.id and g.parent_id = $2) as guards,
           c.pupils_propose as proposals
         from class c join school_year y on y.id = c.school_year_id where c.id = $1`,
        [classId, viewer.personId, viewer.schoolId],
      )
      if (row)
        subject = {
          relations: relationsOf(viewer, row),
          facts: row.proposals ? ['proposals-open'] : [],
        }
    }
    this.#demand(viewer, action, subject, 'request/not-found')
  }

  async folder(
    viewer: SignedIn | null,
    action: Action,
    folderId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await manager.query<
        { ofClass: boolean; whole: boolean; school: boolean; files: boolean }[]
      >(
        `select exists (select 1 from folder_class h join enrolment e on e.class_id = h.class_id where h.folder_id = f.id and e.person_id = $2)
             and (f.owner_id is null or f.owner_id = $2 or $4) as "ofClass",
           f.school_id = $3 and f.whole_school as whole, f.school_id = $3 as school,
           f.pupils_file and f.put_away_at is null and (f.owner_id is null or f.agreed_at is not null) as files
         from folder f where f.id = $1`,
        [folderId, viewer.personId, viewer.schoolId, viewer.role === 'teacher'],
      )
      // A folder of the whole school is everybody's to use, and only the school's lead changes it.
      const member = row && (row.ofClass || (row.whole && action !== 'folder.change'))
      if (row)
        subject = {
          relations: relationsOf(viewer, { ...row, member }),
          facts: row.files ? ['pupils-file'] : [],
        }
    }
    this.#demand(viewer, action, subject, 'folder/not-found')
  }

  async task(
    viewer: SignedIn | null,
    action: Action,
    taskId: string,
    manager = this.#platform.db.manager,
  ): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await ask<{ member: boolean; school: boolean }>(
        manager,
        sql`select exists (select 1 from enrolment e where e.class_id = t.class_id and e.person_id = ${viewer.personId}) and (${viewer.role === 'teacher'} or ${shownTo(viewer.personId, this.#platform.clock.now())}) as member,
           y.school_id = ${viewer.schoolId} as school
         from task t join class c on c.id = t.class_id join school_year y on y.id = c.school_year_id where t.id = ${taskId}`,
      )
      if (row) subject = { relations: relationsOf(viewer, row), facts: [] }
    }
    this.#demand(viewer, action, subject, 'task/not-found')
  }

  /**
   * What concerns nobody but the person themselves.
   * @throws DomainError `accounts/signed-out`, or `request/not-found` for other roles
   */
  own(viewer: SignedIn | null, role: SignedIn['role']): SignedIn {
    if (!viewer) throw new DomainError('accounts/signed-out')
    if (viewer.role !== role) throw new DomainError('request/not-found')
    return viewer
  }

  async notice(viewer: SignedIn | null, action: Action, noticeId: string): Promise<void> {
    let subject = NOTHING
    if (viewer) {
      const [row] = await this.#platform.db.manager.query<
        { teaches: boolean; member: boolean; guards: boolean }[]
      >(
        `select exists (select 1 from enrolment e where e.class_id = n.class_id and e.person_id = $2) and $3 as teaches,
           n.audience = 'class' and n.withdrawn_at is null
             and exists (select 1 from enrolment e where e.class_id = n.class_id and e.person_id = $2) as member,
           n.audience = 'parents' and n.withdrawn_at is null
             and exists (select 1 from enrolment e join guardian g on g.pupil_id = e.person_id where e.class_id = n.class_id and g.parent_id = $2) as guards
         from notice n where n.id = $1`,
        [noticeId, viewer.personId, viewer.role === 'teacher'],
      )
      if (row) subject = { relations: relationsOf(viewer, row), facts: [] }
    }
    this.#demand(viewer, action, subject, 'request/not-found')
  }

  async #today(manager: EntityManager): Promise<string> {
    const [school] = await manager.query<{ timeZone: string }[]>(
      'select time_zone as "timeZone" from school limit 1',
    )
    return schoolDay(this.#platform.clock.now(), school?.timeZone ?? 'UTC')
  }
}

type MadeBy = { maker: boolean; madeApproved: boolean; teaches: boolean; guards: boolean }
const NOTHING: Subject = { relations: [], facts: [] }

type Standing = {
  self?: boolean
  member?: boolean
  teaches?: boolean
  guards?: boolean
  school?: boolean
}
/** Members of a class are its pupils and its teachers: which of them, the role says. */
function relationsOf(viewer: SignedIn, row: Standing): Relation[] {
  const relations: Relation[] = []
  if (row.self) relations.push('maker')
  if (row.member) relations.push('classmate', 'class-teacher')
  if (row.teaches) relations.push('class-teacher')
  if (row.guards) relations.push('guardian')
  if (row.school && viewer.leads) relations.push('school-lead')
  return relations
}

const asViewer = (viewer: SignedIn | null): Viewer =>
  viewer ? { role: viewer.role, personId: viewer.personId } : { role: 'visitor' }
