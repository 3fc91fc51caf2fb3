import { MEDIA_KINDS, PIECE_STEPS, TASK_MEDIA_ROLES, fault } from '@nibquill/core'
import * as v from 'valibot'
import {
  Day,
  FileState,
  FolderLook,
  Id,
  PartAsked,
  PupilName,
  SeenVersion,
  text,
  Time,
  words,
} from './common.ts'

/**
 * A picture, a paper or a recording that hangs on a task or a notice; reads at
 * `/api/media/<mediaId>/full` (pictures also as `320`, `960` and `2048`).
 */
export const Attachment = v.object({
  mediaId: Id,
  kind: v.picklist(MEDIA_KINDS),
  name: v.string(),
  width: v.number(),
  height: v.number(),
  sizeBytes: v.number(),
  state: FileState,
})
export type Attachment = v.InferOutput<typeof Attachment>
export const TaskMedia = v.object({ ...Attachment.entries, role: v.picklist(TASK_MEDIA_ROLES) })
export type TaskMedia = v.InferOutput<typeof TaskMedia>

/** @see Expected in ./ink.ts */
const Sorting = v.object({
  lies: v.array(v.object({ thingId: v.string(), spotId: v.string() })),
  says: v.array(v.object({ spotId: v.string(), words: v.string() })),
})

/**
 * GET /api/tasks: a pupil's open tasks by due moment, or a teacher's with counts; a teacher's
 * `?closed=1` adds those that are closed.
 */
export const Task = v.object({
  id: Id,
  title: v.string(),
  instructions: v.string(),
  media: v.array(TaskMedia),
  /**
   * A drawing to begin with: each pupil draws on a copy. `offered`: to those as well who began with
   * an earlier one. `sorting`: what its teacher expects where, if there are spots on it; null for
   * pupils.
   */
  sheet: v.nullable(v.object({ mediaId: Id, offered: v.boolean(), sorting: v.nullable(Sorting) })),
  steps: v.array(v.picklist(PIECE_STEPS)),
  asks: v.array(PartAsked),
  /** Before this moment pupils do not see it. */
  opensAt: v.nullable(v.string()),
  dueAt: v.nullable(v.string()),
  closed: v.boolean(),
  folder: FolderLook,
  strandId: v.nullable(Id),
  /** Whether the pupil may file the work somewhere else. */
  folderChangeable: v.boolean(),
  /** Whether the pupil is asked what they think of it before they hand it in. */
  asksThoughts: v.boolean(),
  classId: Id,
  className: v.string(),
  unit: v.nullable(v.object({ id: Id, title: v.string() })),
  /** Pupils it is for; null: all of the class. Teachers only. */
  pupilIds: v.nullable(v.array(Id)),
  /** A pupil's own pieces for this task, newest first. Empty for teachers. */
  myPieces: v.array(
    v.object({ id: Id, state: v.picklist(['draft', 'submitted', 'approved', 'returned']) }),
  ),
  /** A pupil ticked it as done elsewhere. */
  ticked: v.boolean(),
  /** The teacher asked this pupil for it again, when. */
  nudgedAt: v.nullable(v.string()),
  /** How many pupils stand where; null for pupils. */
  counts: v.nullable(
    v.object({
      pupils: v.number(),
      ticked: v.number(),
      draft: v.number(),
      submitted: v.number(),
      returned: v.number(),
      approved: v.number(),
    }),
  ),
  version: SeenVersion,
})
export const Tasks = v.array(Task)
export type Task = v.InferOutput<typeof Task>
export const TasksQuery = v.object({ closed: v.optional(v.string()) })

/** GET /api/tasks/:id/standings: who stands where, for the teacher. */
export const Standing = v.object({
  pupil: PupilName,
  standing: v.picklist(['none', 'ticked', 'draft', 'submitted', 'returned', 'approved']),
  pieceId: v.nullable(Id),
  nudgedAt: v.nullable(v.string()),
})
export const Standings = v.array(Standing)
export type Standing = v.InferOutput<typeof Standing>

/**
 * GET /api/tasks/:id/sheet/lying: what lies where on the copies that were handed in, each as it was
 * handed in last; of a piece that is taken back and was never approved, nothing.
 * @see Lying in core/src/ink/sorting.ts
 */
