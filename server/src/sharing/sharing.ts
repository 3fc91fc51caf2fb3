import type { Child, ChildWork, LinkedPiece } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { consents, SHOWN_AT_HOME } from '../access/facts.ts'
import type { Guard } from '../access/guard.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listSharedPieces, sharedPiece } from '../portfolio/sharedPieces.ts'
import { SchoolRow } from '../school/rows.ts'
import { listTerms } from '../school/school.ts'
import { PageLinkRow } from './rows.ts'

/** What people outside the school see. */
export class Sharing {
  readonly #platform: Platform
  readonly #guard: Guard
  constructor(platform: Platform, guard: Guard) {
    this.#platform = platform
    this.#guard = guard
  }

  async listChildren(parent: SignedIn): Promise<Child[]> {
    return this.#children(sql`where g.parent_id = ${parent.personId}`)
  }

  async #children(where: Sql): Promise<Child[]> {
    const rows = await ask<Omit<Child, 'peg'> & { symbol: never; colour: never }>(
      this.#platform.db.manager,
      sql`select distinct p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour,
         k.id as "classId", k.name as "className", ${consents('p.id')} as shared
       from person p join guardian g on g.pupil_id = p.id
         left join lateral (select c.id, c.name ${classOfPerson(raw('p.id'), this.#platform.clock.now())}) k on true ${where} order by p.first_name, p.id`,
    )
    return rows.map(({ symbol, colour, ...child }) => ({ ...child, peg: { symbol, colour } }))
  }

  /** One child's approved work in folders parents may see, where every maker's consent stands. */
  async describeChild(pupilId: string): Promise<ChildWork> {
    const manager = this.#platform.db.manager
    const [child] = await this.#children(sql`where p.id = ${pupilId}`)
    if (!child) throw new DomainError('request/not-found')
    const pieces = await listSharedPieces(
      manager,
      pupilId,
      sql`join version_maker own on own.version_id = p.approved_version_id and own.person_id = ${pupilId}
       where ${SHOWN_AT_HOME} order by p.approved_at desc, p.id`,
    )
    const terms = (await listTerms(manager)).reverse()
    return {
      child,
      newest: pieces[0] ? sharedPiece(pieces[0]) : null,
      chapters: terms
        .map(({ id, name, startsOn, endsOn }) => ({
          term: { id, name, startsOn, endsOn },
          pieces: pieces.filter(({ termId }) => termId === id).map(sharedPiece),
        }))
        .filter((chapter) => chapter.pieces.length > 0),
    }
  }

  /**
   * The piece behind a printed page.
   * @throws DomainError `sharing/link-over`, `sharing/link-for-school`
   */
  async openLink(viewer: SignedIn | null, token: string): Promise<LinkedPiece> {
    const { pieceId, expiresAt } = await this.#guard.linkedPiece(viewer, token)
    const manager = this.#platform.db.manager
    const [piece] = await listSharedPieces(manager, null, sql`where p.id = ${pieceId}`)
    if (!piece) throw new DomainError('sharing/link-over')
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    return {
      piece: sharedPiece(piece),
      schoolName: school.name,
      expiresAt: expiresAt.toISOString(),
    }
  }

  /**
   * A link for a page of a book. The same page of the same book always gets the same link.
   * @returns its token
   */
  async makePageLink(
    manager: EntityManager,
    link: { bookId: string; pieceId: string; expiresAt: Date },
  ): Promise<string> {
    const token = this.#platform.secrets.tokenFor('page-link', `${link.bookId}/${link.pieceId}`)
    const tokenHash = this.#platform.secrets.hash('page-link', token)
    await manager
      .createQueryBuilder()
      .insert()
      .into(PageLinkRow)
      .values({
        id: newId(),
        ...link,
        tokenHash,
        createdAt: this.#platform.clock.now(),
        withdrawnAt: null,
      })
      .orIgnore()
      .execute()
    return token
  }

  async withdrawPageLinks(viewer: SignedIn, bookId: string): Promise<void> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.query(
        'update page_link set withdrawn_at = $2 where book_id = $1 and withdrawn_at is null',
        [bookId, now],
      )
      await note(manager, now, viewer.personId, 'link.withdraw', bookId)
    })
  }
}
