import {
  faultsOfYear,
  FILM_ORIGINALS,
  isTimeZone,
  MAX_NAME_LENGTH,
  ROW_FAULTS,
  fault,
} from '@nibquill/core'
import * as v from 'valibot'
import { Day, Email, Id, Peg, PupilName, SeenVersion, Term, text, words } from './common.ts'

/** One pupil of a class with what a teacher wants to know at a glance. */
export const PupilLine = v.object({
  ...PupilName.entries,
  /** Pieces by where they stand. */
  counts: v.object({
    draft: v.number(),
    submitted: v.number(),
    returned: v.number(),
    approved: v.number(),
  }),
  /** Open tasks this pupil has not begun and not ticked. */
  toDo: v.number(),
  lastSeenAt: v.nullable(v.string()),
})
export type PupilLine = v.InferOutput<typeof PupilLine>

/**
 * GET /api/school/classes: of years that have not ended, `yearStartsOn` tells those of the next
 * year apart.
 */
export const SchoolClass = v.object({
  id: Id,
  name: v.string(),
  yearGroup: v.string(),
  schoolYearId: Id,
  yearName: v.string(),
  /** Its school year runs now. */
  running: v.boolean(),
  pupilCount: v.number(),
  teachers: v.array(v.object({ id: Id, name: v.string() })),
  idleMinutes: v.number(),
  pupilsPropose: v.boolean(),
  /** Its pupils tap pictures instead of typing. */
  young: v.boolean(),
  /** It is heard when a piece goes into the tray. */
  sounds: v.boolean(),
  /** Its pupils have name cards. */
  hasCards: v.boolean(),
  /** Somebody at home is invited. */
  hasFamilies: v.boolean(),
  /** Whether the asking person teaches it. */
  mine: v.boolean(),
  version: SeenVersion,
})
export const SchoolClasses = v.array(SchoolClass)
export type SchoolClass = v.InferOutput<typeof SchoolClass>

/** GET /api/school/classes/:id: pupils by first name. */
export const ClassDetail = v.object({
  ...SchoolClass.entries,
  pupils: v.array(PupilLine),
  /** Names with a sign no typeface here has: it would be printed as a dot. */
  notPrintable: v.array(v.string()),
  /** Who was in it and has left the school, last gone first. */
  left: v.array(v.object({ id: Id, name: v.string(), leftAt: v.string() })),
})
export type ClassDetail = v.InferOutput<typeof ClassDetail>

/**
 * PUT /api/school/classes/:id: makes a class; the same id again changes nothing. `mine`: a teacher
 * who makes it teaches it, until somebody else is named.
 */
export const MakeClass = v.strictObject({
  schoolYearId: Id,
  name: words(60),
  yearGroup: text(40),
  mine: v.optional(v.boolean(), true),
})
export type MakeClass = v.InferOutput<typeof MakeClass>

export const IDLE_MINUTES = [2, 5, 10, 20, 30] as const
/** PATCH /api/school/classes/:id: what is left out stays. */
export const ChangeClass = v.strictObject({
  seenVersion: SeenVersion,
  name: v.optional(words(60)),
  yearGroup: v.optional(text(40)),
  idleMinutes: v.optional(v.picklist(IDLE_MINUTES)),
  pupilsPropose: v.optional(v.boolean()),
  young: v.optional(v.boolean()),
  sounds: v.optional(v.boolean()),
})
export type ChangeClass = v.InferOutput<typeof ChangeClass>

/** GET /api/school: what the whole school shares. PATCH changes it. */
export const SchoolFacts = v.object({
  name: v.string(),
  timeZone: v.string(),
  /** How long films are kept as they were sent; what every browser plays is kept with its piece. */
  filmOriginals: v.picklist(FILM_ORIGINALS),
})
export type SchoolFacts = v.InferOutput<typeof SchoolFacts>
export const ChangeSchool = v.strictObject({
  name: words(120),
  timeZone: v.pipe(words(60), v.check(isTimeZone, fault('not-a-time-zone'))),
  filmOriginals: v.picklist(FILM_ORIGINALS),
})
export type ChangeSchool = v.InferOutput<typeof ChangeSchool>

const NamedSpan = { name: words(60), startsOn: Day, endsOn: Day }
/** A half-term, a staff day: no lessons, though inside a term. */
export const ClosedDays = v.object({ id: Id, name: v.string(), startsOn: Day, endsOn: Day })

/** GET /api/school/years: newest year first, terms by date, the running one named. */
export const SchoolYear = v.object({
  id: Id,
  name: v.string(),
  startsOn: Day,
  endsOn: Day,
  terms: v.array(Term),
  closedDays: v.array(ClosedDays),
  classCount: v.number(),
})
export type SchoolYear = v.InferOutput<typeof SchoolYear>
export const SchoolYears = v.object({ runningTermId: v.nullable(Id), years: v.array(SchoolYear) })
export type SchoolYears = v.InferOutput<typeof SchoolYears>

