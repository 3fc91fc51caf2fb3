import type { Colour, FilmOriginals, PegSymbol } from '@nibquill/core'
import type { RollOverMove } from '@nibquill/core/school/rollOver'
import type { ListPlan } from '@nibquill/core/school/classList'
import type { ClassKind } from '@nibquill/core/school/oneRoster'
import type { Encoding } from '@nibquill/core/school/csv'
import {
  day,
  flag,
  id,
  integer,
  json,
  maybe,
  moment,
  refer,
  row,
  text,
} from '../platform/columns.ts'

export type SchoolRow = {
  id: string
  name: string
  timeZone: string
  filmOriginals: FilmOriginals
  /** What the school wants a closer look at in comments. @see core/src/comments/heldWords.ts */
  heldWords: readonly string[]
  createdAt: Date
}
export const SchoolRow = row<SchoolRow>('school', {
  id,
  name: text,
  timeZone: text,
  filmOriginals: text,
  heldWords: json,
  createdAt: moment,
})

export type RoleName = 'pupil' | 'teacher' | 'parent' | 'office'
export type PersonRow = {
  id: string
  schoolId: string
  role: RoleName
  firstName: string
  lastName: string
  email: string | null
  passwordHash: string | null
  pegSymbol: PegSymbol | null
  pegColour: Colour | null
  /** Sets up and oversees the whole school: the office lead, and whoever opened the school. */
  leads: boolean
  /** The register's own id. */
  externalId: string | null
  leftAt: Date | null
  createdAt: Date
  lastSeenAt: Date | null
}
export const PersonRow = row<PersonRow>(
  'person',
  {
    id,
    schoolId: refer('school'),
    role: text,
    firstName: text,
    lastName: text,
    email: maybe(text),
    passwordHash: maybe(text),
    pegSymbol: maybe(text),
    pegColour: maybe(text),
    leads: flag,
    externalId: maybe(text),
    leftAt: maybe(moment),
    createdAt: moment,
    lastSeenAt: maybe(moment),
  },
  { uniques: [{ columns: ['email'] }], indices: [{ columns: ['schoolId', 'role'] }] },
)

export type SchoolYearRow = {
  id: string
  schoolId: string
  name: string
  startsOn: string
  endsOn: string
}
export const SchoolYearRow = row<SchoolYearRow>('school_year', {
  id,
  schoolId: refer('school'),
  name: text,
  startsOn: day,
  endsOn: day,
})

export type TermRow = {
  id: string
  schoolYearId: string
  name: string
  startsOn: string
  endsOn: string
}
export const TermRow = row<TermRow>(
  'term',
  { id, schoolYearId: refer('school_year'), name: text, startsOn: day, endsOn: day },
  { indices: [{ columns: ['schoolYearId'] }] },
)

/** Days inside terms on which no lessons are held: half-terms, staff days. */
export type ClosedDayRow = {
  id: string
  schoolYearId: string
  name: string
  startsOn: string
  endsOn: string
}
export const ClosedDayRow = row<ClosedDayRow>(
  'closed_day',
  {
    id,
    schoolYearId: refer('school_year', { cascade: true }),
    name: text,
    startsOn: day,
    endsOn: day,
  },
  { indices: [{ columns: ['schoolYearId'] }] },
)

export type ClassRow = {
  id: string
  schoolYearId: string
  name: string
  yearGroup: string
  idleMinutes: number
  /** Whether pupils may propose folders of their own. */
  pupilsPropose: boolean
  /** Whether pupils tap pictures instead of typing. */
  young: boolean
  /** Whether it is heard when a piece goes into the tray. */
  sounds: boolean
  /** The register's own id. */
  externalId: string | null
  version: number
}
export const ClassRow = row<ClassRow>(
  'class',
  {
    id,
    schoolYearId: refer('school_year'),
    name: text,
    yearGroup: text,
    idleMinutes: integer,
    pupilsPropose: flag,
    young: flag,
    sounds: flag,
    externalId: maybe(text),
    version: integer,
  },
  { indices: [{ columns: ['schoolYearId'] }] },
)

export type EnrolmentRow = { classId: string; personId: string }
export const EnrolmentRow = row<EnrolmentRow>(
  'enrolment',
  {
    classId: refer('class', { key: true, cascade: true }),
    personId: refer('person', { key: true, cascade: true }),
  },
  { indices: [{ columns: ['personId'] }] },
)

export type GuardianRow = { parentId: string; pupilId: string }
export const GuardianRow = row<GuardianRow>(
  'guardian',
  {
    parentId: refer('person', { key: true, cascade: true }),
    pupilId: refer('person', { key: true, cascade: true }),
  },
  { indices: [{ columns: ['pupilId'] }] },
)

/** A parent's word, per child: `photos` in use, `voice`, `sharing`. */
export type ConsentRow = {
  pupilId: string
  kind: 'photos' | 'voice' | 'sharing'
  granted: boolean
  saidBy: string
  saidAt: Date
}
export const ConsentRow = row<ConsentRow>('consent', {
  pupilId: refer('person', { key: true, cascade: true }),
  kind: { type: 'text', primary: true },
  granted: flag,
  saidBy: refer('person'),
  saidAt: moment,
})

/** A class list on its way in: the plan as it was shown, then how far it is. */
/** What a list did: whom it added, and how those it changed were before and after. */
export type ListChanges = {
  added: string[]
  changed: { id: string; before: ListedPupil; after: ListedPupil }[]
}
type ListedPupil = {
  firstName: string
  lastName: string
  externalId: string | null
  classId: string | null
}

export type ClassListRow = {
  id: string
  schoolId: string
  askedBy: string
  plan: ListPlan & {
    /** How the file was written; of lists read before that was noted, unknown. */
    encoding?: Encoding
    /** What is to be chosen from before anybody is placed, and what was. */
    kinds?: ClassKind[]
    kind?: string | null
    /** Classes that would hold more pupils than they can. */
    overfull?: { name: string; count: number }[]
    newClasses: {
      id: string
      name: string
      yearGroup: string
      externalId: string | null
      schoolYearId: string
    }[]
  }
  state: 'shown' | 'running' | 'done' | 'failed' | 'taken-back'
  changes: ListChanges | null
  rowsDone: number
  createdAt: Date
  finishedAt: Date | null
}
export const ClassListRow = row<ClassListRow>(
  'class_list',
  {
    id,
    schoolId: refer('school'),
    askedBy: refer('person'),
    plan: json,
    changes: maybe(json),
    state: text,
    rowsDone: integer,
    createdAt: moment,
    finishedAt: maybe(moment),
  },
  { indices: [{ columns: ['schoolId'] }] },
)

/** The year's turn, with everything needed to undo it. */
export type RollOverRow = {
  id: string
  fromYearId: string
  toYearId: string
  /** `enrolled`: those who were put into next year's classes by it, and not before. */
  changes: { moves: RollOverMove[]; enrolled: string[]; putAway: string[] }
  doneBy: string
  doneAt: Date
  undoneAt: Date | null
}
export const RollOverRow = row<RollOverRow>('roll_over', {
  id,
  fromYearId: refer('school_year'),
  toYearId: refer('school_year'),
  changes: json,
  doneBy: refer('person'),
  doneAt: moment,
  undoneAt: maybe(moment),
})
