import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { InvitationRow } from '../accounts/rows.ts'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import { PersonRow, SchoolRow } from '../school/rows.ts'
import type { Letter } from './drawLetters.ts'

const DAY_MS = 24 * 3600 * 1000
/** An invitation ends by itself; the school renews it each year. */
const INVITATION_LASTS_MS = 365 * DAY_MS

/** Whose letters: of a class, or of one pupil. */
type LettersOf = { classId?: string | undefined; pupilId?: string | undefined }

/**
 * What lets parents in, by mail or on paper. A way in is told once, to whoever made it, and only
 * where it shows nothing but the child it was made for; otherwise it is mailed.
 */
export class Invitations {
  readonly #platform: Platform
  readonly #mail: Mail
  constructor(platform: Platform, mail: Mail) {
    this.#platform = platform
    this.#mail = mail
  }

  /** Ends every way in a parent was given. */
  async withdrawAll(manager: EntityManager, parentId: string): Promise<void> {
    await manager.query(
      'update invitation set withdrawn_at = $2 where parent_id = $1 and withdrawn_at is null',
      [parentId, this.#platform.clock.now()],
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
    if (!options.keepEarlier) await this.withdrawAll(manager, parentId)
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

  /** Where a parent goes who has a way in already; no secret. */
  familyAddress(): string {
    return `${this.#platform.config.publicUrl}/family`
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
          : { address: this.familyAddress() }
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
      sql`(${raw(pupil)} = ${where.pupilId ?? null} or exists (select 1 from enrolment e where e.person_id = ${raw(pupil)} and e.class_id = ${where.classId ?? null}))`
    return ask(
      manager,
      sql`select p.id as "parentId", trim(p.first_name || ' ' || p.last_name) as "parentName", json_agg(u.first_name order by u.first_name) as children
       from person p join guardian g on g.parent_id = p.id join person u on u.id = g.pupil_id
       where exists (select 1 from invitation i where i.parent_id = p.id and i.withdrawn_at is null and i.expires_at > ${now})
         and not exists (select 1 from invitation i where i.parent_id = p.id and i.last_used_at is not null)
         and u.left_at is null and ${within('u.id')}
         and not exists (select 1 from guardian o where o.parent_id = p.id and not ${within('o.pupil_id')})
       group by p.id
       union all
       select null, trim(r.first_name || ' ' || r.last_name), json_build_array(u.first_name)
       from guardian_request r join person u on u.id = r.pupil_id and u.left_at is null where ${within('u.id')}
       order by 2`,
    )
  }
}
