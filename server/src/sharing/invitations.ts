import type {
  AddParent,
  Consent,
  Guardian,
  GuardianRequest,
  InvitedParent,
  PupilSharing,
} from '@nibquill/contract'
import { CONSENTS } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { classOfPerson } from '../school/classOfPerson.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from '../accounts/sessions.ts'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { teachersOf } from '../notices/news.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName, makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ConsentRow, GuardianRow, SchoolRow } from '../school/rows.ts'
import type { Letter } from './drawLetters.ts'
import { GuardianRequestRow } from './rows.ts'
import { InvitationRow } from '../accounts/rows.ts'

const DAY_MS = 24 * 3600 * 1000
/** An invitation ends by itself; the school renews it each year. */
const INVITATION_LASTS_MS = 365 * DAY_MS

/** Whose letters: of a class, or of one pupil. */
type LettersOf = { classId?: string | undefined; pupilId?: string | undefined }

/**
 * Who a pupil's parents are, what they agreed to, and what lets them in.
 * A way in is told once, to whoever made it, and only where it shows nothing but the child it was
 * made for; otherwise it is mailed.
 */
export class Invitations {
  readonly #platform: Platform
  readonly #mail: Mail
  readonly #sessions: Sessions
  constructor(platform: Platform, mail: Mail, sessions: Sessions) {
    this.#platform = platform
    this.#mail = mail
    this.#sessions = sessions
  }

  async describePupil(pupilId: string): Promise<PupilSharing> {
    const manager = this.#platform.db.manager
    const said = await manager.query<
      { kind: Consent['kind']; granted: boolean; saidBy: string; saidAt: Date }[]
    >(
      `select c.kind, c.granted, trim(p.first_name || ' ' || p.last_name) as "saidBy", c.said_at as "saidAt"
       from consent c join person p on p.id = c.said_by where c.pupil_id = $1`,
      [pupilId],
    )
    return {
      consents: CONSENTS.map((kind) => {
        const word = said.find((one) => one.kind === kind)
        return {
          kind,
          granted: word?.granted ?? null,
          saidBy: word?.saidBy ?? null,
          saidAt: word?.saidAt.toISOString() ?? null,
        }
      }),
      guardians: [...(await this.#listGuardians(pupilId)), ...(await this.#listAsked(pupilId))],
    }
  }

  async #listGuardians(pupilId: string): Promise<Guardian[]> {
    type Flat = Omit<Guardian, 'invitation'> & {
      invitation: InvitationRow | null
      lastUsedAt: Date | null
    }
    const rows = await this.#platform.db.manager.query<Flat[]>(
      `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.email,
         (select max(i.last_used_at) from invitation i where i.parent_id = p.id) as "lastUsedAt",
         (select json_build_object('id', i.id, 'createdAt', i.created_at, 'expiresAt', i.expires_at, 'withdrawnAt', i.withdrawn_at)
           from invitation i where i.parent_id = p.id order by i.created_at desc, i.id desc limit 1) as invitation
       from guardian g join person p on p.id = g.parent_id where g.pupil_id = $1 order by p.created_at, p.id`,
      [pupilId],
    )
    const now = this.#platform.clock.now()
    return rows.map(({ invitation, lastUsedAt, ...guardian }) => ({
      ...guardian,
      invitation: invitation && {
        id: invitation.id,
        state: invitation.withdrawnAt
          ? 'withdrawn'
          : new Date(invitation.expiresAt) <= now
            ? 'ended'
            : 'open',
        createdAt: new Date(invitation.createdAt).toISOString(),
        expiresAt: new Date(invitation.expiresAt).toISOString(),
        lastUsedAt: lastUsedAt?.toISOString() ?? null,
      },
    }))
  }

