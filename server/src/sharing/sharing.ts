import type { Child, ChildWork, LinkedPiece } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { consents, SHOWN_AT_HOME, type Guard } from '../access/guard.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
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
    return this.#children('where g.parent_id = $1', [parent.personId])
  }

  async #children(where: string, parameters: unknown[]): Promise<Child[]> {
    const rows = await this.#platform.db.manager.query<
      (Omit<Child, 'peg'> & { symbol: never; colour: never })[]
    >(
      `select distinct p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour,
         (select c.name ${classOfPerson('p.id')}) as "className", ${consents('p.id')} as shared
       from person p join guardian g on g.pupil_id = p.id ${where} order by p.first_name, p.id`,
      [...parameters, this.#platform.clock.now()],
    )
    return rows.map(({ symbol, colour, ...child }) => ({ ...child, peg: { symbol, colour } }))
  }

  /** One child's approved work in folders parents may see, where every maker's consent stands. */
  async describeChild(pupilId: string): Promise<ChildWork> {
    const manager = this.#platform.db.manager
    const [child] = await this.#children('where p.id = $1', [pupilId])
    if (!child) throw new DomainError('request/not-found')
    const pieces = await listSharedPieces(
      manager,
      `join version_maker own on own.version_id = p.approved_version_id and own.person_id = $1
       where ${SHOWN_AT_HOME} order by p.approved_at desc, p.id`,
      [pupilId],
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
    const [piece] = await listSharedPieces(manager, 'where p.id = $2', [null, pieceId])
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