/**
 * PUT /api/school/years/:id: makes or replaces a year with its terms and closed days. A term with
 * work in it cannot go.
 */
export const PutYear = v.pipe(
  v.strictObject({
    ...NamedSpan,
    terms: v.pipe(
      v.array(v.strictObject({ id: Id, ...NamedSpan })),
      v.maxLength(12, fault('too-many', 12)),
    ),
    closedDays: v.pipe(
      v.array(v.strictObject({ id: Id, ...NamedSpan })),
      v.maxLength(60, fault('too-many', 60)),
    ),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return
    for (const [path, faults] of Object.entries(faultsOfYear(dataset.value)))
      for (const message of faults) addIssue({ message, path: pathOf(path, dataset.value) })
  }),
)
export type PutYear = v.InferOutput<typeof PutYear>

/** `terms.0.endsOn` as Valibot writes a path. */
function pathOf(path: string, root: unknown): [v.IssuePathItem, ...v.IssuePathItem[]] {
  let input = root as Record<string, unknown>
  return path.split('.').map((key) => {
    const item = {
      type: 'unknown',
      origin: 'value',
      input,
      key,
      value: input?.[key],
    } as v.IssuePathItem
    input = input?.[key] as Record<string, unknown>
    return item
  }) as [v.IssuePathItem, ...v.IssuePathItem[]]
}

/** GET /api/school/pupils/:id: a pupil's page for the teacher. */
export const PupilDetail = v.object({
  ...PupilLine.entries,
  classId: Id,
  className: v.string(),
  leftAt: v.nullable(v.string()),
})
export type PupilDetail = v.InferOutput<typeof PupilDetail>

/**
 * PATCH /api/school/pupils/:id: a new name, another class, gone from the school (`left: true`) or
 * back.
 */
export const ChangePupil = v.strictObject({
  firstName: v.optional(words(MAX_NAME_LENGTH)),
  lastName: v.optional(text(MAX_NAME_LENGTH)),
  classId: v.optional(Id),
  left: v.optional(v.boolean()),
})
export type ChangePupil = v.InferOutput<typeof ChangePupil>

/**
 * PUT /api/school/classes/:id/pegs: pegs to hang anew; a peg somebody else has is exchanged for the
 * mover's old one.
 */
export const PutPeg = v.strictObject({ pupilId: Id, peg: Peg })
export type PutPeg = v.InferOutput<typeof PutPeg>

/**
 * POST /api/school/class-lists?classId=: a list as text or zip in the body; answered with what it
 * would do. Nothing has happened yet.
 */
export const ClassListQuery = v.object({
  classId: v.optional(Id),
  /** Of `kinds` of the list as it was shown before: which one is a class here. */
  kind: v.optional(v.pipe(v.string(), v.maxLength(255))),
})
export const ListStep = v.object({
  line: v.number(),
  does: v.picklist(['add', 'change', 'nothing']),
  firstName: v.string(),
  lastName: v.string(),
  className: v.string(),
  changes: v.array(v.picklist(['name', 'class', 'number'])),
  /** New, and called like another of the class: one is asked whether these are two pupils. */
  twin: v.optional(v.boolean(), false),
})
/** `about`: the class or the number it is about. */
export const ListFault = v.object({
  line: v.number(),
  cells: v.array(v.string()),
  reason: v.fallback(v.picklist(ROW_FAULTS), 'unusable'),
  about: v.optional(v.string(), ''),
})
/**
 * `steps` and `faults` hold the first 500 of each; the counts are whole. POST …/:id/confirm starts
 * it; GET …/:id says how far it is.
 */
