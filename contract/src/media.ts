import { MEDIA_FORMS, MEDIA_KINDS, MOST_PAGES } from '@nibquill/core'
import { FULL_PEAK, MOST_PEAKS } from '@nibquill/core/sound/bars'
import * as v from 'valibot'
import { Id } from './common.ts'

/**
 * /api/media/uploads speaks tus 1.0.0. Upload-Metadata: `mediaId` (a UUID made by the client, so
 * that the same file sent twice is one
 * file), `pieceId`, `filename`, `sha256` (hex) of what is sent, which the server checks, and `use`
 * where it is not what its sender mostly sends: `pages` for a paper whose pages are drawn on.
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
/**
 * POST /api/media/:id/film, of the ink of a talk-through: has it made as a film, and says whether its
 * form `as-film` is there by now.
 */
export const TalkFilm = v.object({ ready: v.boolean() })
export type TalkFilm = v.InferOutput<typeof TalkFilm>

/**
 * GET /api/media/:id/progress, of a film that is being made ready: how far it is, and how many are
 * made ready before it.
 */
export const MakingReady = v.object({ percent: v.number(), before: v.number() })
export type MakingReady = v.InferOutput<typeof MakingReady>

/** ?link=token: read as the holder of a page link. */
export const MediaQuery = v.object({
  link: v.optional(v.pipe(v.string(), v.maxLength(100))),
  save: v.optional(v.string()),
})

/**
 * POST /api/media/:id/pages/:page: a page of a paper one may read, as a picture of one's own, to be
 * laid on a drawing. `page` counts from 1. The same picture's id again changes nothing.
 * 404 `media/no-such-page`; 422 `media/file-unreadable` where it cannot be drawn.
 */
export const PageParams = v.object({
  id: Id,
  page: v.pipe(
    v.string(),
    v.regex(/^\d{1,4}$/),
    v.transform(Number),
    v.minValue(1),
    v.maxValue(MOST_PAGES),
  ),
})
export const MakePage = v.strictObject({ mediaId: Id })
/** `width`, `height`: of the picture, in pixels; `pages`: how many the paper has, whatever is shown. */
export const MadePage = v.object({
  mediaId: Id,
  width: v.number(),
  height: v.number(),
  pages: v.number(),
})
export type MadePage = v.InferOutput<typeof MadePage>

/**
 * GET /api/media/:id/peaks: what is drawn of a recording, once it has been looked through. The
 * highest of each stretch, from 0 to `FULL_PEAK`.
 */
export const Peaks = v.object({
  durationMs: v.number(),
  peaks: v.pipe(
    v.array(v.pipe(v.number(), v.minValue(0), v.maxValue(FULL_PEAK))),
    v.maxLength(MOST_PEAKS),
  ),
})
export type Peaks = v.InferOutput<typeof Peaks>
