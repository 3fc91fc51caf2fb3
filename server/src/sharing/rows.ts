import { id, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** What a QR code on a printed page opens. */
export type PageLinkRow = {
  id: string
  pieceId: string
  bookId: string
  tokenHash: string
  createdAt: Date
  expiresAt: Date
  withdrawnAt: Date | null
}
export const PageLinkRow = row<PageLinkRow>(
  'page_link',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    bookId: refer('book', { cascade: true }),
    tokenHash: text,
    createdAt: moment,
    expiresAt: moment,
    withdrawnAt: maybe(moment),
  },
  {
    uniques: [{ columns: ['tokenHash'] }, { columns: ['bookId', 'pieceId'] }],
    indices: [{ columns: ['pieceId'] }],
  },
)

/**
 * A school's question to a parent who is here for another child: is this one theirs as well? Names
 * as whoever asked typed them.
 */
export type GuardianRequestRow = {
  id: string
  parentId: string
  pupilId: string
  firstName: string
  lastName: string
  askedBy: string
  askedAt: Date
}
export const GuardianRequestRow = row<GuardianRequestRow>(
  'guardian_request',
  {
    id,
    parentId: refer('person', { cascade: true }),
    pupilId: refer('person', { cascade: true }),
    firstName: text,
    lastName: text,
    askedBy: refer('person'),
    askedAt: moment,
  },
  { uniques: [{ columns: ['parentId', 'pupilId'] }], indices: [{ columns: ['pupilId'] }] },
)
