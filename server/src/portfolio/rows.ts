import { id, integer, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** One term of a pupil's portfolio. */
export type ChapterRow = { id: string; pupilId: string; termId: string }
export const ChapterRow = row<ChapterRow>(
  'chapter',
  { id, pupilId: refer('person', { cascade: true }), termId: refer('term') },
  { uniques: [{ columns: ['pupilId', 'termId'] }], indices: [{ columns: ['termId'] }] },
)

export type PickRow = {
  chapterId: string
  pieceId: string
  position: number
  reason: string
  /** What was said instead, or as well. */
  voiceMediaId: string | null
  pickedBy: string
  pickedAt: Date
}
export const PickRow = row<PickRow>(
  'pick',
  {
    chapterId: refer('chapter', { key: true, cascade: true }),
    pieceId: refer('piece', { key: true, cascade: true }),
    position: integer,
    reason: text,
    voiceMediaId: maybe(refer('media')),
    pickedBy: refer('person'),
    pickedAt: moment,
  },
  { indices: [{ columns: ['pieceId'] }, { columns: ['voiceMediaId'] }] },
)
