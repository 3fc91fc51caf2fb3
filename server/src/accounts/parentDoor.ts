import type { InvitationLook } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { IsNull } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import { addJob } from '../platform/queue.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import { SchoolRow } from '../school/rows.ts'
import { InvitationRow } from './rows.ts'
import { noteFailed } from './noteFailed.ts'
import { MailCodeRow } from './rows.ts'
import { PersonRow } from '../school/rows.ts'
import type { Sessions } from './sessions.ts'
import type { SignInLimits } from './signInLimits.ts'

/** Written in two groups of four. */
const CODE_DIGITS = 8
const CODE_LASTS_MS = 15 * 60_000
/**
 * A hundred million codes and sixty tries, most of them slowed down: a stranger's chance is one in
 * a million for each letter.
 */
const TRIES_A_CODE = 60

/** How parents come in: by invitation first, then by a code that is sent to their e-mail. */
export class ParentDoor {
  readonly #platform: Platform
  readonly #limits: SignInLimits
  readonly #sessions: Sessions
  readonly #mail: Mail
  constructor(platform: Platform, limits: SignInLimits, sessions: Sessions, mail: Mail) {
    this.#platform = platform
    this.#limits = limits
    this.#sessions = sessions
    this.#mail = mail
  }

  /**
   * Whose work an invitation opens; it is not used up by being looked at.
   * @throws DomainError `accounts/invitation-over`
   */
  async lookAtInvitation(token: string, countedBy: string): Promise<InvitationLook> {
    const children = await this.#limits.count([countedBy], async () => {
      const rows = await ask<{ name: string | null }>(
        this.#platform.db.manager,
        sql`select p.first_name as name from invitation i left join guardian g on g.parent_id = i.parent_id left join person p on p.id = g.pupil_id
          where i.token_hash = ${this.#platform.secrets.hash('invitation', token)} and i.withdrawn_at is null and i.expires_at > ${this.#platform.clock.now()}
          order by p.first_name, p.id`,
      )
      if (rows.length > 0) return rows
      await noteFailed(this.#platform, null, 'invitation')
      throw new DomainError('accounts/invitation-over')
    })
    return { childNames: children.flatMap(({ name }) => (name === null ? [] : [name])) }
  }

  /** @throws DomainError `accounts/invitation-over` */
  async signInByInvitation(token: string, countedBy: string, browser: string): Promise<string> {
    const now = this.#platform.clock.now()
    const invitation = await this.#limits.count([countedBy], async () => {
      const [rows] = await this.#platform.db.manager.query<
        [{ id: string; parent_id: string }[], number]
      >(
        `update invitation set last_used_at = $2 where token_hash = $1 and withdrawn_at is null and expires_at > $2 returning id, parent_id`,
        [this.#platform.secrets.hash('invitation', token), now],
      )
      if (!rows[0]) {
        await noteFailed(this.#platform, null, 'invitation')
        throw new DomainError('accounts/invitation-over')
      }
      return rows[0]
    })
    return this.#sessions.open(
      { id: invitation.parent_id, role: 'parent' },
      { way: 'invitation', browser, invitationId: invitation.id },
    )
  }

  /**
   * Mails a code to a parent whose invitation still stands. Whether somebody has this address stays
   * unsaid, also by the time it takes.
   * Codes sent before go on working: whoever asks in somebody's name takes nothing from them.
   * @throws DomainError `accounts/too-many-tries`
   */
  async sendCode(email: string, countedBy: string): Promise<void> {
    const anyway = await this.#limits.countLetter(email, countedBy)
    const { manager } = this.#platform.db
    const person = await manager.findOneBy(PersonRow, { email })
    await addJob(
      manager,
      'accounts.mail-way-in',
      { by: 'code', personId: person?.id ?? null, anyway },
      newId(),
    )
  }

  /**
   * The job `accounts.mail-way-in` by code.
   * @param anyway - Also while one that was sent still opens something.
   */
  async mailCode(personId: string, anyway: boolean): Promise<void> {
    const now = this.#platform.clock.now()
    const person = await this.#platform.db.manager.findOneBy(PersonRow, { id: personId })
    const found = person?.email ? await this.#invited(person.email) : null
    if (!found) return
    const code = this.#platform.secrets.digits(CODE_DIGITS)
    const written = `${code.slice(0, 4)} ${code.slice(4)}`
    await this.#platform.db.transaction(async (manager) => {
      const [open] = await manager.query<unknown[]>(
        'select 1 from mail_code where person_id = $1 and expires_at > $2 limit 1',
        [personId, now],
      )
      if (open && !anyway) return
      await manager.insert(MailCodeRow, {
        id: newId(),
        personId: found.person.id,
        codeHash: this.#platform.secrets.hash('mail-code', `${found.person.id}/${code}`),
        tries: 0,
        createdAt: now,
        expiresAt: new Date(now.getTime() + CODE_LASTS_MS),
      })
      const { name } = await manager.findOneOrFail(SchoolRow, { where: {} })
      await this.#mail.send(manager, {
        to: found.person.email ?? '',
        subject: strings.codeSubject(written),
        body: strings.code(found.person.firstName, name, written),
        personId,
        secret: written,
      })
    })
  }

  /**
   * @throws DomainError `accounts/mail-code-wrong` also when it is too old, tried too often or for
   *   somebody who was never asked
   */
  async signInByCode(
    email: string,
    code: string,
    countedBy: string,
    browser: string,
  ): Promise<string> {
    const found = await this.#limits.countFor(email, countedBy, async () => {
      const invited = await this.#invited(email)
      if (!invited || !(await this.#takeCode(invited.person.id, code))) {
        await noteFailed(this.#platform, invited?.person.id ?? null, 'mail-code')
        throw new DomainError('accounts/mail-code-wrong')
      }
      return invited
    })
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      found.person.id,
      'mail-code.used',
      null,
    )
    return this.#sessions.open(found.person, {
      way: 'mail-code',
      browser,
      invitationId: found.invitation.id,
    })
  }

  /**
   * Counts the try first, then compares, in one statement each, so that tries sent together cannot
   * share a count.
   */
  async #takeCode(personId: string, code: string): Promise<boolean> {
    const [counted] = await this.#platform.db.manager.query<
      [{ id: string; code_hash: string }[], number]
    >(
      'update mail_code set tries = tries + 1 where person_id = $1 and expires_at > $2 and tries < $3 returning id, code_hash',
      [personId, this.#platform.clock.now(), TRIES_A_CODE],
    )
    const typed = this.#platform.secrets.hash(
      'mail-code',
      `${personId}/${code.replaceAll(/\D/g, '')}`,
    )
    const row = counted.find(({ code_hash: hash }) => hash === typed)
    if (!row) return false
    // Of two who type it at once, one finds it; the others that were sent have done their work as
    // well.
    const { affected } = await this.#platform.db.manager.delete(MailCodeRow, { id: row.id })
    if (affected) await this.#platform.db.manager.delete(MailCodeRow, { personId })
    return Boolean(affected)
  }

  /**
   * A parent with a child here and an invitation nobody withdrew; that it has ended by itself does
   * not matter to somebody who can read their mail.
   */
  async #invited(email: string): Promise<{ person: PersonRow; invitation: InvitationRow } | null> {
    const { manager } = this.#platform.db
    const person = await manager.findOneBy(PersonRow, { email, role: 'parent', leftAt: IsNull() })
    if (!person) return null
    const invitation = await manager.findOne(InvitationRow, {
      where: { parentId: person.id, withdrawnAt: IsNull() },
      order: { createdAt: 'DESC', id: 'DESC' },
    })
    return invitation && { person, invitation }
  }
}
