import { fault } from '@nibquill/core'
import * as v from 'valibot'
import { Id, Spoken, text } from './common.ts'
import { Attachment } from './tasks.ts'

const happened = { id: Id, happenedAt: v.string(), seen: v.boolean() }

/** What was decided about one's own work. */
export const WorkNews = v.object({
  ...happened,
  kind: v.picklist(['approved', 'returned']),
  pieceId: Id,
  pieceTitle: v.string(),
  folderName: v.nullable(v.string()),
  teacherName: v.string(),
  message: v.string(),
  voice: v.nullable(Spoken),
})
export type WorkNews = v.InferOutput<typeof WorkNews>

/** What was said to somebody about a piece: under it, or in private. */
export const SaidNews = v.object({
  ...happened,
  kind: v.picklist(['commented', 'private-word']),
  pieceId: Id,
  pieceTitle: v.string(),
  from: v.string(),
  words: v.string(),
  voice: v.nullable(Spoken),
})
export type SaidNews = v.InferOutput<typeof SaidNews>

/** A teacher put away what was handed in by mistake; it is told for as long as it lies there. */
export const BinnedNews = v.object({
  ...happened,
  kind: v.literal('binned'),
  pieceId: Id,
  pieceTitle: v.string(),
  by: v.string(),
})
export type BinnedNews = v.InferOutput<typeof BinnedNews>

/**
 * What other staff did that one should know of. `name-card`: a new name card was made for a pupil
 * (`about`) or a whole class. `letter-opened`: a letter with a way in for `about` was opened in the
 * post box.
 */
export const StaffNews = v.object({
  ...happened,
  kind: v.picklist(['name-card', 'letter-opened']),
  by: v.string(),
  about: v.nullable(v.string()),
  className: v.nullable(v.string()),
})
export type StaffNews = v.InferOutput<typeof StaffNews>

/**
 * GET /api/notices/news: what the asking person should know of, newest first, at most twenty.
 */
export const NewsItem = v.variant('kind', [WorkNews, SaidNews, BinnedNews, StaffNews])
export const News = v.array(NewsItem)
export type NewsItem = v.InferOutput<typeof NewsItem>

/**
 * POST /api/notices/news/seen: what was on screen, by its ids; what came meanwhile is still news.
 * Others' are left as they are.
 */
export const SeeNews = v.strictObject({
  ids: v.pipe(v.array(Id), v.minLength(1), v.maxLength(100, fault('too-many', 100))),
})
export type SeeNews = v.InferOutput<typeof SeeNews>

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
    mediaIds: v.pipe(v.array(Id), v.maxLength(6, fault('too-many', 6))),
  }),
  v.forward(
    v.check(({ words, mediaIds }) => words !== '' || mediaIds.length > 0, fault('says-nothing')),
    ['words'],
  ),
)
export type MakeNotice = v.InferOutput<typeof MakeNotice>
/** GET /api/notices/:id/readers: who has seen it and who has not. */
export const Readers = v.array(
  v.object({ id: Id, name: v.string(), seenAt: v.nullable(v.string()) }),
)
export type Readers = v.InferOutput<typeof Readers>
