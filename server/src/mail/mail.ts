import type { OpenedMail, PostBox } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { createTransport } from 'nodemailer'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { PersonRow } from '../school/rows.ts'
import { teachersOf, tellStaff } from '../notices/news.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { GuardianRow } from '../school/rows.ts'
import { MailRow } from './rows.ts'

const SHOWN = 200
const BLANK = '…'

/** `secret`: the link or code in it that lets `personId` in. */
export type Letter = {
  to: string
  subject: string
  body: string
  personId?: string
  secret?: string
}

/**
 * Letters by e-mail. Without a mail server they stay in the post box, the stand-in that shows what
 * would have been sent.
 */
export class Mail {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  get #hasServer(): boolean {
    return this.#platform.config.smtpUrl !== null
  }

  /** Sends when the caller's transaction commits, and only then. */
  async send(
    manager: EntityManager,
    { to, subject, body, personId = undefined, secret = undefined }: Letter,
  ): Promise<void> {
    const id = newId()
    await manager.insert(MailRow, {
      id,
      recipient: to,
      subject,
      body,
      personId: personId ?? null,
      secret: secret ?? null,
      state: this.#hasServer ? 'waiting' : 'kept',
      createdAt: this.#platform.clock.now(),
      sentAt: null,
    })
    if (this.#hasServer) await addJob(manager, 'mail.send', { mailId: id }, id)
  }

  /**
   * The job `mail.send`. A failure is tried again by the queue; the letter says meanwhile that it
   * failed.
   */
  async deliver(mailId: string): Promise<void> {
    const manager = this.#platform.db.manager
    const mail = await manager.findOneBy(MailRow, { id: mailId })
    if (!mail || mail.state === 'sent' || !this.#platform.config.smtpUrl) return
    try {
      await createTransport(this.#platform.config.smtpUrl).sendMail({
        from: this.#platform.config.mailFrom,
        to: mail.recipient,
        subject: mail.subject,
        text: mail.body,
        messageId: `<${mail.id}@nibquill>`,
      })
    } catch (error) {
      await manager.update(MailRow, mailId, { state: 'failed' })
      throw error
    }
    // Links are secrets: once a letter is on its way, only its head is kept.
    const subject = blank(mail.subject, mail.secret)
    await manager.update(MailRow, mailId, {
      state: 'sent',
      sentAt: this.#platform.clock.now(),
      subject,
      body: '',
      secret: null,
    })
  }

  /** Heads alone: that a letter went, when and to whom. */
  async openPostBox(): Promise<PostBox> {
    const mails = await this.#platform.db.manager.find(MailRow, {
      order: { createdAt: 'DESC', id: 'DESC' },
      take: SHOWN,
    })
    return {
      server: this.#hasServer,
      mails: mails.map(({ id, recipient, subject, secret, state, createdAt }) => ({
        id,
        to: recipient,
        subject: blank(subject, secret),
        state,
        createdAt: createdAt.toISOString(),
      })),
    }
  }

  /**
   * Opens a letter that leaves by the post box alone. The teachers concerned are told: of a
   * parent's children, or the member of staff.
   * What lets in somebody who has come in before is not shown; with a mail server, nothing that
   * lets in is.
   */
  async open(viewer: SignedIn, mailId: string): Promise<OpenedMail> {
    return this.#platform.db.transaction(async (manager) => {
      const mail = await manager.findOneBy(MailRow, { id: mailId })
      if (!mail) throw new DomainError('request/not-found')
      const person = mail.personId
        ? await manager.findOneBy(PersonRow, { id: mail.personId })
        : null
      const blanked =
        mail.secret !== null && (this.#hasServer || !person || person.lastSeenAt !== null)
      const now = this.#platform.clock.now()
      await note(manager, now, viewer.personId, 'letter.open', mail.personId, { mailId, blanked })
      if (person && mail.secret !== null)
        await tellStaff(manager, await this.#concerned(manager, person), {
          kind: 'letter-opened',
          byId: viewer.personId,
          subjectId: person.id,
          classId: null,
          happenedAt: now,
        })
      const secret = blanked ? mail.secret : null
      return {
        id: mail.id,
        subject: blank(mail.subject, secret),
        body: blank(mail.body, secret),
        blanked,
      }
    })
  }

  async #concerned(manager: EntityManager, person: PersonRow): Promise<string[]> {
    if (person.role !== 'parent') return [person.id]
    const children = await manager.findBy(GuardianRow, { parentId: person.id })
    return teachersOf(
      manager,
      children.map(({ pupilId }) => pupilId),
    )
  }
}

const blank = (words: string, secret: string | null): string =>
  secret ? words.replaceAll(secret, BLANK) : words
