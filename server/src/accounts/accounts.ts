import { hash, verify } from '@node-rs/argon2'
import type { CardSignIn, ChoosePassword, FirstRun, PasswordSignIn, Session } from '@nibquill/contract'
import { cardCodePrefix, DomainError, isTimeZone, makeCardCode, readCardCode, type Colour, type PegSymbol } from '@nibquill/core'
import { IsNull, Not, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SchoolRow } from '../school/rows.ts'
import type { Card } from './drawCards.ts'
import { NameCardRow, PasswordLinkRow, PersonRow, SessionRow } from './rows.ts'
import type { SignInLimits } from './signInLimits.ts'

const MINUTE_MS = 60_000
const DAY_MS = 24 * 60 * MINUTE_MS
/** How long a session lasts untouched. Pupils: a school day, cut short by the class's idle time. */
const LASTS_MS = { pupil: 12 * 60 * MINUTE_MS, teacher: 14 * DAY_MS, office: 14 * DAY_MS, parent: 30 * DAY_MS } as const
/** The tablet signs out by its own clock; the server waits a little longer, so that work in hand is never cut off first. */
const IDLE_GRACE_MS = 2 * MINUTE_MS
const SEEN_EVERY_MS = 20_000
/** Long enough for somebody who starts after the holidays. */
const PASSWORD_LINK_LASTS_MS = 30 * DAY_MS
/** OWASP Password Storage Cheat Sheet: argon2id, 19 MiB, two passes, one lane. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

type PersonLook = { id: string; firstName: string; lastName: string; symbol: PegSymbol | null; colour: Colour | null }

/** Who people are and how they come in. */
export class Accounts {
  readonly #platform: Platform
  readonly #limits: SignInLimits
  /** Checked when no such person is there, so that the answer takes as long. */
  readonly #nobody = hash('nobody has this password', ARGON)
  constructor(platform: Platform, limits: SignInLimits) {
    this.#platform = platform
    this.#limits = limits
  }

