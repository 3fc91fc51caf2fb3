import {
  CONSENTS,
  type AddParent,
  type Child,
  type ChildWork,
  type Consent,
  type Guardian,
  type LinkedPiece,
  type PupilSharing,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { allConsent, consents, type Guard } from '../access/guard.ts'
import { classOfPerson } from '../accounts/classOfPerson.ts'
import { PersonRow } from '../accounts/rows.ts'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listSharedPieces, sharedPiece } from '../portfolio/sharedPieces.ts'
import { ConsentRow, GuardianRow, SchoolRow } from '../school/rows.ts'
import { listTerms } from '../school/school.ts'
import type { Letter } from './drawLetters.ts'
import { InvitationRow, PageLinkRow } from './rows.ts'

const DAY_MS = 24 * 3600 * 1000
/** An invitation ends by itself; the school renews it each year. */
const INVITATION_LASTS_MS = 365 * DAY_MS

/** What people outside the school see, and what lets them in. */
export class Sharing {
  readonly #platform: Platform
  readonly #guard: Guard
  readonly #mail: Mail
  constructor(platform: Platform, guard: Guard, mail: Mail) {
    this.#platform = platform
    this.#guard = guard
    this.#mail = mail
  }

  async listChildren(parent: SignedIn): Promise<Child[]> {
    return this.#children('where g.parent_id = $1', [parent.personId])
  }

  async #children(where: string, parameters: unknown[]): Promise<Child[]> {
    const rows = await this.#platform.db.manager.query<(Omit<Child, 'peg'> & { symbol: never; colour: never })[]>(
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

  /** What a pupil's parents agreed to, who they are and what lets them in. */
  async describePupil(pupilId: string): Promise<PupilSharing> {
    const manager = this.#platform.db.manager
    const now = this.#platform.clock.now()
    const said = await manager.query<{ kind: Consent['kind']; granted: boolean; saidBy: string; saidAt: Date }[]>(
      `select c.kind, c.granted, trim(p.first_name || ' ' || p.last_name) as "saidBy", c.said_at as "saidAt"
       from consent c join person p on p.id = c.said_by where c.pupil_id = $1`,
      [pupilId],
    )
    const guardians = await manager.query<(Omit<Guardian, 'invitation'> & { invitation: InvitationRow | null })[]>(
      `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.email,
         coalesce((select json_agg(o.first_name order by o.first_name) from guardian h join person o on o.id = h.pupil_id
           where h.parent_id = p.id and h.pupil_id <> $1), '[]') as "otherChildren",
         (select json_build_object('id', i.id, 'createdAt', i.created_at, 'expiresAt', i.expires_at, 'withdrawnAt', i.withdrawn_at, 'lastUsedAt', i.last_used_at)
           from invitation i where i.parent_id = p.id order by i.created_at desc, i.id desc limit 1) as invitation
       from guardian g join person p on p.id = g.parent_id where g.pupil_id = $1 order by p.created_at, p.id`,
      [pupilId],
    )
    return {
      consents: CONSENTS.map((kind) => {
        const word = said.find((one) => one.kind === kind)
        return { kind, granted: word?.granted ?? null, saidBy: word?.saidBy ?? null, saidAt: word?.saidAt.toISOString() ?? null }
      }),
      guardians: guardians.map(({ invitation, ...guardian }) => ({
        ...guardian,
        invitation: invitation && this.#describeInvitation(invitation, now),
      })),
    }
  }