export const LyingOnCopies = v.array(
  v.object({
    pupil: PupilName,
    pieceId: Id,
    lies: v.array(
      v.object({
        thingId: v.string(),
        spotId: v.nullable(v.string()),
        words: v.nullable(v.string()),
      }),
    ),
  }),
)
export type LyingOnCopies = v.InferOutput<typeof LyingOnCopies>

/**
 * POST /api/tasks/:id/sheet/offer: whether those who began with an earlier sheet are offered this
 * one, to lie with theirs. 409 `task/stale` where another is there by now.
 */
export const OfferSheet = v.strictObject({ offered: v.boolean(), seenMediaId: Id })
export type OfferSheet = v.InferOutput<typeof OfferSheet>

/** A day and a time on the school's own clock. */
export const SchoolMoment = v.object({ day: Day, time: Time })

const TASK = {
  folderId: Id,
  unitId: v.nullable(Id),
  strandId: v.nullable(Id),
  title: words(120),
  instructions: text(4000),
  media: v.pipe(
    v.array(v.strictObject({ mediaId: Id, role: v.picklist(TASK_MEDIA_ROLES) })),
    v.maxLength(20, fault('too-many', 20)),
  ),
  steps: v.pipe(v.array(v.picklist(PIECE_STEPS)), v.minLength(1, fault('without-steps'))),
  asks: v.pipe(v.array(PartAsked), v.maxLength(5)),
  opens: v.nullable(SchoolMoment),
  due: v.nullable(SchoolMoment),
  folderChangeable: v.boolean(),
  /** Whether the pupil is asked what they think of it before they hand it in. */
  asksThoughts: v.boolean(),
  /** Null: for all of the class, also those who come later. */
  pupilIds: v.nullable(v.pipe(v.array(Id), v.minLength(1, fault('for-nobody')))),
}
/** PUT /api/tasks/:id: sets a task; the same id again changes nothing. */
export const MakeTask = v.strictObject({ classId: Id, ...TASK })
export type MakeTask = v.InferOutput<typeof MakeTask>
/** PATCH /api/tasks/:id: the whole task as it shall be. */
export const ChangeTask = v.strictObject({ ...TASK, seenVersion: SeenVersion })
export type ChangeTask = v.InferOutput<typeof ChangeTask>

/** What a due day means: shown while a task is written. GET /api/tasks/due?classId=&day=&time= */
export const DueQuery = v.object({ classId: Id, day: Day, time: Time })
export const DueAdvice = v.object({
  at: v.string(),
  /**
   * Something to look at, null for nothing. `about`: the time it will be due when the clocks change
   * that night; the name of the days the school is closed.
   */
  warning: v.nullable(
    v.object({
      code: v.picklist(['clocks-change', 'past', 'closed', 'no-lessons']),
      about: v.string(),
    }),
  ),
})
export type DueAdvice = v.InferOutput<typeof DueAdvice>

/**
 * POST /api/tasks/:id/{close,open,duplicate}; duplicate answers with the copy. POST and DELETE
 * /api/tasks/:id/tick for pupils.
 */
export const Nudge = v.strictObject({
  pupilIds: v.pipe(v.array(Id), v.minLength(1), v.maxLength(200)),
})

/** GET /api/tasks/units: of classes one teaches or leads, this year's and earlier. */
export const Unit = v.object({
  id: Id,
  title: v.string(),
  classId: Id,
  className: v.string(),
  yearName: v.string(),
  running: v.boolean(),
  taskCount: v.number(),
})
export const Units = v.array(Unit)
export type Unit = v.InferOutput<typeof Unit>
/** PUT /api/tasks/units/:id */
export const PutUnit = v.strictObject({ classId: Id, title: words(120) })
export type PutUnit = v.InferOutput<typeof PutUnit>
/**
 * POST /api/tasks/units/:id/reuse: the unit's tasks again for a class, dates shifted by school
 * weeks; opens later unless told.
 */
export const ReuseUnit = v.strictObject({ unitId: Id, classId: Id })
export type ReuseUnit = v.InferOutput<typeof ReuseUnit>
