import type { CardSignIn, FirstRun, Session } from '@nibquill/contract'
import { DomainError, FIRST_HELD_WORDS, isTimeZone, fault } from '@nibquill/core'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { type ClassRow, SchoolRow } from '../school/rows.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import type { Caller, Doors, TabletAtDoor } from './doors.ts'
import { readTry, type NameCards } from './nameCards.ts'
import type { Passwords } from './passwords.ts'
import { noteFailed } from './noteFailed.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from './sessions.ts'
import type { SignInLimits } from './signInLimits.ts'

type Parts = {
  limits: SignInLimits
  sessions: Sessions
  nameCards: NameCards
  doors: Doors
  passwords: Passwords
}
/** What a card opened: a pupil's desk, or the pegs of a class on this tablet. */
type Opened = { session: string } | { tablet: string }

/** Who is here, and what the first of them needs. */
export class Accounts {
  readonly #platform: Platform
  readonly #parts: Parts
  constructor(platform: Platform, parts: Parts) {
    this.#platform = platform
    this.#parts = parts
  }

  /**
   * A name card or a door card: whoever holds one need not know which.
   * @param countedBy - As `KnownBrowsers` gives it. @param tablet - The tablet's token, when it
   *   showed pegs before.
   * @throws DomainError `accounts/card-unknown` and those of `Doors.hangPegs`
   */
  async useCard(
    { code }: CardSignIn,
    caller: Caller,
    countedBy: string,
    tablet: string | undefined,
  ): Promise<Opened> {
    const { letters, keys } = readTry(code, countedBy)
    const opened = await this.#parts.limits.count(keys, async () => {
      if (!letters) return this.#refuseCard()
      const session = await this.#parts.nameCards.signIn(letters, caller.browser)
      if (session) return { session }
      // A right card before a shut door is no wrong try: a class of tablets may hold it up again
      // and again.
      const hung = await this.#parts.doors
        .hangPegs(letters, caller, tablet)
        .catch((refusal: unknown) => {
          if (refusal instanceof DomainError) return refusal
          throw refusal
        })
      if (hung === null) return this.#refuseCard()
      return hung instanceof DomainError ? hung : { tablet: hung }
    })
    if (opened instanceof DomainError) throw opened
    return opened
  }

  async #refuseCard(): Promise<never> {
    await noteFailed(this.#platform, null, 'card')
    throw new DomainError('accounts/card-unknown')
  }

  async describe(viewer: SignedIn | null, tablet: TabletAtDoor | null): Promise<Session> {
    const school = await this.#platform.db.manager.findOne(SchoolRow, { where: {} })
    if (!school) return { firstRun: true, school: null, person: null, door: null }
    const about = {
      name: school.name,
      timeZone: school.timeZone,
      address: this.#platform.config.publicUrl,
      mails: this.#platform.config.smtpUrl !== null,
    }
    const door = tablet && (await this.#parts.doors.doorOf(tablet))
    if (!viewer) return { firstRun: false, school: about, person: null, door }
    const person = await this.#platform.db.manager.findOneByOrFail(PersonRow, {
      id: viewer.personId,
    })
    const [at] = await ask<
      Pick<ClassRow, 'name' | 'idleMinutes' | 'pupilsPropose' | 'young' | 'sounds'>
    >(
      this.#platform.db.manager,
      sql`select c.name, c.idle_minutes as "idleMinutes", c.pupils_propose as "pupilsPropose", c.young, c.sounds ${classOfPerson(viewer.personId, this.#platform.clock.now())}`,
    )
    return {
      firstRun: false,
      school: about,
      door,
      person: {
        id: person.id,
        role: person.role,
        firstName: person.firstName,
        lastName: person.lastName,
        peg:
          person.pegSymbol && person.pegColour
            ? { symbol: person.pegSymbol, colour: person.pegColour }
            : null,
        leads: person.leads,
        className: at?.name ?? null,
        mayPropose: person.role === 'pupil' && (at?.pupilsPropose ?? false),
        young: person.role === 'pupil' && (at?.young ?? false),
        sounds: person.role === 'pupil' && (at?.sounds ?? false),
        idleMinutes: person.role === 'pupil' ? (at?.idleMinutes ?? null) : null,
      },
    }
  }

  /**
   * Makes the school and its first teacher.
   * @throws DomainError `accounts/already-set-up`, `request/invalid` for an unknown time zone
   */
  async setUp(input: FirstRun, browser = ''): Promise<string> {
    if (!isTimeZone(input.timeZone))
      throw new DomainError('request/invalid', {
        fields: { timeZone: [fault('not-a-time-zone')] },
      })
    const now = this.#platform.clock.now()
    const passwordHash = await this.#parts.passwords.hash(input.password)
    const personId = newId()
    await this.#platform.db.transaction(async (manager) => {
      // Two first runs at once: the second waits here, then finds the school.
      await manager.query('lock table school in exclusive mode')
      if (await manager.count(SchoolRow)) throw new DomainError('accounts/already-set-up')
      const school = {
        id: newId(),
        name: input.schoolName,
        timeZone: input.timeZone,
        filmOriginals: 'always' as const,
        heldWords: FIRST_HELD_WORDS,
        createdAt: now,
      }
      await manager.insert(SchoolRow, school)
      await manager.insert(PersonRow, {
        id: personId,
        schoolId: school.id,
        role: 'teacher',
        firstName: input.firstName,
        lastName: input.lastName,
        email: input.email,
        passwordHash,
        leads: true,
        createdAt: now,
      })
      await note(manager, now, personId, 'school-set-up', school.id)
    })
    return this.#parts.sessions.open(
      { id: personId, role: 'teacher' },
      { way: 'password', browser },
    )
  }
}
