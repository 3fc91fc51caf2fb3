import { hash, verify } from '@node-rs/argon2'
import type {
  ChangePassword,
  ChoosePassword,
  PasswordLink,
  PasswordSignIn,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Mail } from '../mail/mail.ts'
import { strings } from '../mail/strings.ts'
import { note } from '../platform/audit.ts'
import { addJob } from '../platform/queue.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SchoolRow } from '../school/rows.ts'
import type { OneTimeCodes } from './oneTimeCodes.ts'
import { PasswordLinkRow } from './rows.ts'
import { PersonRow } from '../school/rows.ts'
import { noteFailed } from './noteFailed.ts'
import type { Sessions } from './sessions.ts'
import type { SignInLimits } from './signInLimits.ts'

const HOUR_MS = 3_600_000
/** Long enough for somebody who starts after the holidays. */
const FIRST_LINK_LASTS_MS = 30 * 24 * HOUR_MS
const FORGOTTEN_LINK_LASTS_MS = HOUR_MS
/** OWASP Password Storage Cheat Sheet: argon2id, 19 MiB, two passes, one lane. */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

/** How staff come in: e-mail, password and, where somebody chose so, a one-time code. */
export class Passwords {
  readonly #platform: Platform
  readonly #limits: SignInLimits
  readonly #sessions: Sessions
  readonly #codes: OneTimeCodes
  readonly #mail: Mail
  /** Checked when no such person is there, so that the answer takes as long. */
  readonly #nobody = hash('nobody has this password', ARGON)
  constructor(
    platform: Platform,
    limits: SignInLimits,
    sessions: Sessions,
    codes: OneTimeCodes,
    mail: Mail,
  ) {
    this.#platform = platform
    this.#limits = limits
    this.#sessions = sessions
    this.#codes = codes
    this.#mail = mail
  }

  /**
   * @throws DomainError `accounts/password-wrong`, `accounts/code-needed`, `accounts/code-wrong`,
   *   `accounts/too-many-tries`
   */
  async signIn(
    { email, password, oneTimeCode }: PasswordSignIn,
    countedBy: string,
    browser: string,
  ): Promise<string> {
    const person = await this.#limits.countFor(email, countedBy, async () => {
      const found = await this.#platform.db.manager.findOneBy(PersonRow, { email })
      const right = await verify(found?.passwordHash ?? (await this.#nobody), password)
      if (!found?.passwordHash || found.leftAt || !right) {
        await noteFailed(this.#platform, found?.id ?? null, 'password')
        throw new DomainError('accounts/password-wrong')
      }
      return found
    })
    if (oneTimeCode !== undefined) await this.#checkCode(person.id, oneTimeCode)
    if (oneTimeCode === undefined && (await this.#codes.isOn(person.id)))
      throw new DomainError('accounts/code-needed')
    return this.#sessions.open(person, { way: 'password', browser })
  }

  /**
   * Codes cannot be tried without end, not even with the right password.
   * @throws DomainError `accounts/code-wrong`
   */
  async #checkCode(personId: string, code: string): Promise<void> {
    await this.#limits.count([`code:${personId}`], () =>
      this.#codes.check(personId, code).catch(async (refusal: unknown) => {
        await noteFailed(this.#platform, personId, 'one-time-code')
        throw refusal
      }),
    )
  }

  /**
   * A link that lets a member of staff choose a password, once. Those sent before go on working
   * until one of them is used: whoever asks in
   * somebody's name takes nothing from them.
   * @returns its address
   */
  async makeLink(
    manager: EntityManager,
    personId: string,
    lastsMs = FIRST_LINK_LASTS_MS,
  ): Promise<string> {
    const now = this.#platform.clock.now()
    const token = this.#platform.secrets.token()
    await manager.insert(PasswordLinkRow, {
      id: newId(),
      personId,
      tokenHash: this.#platform.secrets.hash('password-link', token),
      createdAt: now,
      expiresAt: new Date(now.getTime() + lastsMs),
    })
    return `${this.#platform.config.publicUrl}/password/${token}`
  }

  /**
   * Mails a link for a new password. Whether somebody has this address stays unsaid, also by the
   * time it takes: the letter is written by a
   * job, for nobody as well.
   * @throws DomainError `accounts/too-many-tries`
   */
  async forgotten(email: string, countedBy: string): Promise<void> {
    const anyway = await this.#limits.countLetter(email, countedBy)
    const { manager } = this.#platform.db
    const person = await manager.findOneBy(PersonRow, { email })
    await addJob(
      manager,
      'accounts.mail-way-in',
      { by: 'password', personId: person?.id ?? null, anyway },
      newId(),
    )
  }

