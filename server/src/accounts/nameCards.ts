import {
  cardCodePrefix,
  makeCardCode,
  pegName,
  readCardCode,
  writeCardLink,
  type Colour,
  type PegSymbol,
} from '@nibquill/core'
import { IsNull, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { teachersOf, tellStaff } from '../notices/news.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { EnrolmentRow } from '../school/rows.ts'
import type { Card } from './drawCards.ts'
import { NameCardRow } from './rows.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from './sessions.ts'
import { sharesFirstName } from './sharesFirstName.ts'

/** Whose cards: a class's, or one pupil's. */
export type CardsWhere = { classId: string | null; pupilId: string | null }
export type PreparedCard = Card & { pupilId: string }
type PersonLook = {
  id: string
  firstName: string
  lastName: string
  isShared: boolean
  className: string
  symbol: PegSymbol | null
  colour: Colour | null
}

/** A pupil's own card: opens their desk from anywhere. */
export class NameCards {
  readonly #platform: Platform
  readonly #sessions: Sessions
  constructor(platform: Platform, sessions: Sessions) {
    this.#platform = platform
    this.#sessions = sessions
  }

  /**
   * @param letters - As `readCardCode` gives them.
   * @returns a session's token; null when no card in use has this code
   */
  async signIn(letters: string, browser: string): Promise<string | null> {
    const card = await this.#platform.db.manager.findOneBy(NameCardRow, {
      codeHash: this.#platform.secrets.hash('card', letters),
      revokedAt: IsNull(),
    })
    const pupil =
      card &&
      (await this.#platform.db.manager.findOneBy(PersonRow, { id: card.pupilId, leftAt: IsNull() }))
    return card && pupil
      ? this.#sessions.open(pupil, { way: 'card', browser, nameCardId: card.id })
      : null
  }

  async renew(viewer: SignedIn, pupilId: string): Promise<string> {
    return this.#platform.db.transaction(async (manager) => {
      await note(manager, this.#platform.clock.now(), viewer.personId, 'name-card', pupilId)
      await this.tellTeachers(manager, viewer.personId, { pupilId, classId: null })
      return this.issue(manager, pupilId)
    })
  }

  /** That there are new cards is news for those who teach the pupils: who holds one is in. */
  async tellTeachers(
    manager: EntityManager,
    byId: string,
    { classId, pupilId }: CardsWhere,
  ): Promise<void> {
    const pupils = pupilId
      ? [pupilId]
      : (await manager.findBy(EnrolmentRow, { classId: classId ?? '' })).map(
          ({ personId }) => personId,
        )
    const deed = {
      kind: 'name-card',
      byId,
      subjectId: pupilId,
      classId,
      happenedAt: this.#platform.clock.now(),
    } as const
    await tellStaff(manager, await teachersOf(manager, pupils), deed)
  }

  /** Cards for pupils, ready to be printed; none of them works before it is put into use. */
  async prepare(manager: EntityManager, where: CardsWhere): Promise<PreparedCard[]> {
    const inClass = classOfPerson(raw('p.id'), this.#platform.clock.now())
    const pupils = await ask<PersonLook>(
      manager,
      sql`select p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour,
         ${raw(sharesFirstName('p'))} as "isShared",
         coalesce((select name from class where id = ${where.classId}), (select c.name ${inClass}), '') as "className"
       from person p
       where p.role = 'pupil' and p.left_at is null
         and (p.id = ${where.pupilId} or exists (select 1 from enrolment e where e.person_id = p.id and e.class_id = ${where.classId}))
       order by p.first_name, p.last_name, p.id`,
    )
    return pupils.map(({ id, firstName, lastName, isShared, className, symbol, colour }) => {
      const code = makeCardCode(() => this.#platform.secrets.byte())
      const peg = symbol && colour ? { symbol, colour } : null
      return {
        pupilId: id,
        name: pegName(firstName, lastName, isShared),
        className,
        peg,
        code,
        address: writeCardLink(this.#platform.config.publicUrl, code),
      }
    })
  }

  /**
   * Gives a pupil a new name card; the old ones stop, and what they opened ends.
   * @returns the code, which is kept nowhere
   */
  async issue(
    manager: EntityManager,
    pupilId: string,
    code = makeCardCode(() => this.#platform.secrets.byte()),
  ): Promise<string> {
    const now = this.#platform.clock.now()
    await manager.update(NameCardRow, { pupilId, revokedAt: IsNull() }, { revokedAt: now })
    const codeHash = this.#platform.secrets.hash('card', code)
    await manager.insert(NameCardRow, {
      id: newId(),
      pupilId,
      codeHash,
      createdAt: now,
      revokedAt: null,
    })
    return code
  }
}

/**
 * What a wrong code is counted by, and the letters of one that can be a code at all.
 * @param countedBy - As `KnownBrowsers` gives it.
 */
export function readTry(
  code: string,
  countedBy: string,
): { letters: string | null; keys: string[] } {
  const letters = readCardCode(code)
  return { letters, keys: [countedBy, ...(letters ? [`prefix:${cardCodePrefix(letters)}`] : [])] }
}
