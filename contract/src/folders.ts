import * as v from 'valibot'
import { FolderLook } from './common.ts'
import { PieceLine } from './pieces.ts'

/** GET /api/folders: for a pupil the folders of their class and school with their own approved pieces counted; for a teacher with the class's. */
export const Folder = v.object({
  ...FolderLook.entries,
  strand: v.nullable(v.string()),
  parentsSee: v.boolean(),
  pupilsFile: v.boolean(),
  /** Class it belongs to; null: the whole school. */
  className: v.nullable(v.string()),
  pieceCount: v.number(),
})
export const Folders = v.array(Folder)
export type Folder = v.InferOutput<typeof Folder>

/** GET /api/folders/:id: newest first; `next` continues the list (?after=next). */
export const FolderDetail = v.object({ ...Folder.entries, pieces: v.array(PieceLine), next: v.nullable(v.string()) })
export type FolderDetail = v.InferOutput<typeof FolderDetail>
