import type { OpenSession } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import { tellEnded } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { PersonRow } from '../school/rows.ts'
import { SessionRow } from './rows.ts'

const MINUTE_MS = 60_000
const DAY_MS = 24 * 60 * MINUTE_MS
/** How long a session lasts untouched. Pupils: a school day, cut short by the class's idle time. */
const LASTS_MS = {
  pupil: 12 * 60 * MINUTE_MS,
  teacher: 14 * DAY_MS,
  office: 14 * DAY_MS,
  parent: 30 * DAY_MS,
} as const
/**
 * The tablet signs out by its own clock; the server waits a little longer, so that work in hand is
 * never cut off first.
 */
const IDLE_GRACE_MS = 2 * MINUTE_MS
const SEEN_EVERY_MS = 20_000
/**
 * A desk is open in two places at most, say at school and at home; a third closes the one untouched
 * longest.
 */
const DESKS_AT_ONCE = 2

export type SessionWay = SessionRow['way']
type Opening = {
  way: SessionWay
  /** As `browserOf` gives it. */
  browser: string
  nameCardId?: string
  invitationId?: string
  tabletId?: string
  /** Then it ends whatever is touched. */
  endsAt?: Date
}

/** What keeps a person signed in on one browser. */
export class Sessions {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** @returns the token for the browser's cookie; only its hash is kept */
  async open(person: { id: string; role: PersonRow['role'] }, opening: Opening): Promise<string> {
    const token = this.#platform.secrets.token()
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      if (person.role === 'pupil') await this.#makeRoom(manager, person.id, opening.way)
      await manager.insert(SessionRow, {
        id: newId(),
        tokenHash: this.#platform.secrets.hash('session', token),
        personId: person.id,
        way: opening.way,
        browserHash: this.#platform.secrets.hash('browser', opening.browser),
        nameCardId: opening.nameCardId ?? null,
        invitationId: opening.invitationId ?? null,
        tabletId: opening.tabletId ?? null,
        createdAt: now,
        seenAt: now,
        expiresAt: new Date(now.getTime() + LASTS_MS[person.role]),
        endsAt: opening.endsAt ?? null,
      })
      await manager.update(PersonRow, person.id, { lastSeenAt: now })
      await note(manager, now, person.id, 'signed-in', null)
    })
    return token
  }

  /** Ends sessions; the streams they opened close in every process. @returns how many */
  async #drop(manager: EntityManager, where: Sql): Promise<number> {
    const { text, values } = sql`delete from session where ${where} returning id`
    const [ended] = await manager.query<[{ id: string }[], number]>(text, values)
    if (ended.length > 0)
      await tellEnded(
        manager,
        ended.map(({ id }) => id),
      )
    return ended.length
  }

  /** A pupil has one desk on the class's tablets, and two in all. */
  async #makeRoom(manager: EntityManager, personId: string, way: SessionWay): Promise<void> {
    await manager.query('select 1 from person where id = $1 for update', [personId])
    if (way === 'peg') await this.#drop(manager, sql`person_id = ${personId} and way = 'peg'`)
    await this.#drop(
      manager,
      sql`id in (select id from session where person_id = ${personId} order by seen_at desc, id desc offset ${DESKS_AT_ONCE - 1})`,
    )
  }

  /**
   * Who a session's token belongs to; null when it ended, was ended, or its card, tablet or
   * invitation stopped working.
   * A token that turns up in another browser was copied: the session ends at once for both.
   */
  async find(token: string, browser: string): Promise<SignedIn | null> {
    const now = this.#platform.clock.now()
    type Found = SignedIn & { seenAt: Date; idleMinutes: number | null; browserHash: string | null }
    const [row] = await ask<Found>(
      this.#platform.db.manager,
      sql`select s.id as "sessionId", s.person_id as "personId", p.role, p.school_id as "schoolId", p.leads, s.seen_at as "seenAt",
         s.browser_hash as "browserHash",
         case when p.role = 'pupil' then (select c.idle_minutes ${classOfPerson(raw('p.id'), now)}) end as "idleMinutes"
       from session s join person p on p.id = s.person_id left join tablet t on t.id = s.tablet_id
         left join name_card n on n.id = s.name_card_id left join invitation i on i.id = s.invitation_id
       where s.token_hash = ${this.#platform.secrets.hash('session', token)} and ${stands(now)}`,
    )
    if (!row) return null
    if (
      row.browserHash !== null &&
      row.browserHash !== this.#platform.secrets.hash('browser', browser)
    ) {
      await this.#drop(this.#platform.db.manager, sql`id = ${row.sessionId}`)
      await note(this.#platform.db.manager, now, row.personId, 'session.copied', row.sessionId)
      return null
    }
    const untouchedMs = now.getTime() - row.seenAt.getTime()
    if (row.idleMinutes !== null && untouchedMs > row.idleMinutes * MINUTE_MS + IDLE_GRACE_MS)
      return null
    if (untouchedMs > SEEN_EVERY_MS) await this.#touch(row, now)
    return {
      sessionId: row.sessionId,
      personId: row.personId,
      role: row.role,
      schoolId: row.schoolId,
      leads: row.leads,
    }
  }

  async #touch(viewer: SignedIn, now: Date): Promise<void> {
    await this.#platform.db.manager.update(SessionRow, viewer.sessionId, {
      seenAt: now,
      expiresAt: new Date(now.getTime() + LASTS_MS[viewer.role]),
    })
    await this.#platform.db.manager.update(PersonRow, viewer.personId, { lastSeenAt: now })
  }

  /**
   * Signs out.
   * @param why - `signed-in-again`: somebody came in with this browser, who may be somebody else.
   */
  async end(viewer: SignedIn, why: 'asked' | 'signed-in-again' = 'asked'): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      await this.#drop(manager, sql`id = ${viewer.sessionId}`)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'signed-out', null, { why })
    })
  }

  /** All other sessions of a person: their password has changed. */
  async endOthers(manager: EntityManager, viewer: SignedIn): Promise<void> {
    await this.#drop(manager, sql`person_id = ${viewer.personId} and id <> ${viewer.sessionId}`)
  }

  async endAllOf(manager: EntityManager, personId: string): Promise<void> {
    await this.#drop(manager, sql`person_id = ${personId}`)
  }

  /** Which of these sessions still stand. */
  async stillOpen(sessionIds: readonly string[]): Promise<Set<string>> {
    const rows = await ask<{ id: string }>(
      this.#platform.db.manager,
      sql`select s.id from session s join person p on p.id = s.person_id left join tablet t on t.id = s.tablet_id
         left join name_card n on n.id = s.name_card_id left join invitation i on i.id = s.invitation_id
       where s.id = any(${sessionIds}::uuid[]) and ${stands(this.#platform.clock.now())}`,
    )
    return new Set(rows.map(({ id }) => id))
  }

  /** Desks of a class's pupils that are open now, the one touched last first. */
  async listOfClass(classId: string): Promise<OpenSession[]> {
    const rows = await ask<
      Omit<OpenSession, 'openedAt' | 'seenAt' | 'pupil'> & {
        openedAt: Date
        seenAt: Date
        pupilId: string
        firstName: string
        lastName: string
        symbol: never
        colour: never
      }
    >(
      this.#platform.db.manager,
      sql`select s.id, s.way, t.number as "tabletNumber", s.created_at as "openedAt", s.seen_at as "seenAt",
         p.id as "pupilId", p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour
       ${openInClass(classId, this.#platform.clock.now())} order by s.seen_at desc, s.id`,
    )
    return rows.map(
      ({ openedAt, seenAt, pupilId, firstName, lastName, symbol, colour, ...session }) => ({
        ...session,
        pupil: { id: pupilId, firstName, lastName, peg: { symbol, colour } },
        openedAt: openedAt.toISOString(),
        seenAt: seenAt.toISOString(),
      }),
    )
  }

  /** Ends one desk of a class, or all. @returns how many */
  async endOfClass(viewer: SignedIn, classId: string, sessionId: string | null): Promise<number> {
    const now = this.#platform.clock.now()
    const ended = await this.#drop(
      this.#platform.db.manager,
      sql`id in (select s.id ${openInClass(classId, now)} and (${sessionId}::uuid is null or s.id = ${sessionId}))`,
    )
    if (sessionId !== null && ended === 0) throw new DomainError('request/not-found')
    await note(
      this.#platform.db.manager,
      now,
      viewer.personId,
      'sessions.end',
      sessionId ?? classId,
    )
    return ended
  }
}

/**
 * SQL: whether session `s` of person `p` still opens anything at a moment: its card `n`, tablet
 * `t` and invitation `i` work.
 */
const stands = (
  now: Date,
): Sql => sql`s.expires_at > ${now} and (s.ends_at is null or s.ends_at > ${now}) and p.left_at is null
  and n.revoked_at is null and t.ended_at is null and i.withdrawn_at is null
  and (s.way = 'mail-code' or i.expires_at is null or i.expires_at > ${now})`

/** SQL: the sessions `s` of a class's pupils `p` that are open. */
const openInClass = (
  classId: string,
  now: Date,
): Sql => sql`from session s join person p on p.id = s.person_id join enrolment e on e.person_id = p.id and e.class_id = ${classId}
    join class c on c.id = e.class_id left join tablet t on t.id = s.tablet_id left join name_card n on n.id = s.name_card_id
  where p.role = 'pupil' and s.expires_at > ${now} and (s.ends_at is null or s.ends_at > ${now}) and n.revoked_at is null and t.ended_at is null
    and s.seen_at > ${now}::timestamptz - make_interval(mins => c.idle_minutes + ${IDLE_GRACE_MS / MINUTE_MS})`
