import { BOOK_FOR, fault } from '@nibquill/core'
import * as v from 'valibot'
import { Id, Term } from './common.ts'

/**
 * A term book: asked for, being made, ready or failed. `pagesDone` of `pageCount` says how far it
 * is.
 */
export const Book = v.object({
  id: Id,
  pupilId: Id,
  term: Term,
  /**
   * For home: what the family may see, with page codes that open for them. For school: everything
   * approved, codes for staff alone.
   */
  madeFor: v.picklist(BOOK_FOR),
  /** What teachers wrote on copies of the work stands in its place. */
  marked: v.boolean(),
  /**
   * Made for home, and something in it may not be shown there any more: it is not handed out, and
   * has to be made again.
   */
  stopped: v.boolean(),
  state: v.picklist(['waiting', 'making', 'ready', 'failed']),
  pageCount: v.number(),
  pagesDone: v.number(),
  requestedAt: v.string(),
  /** Its family asked for it, not the school. */
  byFamily: v.boolean(),
  finishedAt: v.nullable(v.string()),
  sizeBytes: v.nullable(v.number()),
  /** Page links in it that still open. */
  openLinks: v.number(),
  linksEndAt: v.nullable(v.string()),
})
export const Books = v.array(Book)
export type Book = v.InferOutput<typeof Book>

/**
 * POST /api/book: answers with the book that is there already when nothing has changed since.
 * `marked`: with what teachers wrote on copies of the work, which no book for home has.
 */
export const MakeBook = v.pipe(
  v.strictObject({
    pupilId: Id,
    termId: Id,
    madeFor: v.picklist(BOOK_FOR),
    marked: v.optional(v.boolean(), false),
  }),
  v.forward(
    v.check(({ madeFor, marked }) => !marked || madeFor === 'school', fault('unusable')),
    ['marked'],
  ),
)
export type MakeBook = v.InferOutput<typeof MakeBook>

/**
 * POST /api/book/take-home: everything the family's page shows of a term, as a book for home. Answers
 * with the one that is there already when nothing has changed since.
 */
export const TakeHome = v.strictObject({ pupilId: Id, termId: Id })
export type TakeHome = v.InferOutput<typeof TakeHome>

/**
 * GET /api/book/pieces/:id?marked=: one piece as a printed page (PDF), for its teachers: what lies in
 * the tray, else what was approved. `marked=true`: with what teachers wrote on it.
 */
export const PrintedPieceQuery = v.object({
  marked: v.optional(v.picklist(['true', 'false']), 'false'),
})

/**
 * GET /api/book/plan?pupilId=&termId=&madeFor=: how long the book will be, before it is made, and
 * what it will not hold.
 */
export const BookPlanQuery = v.object({ pupilId: Id, termId: Id, madeFor: v.picklist(BOOK_FOR) })
export const BookForecast = v.object({
  pieces: v.number(),
  pages: v.number(),
  /**
   * `folder`: it lies in a folder that families do not see. `consent`: `withoutConsent` are the
   * first names of makers whose parents have not said yes.
   */
  leftOut: v.array(
    v.object({
      pieceId: Id,
      title: v.string(),
      reason: v.picklist(['folder', 'consent']),
      withoutConsent: v.array(v.string()),
    }),
  ),
})
export type BookForecast = v.InferOutput<typeof BookForecast>
