import { flag, id, maybe, moment, refer, row, text } from '../platform/columns.ts'

export type TaskRow = {
  id: string
  classId: string
  folderId: string
  title: string
  instructions: string
  dueAt: Date | null
  folderChangeable: boolean
  createdAt: Date
  closedAt: Date | null
}
export const TaskRow = row<TaskRow>(
  'task',
  {
    id, classId: refer('class'), folderId: refer('folder'), title: text, instructions: text, dueAt: maybe(moment),
    folderChangeable: flag, createdAt: moment, closedAt: maybe(moment),
  }, // prettier-ignore
  { indices: [{ columns: ['classId'] }] },
)
