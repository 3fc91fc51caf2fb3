import { DomainError } from '@nibquill/core'
import { IsNull } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { SchoolRow } from '../school/rows.ts'
import { InvitationRow } from '../sharing/rows.ts'
import { MailCodeRow, PersonRow } from './rows.ts'
import type { Sessions } from './sessions.ts'
import type { SignInLimits } from './signInLimits.ts'

const CODE_DIGITS = 6
const CODE_LASTS_MS = 15 * 60_000
/** A million codes and five tries: a stranger's chance is one in two hundred thousand for each letter, and four letters go out an hour. */
const TRIES_A_CODE = 5

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

  /** @throws DomainError `accounts/invitation-over` */
  async signInByInvitation(token: string, countedBy: string, browser: string): Promise<string> {
    const now = this.#platform.clock.now()
    const invitation = await this.#limits.count([countedBy], async () => {
      const [rows] = await this.#platform.db.manager.query<[{ id: string; parent_id: string }[], number]>(
        `update invitation set last_used_at = $2 where token_hash = $1 and withdrawn_at is null and expires_at > $2 returning id, parent_id`,
        [this.#platform.secrets.hash('invitation', token), now],
      )
      if (!rows[0]) throw new DomainError('accounts/invitation-over')
      return rows[0]
    })
    return this.#sessions.open(
      { id: invitation.parent_id, role: 'parent' },
      { way: 'invitation', browser, invitationId: invitation.id },
    )
  }

  /** Mails a code to a parent whose invitation still stands. Whether somebody has this address stays unsaid. */
  async sendCode(email: string, countedBy: string): Promise<void> {
    await this.#limits.spend(`letter:${email}`)
    await this.#limits.spend(countedBy)
    const found = await this.#invited(email)
    if (!found) return
    const now = this.#platform.clock.now()
    const code = this.#platform.secrets.digits(CODE_DIGITS)
    await this.#platform.db.transaction(async (manager) => {
      await manager.delete(MailCodeRow, { personId: found.person.id })
      await manager.insert(MailCodeRow, {
        id: newId(), personId: found.person.id, codeHash: this.#platform.secrets.hash('mail-code', `${found.person.id}/${code}`),
        tries: 0, createdAt: now, expiresAt: new Date(now.getTime() + CODE_LASTS_MS),
      }) // prettier-ignore
      const { name } = await manager.findOneOrFail(SchoolRow, { where: {} })
      await this.#mail.send(manager, {
        to: email,
        subject: strings.codeSubject(code),
        body: strings.code(found.person.firstName, name, code),
      })
    })
  }

  /** @throws DomainError `accounts/mail-code-wrong` also when it is too old, tried too often or for somebody who was never asked */
  async signInByCode(email: string, code: string, countedBy: string, browser: string): Promise<string> {
    const found = await this.#limits.count([countedBy, `email:${email}`], async () => {
      const invited = await this.#invited(email)
      if (!invited || !(await this.#takeCode(invited.person.id, code))) throw new DomainError('accounts/mail-code-wrong')
      return invited
    })
    await note(this.#platform.db.manager, this.#platform.clock.now(), found.person.id, 'mail-code.used', null)
    return this.#sessions.open(found.person, { way: 'mail-code', browser, invitationId: found.invitation.id })
  }

  /** Counts the try first, then compares, in one statement each, so that tries sent together cannot share a count. */
  async #takeCode(personId: string, code: string): Promise<boolean> {
    const [counted] = await this.#platform.db.manager.query<[{ id: string; code_hash: string }[], number]>(
      'update mail_code set tries = tries + 1 where person_id = $1 and expires_at > $2 and tries < $3 returning id, code_hash',
      [personId, this.#platform.clock.now(), TRIES_A_CODE],
    )
    const row = counted[0]
    const typed = this.#platform.secrets.hash('mail-code', `${personId}/${code.replaceAll(/\D/g, '')}`)
    if (!row || row.code_hash !== typed) return false
    const { affected } = await this.#platform.db.manager.delete(MailCodeRow, { id: row.id })
    return Boolean(affected)
  }

  /** A parent with a child here and an invitation nobody withdrew; that it has ended by itself does not matter to somebody who can read their mail. */
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
