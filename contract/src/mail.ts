import * as v from 'valibot'
import { Id } from './common.ts'

/** GET /api/mail: the post box, newest first, at most 200: what was sent, or would have been without a mail server. */
export const Mail = v.object({
  id: Id,
  to: v.string(),
  subject: v.string(),
  body: v.string(),
  /** `kept`: there is no mail server, it stays in the post box. */
  state: v.picklist(['waiting', 'sent', 'kept', 'failed']),
  createdAt: v.string(),
})
export const PostBox = v.object({ server: v.boolean(), mails: v.array(Mail) })
export type PostBox = v.InferOutput<typeof PostBox>