  /**
   * The job `accounts.mail-way-in` by password.
   * @param anyway - Also while one that was sent still opens something.
   */
  async mailForgotten(personId: string, anyway: boolean): Promise<void> {
    await this.#platform.db.transaction(async (within) => {
      const person = await within.findOneBy(PersonRow, { id: personId })
      if (
        !person?.email ||
        person.leftAt ||
        (person.role !== 'teacher' && person.role !== 'office')
      )
        return
      const [open] = await within.query<unknown[]>(
        'select 1 from password_link where person_id = $1 and used_at is null and expires_at > $2 limit 1',
        [personId, this.#platform.clock.now()],
      )
      if (open && !anyway) return
      const { name } = await within.findOneOrFail(SchoolRow, { where: {} })
      const link = await this.makeLink(within, person.id, FORGOTTEN_LINK_LASTS_MS)
      await this.#mail.send(within, {
        to: person.email,
        subject: strings.forgottenSubject,
        body: strings.forgotten(person.firstName, name, link),
        personId: person.id,
        secret: link,
      })
      await note(within, this.#platform.clock.now(), person.id, 'password-forgotten', person.id)
    })
  }

  /**
   * Letters sent before open nothing any more: after a new password, and for whoever left, also
   * when they come back.
   */
  async endLinks(manager: EntityManager, personId: string): Promise<void> {
    const now = this.#platform.clock.now()
    await manager.query(
      'update password_link set used_at = $2 where person_id = $1 and used_at is null',
      [personId, now],
    )
  }

  async describeLink(token: string, countedBy: string): Promise<PasswordLink> {
    const { person } = await this.#findLink(token, countedBy)
    const school = await this.#platform.db.manager.findOneOrFail(SchoolRow, { where: {} })
    return { firstName: person.firstName, email: person.email ?? '', schoolName: school.name }
  }

  /**
   * Chooses a password; everything opened with the old one ends.
   * @returns a session's token; null for whoever has one-time codes on: a mail alone lets them not
   *   in, they sign in with both
   * @throws DomainError `accounts/password-link-over`
   */
  async choose(
    token: string,
    { password }: ChoosePassword,
    countedBy: string,
    browser: string,
  ): Promise<string | null> {
    const { link, person } = await this.#findLink(token, countedBy)
    const passwordHash = await this.hash(password)
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      const [, used] = await manager.query<[unknown, number]>(
        'update password_link set used_at = $2 where id = $1 and used_at is null',
        [link.id, now],
      )
      if (!used) throw new DomainError('accounts/password-link-over')
      await this.endLinks(manager, person.id)
      await manager.update(PersonRow, person.id, { passwordHash })
      await this.#sessions.endAllOf(manager, person.id)
      await note(manager, now, person.id, 'password-chosen', person.id)
    })
    if (await this.#codes.isOn(person.id)) return null
    return this.#sessions.open(person, { way: 'password', browser })
  }

  /**
   * Changes one's own password; every other browser is signed out.
   * @throws DomainError `accounts/password-wrong`
   */
  async change(
    viewer: SignedIn,
    { password, newPassword }: ChangePassword,
    countedBy: string,
  ): Promise<void> {
    await this.confirm(viewer, password, countedBy)
    const passwordHash = await this.hash(newPassword)
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(PersonRow, viewer.personId, { passwordHash })
      await this.endLinks(manager, viewer.personId)
      await this.#sessions.endOthers(manager, viewer)
      await note(
        manager,
        this.#platform.clock.now(),
        viewer.personId,
        'password-changed',
        viewer.personId,
      )
    })
  }

  /**
   * Whoever changes how they come in shows first that it is them.
   * @throws DomainError `accounts/password-wrong`
   */
  async confirm(viewer: SignedIn, password: string, countedBy: string): Promise<void> {
    const person = await this.#platform.db.manager.findOneByOrFail(PersonRow, {
      id: viewer.personId,
    })
    await this.#limits.countFor(person.email ?? '', countedBy, async () => {
      if (!person.passwordHash || !(await verify(person.passwordHash, password)))
        throw new DomainError('accounts/password-wrong')
    })
  }

  async #findLink(
    token: string,
    countedBy: string,
  ): Promise<{ link: PasswordLinkRow; person: PersonRow }> {
    return this.#limits.count([countedBy], async () => {
      const { manager } = this.#platform.db
      const link = await manager.findOneBy(PasswordLinkRow, {
        tokenHash: this.#platform.secrets.hash('password-link', token),
      })
      const person = link && (await manager.findOneByOrFail(PersonRow, { id: link.personId }))
      if (
        !link ||
        !person ||
        link.usedAt ||
        person.leftAt ||
        link.expiresAt <= this.#platform.clock.now()
      )
        throw new DomainError('accounts/password-link-over')
      return { link, person }
    })
  }

  hash(password: string): Promise<string> {
    return hash(password, ARGON)
  }
}
