import type { ChangeDoor, ClassDoor, PegWall, Session, SharedTablet } from '@nibquill/contract'
import { DomainError, makeCardCode, networkOf, pegName, writeCardLink, fault } from '@nibquill/core'
import { doorState, type DoorState } from '@nibquill/core/accounts/door'
import { schoolDay } from '@nibquill/core/school/calendar'
import { IsNull, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ClassRow, EnrolmentRow, SchoolRow } from '../school/rows.ts'
import type { School } from '../school/school.ts'
import type { PictureSecrets } from './pictureSecrets.ts'
import { DoorCardRow, DoorRow, TabletRow } from './rows.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from './sessions.ts'
import { sharesFirstName } from './sharesFirstName.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

const MINUTE_MS = 60_000
const DAY_MS = 24 * 60 * MINUTE_MS
/** Whoever is in when the door shuts may finish, and what they made gets home. */
const FINISH_MS = 10 * MINUTE_MS
/** A tablet not seen for so long no longer counts against the limit. */
const TABLET_FORGOTTEN_MS = 30 * DAY_MS
const SEEN_EVERY_MS = MINUTE_MS
const FIRST_SETTINGS = {
  switch: 'hours',
  switchedOn: null,
  opensAt: '08:30',
  closesAt: '15:30',
  tabletLimit: 16,
  asksSecret: false,
  network: null,
} as const

/** Where a request comes from. */
export type Caller = { browser: string; address: string }

/** A tablet at which the pegs of a class hang. */
export type TabletAtDoor = { id: string; classId: string; number: number }

/** The class's door: which tablets show the pegs, and when a tap on a peg opens a desk. */
export class Doors {
  readonly #platform: Platform
  readonly #school: School
  readonly #sessions: Sessions
  readonly #secrets: PictureSecrets
  constructor(platform: Platform, school: School, sessions: Sessions, secrets: PictureSecrets) {
    this.#platform = platform
    this.#school = school
    this.#sessions = sessions
    this.#secrets = secrets
  }

  async describe(classId: string): Promise<ClassDoor> {
    const manager = this.#platform.db.manager
    const now = this.#platform.clock.now()
    const {
      switch: position,
      opensAt,
      closesAt,
      tabletLimit,
      asksSecret,
      network,
      ...settings
    } = await this.#settings(manager, classId)
    const state = await this.#state(manager, classId)
    const card = await manager.findOneBy(DoorCardRow, { classId, revokedAt: IsNull() })
    const tablets = await manager.query<
      (Omit<SharedTablet, 'openedAt' | 'seenAt'> & { openedAt: Date; seenAt: Date })[]
    >(
      `select t.id, t.number, t.opened_at as "openedAt", t.seen_at as "seenAt" from tablet t
       where t.class_id = $1 and t.ended_at is null and t.seen_at > $2 order by t.number`,
      [classId, new Date(now.getTime() - TABLET_FORGOTTEN_MS)],
    )
    const switchedToday = settings.switchedOn === schoolDay(now, await this.#zone(manager))
    return {
      switch: switchedToday ? position : 'hours',
      opensAt,
      closesAt,
      tabletLimit,
      asksSecret,
      onlyHere: network !== null,
      ...stateOf(state),
      cardMadeAt: card?.createdAt.toISOString() ?? null,
      tablets: tablets.map((tablet) => ({
        ...tablet,
        openedAt: tablet.openedAt.toISOString(),
        seenAt: tablet.seenAt.toISOString(),
      })),
      sessions: await this.#sessions.listOfClass(classId),
    }
  }

  async change(
    viewer: SignedIn,
    classId: string,
    { onlyHere, ...change }: ChangeDoor,
    address: string,
  ): Promise<ClassDoor> {
    await this.#platform.db.transaction(async (manager) => {
      const now = this.#platform.clock.now()
      await manager.query('select 1 from class where id = $1 for update', [classId])
      const before = await this.#settings(manager, classId)
      const settings = { ...before, ...change }
      if (onlyHere !== undefined) settings.network = onlyHere ? networkOf(address) : null
      if (change.switch) settings.switchedOn = schoolDay(now, await this.#zone(manager))
      if (settings.closesAt <= settings.opensAt)
        throw new DomainError('request/invalid', {
          fields: { closesAt: [fault('shuts-before-it-opens')] },
        })
      await manager.save(DoorRow, settings)
      if (change.asksSecret) await this.#secrets.giveMissing(manager, classId)
      await this.#endDesksLater(manager, classId)
      await note(manager, now, viewer.personId, 'door.change', classId, { before, after: settings })
    })
    return this.describe(classId)
  }

