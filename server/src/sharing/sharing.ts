import type { Child, ChildWork, LinkedPiece, PupilSharing } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { allConsent, consents, type Guard } from '../access/guard.ts'
import { CLASS_OF_PERSON } from '../accounts/accounts.ts'
import { PersonRow } from '../accounts/rows.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listSharedPieces, sharedPiece } from '../portfolio/sharedPieces.ts'
import { SchoolRow } from '../school/rows.ts'
import { listTerms } from '../school/school.ts'
import { InvitationRow, PageLinkRow } from './rows.ts'

const DAY_MS = 24 * 3600 * 1000
/** An invitation ends by itself; the school renews it each year. */
const INVITATION_LASTS_MS = 365 * DAY_MS

/** What people outside the school see, and what lets them in. */
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
    const rows = await this.#platform.db.manager.query<(Omit<Child, 'peg'> & { symbol: never; colour: never })[]>(
      `select distinct p.id, p.first_name as "firstName", p.last_name as "lastName", p.peg_symbol as symbol, p.peg_colour as colour,
         (select c.name ${CLASS_OF_PERSON.replace('$1', 'p.id')}) as "className", ${consents('p.id')} as shared
       from person p join guardian g on g.pupil_id = p.id ${where} order by p.first_name, p.id`,
      parameters,
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
      `join piece_maker own on own.piece_id = p.id and own.person_id = $1
       where p.binned_at is null and f.parents_see and ${allConsent('p.id')} order by p.approved_at desc, p.id`,
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

  /** The piece behind a printed page. @throws DomainError `sharing/link-over` */
  async openLink(token: string): Promise<LinkedPiece> {
    const { pieceId, expiresAt } = await this.#guard.linkedPiece(token)
    const manager = this.#platform.db.manager
    const [piece] = await listSharedPieces(manager, 'where p.id = $2', [null, pieceId])
    if (!piece) throw new DomainError('sharing/link-over')
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    return { piece: sharedPiece(piece), schoolName: school.name, expiresAt: expiresAt.toISOString() }
  }

  /** A link for a page of a book. The same page of the same book always gets the same link. @returns its token */
  async makePageLink(manager: EntityManager, link: { bookId: string; pieceId: string; expiresAt: Date }): Promise<string> {
    const token = this.#platform.secrets.tokenFor('page-link', `${link.bookId}/${link.pieceId}`)
    const tokenHash = this.#platform.secrets.hash('page-link', token)
    await manager
      .createQueryBuilder()
      .insert()
      .into(PageLinkRow)
      .values({ id: newId(), ...link, tokenHash, createdAt: this.#platform.clock.now(), withdrawnAt: null })
      .orIgnore()
      .execute()
    return token
  }

  async withdrawPageLinks(viewer: SignedIn, bookId: string): Promise<void> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('update page_link set withdrawn_at = $2 where book_id = $1 and withdrawn_at is null', [bookId, now])
      await note(manager, now, viewer.personId, 'link.withdraw', bookId)
    })
  }

  async describePupil(pupilId: string): Promise<PupilSharing> {
    const manager = this.#platform.db.manager
    const now = this.#platform.clock.now()
    const [{ consent } = { consent: false }] = await manager.query<{ consent: boolean }[]>(
      `select ${consents('$1::uuid')} as consent`,
      [pupilId],
    )
    const rows = await manager.query<(InvitationRow & { parentName: string })[]>(
      `select i.id, i.created_at as "createdAt", i.expires_at as "expiresAt", i.withdrawn_at as "withdrawnAt", i.last_used_at as "lastUsedAt",
         trim(p.first_name || ' ' || p.last_name) as "parentName"
       from guardian g join invitation i on i.parent_id = g.parent_id join person p on p.id = i.parent_id
       where g.pupil_id = $1 order by i.created_at desc`,
      [pupilId],
    )
    return {
      consent,
      invitations: rows.map((row) => {
        const state = row.withdrawnAt ? ('withdrawn' as const) : row.expiresAt <= now ? ('ended' as const) : ('open' as const)
        return {
          id: row.id,
          parentName: row.parentName,
          state,
          createdAt: row.createdAt.toISOString(),
          expiresAt: row.expiresAt.toISOString(),
          lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
          address: state === 'open' ? this.invitationAddress(row.id) : null,
        }
      }),
    }
  }

  invitationAddress(invitationId: string): string {
    return `${this.#platform.config.publicUrl}/invitation/${this.#platform.secrets.tokenFor('invitation', invitationId)}`
  }

  /** Invites a parent anew; earlier invitations of that parent stop. @returns the invitation's id */
  async invite(manager: EntityManager, invitedBy: string, parentId: string): Promise<string> {
    const now = this.#platform.clock.now()
    const id = newId()
    await manager.query('update invitation set withdrawn_at = $2 where parent_id = $1 and withdrawn_at is null', [parentId, now])
    await manager.insert(InvitationRow, {
      id, parentId, tokenHash: this.#platform.secrets.hash('invitation', this.#platform.secrets.tokenFor('invitation', id)),
      createdBy: invitedBy, createdAt: now, expiresAt: new Date(now.getTime() + INVITATION_LASTS_MS),
    }) // prettier-ignore
    await note(manager, now, invitedBy, 'invitation.make', parentId)
    return id
  }

  /** Withdraws or renews the invitation of one of a pupil's parents. */
  async changeInvitation(
    viewer: SignedIn,
    pupilId: string,
    invitationId: string,
    change: 'withdraw' | 'renew',
  ): Promise<PupilSharing> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const [found] = await manager.query<{ parentId: string }[]>(
        'select i.parent_id as "parentId" from invitation i join guardian g on g.parent_id = i.parent_id where i.id = $1 and g.pupil_id = $2',
        [invitationId, pupilId],
      )
      if (!found) throw new DomainError('request/not-found')
      if (change === 'renew') return void (await this.invite(manager, viewer.personId, found.parentId))
      await manager.update(InvitationRow, invitationId, { withdrawnAt: now })
      await note(manager, now, viewer.personId, 'invitation.withdraw', invitationId)
    })
    return this.describePupil(pupilId)
  }

  /** Makes a parent of one or more pupils. */
  async addParent(
    manager: EntityManager,
    schoolId: string,
    name: { firstName: string; lastName: string },
    pupilIds: readonly string[],
  ): Promise<string> {
    const id = newId()
    await manager.insert(PersonRow, { id, schoolId, role: 'parent', ...name, createdAt: this.#platform.clock.now() })
    for (const pupilId of pupilIds)
      await manager.query('insert into guardian (parent_id, pupil_id) values ($1, $2)', [id, pupilId])
    return id
  }
}
