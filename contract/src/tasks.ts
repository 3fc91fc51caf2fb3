import * as v from 'valibot'
import { FolderLook, Id } from './common.ts'

/** GET /api/tasks: a pupil's open tasks by due moment, or a teacher's with counts. */
export const Task = v.object({
  id: Id,
  title: v.string(),
  instructions: v.string(),
  dueAt: v.nullable(v.string()),
  folder: FolderLook,
  /** Whether the pupil may file the work somewhere else. */
  folderChangeable: v.boolean(),
  className: v.string(),
  /** A pupil's own pieces for this task, newest first. Empty for teachers. */
  myPieces: v.array(v.object({ id: Id, state: v.picklist(['draft', 'submitted', 'approved', 'returned']) })),
  /** How many pupils stand where; null for pupils. */
  counts: v.nullable(
    v.object({ pupils: v.number(), draft: v.number(), submitted: v.number(), returned: v.number(), approved: v.number() }),
  ),
})
export const Tasks = v.array(Task)
export type Task = v.InferOutput<typeof Task>
