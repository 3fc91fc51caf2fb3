import type { PostBox } from '@nibquill/contract'
import { createTransport } from 'nodemailer'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import { MailRow } from './rows.ts'

const SHOWN = 200

/** Letters by e-mail. Without a mail server they stay in the post box, the stand-in that shows what would have been sent. */
export class Mail {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Sends when the caller's transaction commits, and only then. */
  async send(manager: EntityManager, letter: { to: string; subject: string; body: string }): Promise<void> {
    const id = newId()
    const waits = this.#platform.config.smtpUrl !== null
    await manager.insert(MailRow, {
      id, recipient: letter.to, subject: letter.subject, body: letter.body, state: waits ? 'waiting' : 'kept',
      createdAt: this.#platform.clock.now(), sentAt: null,
    }) // prettier-ignore
    if (waits) await addJob(manager, 'mail.send', { mailId: id }, id)
  }

  /** The job `mail.send`. A failure is tried again by the queue; the letter says meanwhile that it failed. */
  async deliver(mailId: string): Promise<void> {
    const manager = this.#platform.db.manager
    const mail = await manager.findOneBy(MailRow, { id: mailId })
    if (!mail || mail.state === 'sent' || !this.#platform.config.smtpUrl) return
    try {
      await createTransport(this.#platform.config.smtpUrl).sendMail({
        from: this.#platform.config.mailFrom, to: mail.recipient, subject: mail.subject, text: mail.body, messageId: `<${mail.id}@nibquill>`,
      }) // prettier-ignore
    } catch (error) {
      await manager.update(MailRow, mailId, { state: 'failed' })
      throw error
    }
    // Links are secrets: once a letter is on its way, only its head is kept.
    await manager.update(MailRow, mailId, { state: 'sent', sentAt: this.#platform.clock.now(), body: '' })
  }

  async openPostBox(): Promise<PostBox> {
    const mails = await this.#platform.db.manager.find(MailRow, { order: { createdAt: 'DESC', id: 'DESC' }, take: SHOWN })
    return {
      server: this.#platform.config.smtpUrl !== null,
      mails: mails.map(({ id, recipient, subject, body, state, createdAt }) => ({
        id, to: recipient, subject, body, state, createdAt: createdAt.toISOString(),
      })), // prettier-ignore
    }
  }
}