  /** A desk opened by a peg stays open a little longer than the door. */
  async #endDesksLater(manager: EntityManager, classId: string): Promise<void> {
    const state = await this.#state(manager, classId)
    await manager.query(
      'update session s set ends_at = $2 from tablet t where t.id = s.tablet_id and t.class_id = $1',
      [classId, this.#deskEndsAt(state)],
    )
  }

  #deskEndsAt(state: DoorState): Date {
    return new Date((state.until ?? this.#platform.clock.now()).getTime() + FINISH_MS)
  }

  /**
   * A new door card; tablets the old one opened no longer show the pegs.
   * @returns its code, kept nowhere, and its address
   */
  async renewCard(viewer: SignedIn, classId: string): Promise<{ code: string; address: string }> {
    const now = this.#platform.clock.now()
    return this.#platform.db.transaction(async (manager) => {
      const code = await this.issueCard(manager, classId)
      await note(manager, now, viewer.personId, 'door-card', classId)
      return { code, address: writeCardLink(this.#platform.config.publicUrl, code) }
    })
  }

  async issueCard(
    manager: EntityManager,
    classId: string,
    code = makeCardCode(() => this.#platform.secrets.byte()),
  ): Promise<string> {
    const now = this.#platform.clock.now()
    await manager.update(DoorCardRow, { classId, revokedAt: IsNull() }, { revokedAt: now })
    await manager.update(TabletRow, { classId, endedAt: IsNull() }, { endedAt: now })
    const codeHash = this.#platform.secrets.hash('door-card', code)
    await manager.insert(DoorCardRow, {
      id: newId(),
      classId,
      codeHash,
      createdAt: now,
      revokedAt: null,
    })
    return code
  }

  /**
   * Hangs the pegs of a class on a tablet.
   * @param known - The tablet's own token, when it showed pegs before: it is the same tablet then.
   * @returns the tablet's token; null when no door card in use has this code
   * @throws DomainError `accounts/door-shut` with `reason`, `accounts/door-elsewhere`,
   *   `accounts/too-many-tablets` with `limit`
   */
  async hangPegs(
    letters: string,
    { browser, address }: Caller,
    known: string | undefined,
  ): Promise<string | null> {
    return this.#platform.db.transaction(async (manager) => {
      const card = await manager.findOneBy(DoorCardRow, {
        codeHash: this.#platform.secrets.hash('door-card', letters),
        revokedAt: IsNull(),
      })
      if (!card) return null
      // Two tablets at once for the last place: the second waits, and sees the first.
      await manager.query('select 1 from class where id = $1 for update', [card.classId])
      await this.#demandOpen(manager, card.classId, address)
      const before = known ? await this.findTablet(known, browser) : null
      if (known && before?.classId === card.classId) return known
      const now = this.#platform.clock.now()
      if (before) await manager.update(TabletRow, before.id, { endedAt: now })
      const { tabletLimit } = await this.#settings(manager, card.classId)
      const taken = await manager.query<{ number: number }[]>(
        'select number from tablet where class_id = $1 and ended_at is null and seen_at > $2',
        [card.classId, new Date(now.getTime() - TABLET_FORGOTTEN_MS)],
      )
      if (taken.length >= tabletLimit)
        throw new DomainError('accounts/too-many-tablets', { limit: tabletLimit })
      const number = Array.from({ length: taken.length + 1 }, (_, i) => i + 1).find((free) =>
        taken.every((one) => one.number !== free),
      )!
      const token = this.#platform.secrets.token()
      await manager.insert(TabletRow, {
        id: newId(),
        classId: card.classId,
        number,
        tokenHash: this.#platform.secrets.hash('tablet', token),
        browserHash: this.#platform.secrets.hash('browser', browser),
        openedAt: now,
        seenAt: now,
        endedAt: null,
      })
      await note(manager, now, null, 'tablet.open', card.classId)
      return token
    })
  }

