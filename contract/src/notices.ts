import * as v from 'valibot'
import { Id } from './common.ts'

/** GET /api/notices/news: what happened to my work, newest first, at most twenty. */
export const NewsItem = v.object({
  id: Id,
  kind: v.picklist(['approved', 'returned']),
  pieceId: Id,
  pieceTitle: v.string(),
  folderName: v.nullable(v.string()),
  teacherName: v.string(),
  message: v.string(),
  happenedAt: v.string(),
  seen: v.boolean(),
})
export const News = v.array(NewsItem)
export type NewsItem = v.InferOutput<typeof NewsItem>
