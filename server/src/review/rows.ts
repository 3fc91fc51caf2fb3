import { id, json, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** The teacher's verdict on one version. `folderId`: where an approved one went. */
export type DecisionRow = {
  id: string
  pieceId: string
  versionId: string
  move: 'approve' | 'send-back'
  message: string
  /** What was said instead, or as well. */
  voiceMediaId: string | null
  folderId: string | null
  /** Why it went there, where its pupil thought of another; may be empty. */
  filedBecause: string
  decidedBy: string
  decidedAt: Date
}
export const DecisionRow = row<DecisionRow>(
  'decision',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    versionId: refer('piece_version', { cascade: true }),
    move: text,
    message: text,
    voiceMediaId: maybe(refer('media')),
    folderId: maybe(refer('folder')),
    filedBecause: text,
    decidedBy: refer('person'),
    decidedAt: moment,
  },
  // Approved once, and later perhaps sent back.
  {
    uniques: [{ columns: ['versionId', 'move'] }],
    indices: [{ columns: ['pieceId', 'decidedAt'] }, { columns: ['voiceMediaId'] }],
  },
)

/** A teacher's own marker: come back to this, and why. `doneAt`: it was ticked. */
export type SecondLookRow = {
  pieceId: string
  reason: string
  askedBy: string
  askedAt: Date
  doneAt: Date | null
}
export const SecondLookRow = row<SecondLookRow>('second_look', {
  pieceId: refer('piece', { key: true, cascade: true }),
  reason: text,
  askedBy: refer('person'),
  askedAt: moment,
  doneAt: maybe(moment),
})

/** What a teacher wrote on a copy of a part as it was handed in. */
export type MarkUpRow = {
  versionId: string
  partId: string
  inkMediaId: string
  byId: string
  changedAt: Date
}
export const MarkUpRow = row<MarkUpRow>(
  'mark_up',
  {
    versionId: refer('piece_version', { key: true, cascade: true }),
    partId: refer('part', { key: true, cascade: true }),
    inkMediaId: refer('media'),
    byId: refer('person'),
    changedAt: moment,
  },
  { indices: [{ columns: ['partId'] }, { columns: ['inkMediaId'] }] },
)

/** Pictures that lie on such a copy. */
export type MarkUpPictureRow = { versionId: string; partId: string; mediaId: string }
export const MarkUpPictureRow = row<MarkUpPictureRow>(
  'mark_up_picture',
  {
    versionId: refer('piece_version', { key: true, cascade: true }),
    partId: refer('part', { key: true, cascade: true }),
    mediaId: refer('media', { key: true }),
  },
  { indices: [{ columns: ['partId'] }, { columns: ['mediaId'] }] },
)

/** Sentences a teacher says again and again. */
export type SentenceStockRow = { personId: string; sentences: readonly string[] }
export const SentenceStockRow = row<SentenceStockRow>('sentence_stock', {
  personId: refer('person', { key: true, cascade: true }),
  sentences: json,
})
