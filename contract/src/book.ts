import * as v from 'valibot'
import { Id, Term } from './common.ts'

/** A term book: asked for, being made, ready or failed. `pagesDone` of `pageCount` says how far it is. */
export const Book = v.object({
  id: Id,
  pupilId: Id,
  term: Term,
  state: v.picklist(['waiting', 'making', 'ready', 'failed']),
  pageCount: v.number(),
  pagesDone: v.number(),
  requestedAt: v.string(),
  finishedAt: v.nullable(v.string()),
  sizeBytes: v.nullable(v.number()),
  /** Page links in it that still open. */
  openLinks: v.number(),
  linksEndAt: v.nullable(v.string()),
})
export const Books = v.array(Book)
export type Book = v.InferOutput<typeof Book>

/** POST /api/book: answers with the book that is there already when nothing has changed since. */
export const MakeBook = v.strictObject({ pupilId: Id, termId: Id })
export type MakeBook = v.InferOutput<typeof MakeBook>

/** GET /api/book/plan?pupilId=&termId=: how long the book will be, before it is made. */
export const BookPlanQuery = v.object({ pupilId: Id, termId: Id })
export const BookForecast = v.object({ pieces: v.number(), pages: v.number() })
