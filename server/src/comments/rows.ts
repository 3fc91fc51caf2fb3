import type { CommentState } from '@nibquill/core'
import { flag, id, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** What is said under a piece. `decidedBy`: the teacher who showed or hid it last. */
export type CommentRow = {
  id: string
  pieceId: string
  byId: string
  words: string
  voiceMediaId: string | null
  answersId: string | null
  state: CommentState
  /** What its author thinks of what they made with others. */
  thoughts: boolean
  hiddenWhy: string
  saidAt: Date
  decidedBy: string | null
  decidedAt: Date | null
}
export const CommentRow = row<CommentRow>(
  'comment',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    byId: refer('person'),
    words: text,
    voiceMediaId: maybe(refer('media')),
    answersId: maybe(refer('comment', { cascade: true })),
    state: text,
    thoughts: flag,
    hiddenWhy: text,
    saidAt: moment,
    decidedBy: maybe(refer('person')),
    decidedAt: maybe(moment),
  },
  {
    indices: [
      { columns: ['pieceId', 'saidAt'] },
      { columns: ['voiceMediaId'] },
      { columns: ['answersId'] },
      { columns: ['byId'], where: "(state = 'waiting'::text)" },
      { columns: ['saidAt'], where: "(state = 'waiting'::text)" },
    ],
  },
)

/** What a pupil and one teacher say to each other on a piece; `byId` is one of the two. */
export type PrivateWordRow = {
  id: string
  pieceId: string
  pupilId: string
  teacherId: string
  byId: string
  words: string
  voiceMediaId: string | null
  saidAt: Date
}
export const PrivateWordRow = row<PrivateWordRow>(
  'private_word',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    pupilId: refer('person'),
    teacherId: refer('person'),
    byId: refer('person'),
    words: text,
    voiceMediaId: maybe(refer('media')),
    saidAt: moment,
  },
  {
    indices: [
      { columns: ['pieceId', 'saidAt'] },
      { columns: ['pupilId'] },
      { columns: ['teacherId'] },
      { columns: ['voiceMediaId'] },
    ],
  },
)
