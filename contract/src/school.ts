import * as v from 'valibot'
import { Id, PupilName, SeenVersion, Term } from './common.ts'

/** One pupil of a class with what a teacher wants to know at a glance. */
export const PupilLine = v.object({
  ...PupilName.entries,
  /** Pieces by where they stand. */
  counts: v.object({ draft: v.number(), submitted: v.number(), returned: v.number(), approved: v.number() }),
  lastSeenAt: v.nullable(v.string()),
})
export type PupilLine = v.InferOutput<typeof PupilLine>

/** GET /api/school/classes */
export const SchoolClass = v.object({
  id: Id,
  name: v.string(),
  yearGroup: v.string(),
  pupilCount: v.number(),
  idleMinutes: v.number(),
  version: SeenVersion,
})
export const SchoolClasses = v.array(SchoolClass)
export type SchoolClass = v.InferOutput<typeof SchoolClass>

/** GET /api/school/classes/:id: pupils by first name. */
export const ClassDetail = v.object({ ...SchoolClass.entries, pupils: v.array(PupilLine) })
export type ClassDetail = v.InferOutput<typeof ClassDetail>

export const IDLE_MINUTES = [2, 5, 10, 20, 30] as const
/** PATCH /api/school/classes/:id */
export const ChangeClass = v.strictObject({ idleMinutes: v.picklist(IDLE_MINUTES), seenVersion: SeenVersion })
export type ChangeClass = v.InferOutput<typeof ChangeClass>

/** GET /api/school/years: terms by date, the running one named. */
export const SchoolYears = v.object({
  runningTermId: v.nullable(Id),
  years: v.array(v.object({ id: Id, name: v.string(), terms: v.array(Term) })),
})
export type SchoolYears = v.InferOutput<typeof SchoolYears>

/** GET /api/school/pupils/:id: a pupil's page for the teacher. */
export const PupilDetail = v.object({ ...PupilLine.entries, classId: Id, className: v.string() })
export type PupilDetail = v.InferOutput<typeof PupilDetail>