  #describeInvitation(row: InvitationRow, now: Date): NonNullable<Guardian['invitation']> {
    const iso = (at: Date | string) => new Date(at).toISOString()
    const state = row.withdrawnAt
      ? ('withdrawn' as const)
      : new Date(row.expiresAt) <= now
        ? ('ended' as const)
        : ('open' as const)
    return {
      id: row.id, state, createdAt: iso(row.createdAt), expiresAt: iso(row.expiresAt), lastUsedAt: row.lastUsedAt && iso(row.lastUsedAt),
      address: state === 'open' ? this.invitationAddress(row.id) : null,
    } // prettier-ignore
  }

  /** A parent's word, written down by whoever was told. */
  async putConsent(viewer: SignedIn, pupilId: string, kind: Consent['kind'], granted: boolean): Promise<PupilSharing> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.save(ConsentRow, { pupilId, kind, granted, saidBy: viewer.personId, saidAt: now })
      await note(manager, now, viewer.personId, `consent.${kind}.${granted ? 'yes' : 'no'}`, pupilId)
      const parents = await manager.findBy(GuardianRow, { pupilId })
      await tell(manager, parents.map(({ parentId }) => parentId), { topic: 'sharing' }) // prettier-ignore
    })
    return this.describePupil(pupilId)
  }

  /**
   * Invites a parent of a pupil: a new one, or by their e-mail address one who is here for another child, who then sees both.
   * With an address the invitation goes out by mail. The same id again changes nothing.
   */
  async inviteParent(viewer: SignedIn, pupilId: string, parentId: string, input: AddParent): Promise<PupilSharing> {
    await this.#platform.db.transaction(async (manager) => {
      if (await manager.existsBy(PersonRow, { id: parentId })) {
        // A retry finds its own parent; anybody else's id opens nothing.
        if (!(await manager.existsBy(GuardianRow, { parentId, pupilId }))) throw new DomainError('request/not-found')
        return
      }
      const known = input.email ? await manager.findOneBy(PersonRow, { email: input.email, schoolId: viewer.schoolId }) : null
      if (known && known.role !== 'parent') throw new DomainError('accounts/email-taken')
      const id = known?.id ?? (await this.addParent(manager, viewer.schoolId, input, [], parentId))
      await manager.query('insert into guardian (parent_id, pupil_id) values ($1, $2) on conflict do nothing', [id, pupilId])
      // Whoever has a way in keeps it: a second child needs no second invitation.
      if (!known || !(await this.#hasOpenInvitation(manager, id))) await this.invite(manager, viewer.personId, id)
      else await note(manager, this.#platform.clock.now(), viewer.personId, 'guardian.add', id)
    })
    return this.describePupil(pupilId)
  }

  async #hasOpenInvitation(manager: EntityManager, parentId: string): Promise<boolean> {
    const [open] = await manager.query<unknown[]>(
      'select 1 from invitation where parent_id = $1 and withdrawn_at is null and expires_at > $2',
      [parentId, this.#platform.clock.now()],
    )
    return Boolean(open)
  }

  /** Ends what a parent sees of one child; with no child left, their way in ends as well. */
  async removeParent(viewer: SignedIn, pupilId: string, parentId: string): Promise<PupilSharing> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const { affected } = await manager.delete(GuardianRow, { parentId, pupilId })
      if (!affected) throw new DomainError('request/not-found')
      if (!(await manager.existsBy(GuardianRow, { parentId })))
        await manager.query('update invitation set withdrawn_at = $2 where parent_id = $1 and withdrawn_at is null', [
          parentId,
          now,
        ])
      await note(manager, now, viewer.personId, 'guardian.remove', parentId)
      await tell(manager, [parentId], { topic: 'sharing' })
    })
    return this.describePupil(pupilId)
  }

  /** The printed letters of those who are invited and have not come yet: of a class, or of one pupil. */
  async writeLetters(where: { classId?: string | undefined; pupilId?: string | undefined }): Promise<Letter[]> {
    const now = this.#platform.clock.now()
    const rows = await this.#platform.db.manager.query<{ invitationId: string; parentName: string; children: string[] }[]>(
      `select i.id as "invitationId", trim(p.first_name || ' ' || p.last_name) as "parentName",
         json_agg(u.first_name order by u.first_name) as children
       from guardian g join person p on p.id = g.parent_id join person u on u.id = g.pupil_id and u.left_at is null
         join invitation i on i.parent_id = p.id and i.withdrawn_at is null and i.expires_at > $1 and i.last_used_at is null
       where exists (select 1 from guardian h left join enrolment e on e.person_id = h.pupil_id
         where h.parent_id = p.id and (e.class_id = $2 or h.pupil_id = $3))
       group by i.id, p.id order by min(u.first_name), p.id`,
      [now, where.classId ?? null, where.pupilId ?? null],
    )
    return rows.map(({ invitationId, ...letter }) => ({ ...letter, address: this.invitationAddress(invitationId) }))
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
    await this.#mailInvitation(manager, parentId, id)
    return id
  }

  async #mailInvitation(manager: EntityManager, parentId: string, invitationId: string): Promise<void> {
    const parent = await manager.findOneByOrFail(PersonRow, { id: parentId })
    if (!parent.email) return
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    const children = await manager.query<{ name: string }[]>(
      'select p.first_name as name from guardian g join person p on p.id = g.pupil_id where g.parent_id = $1 order by p.first_name',
      [parentId],
    )
    const child = children.map(({ name }) => name).join(' and ')
    await this.#mail.send(manager, {
      to: parent.email, subject: strings.parentSubject(child),
      body: strings.parent(`${parent.firstName} ${parent.lastName}`.trim(), child, school.name, this.invitationAddress(invitationId)),
    }) // prettier-ignore
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
    { firstName, lastName, email = null }: { firstName: string; lastName: string; email?: string | null },
    pupilIds: readonly string[],
    id = newId(),
  ): Promise<string> {
    await manager.insert(PersonRow, {
      id, schoolId, role: 'parent', firstName, lastName, email, leads: false, createdAt: this.#platform.clock.now(),
    }) // prettier-ignore
    for (const pupilId of pupilIds)
      await manager.query('insert into guardian (parent_id, pupil_id) values ($1, $2)', [id, pupilId])
    return id
  }
}
