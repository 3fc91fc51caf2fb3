import type { BookFor } from '@nibquill/core'
import { flag, id, integer, json, maybe, moment, refer, row, text } from '../platform/columns.ts'

/**
 * The pieces a book was asked for with, in order: a book made again after a crash is the same book.
 */
export type BookContent = { pieceId: string; versionId: string; reason: string }[]
export type BookRow = {
  id: string
  pupilId: string
  termId: string
  /** Whom it is made for: what the family may see, or everything approved. */
  madeFor: BookFor
  /** What teachers wrote on copies stands in it. */
  marked: boolean
  /** SHA-256 over everything printed: asked for twice, the same book is found. */
  fingerprint: string
  content: BookContent
  state: 'waiting' | 'making' | 'ready' | 'failed'
  pageCount: number
  pagesDone: number
  sizeBytes: number | null
  requestedBy: string
  requestedAt: Date
  finishedAt: Date | null
}
export const BookRow = row<BookRow>(
  'book',
  {
    id,
    pupilId: refer('person', { cascade: true }),
    termId: refer('term'),
    madeFor: text,
    marked: flag,
    fingerprint: text,
    content: json,
    state: text,
    pageCount: integer,
    pagesDone: integer,
    sizeBytes: maybe(integer),
    requestedBy: refer('person'),
    requestedAt: moment,
    finishedAt: maybe(moment),
  },
  {
    uniques: [{ columns: ['pupilId', 'termId', 'fingerprint'] }],
    indices: [{ columns: ['termId'] }],
  },
)