  /**
   * The tablet a token belongs to; null when a teacher took it away, its card was renewed, or its
   * year is over.
   */
  async findTablet(token: string, browser: string): Promise<TabletAtDoor | null> {
    const now = this.#platform.clock.now()
    const manager = this.#platform.db.manager
    const [row] = await ask<TabletAtDoor & { browserHash: string; seenAt: Date }>(
      manager,
      sql`select t.id, t.class_id as "classId", t.number, t.browser_hash as "browserHash", t.seen_at as "seenAt"
       from tablet t join class c on c.id = t.class_id join school_year y on y.id = c.school_year_id
       where t.token_hash = ${this.#platform.secrets.hash('tablet', token)} and t.ended_at is null and y.ends_on >= ${schoolDayOf(now)}`,
    )
    if (!row || row.browserHash !== this.#platform.secrets.hash('browser', browser)) return null
    if (now.getTime() - row.seenAt.getTime() > SEEN_EVERY_MS)
      await manager.update(TabletRow, row.id, { seenAt: now })
    return { id: row.id, classId: row.classId, number: row.number }
  }

  async endTablet(viewer: SignedIn, classId: string, tabletId: string): Promise<void> {
    const now = this.#platform.clock.now()
    const { affected } = await this.#platform.db.manager.update(
      TabletRow,
      { id: tabletId, classId, endedAt: IsNull() },
      { endedAt: now },
    )
    if (!affected) throw new DomainError('request/not-found')
    await note(this.#platform.db.manager, now, viewer.personId, 'tablet.end', tabletId)
  }

  /** How the door of a tablet's class stands, for whoever holds the tablet. */
  async doorOf(tablet: TabletAtDoor): Promise<NonNullable<Session['door']>> {
    const manager = this.#platform.db.manager
    return {
      className: await this.nameOf(tablet.classId),
      tabletNumber: tablet.number,
      ...stateOf(await this.#state(manager, tablet.classId)),
    }
  }

  async nameOf(classId: string): Promise<string> {
    return (await this.#platform.db.manager.findOneByOrFail(ClassRow, { id: classId })).name
  }

  /** The pegs; none while the door is shut, so that a tablet taken home tells no names. */
  async listPegs(tablet: TabletAtDoor, address: string): Promise<PegWall> {
    const manager = this.#platform.db.manager
    const door = await this.doorOf(tablet)
    const { opensAt, asksSecret, network } = await this.#settings(manager, tablet.classId)
    if (network !== null && network !== networkOf(address))
      throw new DomainError('accounts/door-elsewhere')
    if (!door.open) return { ...door, opensAt, asksSecret, pegs: [] }
    const rows = await manager.query<
      {
        id: string
        firstName: string
        lastName: string
        symbol: never
        colour: never
        isShared: boolean
      }[]
    >(
      `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour,
         ${sharesFirstName('p')} as "isShared"
       from enrolment e join person p on p.id = e.person_id where e.class_id = $1 and p.role = 'pupil' and p.left_at is null
       order by p.first_name, p.last_name, p.id`,
      [tablet.classId],
    )
    return {
      ...door,
      opensAt,
      asksSecret,
      pegs: rows.map(({ id, firstName, lastName, symbol, colour, isShared }) => ({
        pupilId: id,
        // Surnames do not hang on a wall.
        name: pegName(firstName, lastName, isShared),
        peg: { symbol, colour },
      })),
    }
  }

  /**
   * Opens the desk of a pupil who tapped their peg.
   * @throws DomainError `accounts/door-shut`, `accounts/door-elsewhere`, `accounts/secret-wrong`,
   *   `accounts/too-many-tries`, `request/not-found` for a peg of another class
   */
  async signInByPeg(
    tablet: TabletAtDoor,
    pupilId: string,
    secret: readonly string[] | null,
    { browser, address }: Caller,
  ): Promise<string> {
    const manager = this.#platform.db.manager
    const state = await this.#demandOpen(manager, tablet.classId, address)
    const pupil = await manager.findOneBy(PersonRow, {
      id: pupilId,
      role: 'pupil',
      leftAt: IsNull(),
    })
    if (
      !pupil ||
      !(await manager.existsBy(EnrolmentRow, { classId: tablet.classId, personId: pupilId }))
    )
      throw new DomainError('request/not-found')
    const { asksSecret } = await this.#settings(manager, tablet.classId)
    if (asksSecret) await this.#secrets.check(pupilId, secret ?? [])
    return this.#sessions.open(pupil, {
      way: 'peg',
      browser,
      tabletId: tablet.id,
      endsAt: this.#deskEndsAt(state),
    })
  }

  /** @throws DomainError `accounts/door-shut` with `reason`, `accounts/door-elsewhere` */
  async #demandOpen(manager: EntityManager, classId: string, address: string): Promise<DoorState> {
    const { network } = await this.#settings(manager, classId)
    if (network !== null && network !== networkOf(address))
      throw new DomainError('accounts/door-elsewhere')
    const state = await this.#state(manager, classId)
    if (!state.open) throw new DomainError('accounts/door-shut', { reason: state.reason })
    return state
  }

  async #settings(manager: EntityManager, classId: string): Promise<DoorRow> {
    return (await manager.findOneBy(DoorRow, { classId })) ?? { classId, ...FIRST_SETTINGS }
  }

  async #state(manager: EntityManager, classId: string): Promise<DoorState> {
    const settings = await this.#settings(manager, classId)
    const year = await this.#school.yearOfClass(manager, classId)
    return doorState(settings, this.#platform.clock.now(), await this.#zone(manager), year)
  }

  async #zone(manager: EntityManager): Promise<string> {
    return (await manager.findOneOrFail(SchoolRow, { where: {} })).timeZone
  }
}

const stateOf = ({ open, until, reason }: DoorState) => ({
  open,
  until: until?.toISOString() ?? null,
  reason,
})
