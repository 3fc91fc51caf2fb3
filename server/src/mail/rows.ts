import { id, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** A letter by e-mail, as it goes out or stays in the post box. */
export type MailRow = {
  id: string
  recipient: string
  subject: string
  body: string
  /**
   * Whom it lets in, when it lets somebody in, and by what: the link or code in the body, which is
   * shown to nobody else.
   */
  personId: string | null
  secret: string | null
  state: 'waiting' | 'sent' | 'kept' | 'failed'
  createdAt: Date
  sentAt: Date | null
}
export const MailRow = row<MailRow>(
  'mail',
  {
    id,
    recipient: text,
    subject: text,
    body: text,
    personId: maybe(refer('person', { cascade: true })),
    secret: maybe(text),
    state: text,
    createdAt: moment,
    sentAt: maybe(moment),
  },
  { indices: [{ columns: ['createdAt', 'id'] }, { columns: ['personId'] }] },
)
