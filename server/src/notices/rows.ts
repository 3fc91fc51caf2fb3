import { id, maybe, moment, refer, row } from '../platform/columns.ts'

/** One line of news to one person: what happened follows from the decision. */
export type NewsRow = { id: string; personId: string; decisionId: string; happenedAt: Date; seenAt: Date | null }
export const NewsRow = row<NewsRow>(
  'news',
  {
    id,
    personId: refer('person', { cascade: true }),
    decisionId: refer('decision', { cascade: true }),
    happenedAt: moment,
    seenAt: maybe(moment),
  },
  { uniques: [{ columns: ['personId', 'decisionId'] }], indices: [{ columns: ['personId', 'happenedAt'] }] },
)
