import { MEDIA_FORMS, MEDIA_KINDS } from '@nibquill/core'
import * as v from 'valibot'
import { Id } from './common.ts'

/**
 * /api/media/uploads speaks tus 1.0.0. Upload-Metadata: `mediaId` (a UUID made by the client, so
 * that the same file sent twice is one
 * file), `pieceId`, `filename`, and `sha256` (hex) of what is sent, which the server checks.
 * The last PATCH is answered with this in its body.
 * @see tus.io resumable upload protocol 1.0.0
 */
export const Arrived = v.object({
  mediaId: Id,
  sentSha256: v.string(),
  keptSha256: v.string(),
  sizeBytes: v.number(),
  /** As its bytes say, whatever its name. */
  kind: v.picklist(MEDIA_KINDS),
})
export type Arrived = v.InferOutput<typeof Arrived>

/** GET /api/media/:id/:form: the file itself, or what was made of it. */
export const MediaParams = v.object({ id: Id, form: v.picklist(['full', ...MEDIA_FORMS]) })
/** ?link=token: read as the holder of a page link. */
export const MediaQuery = v.object({
  link: v.optional(v.pipe(v.string(), v.maxLength(100))),
  save: v.optional(v.string()),
})
