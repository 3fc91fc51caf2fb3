import * as v from 'valibot'
import { Id, text } from './common.ts'
import { Attachment } from './tasks.ts'

/** GET /api/notices/news: what happened to my work, newest first, at most twenty. */
export const NewsItem = v.object({
  id: Id,
  kind: v.picklist(['approved', 'returned']),
  pieceId: Id,
  pieceTitle: v.string(),
  folderName: v.nullable(v.string()),
  teacherName: v.string(),
  message: v.string(),
  happenedAt: v.string(),
  seen: v.boolean(),
})
export const News = v.array(NewsItem)
export type NewsItem = v.InferOutput<typeof NewsItem>

/**
 * GET /api/notices/staff-news: what other staff did that one should know of, newest first, until it
 * is put away by POST /api/notices/news/seen.
 * `name-card`: a new name card was made for a pupil (`about`) or a whole class. `letter-opened`: a
 * letter with a way in for `about` was opened in the post box.
 */
export const StaffNewsItem = v.object({
  id: Id,
  kind: v.picklist(['name-card', 'letter-opened']),
  by: v.string(),
  about: v.nullable(v.string()),
  className: v.nullable(v.string()),
  happenedAt: v.string(),
})
export const StaffNews = v.array(StaffNewsItem)
export type StaffNewsItem = v.InferOutput<typeof StaffNewsItem>

/**
 * GET /api/notices: what a class or its parents were told, newest first; `seen` is the asking
 * person's own.
 */
export const Notice = v.object({
  id: Id,
  classId: Id,
  className: v.string(),
  audience: v.picklist(['class', 'parents']),
  words: v.string(),
  media: v.array(Attachment),
  from: v.string(),
  createdAt: v.string(),
  seen: v.boolean(),
  /** How many of those it is for have seen it; null for those it is for. */
  seenBy: v.nullable(v.object({ seen: v.number(), of: v.number() })),
})
export const Notices = v.array(Notice)
export type Notice = v.InferOutput<typeof Notice>

/**
 * PUT /api/notices/:id: tells it; the same id again changes nothing. Words or something to see or
 * hear must be there.
 */
export const MakeNotice = v.pipe(
  v.strictObject({
    classId: Id,
    audience: v.picklist(['class', 'parents']),
    words: text(2000),
    mediaIds: v.pipe(v.array(Id), v.maxLength(6, 'holds more than six files')),
  }),
  v.forward(
    v.check(({ words, mediaIds }) => words !== '' || mediaIds.length > 0, 'says nothing yet'),
    ['words'],
  ),
)
export type MakeNotice = v.InferOutput<typeof MakeNotice>
/** GET /api/notices/:id/readers: who has seen it and who has not. */
export const Readers = v.array(
  v.object({ id: Id, name: v.string(), seenAt: v.nullable(v.string()) }),
)
export type Readers = v.InferOutput<typeof Readers>
