import type {
  AddParent,
  Consent,
  GuardianRequest,
  InvitedParent,
  PupilSharing,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Sessions } from '../accounts/sessions.ts'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { teachersOf } from '../notices/news.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import { classOfPerson } from '../school/classOfPerson.ts'
import { ConsentRow, GuardianRow, PersonRow, SchoolRow } from '../school/rows.ts'
import { describePupil } from './describePupil.ts'
import type { Invitations } from './invitations.ts'
import { GuardianRequestRow } from './rows.ts'

/** Who a pupil's parents are: invited, asked and taken away, and what they said yes to. */
export class Guardians {
  readonly #platform: Platform
  readonly #mail: Mail
  readonly #sessions: Sessions
  readonly #invitations: Invitations
  constructor(platform: Platform, mail: Mail, sessions: Sessions, invitations: Invitations) {
    this.#platform = platform
    this.#mail = mail
    this.#sessions = sessions
    this.#invitations = invitations
  }

  describePupil(pupilId: string): Promise<PupilSharing> {
    return describePupil(this.#platform, pupilId)
  }

  /** A parent's word, written down by whoever was told. */
  async putConsent(
    viewer: SignedIn,
    pupilId: string,
    kind: Consent['kind'],
    granted: boolean,
  ): Promise<PupilSharing> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await manager.save(ConsentRow, {
        pupilId,
        kind,
        granted,
        saidBy: viewer.personId,
        saidAt: now,
      })
      await note(
        manager,
        now,
        viewer.personId,
        `consent.${kind}.${granted ? 'yes' : 'no'}`,
        pupilId,
      )
      const parents = await manager.findBy(GuardianRow, { pupilId })
      await tell(
        manager,
        parents.map(({ parentId }) => parentId),
        { topic: 'sharing' },
      )
    })
    return this.describePupil(pupilId)
  }

  /**
   * Invites a parent of a pupil. Somebody who is here for another child already is asked first, by
   * mail and on their own page:
   * nothing is shown to them, or said of them, before they say yes. The same id again changes
   * nothing.
   * @throws DomainError `accounts/email-taken` for the address of somebody who is no parent
   */
  async inviteParent(
    viewer: SignedIn,
    pupilId: string,
    parentId: string,
    input: AddParent,
  ): Promise<InvitedParent> {
    const address = await this.#platform.db.transaction(async (manager) => {
      if (input.email) await holdName(manager, `email:${input.email}`)
      return makeOrFind(manager, PersonRow, parentId, {
        found: async () => {
          // A retry finds its own parent; anybody else's id opens nothing.
          if (!(await manager.existsBy(GuardianRow, { parentId, pupilId })))
            throw new DomainError('request/not-found')
          return null
        },
        make: () => this.#inviteNew(manager, viewer, pupilId, parentId, input),
      })
    })
    return { ...(await this.describePupil(pupilId)), address }
  }

  /** @returns the way in, when it may be told and is not mailed */
  async #inviteNew(
    manager: EntityManager,
    viewer: SignedIn,
    pupilId: string,
    parentId: string,
    input: AddParent,
  ): Promise<string | null> {
    const known = input.email ? await manager.findOneBy(PersonRow, { email: input.email }) : null
    if (known && known.role !== 'parent') throw new DomainError('accounts/email-taken')
    if (known && (await manager.existsBy(GuardianRow, { parentId: known.id, pupilId }))) return null
    if (known && (await manager.existsBy(GuardianRow, { parentId: known.id }))) {
      await this.#askKnown(manager, viewer, known, pupilId, parentId, input)
      return null
    }
    const id = known?.id ?? (await this.addParent(manager, viewer.schoolId, input, [], parentId))
    await manager.insert(GuardianRow, { parentId: id, pupilId })
    const { address } = await this.#invitations.invite(manager, viewer.personId, id)
    return input.email ? null : address
  }

  async #askKnown(
    manager: EntityManager,
    viewer: SignedIn,
    known: PersonRow,
    pupilId: string,
    id: string,
    { firstName, lastName }: AddParent,
  ): Promise<void> {
    // Asked twice, also by two teachers, there is one question.
    if (await manager.existsBy(GuardianRequestRow, { parentId: known.id, pupilId })) return
    const now = this.#platform.clock.now()
    await manager.insert(GuardianRequestRow, {
      id,
      parentId: known.id,
      pupilId,
      firstName,
      lastName,
      askedBy: viewer.personId,
      askedAt: now,
    })
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    const child = await manager.findOneByOrFail(PersonRow, { id: pupilId })
    await this.#mail.send(manager, {
      to: known.email ?? '',
      subject: strings.requestSubject(school.name),
      body: strings.request(
        known.firstName,
        child.firstName,
        school.name,
        this.#invitations.familyAddress(),
      ),
    })
    await note(manager, now, viewer.personId, 'guardian.ask', known.id, { pupilId })
    await tell(manager, [known.id], { topic: 'sharing' })
  }

  /** What a parent is asked: whether a child is theirs. */
  async listRequests(parent: SignedIn): Promise<GuardianRequest[]> {
    return ask(
      this.#platform.db.manager,
      sql`select r.id, u.first_name as "childName", (select c.name ${classOfPerson(raw('u.id'), this.#platform.clock.now())}) as "className",
         trim(a.first_name || ' ' || a.last_name) as "askedBy"
       from guardian_request r join person u on u.id = r.pupil_id and u.left_at is null join person a on a.id = r.asked_by
       where r.parent_id = ${parent.personId} order by r.asked_at, r.id`,
    )
  }

  /** A parent's own word. @throws DomainError `request/not-found` for what nobody asked them */
  async answerRequest(
    parent: SignedIn,
    requestId: string,
    yes: boolean,
  ): Promise<GuardianRequest[]> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const asked = await manager.findOne(GuardianRequestRow, {
        where: { id: requestId, parentId: parent.personId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!asked) throw new DomainError('request/not-found')
      await manager.delete(GuardianRequestRow, requestId)
      if (yes) {
        await manager.query(
          'insert into guardian (parent_id, pupil_id) values ($1, $2) on conflict do nothing',
          [parent.personId, asked.pupilId],
        )
        await this.#renewFor(manager, parent, asked.askedBy)
      }
      await note(
        manager,
        now,
        parent.personId,
        yes ? 'guardian.accept' : 'guardian.decline',
        asked.pupilId,
        {
          askedBy: asked.askedBy,
        },
      )
      const concerned = [
        parent.personId,
        asked.askedBy,
        ...(await teachersOf(manager, [asked.pupilId])),
      ]
      await tell(manager, concerned, { topic: 'sharing' })
    })
    return this.listRequests(parent)
  }

  /**
   * Another way in for somebody who has one more child from now on, mailed to them: the one before
   * may be known to whoever printed or copied it for
   * the other child. The page on which they said yes stays open, whatever was opened elsewhere does
   * not.
   */
  async #renewFor(manager: EntityManager, parent: SignedIn, invitedBy: string): Promise<void> {
    const { id } = await this.#invitations.invite(manager, invitedBy, parent.personId)
    await this.#sessions.endOthers(manager, parent)
    await manager.query('update session set invitation_id = $2 where id = $1', [
      parent.sessionId,
      id,
    ])
  }

  /**
   * Ends what a parent sees of one child, or takes the question back; with no child left, their way
   * in ends as well.
   */
  async removeParent(viewer: SignedIn, pupilId: string, parentId: string): Promise<PupilSharing> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const asked = await manager.findOneBy(GuardianRequestRow, { id: parentId, pupilId })
      if (asked) await manager.delete(GuardianRequestRow, parentId)
      else await this.#removeGuardian(manager, pupilId, parentId)
      await note(
        manager,
        now,
        viewer.personId,
        asked ? 'guardian.ask-no-more' : 'guardian.remove',
        asked?.parentId ?? parentId,
        {
          pupilId,
        },
      )
      await tell(manager, [asked?.parentId ?? parentId], { topic: 'sharing' })
    })
    return this.describePupil(pupilId)
  }

  async #removeGuardian(manager: EntityManager, pupilId: string, parentId: string): Promise<void> {
    const { affected } = await manager.delete(GuardianRow, { parentId, pupilId })
    if (!affected) throw new DomainError('request/not-found')
    await this.#endCodesTakenHome(manager, parentId, pupilId)
    if (!(await manager.existsBy(GuardianRow, { parentId })))
      await this.#invitations.withdrawAll(manager, parentId)
  }

  /** The page codes of books a parent took home by themselves; those the school gave them stay. */
  async #endCodesTakenHome(
    manager: EntityManager,
    parentId: string,
    pupilId: string | null,
  ): Promise<void> {
    await manager.query(
      `update page_link l set withdrawn_at = $3 from book b
       where b.id = l.book_id and b.requested_by = $1 and ($2::uuid is null or b.pupil_id = $2) and l.withdrawn_at is null`,
      [parentId, pupilId, this.#platform.clock.now()],
    )
  }

  /**
   * Withdraws or renews the invitation of one of a pupil's parents.
   * @throws DomainError `sharing/no-address` when a new way in could be neither told (it shows
   *   other children) nor mailed
   */
  async changeInvitation(
    viewer: SignedIn,
    pupilId: string,
    invitationId: string,
    change: 'withdraw' | 'renew',
  ): Promise<InvitedParent> {
    const now = this.#platform.clock.now()
    const address = await this.#platform.db.transaction(async (manager) => {
      const [found] = await manager.query<
        { parentId: string; email: string | null; others: boolean }[]
      >(
        `select i.parent_id as "parentId", p.email, exists (select 1 from guardian o where o.parent_id = p.id and o.pupil_id <> $2) as others
         from invitation i join guardian g on g.parent_id = i.parent_id join person p on p.id = i.parent_id where i.id = $1 and g.pupil_id = $2`,
        [invitationId, pupilId],
      )
      if (!found) throw new DomainError('request/not-found')
      if (change === 'renew') {
        if (found.others && !found.email) throw new DomainError('sharing/no-address')
        const made = await this.#invitations.invite(manager, viewer.personId, found.parentId)
        return found.email || found.others ? null : made.address
      }
      await this.#invitations.withdrawAll(manager, found.parentId)
      await this.#endCodesTakenHome(manager, found.parentId, null)
      await note(manager, now, viewer.personId, 'invitation.withdraw', found.parentId)
      return null
    })
    return { ...(await this.describePupil(pupilId)), address }
  }

  /** Makes a parent of one or more pupils. */
  async addParent(
    manager: EntityManager,
    schoolId: string,
    {
      firstName,
      lastName,
      email = null,
    }: { firstName: string; lastName: string; email?: string | null },
    pupilIds: readonly string[],
    id = newId(),
  ): Promise<string> {
    await manager.insert(PersonRow, {
      id,
      schoolId,
      role: 'parent',
      firstName,
      lastName,
      email,
      leads: false,
      createdAt: this.#platform.clock.now(),
    })
    for (const pupilId of pupilIds)
      await manager.query('insert into guardian (parent_id, pupil_id) values ($1, $2)', [
        id,
        pupilId,
      ])
    return id
  }
}
