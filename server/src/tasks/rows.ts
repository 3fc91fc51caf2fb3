import type { PartAsked, Step } from '@nibquill/core'
import type { Expected } from '@nibquill/core/ink/sorting'
import { flag, id, integer, json, maybe, moment, refer, row, text } from '../platform/columns.ts'

/** A run of tasks taught together in a class. */
export type UnitRow = { id: string; classId: string; title: string; createdAt: Date }
export const UnitRow = row<UnitRow>(
  'unit',
  { id, classId: refer('class'), title: text, createdAt: moment },
  { indices: [{ columns: ['classId'] }] },
)

export type TaskRow = {
  id: string
  classId: string
  unitId: string | null
  folderId: string
  strandId: string | null
  title: string
  instructions: string
  /** Steps the piece goes through, in order. */
  steps: Step[]
  /** What the piece should hold. */
  asks: PartAsked[]
  opensAt: Date | null
  dueAt: Date | null
  folderChangeable: boolean
  /** Whether what the pupil thinks of it is asked for when it is handed in. */
  asksThoughts: boolean
  /** What is expected on its starter sheet; null where no spot is on it. */
  sheetExpected: Expected | null
  /** Whether those who began with an earlier sheet are offered the one there is. */
  sheetOffered: boolean
  /** False: for the pupils in `TaskPupilRow` only. */
  forAll: boolean
  position: number
  version: number
  createdAt: Date
  closedAt: Date | null
}
export const TaskRow = row<TaskRow>(
  'task',
  {
    id,
    classId: refer('class'),
    unitId: maybe(refer('unit')),
    folderId: refer('folder'),
    strandId: maybe(refer('strand')),
    title: text,
    instructions: text,
    steps: json,
    asks: json,
    opensAt: maybe(moment),
    dueAt: maybe(moment),
    folderChangeable: flag,
    asksThoughts: flag,
    sheetExpected: maybe(json),
    sheetOffered: flag,
    forAll: flag,
    position: integer,
    version: integer,
    createdAt: moment,
    closedAt: maybe(moment),
  },
  { indices: [{ columns: ['classId'] }, { columns: ['unitId'] }, { columns: ['folderId'] }] },
)

const perPupil = {
  taskId: refer('task', { key: true, cascade: true }),
  personId: refer('person', { key: true, cascade: true }),
}
export type TaskPupilRow = { taskId: string; personId: string }
export const TaskPupilRow = row<TaskPupilRow>('task_pupil', perPupil, {
  indices: [{ columns: ['personId'] }],
})

/** Done elsewhere: the pupil ticked it. */
export type TaskTickRow = { taskId: string; personId: string; tickedAt: Date }
export const TaskTickRow = row<TaskTickRow>(
  'task_tick',
  { ...perPupil, tickedAt: moment },
  { indices: [{ columns: ['personId'] }] },
)

/** A reminder on one desk, until the pupil hands in. */
export type NudgeRow = { taskId: string; personId: string; nudgedBy: string; nudgedAt: Date }
export const NudgeRow = row<NudgeRow>(
  'nudge',
  { ...perPupil, nudgedBy: refer('person'), nudgedAt: moment },
  { indices: [{ columns: ['personId'] }] },
)

/**
 * What hangs on a task: the instruction in the teacher's voice, pictures and papers to look at, an
 * example of good work.
 */
export type TaskMediaRow = {
  taskId: string
  mediaId: string
  role: 'voice' | 'material' | 'example'
  position: number
}
export const TaskMediaRow = row<TaskMediaRow>(
  'task_media',
  {
    taskId: refer('task', { key: true, cascade: true }),
    mediaId: refer('media', { key: true }),
    role: text,
    position: integer,
  },
  { indices: [{ columns: ['mediaId'] }] },
)

/** A task's starter sheet: its `ink`, and pictures `laid` on it. */
export type TaskSheetRow = { taskId: string; role: 'ink' | 'laid'; mediaId: string }
export const TaskSheetRow = row<TaskSheetRow>(
  'task_sheet',
  {
    taskId: refer('task', { key: true, cascade: true }),
    role: { ...text, primary: true },
    mediaId: refer('media', { key: true }),
  },
  { indices: [{ columns: ['mediaId'] }] },
)
