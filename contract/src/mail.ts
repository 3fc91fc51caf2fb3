import * as v from 'valibot'
import { Id } from './common.ts'

/**
 * GET /api/mail: the post box, newest first, at most 200: what was sent, or would have been without
 * a mail server. Heads only.
 */
export const Mail = v.object({
  id: Id,
  to: v.string(),
  subject: v.string(),
  /** `kept`: there is no mail server, it stays in the post box. */
  state: v.picklist(['waiting', 'sent', 'kept', 'failed']),
  createdAt: v.string(),
})
/**
 * POST /api/mail/:id/open: one letter's words, where there is no mail server and this is the only
 * way it leaves. Noted, and told to the
 * teachers concerned. `blanked`: its link or code is left out, since somebody who has come in
 * before is let in by nobody else.
 */
export const OpenedMail = v.object({
  id: Id,
  subject: v.string(),
  body: v.string(),
  blanked: v.boolean(),
})
export type OpenedMail = v.InferOutput<typeof OpenedMail>
export const PostBox = v.object({ server: v.boolean(), mails: v.array(Mail) })
export type PostBox = v.InferOutput<typeof PostBox>