export const ClassList = v.object({
  id: Id,
  state: v.picklist(['shown', 'running', 'done', 'failed', 'taken-back']),
  counts: v.object({
    add: v.number(),
    change: v.number(),
    nothing: v.number(),
    faults: v.number(),
    newClasses: v.number(),
  }),
  rowsDone: v.number(),
  newClasses: v.array(v.string()),
  /** How the letters of the file were written. */
  encoding: v.optional(v.picklist(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252']), 'utf-8'),
  /**
   * A register that puts pupils into several classes each and calls none of them their homeroom:
   * which kind of class is a class here? Nothing is taken over before `kind` is chosen.
   */
  kinds: v.optional(
    v.array(
      v.object({
        id: v.string(),
        name: v.string(),
        classes: v.array(v.string()),
        pupils: v.number(),
      }),
    ),
    [],
  ),
  kind: v.optional(v.nullable(v.string()), null),
  /** Classes that would hold more pupils than a class can: nothing is taken over then. */
  overfull: v.optional(v.array(v.object({ name: v.string(), count: v.number() })), []),
  /** How many one class can hold. */
  mostInClass: v.number(),
  steps: v.array(ListStep),
  faults: v.array(ListFault),
})
export type ClassList = v.InferOutput<typeof ClassList>
/**
 * GET /api/school/class-lists: lists that were taken over, newest first, at most twenty. POST
 * …/:id/take-back takes one back whole and answers the same.
 */
export const TakenList = v.object({
  id: Id,
  state: v.picklist(['running', 'done', 'failed', 'taken-back']),
  takenAt: v.string(),
  by: v.string(),
  added: v.number(),
  changed: v.number(),
  /** It has ended, and what it did is known. */
  mayTakeBack: v.boolean(),
})
export const TakenLists = v.array(TakenList)
export type TakenList = v.InferOutput<typeof TakenList>
/** POST /api/school/class-lists/:id/confirm: without these lines, which name a pupil once more. */
export const ConfirmClassList = v.strictObject({
  leaveOut: v.optional(v.pipe(v.array(v.number()), v.maxLength(5000)), []),
})
export type ConfirmClassList = v.InferOutput<typeof ConfirmClassList>
export const MAX_CLASS_LIST_BYTES = 8_000_000

/** GET /api/school/export?format=: the lists as they stand, as a file. */
export const ExportQuery = v.object({
  format: v.picklist(['csv', 'oneroster-1.1', 'oneroster-1.2']),
  classId: v.optional(Id),
})

/**
 * GET /api/school/staff: everybody who works here, who teaches what. `address` lets them choose a
 * password while the link is open.
 */
export const StaffMember = v.object({
  id: Id,
  firstName: v.string(),
  lastName: v.string(),
  email: v.string(),
  role: v.picklist(['teacher', 'office']),
  leads: v.boolean(),
  left: v.boolean(),
  /** Has chosen a password. */
  active: v.boolean(),
  /** Signs in with one-time codes as well. */
  oneTimeCodes: v.boolean(),
  classes: v.array(v.object({ id: Id, name: v.string() })),
  lastSeenAt: v.nullable(v.string()),
})
export const Staff = v.array(StaffMember)
export type StaffMember = v.InferOutput<typeof StaffMember>

/** PUT /api/school/staff/:id: makes an account and mails a link to choose a password. */
export const AddStaff = v.strictObject({
  firstName: words(60),
  lastName: text(60),
  email: Email,
  role: v.picklist(['teacher', 'office']),
  classIds: v.array(Id),
})
export type AddStaff = v.InferOutput<typeof AddStaff>

/**
 * PATCH /api/school/staff/:id: what is left out stays. `left: true` ends the account; somebody has
 * to keep leading the school.
 */
export const ChangeStaff = v.strictObject({
  leads: v.optional(v.boolean()),
  left: v.optional(v.boolean()),
  classIds: v.optional(v.array(Id)),
  /** `false` helps somebody in whose phone is lost. */
  oneTimeCodes: v.optional(v.literal(false)),
})
export type ChangeStaff = v.InferOutput<typeof ChangeStaff>

/**
 * GET /api/school/roll-over?fromYearId=&toYearId=: the first proposal, and the latest turn of the
 * year that can still be undone.
 */
export const RollOverQuery = v.object({ fromYearId: Id, toYearId: Id })
export const RollOverMove = v.strictObject({ pupilId: Id, toClassId: v.nullable(Id) })
export const RollOverPlan = v.object({
  classes: v.array(
    v.object({
      id: Id,
      name: v.string(),
      yearGroup: v.string(),
      pupils: v.array(v.object({ ...PupilName.entries, toClassId: v.nullable(Id) })),
    }),
  ),
  nextClasses: v.array(v.object({ id: Id, name: v.string(), yearGroup: v.string() })),
  /** Class folders that will be put away, and pieces that still wait in a tray. */
  foldersToPutAway: v.number(),
  piecesWaiting: v.number(),
})
export type RollOverPlan = v.InferOutput<typeof RollOverPlan>

/** POST /api/school/roll-over: does it, in one step. */
export const DoRollOver = v.strictObject({
  fromYearId: Id,
  toYearId: Id,
  moves: v.array(RollOverMove),
})
export type DoRollOver = v.InferOutput<typeof DoRollOver>

/** GET /api/school/roll-over/latest */
export const LatestRollOver = v.nullable(
  v.object({
    id: Id,
    fromYearName: v.string(),
    toYearName: v.string(),
    doneAt: v.string(),
    moved: v.number(),
    left: v.number(),
    /** Until the first piece of the new year is made. */
    undoable: v.boolean(),
  }),
)
export type LatestRollOver = v.InferOutput<typeof LatestRollOver>
