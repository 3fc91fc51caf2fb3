import { id, maybe, moment, row, text } from '../platform/columns.ts'

/** A letter by e-mail, as it goes out or stays in the post box. */
export type MailRow = {
  id: string
  recipient: string
  subject: string
  body: string
  state: 'waiting' | 'sent' | 'kept' | 'failed'
  createdAt: Date
  sentAt: Date | null
}
export const MailRow = row<MailRow>(
  'mail',
  { id, recipient: text, subject: text, body: text, state: text, createdAt: moment, sentAt: maybe(moment) },
  { indices: [{ columns: ['createdAt'] }] },
)