  /**
   * Those who were asked and have not answered, under the names they were asked by: what else the
   * school knows of them is not told.
   */
  async #listAsked(pupilId: string): Promise<Guardian[]> {
    const rows = await this.#platform.db.manager.query<
      (Omit<Guardian, 'invitation'> & { askedAt: Date })[]
    >(
      `select r.id, r.first_name as "firstName", r.last_name as "lastName", p.email, r.asked_at as "askedAt"
       from guardian_request r join person p on p.id = r.parent_id where r.pupil_id = $1 order by r.asked_at, r.id`,
      [pupilId],
    )
    return rows.map(({ askedAt, ...guardian }) => ({
      ...guardian,
      invitation: {
        id: guardian.id,
        state: 'asked',
        createdAt: askedAt.toISOString(),
        expiresAt: null,
        lastUsedAt: null,
      },
    }))
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
    const { address } = await this.invite(manager, viewer.personId, id)
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
      body: strings.request(known.firstName, child.firstName, school.name, this.#familyAddress()),
    })
    await note(manager, now, viewer.personId, 'guardian.ask', known.id, { pupilId })
    await tell(manager, [known.id], { topic: 'sharing' })
  }

  /** Where a parent goes who has a way in already; no secret. */
  #familyAddress(): string {
    return `${this.#platform.config.publicUrl}/family`
  }

  /** What a parent is asked: whether a child is theirs. */
  async listRequests(parent: SignedIn): Promise<GuardianRequest[]> {
    return this.#platform.db.manager.query(
      `select r.id, u.first_name as "childName", (select c.name ${classOfPerson('u.id')}) as "className",
         trim(a.first_name || ' ' || a.last_name) as "askedBy"
       from guardian_request r join person u on u.id = r.pupil_id and u.left_at is null join person a on a.id = r.asked_by
       where r.parent_id = $1 order by r.asked_at, r.id`,
      [parent.personId, this.#platform.clock.now()],
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
    const { id } = await this.invite(manager, invitedBy, parent.personId)
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
    if (!(await manager.existsBy(GuardianRow, { parentId })))
      await this.#withdrawAll(manager, parentId)
  }

  async #withdrawAll(manager: EntityManager, parentId: string): Promise<void> {
    await manager.query(
      'update invitation set withdrawn_at = $2 where parent_id = $1 and withdrawn_at is null',
      [parentId, this.#platform.clock.now()],
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
        const made = await this.invite(manager, viewer.personId, found.parentId)
        return found.email || found.others ? null : made.address
      }
      await this.#withdrawAll(manager, found.parentId)
      await note(manager, now, viewer.personId, 'invitation.withdraw', found.parentId)
      return null
    })
    return { ...(await this.describePupil(pupilId)), address }
  }

  /**
   * The printed letters of those who are invited and have not come yet. Each carries a way in of
   * its own, made for it; those printed or
   * mailed before go on working. Who has children elsewhere gets a letter without a secret: they
   * come in as they always do.
   */
  async writeLetters(viewer: SignedIn, where: LettersOf): Promise<Letter[]> {
    return this.#platform.db.transaction(async (manager) => {
      const letters: Letter[] = []
      for (const { parentId, ...letter } of await this.#listUninvited(manager, where)) {
        const { address } = parentId
          ? await this.invite(manager, viewer.personId, parentId, { keepEarlier: true })
          : { address: this.#familyAddress() }
        letters.push({ ...letter, address })
      }
      if (letters.length > 0)
        await note(
          manager,
          this.#platform.clock.now(),
          viewer.personId,
          'letters.print',
          where.classId ?? where.pupilId ?? null,
        )
      return letters
    })
  }

  /**
   * `parentId`: of those all of whose children are among the ones asked for; null for who was only
   * asked.
   */
  #listUninvited(
    manager: EntityManager,
    where: LettersOf,
  ): Promise<{ parentId: string | null; parentName: string; children: string[] }[]> {
    const now = this.#platform.clock.now()
    const within = (pupil: string) =>
      `(${pupil} = $3 or exists (select 1 from enrolment e where e.person_id = ${pupil} and e.class_id = $2))`
    return manager.query(
      `select p.id as "parentId", trim(p.first_name || ' ' || p.last_name) as "parentName", json_agg(u.first_name order by u.first_name) as children
       from person p join guardian g on g.parent_id = p.id join person u on u.id = g.pupil_id
       where exists (select 1 from invitation i where i.parent_id = p.id and i.withdrawn_at is null and i.expires_at > $1)
         and not exists (select 1 from invitation i where i.parent_id = p.id and i.last_used_at is not null)
         and u.left_at is null and ${within('u.id')}
         and not exists (select 1 from guardian o where o.parent_id = p.id and not ${within('o.pupil_id')})
       group by p.id
       union all
       select null, trim(r.first_name || ' ' || r.last_name), json_build_array(u.first_name)
       from guardian_request r join person u on u.id = r.pupil_id and u.left_at is null where ${within('u.id')}
       order by 2`,
      [now, where.classId ?? null, where.pupilId ?? null],
    )
  }

  /**
   * Invites a parent anew and mails it where there is an address. Earlier invitations stop unless
   * they are kept.
   * @returns the invitation's id, and its address: of that only a hash is kept
   */
  async invite(
    manager: EntityManager,
    invitedBy: string,
    parentId: string,
    options: { keepEarlier: boolean } = { keepEarlier: false },
  ): Promise<{ id: string; address: string }> {
    const now = this.#platform.clock.now()
    const id = newId()
    // Short enough to be typed from a printed letter: 22 letters, 132 bits.
    const token = this.#platform.secrets.token().slice(0, 22)
    if (!options.keepEarlier) await this.#withdrawAll(manager, parentId)
    await manager.insert(InvitationRow, {
      id,
      parentId,
      tokenHash: this.#platform.secrets.hash('invitation', token),
      createdBy: invitedBy,
      createdAt: now,
      expiresAt: new Date(now.getTime() + INVITATION_LASTS_MS),
      withdrawnAt: null,
      lastUsedAt: null,
    })
    const address = `${this.#platform.config.publicUrl}/invitation/${token}`
    await note(manager, now, invitedBy, 'invitation.make', parentId)
    if (!options.keepEarlier) await this.#mailInvitation(manager, parentId, address)
    return { id, address }
  }

  async #mailInvitation(manager: EntityManager, parentId: string, address: string): Promise<void> {
    const parent = await manager.findOneByOrFail(PersonRow, { id: parentId })
    if (!parent.email) return
    const school = await manager.findOneOrFail(SchoolRow, { where: {} })
    const children = await manager.query<{ name: string }[]>(
      'select p.first_name as name from guardian g join person p on p.id = g.pupil_id where g.parent_id = $1 order by p.first_name',
      [parentId],
    )
    const child = children.map(({ name }) => name).join(' and ')
    await this.#mail.send(manager, {
      to: parent.email,
      subject: strings.parentSubject(child),
      personId: parentId,
      secret: address,
      body: strings.parent(
        `${parent.firstName} ${parent.lastName}`.trim(),
        child,
        school.name,
        address,
      ),
    })
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
