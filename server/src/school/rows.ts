import { day, flag, id, integer, moment, refer, row, text } from '../platform/columns.ts'

export type SchoolRow = { id: string; name: string; timeZone: string; createdAt: Date }
export const SchoolRow = row<SchoolRow>('school', { id, name: text, timeZone: text, createdAt: moment })

export type SchoolYearRow = { id: string; schoolId: string; name: string; startsOn: string; endsOn: string }
export const SchoolYearRow = row<SchoolYearRow>('school_year', {
  id,
  schoolId: refer('school'),
  name: text,
  startsOn: day,
  endsOn: day,
})

export type TermRow = { id: string; schoolYearId: string; name: string; startsOn: string; endsOn: string }
export const TermRow = row<TermRow>('term', { id, schoolYearId: refer('school_year'), name: text, startsOn: day, endsOn: day })

export type ClassRow = { id: string; schoolYearId: string; name: string; yearGroup: string; idleMinutes: number; version: number }
export const ClassRow = row<ClassRow>('class', {
  id,
  schoolYearId: refer('school_year'),
  name: text,
  yearGroup: text,
  idleMinutes: integer,
  version: integer,
})

export type EnrolmentRow = { classId: string; personId: string }
export const EnrolmentRow = row<EnrolmentRow>(
  'enrolment',
  { classId: refer('class', { key: true, cascade: true }), personId: refer('person', { key: true, cascade: true }) },
  { indices: [{ columns: ['personId'] }] },
)

export type GuardianRow = { parentId: string; pupilId: string }
export const GuardianRow = row<GuardianRow>(
  'guardian',
  { parentId: refer('person', { key: true, cascade: true }), pupilId: refer('person', { key: true, cascade: true }) },
  { indices: [{ columns: ['pupilId'] }] },
)

/** A parent's word, per child: `photos` in use, `voice`, `sharing`. */
export type ConsentRow = { pupilId: string; kind: 'photos' | 'voice' | 'sharing'; granted: boolean; saidBy: string; saidAt: Date }
export const ConsentRow = row<ConsentRow>('consent', {
  pupilId: refer('person', { key: true, cascade: true }),
  kind: { type: 'text', primary: true },
  granted: flag,
  saidBy: refer('person'),
  saidAt: moment,
})
