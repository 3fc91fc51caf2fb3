import { id, integer, maybe, moment, refer, row, text } from '../platform/columns.ts'

/**
 * One line of news to one person. About work (`approved`, `returned`) it follows from the decision;
 * what was said of it (`commented`, `private-word`) from the words; that a teacher put it into the bin
 * (`binned`) names it by `pieceId`; to staff it says who (`byId`)
 * did what about whom (`subjectId`).
 */
export type NewsRow = {
  id: string
  personId: string
  kind:
    | 'approved'
    | 'returned'
    | 'commented'
    | 'private-word'
    | 'binned'
    | 'name-card'
    | 'letter-opened'
  decisionId: string | null
  commentId: string | null
  privateWordId: string | null
  pieceId: string | null
  subjectId: string | null
  classId: string | null
  byId: string | null
  happenedAt: Date
  seenAt: Date | null
}
export const NewsRow = row<NewsRow>(
  'news',
  {
    id,
    personId: refer('person', { cascade: true }),
    kind: text,
    decisionId: maybe(refer('decision', { cascade: true })),
    commentId: maybe(refer('comment', { cascade: true })),
    privateWordId: maybe(refer('private_word', { cascade: true })),
    pieceId: maybe(refer('piece', { cascade: true })),
    subjectId: maybe(refer('person', { cascade: true })),
    classId: maybe(refer('class', { cascade: true })),
    byId: maybe(refer('person')),
    happenedAt: moment,
    seenAt: maybe(moment),
  },
  {
    uniques: [{ columns: ['personId', 'decisionId'] }, { columns: ['personId', 'commentId'] }],
    indices: [
      { columns: ['personId', 'happenedAt'] },
      { columns: ['decisionId'] },
      { columns: ['commentId'] },
      { columns: ['privateWordId'] },
      { columns: ['pieceId'] },
      { columns: ['subjectId'] },
    ],
  },
)

/** Something the teacher tells a class or its parents. */
export type NoticeRow = {
  id: string
  classId: string
  audience: 'class' | 'parents'
  words: string
  createdBy: string
  createdAt: Date
  withdrawnAt: Date | null
}
export const NoticeRow = row<NoticeRow>(
  'notice',
  {
    id,
    classId: refer('class'),
    audience: text,
    words: text,
    createdBy: refer('person'),
    createdAt: moment,
    withdrawnAt: maybe(moment),
  },
  { indices: [{ columns: ['classId', 'createdAt'] }] },
)

export type NoticeMediaRow = { noticeId: string; mediaId: string; position: number }
export const NoticeMediaRow = row<NoticeMediaRow>(
  'notice_media',
  {
    noticeId: refer('notice', { key: true, cascade: true }),
    mediaId: refer('media', { key: true }),
    position: integer,
  },
  { indices: [{ columns: ['mediaId'] }] },
)

export type NoticeSeenRow = { noticeId: string; personId: string; seenAt: Date }
export const NoticeSeenRow = row<NoticeSeenRow>(
  'notice_seen',
  {
    noticeId: refer('notice', { key: true, cascade: true }),
    personId: refer('person', { key: true, cascade: true }),
    seenAt: moment,
  },
  { indices: [{ columns: ['personId'] }] },
)