  async signInByCard({ code }: CardSignIn, address: string): Promise<string> {
    const letters = readCardCode(code)
    const keys = [`address:${address}`, ...(letters ? [`prefix:${cardCodePrefix(letters)}`] : [])]
    await this.#limits.refuseAfterTooMany(keys)
    const card = letters
      ? await this.#platform.db.manager.findOneBy(NameCardRow, {
          codeHash: this.#platform.secrets.hash('card', letters),
          revokedAt: IsNull(),
        })
      : null
    const left = card && (await this.#platform.db.manager.existsBy(PersonRow, { id: card.pupilId, leftAt: Not(IsNull()) }))
    if (!card || left) {
      await this.#limits.countWrongTry(keys)
      throw new DomainError('accounts/card-unknown')
    }
    return this.#open(card.pupilId, 'pupil', { nameCardId: card.id })
  }

  async signInByPassword({ email, password }: PasswordSignIn, address: string): Promise<string> {
    const keys = [`address:${address}`, `email:${email}`]
    await this.#limits.refuseAfterTooMany(keys)
    const person = await this.#platform.db.manager.findOneBy(PersonRow, { email })
    const right = await verify(person?.passwordHash ?? (await this.#nobody), password)
    if (!person?.passwordHash || person.leftAt || !right) {
      await this.#limits.countWrongTry(keys)
      throw new DomainError('accounts/password-wrong')
    }
    return this.#open(person.id, person.role, {})
  }

  /** Opens a session for the parent an invitation is for. @throws DomainError `accounts/invitation-over` */
  async signInByInvitation(token: string, address: string): Promise<string> {
    const keys = [`address:${address}`]
    await this.#limits.refuseAfterTooMany(keys)
    const now = this.#platform.clock.now()
    const [rows] = await this.#platform.db.manager.query<[{ id: string; parent_id: string }[], number]>(
      `update invitation set last_used_at = $2 where token_hash = $1 and withdrawn_at is null and expires_at > $2 returning id, parent_id`,
      [this.#platform.secrets.hash('invitation', token), now],
    )
    const invitation = rows[0]
    if (!invitation) {
      await this.#limits.countWrongTry(keys)
      throw new DomainError('accounts/invitation-over')
    }
    return this.#open(invitation.parent_id, 'parent', { invitationId: invitation.id })
  }

  async #open(personId: string, role: PersonRow['role'], by: { nameCardId?: string; invitationId?: string }): Promise<string> {
    const token = this.#platform.secrets.token()
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.insert(SessionRow, {
        id: newId(),
        tokenHash: this.#platform.secrets.hash('session', token),
        personId,
        nameCardId: by.nameCardId ?? null,
        invitationId: by.invitationId ?? null,
        createdAt: now,
        seenAt: now,
        expiresAt: new Date(now.getTime() + LASTS_MS[role]),
      })
      await manager.update(PersonRow, personId, { lastSeenAt: now })
      await note(manager, now, personId, 'signed-in', null)
    })
    return token
  }

  /** Who a session's token belongs to; null when it ended, was ended, or its card or invitation stopped working. */
  async findSession(token: string): Promise<SignedIn | null> {
    const now = this.#platform.clock.now()
    const [row] = await this.#platform.db.manager.query<(SignedIn & { seenAt: Date; idleMinutes: number | null })[]>(
      `select s.id as "sessionId", s.person_id as "personId", p.role, p.school_id as "schoolId", p.leads, s.seen_at as "seenAt",
         case when p.role = 'pupil' then (${IDLE_MINUTES_OF_PERSON}) end as "idleMinutes"
       from session s join person p on p.id = s.person_id
         left join name_card n on n.id = s.name_card_id left join invitation i on i.id = s.invitation_id
       where s.token_hash = $1 and s.expires_at > $2 and p.left_at is null and n.revoked_at is null and i.withdrawn_at is null
         and (i.expires_at is null or i.expires_at > $2)`,
      [this.#platform.secrets.hash('session', token), now],
    )
    if (!row) return null
    const untouchedMs = now.getTime() - row.seenAt.getTime()
    if (row.idleMinutes !== null && untouchedMs > row.idleMinutes * MINUTE_MS + IDLE_GRACE_MS) return null
    if (untouchedMs > SEEN_EVERY_MS) await this.#touch(row, now)
    return { sessionId: row.sessionId, personId: row.personId, role: row.role, schoolId: row.schoolId, leads: row.leads }
  }

  async #touch(viewer: SignedIn, now: Date): Promise<void> {
    await this.#platform.db.manager.update(SessionRow, viewer.sessionId, {
      seenAt: now,
      expiresAt: new Date(now.getTime() + LASTS_MS[viewer.role]),
    })
    await this.#platform.db.manager.update(PersonRow, viewer.personId, { lastSeenAt: now })
  }

  async signOut(viewer: SignedIn): Promise<void> {
    await this.#platform.db.manager.delete(SessionRow, viewer.sessionId)
  }

  async describe(viewer: SignedIn | null): Promise<Session> {
    const school = await this.#platform.db.manager.findOne(SchoolRow, { where: {} })
    if (!school) return { firstRun: true, school: null, person: null }
    const about = { name: school.name, timeZone: school.timeZone }
    if (!viewer) return { firstRun: false, school: about, person: null }
    const person = await this.#platform.db.manager.findOneByOrFail(PersonRow, { id: viewer.personId })
    const [at] = await this.#platform.db.manager.query<{ name: string; idleMinutes: number; pupilsPropose: boolean }[]>(
      `select c.name, c.idle_minutes as "idleMinutes", c.pupils_propose as "pupilsPropose" ${classOfPerson()}`,
      [viewer.personId, this.#platform.clock.now()],
    )
    return {
      firstRun: false,
      school: about,
      person: {
        id: person.id,
        role: person.role,
        firstName: person.firstName,
        lastName: person.lastName,
        peg: person.pegSymbol && person.pegColour ? { symbol: person.pegSymbol, colour: person.pegColour } : null,
        leads: person.leads,
        className: at?.name ?? null,
        mayPropose: person.role === 'pupil' && (at?.pupilsPropose ?? false),
        idleMinutes: person.role === 'pupil' ? (at?.idleMinutes ?? null) : null,
      },
    }
  }

  /** Makes the school and its first teacher. @throws DomainError `accounts/already-set-up`, `request/invalid` for an unknown time zone */
  async setUp(input: FirstRun): Promise<string> {
    if (!isTimeZone(input.timeZone))
      throw new DomainError('request/invalid', { fields: { timeZone: ['is not a time zone we know'] } })
    const now = this.#platform.clock.now()
    const passwordHash = await this.hashPassword(input.password)
    const personId = newId()
    await this.#platform.db.transaction(async (manager) => {
      // Two first runs at once: the second waits here, then finds the school.
      await manager.query('lock table school in exclusive mode')
      if (await manager.count(SchoolRow)) throw new DomainError('accounts/already-set-up')
      const school = { id: newId(), name: input.schoolName, timeZone: input.timeZone, createdAt: now }
      await manager.insert(SchoolRow, school)
      await manager.insert(PersonRow, {
        id: personId, schoolId: school.id, role: 'teacher', firstName: input.firstName, lastName: input.lastName,
        email: input.email, passwordHash, leads: true, createdAt: now,
      }) // prettier-ignore
      await note(manager, now, personId, 'school-set-up', school.id)
    })
    return this.#open(personId, 'teacher', {})
  }

  /** A link that lets a member of staff choose a password, once; earlier ones stop. @returns its address */
  async makePasswordLink(manager: EntityManager, personId: string): Promise<string> {
    const now = this.#platform.clock.now()
    const token = this.#platform.secrets.token()
    await manager.query('update password_link set used_at = $2 where person_id = $1 and used_at is null', [personId, now])
    await manager.insert(PasswordLinkRow, {
      id: newId(), personId, tokenHash: this.#platform.secrets.hash('password-link', token), createdAt: now,
      expiresAt: new Date(now.getTime() + PASSWORD_LINK_LASTS_MS),
    }) // prettier-ignore
    return `${this.#platform.config.publicUrl}/password/${token}`
  }

  async describePasswordLink(token: string, address: string): Promise<{ firstName: string; email: string; schoolName: string }> {
    const { person } = await this.#findPasswordLink(token, address)
    const school = await this.#platform.db.manager.findOneOrFail(SchoolRow, { where: {} })
    return { firstName: person.firstName, email: person.email ?? '', schoolName: school.name }
  }

  /** Chooses a password and signs in; everything opened with the old one ends. @throws DomainError `accounts/password-link-over` */
  async choosePassword(token: string, { password }: ChoosePassword, address: string): Promise<string> {
    const { link, person } = await this.#findPasswordLink(token, address)
    const passwordHash = await this.hashPassword(password)
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const [, used] = await manager.query<[unknown, number]>(
        'update password_link set used_at = $2 where id = $1 and used_at is null',
        [link.id, now],
      )
      if (!used) throw new DomainError('accounts/password-link-over')
      await manager.update(PersonRow, person.id, { passwordHash })
      await manager.delete(SessionRow, { personId: person.id })
      await note(manager, now, person.id, 'password-chosen', person.id)
    })
    return this.#open(person.id, person.role, {})
  }

  async #findPasswordLink(token: string, address: string): Promise<{ link: PasswordLinkRow; person: PersonRow }> {
    const keys = [`address:${address}`]
    await this.#limits.refuseAfterTooMany(keys)
    const { manager } = this.#platform.db
    const link = await manager.findOneBy(PasswordLinkRow, { tokenHash: this.#platform.secrets.hash('password-link', token) })
    const person = link && (await manager.findOneByOrFail(PersonRow, { id: link.personId }))
    if (!link || !person || link.usedAt || person.leftAt || link.expiresAt <= this.#platform.clock.now()) {
      await this.#limits.countWrongTry(keys)
      throw new DomainError('accounts/password-link-over')
    }
    return { link, person }
  }

  hashPassword(password: string): Promise<string> {
    return hash(password, ARGON)
  }

  async renewNameCard(viewer: SignedIn, pupilId: string): Promise<string> {
    return this.#platform.db.transaction(async (manager) => {
      await note(manager, this.#platform.clock.now(), viewer.personId, 'name-card', pupilId)
      return this.issueNameCard(manager, pupilId)
    })
  }

  /** New cards for pupils, ready to be printed: the old ones stop, and what they opened ends. The codes are kept nowhere. */
  async renewNameCards(viewer: SignedIn, where: { classId: string } | { pupilId: string }): Promise<Card[]> {
    const now = this.#platform.clock.now()
    return this.#platform.db.transaction(async (manager) => {
      const pupils = await manager.query<PersonLook[]>(
        `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour from person p
         where p.role = 'pupil' and p.left_at is null
           and (p.id = $1 or exists (select 1 from enrolment e where e.person_id = p.id and e.class_id = $2))
         order by p.first_name, p.last_name, p.id`,
        ['pupilId' in where ? where.pupilId : null, 'classId' in where ? where.classId : null],
      )
      const cards: Card[] = []
      for (const { id, firstName, lastName, symbol, colour } of pupils) {
        const code = await this.issueNameCard(manager, id)
        const peg = symbol && colour ? { symbol, colour } : null
        // The part after # never reaches a server or its log.
        cards.push({ firstName, lastName, peg, code, address: `${this.#platform.config.publicUrl}/sign-in#${code}` })
      }
      await note(manager, now, viewer.personId, 'name-cards', 'classId' in where ? where.classId : where.pupilId)
      return cards
    })
  }

  /** Gives a pupil a new name card; the old ones stop, and what they opened ends. @returns the code, which is kept nowhere */
  async issueNameCard(
    manager: EntityManager,
    pupilId: string,
    code = makeCardCode(() => this.#platform.secrets.byte()),
  ): Promise<string> {
    const now = this.#platform.clock.now()
    await manager.update(NameCardRow, { pupilId, revokedAt: IsNull() }, { revokedAt: now })
    const codeHash = this.#platform.secrets.hash('card', code)
    await manager.insert(NameCardRow, { id: newId(), pupilId, codeHash, createdAt: now, revokedAt: null })
    return code
  }
}

/** SQL: a person's class of the newest school year that has begun, else of the first to come. @param now - A moment, `$2` unless named. */
export const classOfPerson = (person = '$1', now = '$2') =>
  `from enrolment e join class c on c.id = e.class_id join school_year y on y.id = c.school_year_id where e.person_id = ${person}
   order by (y.starts_on <= ${now}::timestamptz::date) desc, case when y.starts_on <= ${now}::timestamptz::date then y.starts_on end desc, y.starts_on, c.name limit 1`
const IDLE_MINUTES_OF_PERSON = `select c.idle_minutes ${classOfPerson('p.id')}`
