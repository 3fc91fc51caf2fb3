import type { AddStaff, ChangeStaff, StaffMember } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import type { OneTimeCodes } from '../accounts/oneTimeCodes.ts'
import type { Passwords } from '../accounts/passwords.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from '../accounts/sessions.ts'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { EnrolmentRow, SchoolRow } from '../school/rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

/** Who works at the school and teaches what. */
export class Staff {
  readonly #platform: Platform
  readonly #passwords: Passwords
  readonly #codes: OneTimeCodes
  readonly #mail: Mail
  readonly #sessions: Sessions
  constructor(
    platform: Platform,
    passwords: Passwords,
    codes: OneTimeCodes,
    mail: Mail,
    sessions: Sessions,
  ) {
    this.#platform = platform
    this.#passwords = passwords
    this.#codes = codes
    this.#mail = mail
    this.#sessions = sessions
  }

  async list(): Promise<StaffMember[]> {
    const rows = await ask<Omit<StaffMember, 'lastSeenAt'> & { lastSeenAt: Date | null }>(
      this.#platform.db.manager,
      sql`select p.id, p.first_name as "firstName", p.last_name as "lastName", coalesce(p.email, '') as email, p.role, p.leads,
         p.left_at is not null as left, p.password_hash is not null as active, p.last_seen_at as "lastSeenAt",
         exists (select 1 from one_time_secret o where o.person_id = p.id and o.confirmed_at is not null) as "oneTimeCodes",
         coalesce((select json_agg(json_build_object('id', c.id, 'name', c.name) order by c.name) from enrolment e join class c on c.id = e.class_id
           join school_year y on y.id = c.school_year_id and y.ends_on >= ${schoolDayOf(this.#platform.clock.now())} where e.person_id = p.id), '[]') as classes
       from person p where p.role in ('teacher', 'office') order by p.left_at is not null, p.first_name, p.id`,
    )
    return rows.map((row) => ({ ...row, lastSeenAt: row.lastSeenAt?.toISOString() ?? null }))
  }

  /**
   * Makes an account and mails the way in. The same id again mails a new link.
   * @throws DomainError `accounts/email-taken`
   */
  async add(viewer: SignedIn, personId: string, input: AddStaff): Promise<StaffMember[]> {
    const { classIds, ...person } = input
    await this.#platform.db.transaction(async (manager) => {
      await holdName(manager, `email:${input.email}`)
      const taken = await manager.findOneBy(PersonRow, { email: input.email })
      if (taken && taken.id !== personId) throw new DomainError('accounts/email-taken')
      const now = this.#platform.clock.now()
      await makeOrFind(manager, PersonRow, personId, {
        found: ({ role }) => {
          if (role !== 'teacher' && role !== 'office') throw new DomainError('request/not-found')
        },
        make: async () => {
          await manager.insert(PersonRow, {
            id: personId,
            schoolId: viewer.schoolId,
            ...person,
            leads: input.role === 'office',
            createdAt: now,
          })
        },
      })
      await this.#setClasses(manager, personId, classIds)
      await this.#mailLink(manager, personId)
      await note(manager, now, viewer.personId, 'staff.add', personId)
    })
    return this.list()
  }

  async #mailLink(manager: EntityManager, personId: string): Promise<void> {
    const { name } = await manager.findOneOrFail(SchoolRow, { where: {} })
    const person = await manager.findOneByOrFail(PersonRow, { id: personId })
    const address = await this.#passwords.makeLink(manager, personId)
    await this.#mail.send(manager, {
      to: person.email ?? '',
      subject: strings.staffSubject(name),
      personId,
      secret: address,
      body: strings.staff(`${person.firstName} ${person.lastName}`.trim(), name, address),
    })
  }

  /**
   * Leading, leaving, teaching. Who leaves is signed out at once and teaches nothing any more.
   * @throws DomainError `school/no-lead`
   */
  async change(viewer: SignedIn, personId: string, change: ChangeStaff): Promise<StaffMember[]> {
    await this.#platform.db.transaction(async (manager) => {
      // Two leads stepping down at once: the second sees what the first did.
      await manager.query(`select 1 from person where leads for update`)
      const person = await manager.findOneBy(PersonRow, { id: personId, schoolId: viewer.schoolId })
      if (!person || (person.role !== 'teacher' && person.role !== 'office'))
        throw new DomainError('request/not-found')
      const now = this.#platform.clock.now()
      const before = await this.#rightsOf(manager, personId)
      if (change.leads !== undefined)
        await manager.update(PersonRow, personId, { leads: change.leads })
      if (change.left !== undefined)
        await manager.update(PersonRow, personId, { leftAt: change.left ? now : null })
      if (change.left) {
        await this.#sessions.endAllOf(manager, personId)
        await this.#passwords.endLinks(manager, personId)
        await this.#setClasses(manager, personId, [])
      } else if (change.classIds) await this.#setClasses(manager, personId, change.classIds)
      if (change.oneTimeCodes === false) await this.#codes.switchOff(viewer, personId, manager)
      const [lead] = await manager.query<unknown[]>(
        'select 1 from person where leads and left_at is null limit 1',
      )
      if (!lead) throw new DomainError('school/no-lead')
      const after = await this.#rightsOf(manager, personId)
      await note(
        manager,
        now,
        viewer.personId,
        change.left ? 'staff.left' : 'staff.change',
        personId,
        { before, after },
      )
    })
    return this.list()
  }

  /** What somebody may, for the audit trail. */
  async #rightsOf(manager: EntityManager, personId: string): Promise<Record<string, unknown>> {
    const { leads, leftAt, role } = await manager.findOneByOrFail(PersonRow, { id: personId })
    const classes = await manager.findBy(EnrolmentRow, { personId })
    return { role, leads, left: leftAt !== null, classIds: classes.map(({ classId }) => classId) }
  }

  /** Replaces the classes of years that have not ended; earlier years stay as they were. */
  async #setClasses(
    manager: EntityManager,
    personId: string,
    classIds: readonly string[],
  ): Promise<void> {
    const open = await ask<{ id: string }>(
      manager,
      sql`select c.id from class c join school_year y on y.id = c.school_year_id where y.ends_on >= ${schoolDayOf(this.#platform.clock.now())}`,
    )
    const ids = open.map(({ id }) => id)
    if (classIds.some((id) => !ids.includes(id))) throw new DomainError('request/not-found')
    await manager.query('delete from enrolment where person_id = $1 and class_id = any($2)', [
      personId,
      ids,
    ])
    for (const classId of new Set(classIds))
      await manager.insert(EnrolmentRow, { classId, personId })
  }
}
