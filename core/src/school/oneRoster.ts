import type { ReadList } from './classList.ts'
import type { RowFault } from './rowFaults.ts'
import { readCsv, writeCsv } from './csv.ts'

/**
 * OneRoster CSV, the exchange format of school registers (1EdTech, versions 1.1 and 1.2).
 * The headings are written from memory of the published CSV binding; the order is the binding's.
 */
export type OneRosterVersion = '1.1' | '1.2'
/** File names and their texts. */
export type OneRosterFiles = Record<string, string>

const COMMON = ['sourcedId', 'status', 'dateLastModified']
/** Headings of each file that is read or written. */
export const ONE_ROSTER_HEADINGS = {
  'manifest.csv': ['propertyName', 'value'],
  'academicSessions.csv': [
    ...COMMON,
    'title',
    'type',
    'startDate',
    'endDate',
    'parentSourcedId',
    'schoolYear',
  ],
  'orgs.csv': [...COMMON, 'name', 'type', 'identifier', 'parentSourcedId'],
  'courses.csv': [
    ...COMMON,
    'schoolYearSourcedId',
    'title',
    'courseCode',
    'grades',
    'orgSourcedId',
    'subjects',
    'subjectCodes',
  ],
  'classes.csv': [
    ...COMMON,
    'title',
    'grades',
    'courseSourcedId',
    'classCode',
    'classType',
    'location',
    'schoolSourcedId',
    'termSourcedIds',
    'subjects',
    'subjectCodes',
    'periods',
  ],
  'enrollments.csv': [
    ...COMMON,
    'classSourcedId',
    'schoolSourcedId',
    'userSourcedId',
    'role',
    'primary',
    'beginDate',
    'endDate',
  ],
  'users.csv': [
    ...COMMON,
    'enabledUser',
    'orgSourcedIds',
    'role',
    'username',
    'userIds',
    'givenName',
    'familyName',
    'middleName',
    'identifier',
    'email',
    'sms',
    'phone',
    'agentSourcedIds',
    'grades',
    'password',
  ],
  'users.csv 1.2': [
    ...COMMON,
    'enabledUser',
    'username',
    'userIds',
    'givenName',
    'familyName',
    'middleName',
    'identifier',
    'email',
    'sms',
    'phone',
    'agentSourcedIds',
    'grades',
    'password',
    'userMasterIdentifier',
    'resourceSourcedIds',
    'preferredGivenName',
    'preferredMiddleName',
    'preferredFamilyName',
    'primaryOrgSourcedId',
    'pronouns',
  ],
  'roles.csv': [
    ...COMMON,
    'userSourcedId',
    'roleType',
    'role',
    'beginDate',
    'endDate',
    'orgSourcedId',
    'userProfileSourcedId',
  ],
} as const

/** Whether files look like OneRoster: users are there, with the headings that matter. */
export const isOneRoster = (files: OneRosterFiles): boolean =>
  /(^|,)"?givenName"?(,|\r|\n|$)/.test(files['users.csv'] ?? '')

type Record_ = { line: number; cells: string[]; get: (heading: string) => string }
function readFile(text: string | undefined): Record_[] {
  const [head, ...rows] = readCsv(text ?? '')
  const at = new Map(head?.cells.map((heading, i) => [heading.toLowerCase(), i]))
  return rows.map(({ line, cells }) => ({
    line,
    cells,
    get: (heading) => cells[at.get(heading.toLowerCase()) ?? -1] ?? '',
  }))
}
const lives = (record: Record_): boolean => record.get('status').toLowerCase() !== 'tobedeleted'

type RosterClass = {
  externalId: string
  name: string
  yearGroup: string
  isHome: boolean
  /** What is taught in it: its course. */
  kind: string
}
type Enrolment = { pupil: string; of: string; isPrimary: boolean }

/**
 * Classes of one course, where a register says of none that it is a homeroom.
 * `pupils`: how many are enrolled in one of them.
 */
export type ClassKind = { id: string; name: string; classes: string[]; pupils: number }

const readClasses = (files: OneRosterFiles): Map<string, RosterClass> =>
  new Map(
    readFile(files['classes.csv'])
      .filter(lives)
      .map((row) => [
        row.get('sourcedId'),
        {
          externalId: row.get('sourcedId'),
          name: row.get('title'),
          yearGroup: row.get('grades'),
          isHome: row.get('classType').toLowerCase() === 'homeroom',
          kind: row.get('courseSourcedId') || row.get('subjects'),
        },
      ]),
  )

const readEnrolments = (files: OneRosterFiles): Enrolment[] =>
  readFile(files['enrollments.csv'])
    .filter(lives)
    .filter((row) => row.get('role').toLowerCase() === 'student')
    .map((row) => ({
      pupil: row.get('userSourcedId'),
      of: row.get('classSourcedId'),
      isPrimary: row.get('primary').toLowerCase() === 'true',
    }))

/**
 * The kinds of class to choose from, the one most pupils are in first; none where each pupil is in
 * one class, or where the register says which is their homeroom or their first.
 */
function kindsOf(
  files: OneRosterFiles,
  classes: Map<string, RosterClass>,
  enrolments: readonly Enrolment[],
): ClassKind[] {
  const settled = new Set(
    enrolments
      .filter(({ of, isPrimary }) => isPrimary || classes.get(of)?.isHome)
      .map(({ pupil }) => pupil),
  )
  const open = enrolments.filter(({ pupil, of }) => !settled.has(pupil) && classes.has(of))
  if (new Set(open.map(({ pupil }) => pupil)).size === open.length) return []
  const courses = new Map(
    readFile(files['courses.csv'])
      .filter(lives)
      .map((row) => [row.get('sourcedId'), row.get('title')]),
  )
  const kinds = new Map<string, { classes: Set<string>; pupils: Set<string> }>()
  for (const { pupil, of } of open) {
    const { kind, name } = classes.get(of)!
    const one = kinds.get(kind) ?? { classes: new Set(), pupils: new Set() }
    kinds.set(kind, one)
    one.classes.add(name)
    one.pupils.add(pupil)
  }
  if (kinds.size < 2) return []
  return [...kinds]
    .map(([id, one]) => ({
      id,
      name: courses.get(id) || id,
      classes: [...one.classes].sort((a, b) => a.localeCompare(b)),
      pupils: one.pupils.size,
    }))
    .sort((a, b) => b.pupils - a.pupils || a.name.localeCompare(b.name))
}

/**
 * The pupils of a OneRoster export and the class each is enrolled in. Staff, guardians and what is
 * marked `tobedeleted` are left out.
 * @param kind - Which kind of class is a class here, where `kinds` asks for it: its id.
 * @returns `classes`: every class the pupils are in, for classes that are not there yet. `kinds`:
 *   what is to be chosen from where pupils are in several classes and the register does not say
 *   which counts; until then nobody is placed.
 */
export function readOneRoster(
  files: OneRosterFiles,
  kind: string | null = null,
): ReadList & {
  classes: { externalId: string; name: string; yearGroup: string }[]
  kinds: ClassKind[]
} {
  const classes = readClasses(files)
  const enrolments = readEnrolments(files)
  const kinds = kindsOf(files, classes, enrolments)
  if (kinds.length > 0 && !kinds.some(({ id }) => id === kind))
    return { pupils: [], faults: [], classes: [], kinds }
  const chosen = kinds.length > 0 ? kind : null
  const list: ReadList = { pupils: [], faults: [] }
  const enrolled = new Map<string, string>()
  const rank = new Map<string, number>()
  for (const { pupil, of, isPrimary } of enrolments) {
    // Of many classes the homeroom counts, else the one the register calls the pupil's first, else
    // the kind that was chosen, else the one it names first.
    const one = classes.get(of)
    const counts = one?.isHome ? 4 : isPrimary ? 3 : chosen !== null && one?.kind === chosen ? 2 : 1
    if (counts <= (rank.get(pupil) ?? 0)) continue
    rank.set(pupil, counts)
    enrolled.set(pupil, of)
  }
  const students = new Set(
    readFile(files['roles.csv'])
      .filter(lives)
      .filter((row) => row.get('role').toLowerCase() === 'student')
      .map((row) => row.get('userSourcedId')),
  )
  for (const row of readFile(files['users.csv']).filter(lives)) {
    const id = row.get('sourcedId')
    if (row.get('role').toLowerCase() !== 'student' && !students.has(id)) continue
    const firstName = row.get('preferredGivenName') || row.get('givenName')
    const fault = (reason: RowFault) =>
      list.faults.push({ line: row.line, cells: row.cells.slice(0, 12), reason, about: '' })
    if (!id) fault('no-sourced-id')
    else if (!firstName) fault('no-given-name')
    else if (
      enrolled.has(id) &&
      files['classes.csv'] !== undefined &&
      !classes.has(enrolled.get(id)!)
    )
      fault('unlisted-class')
    else
      list.pupils.push({
        line: row.line,
        externalId: id,
        firstName,
        lastName: row.get('preferredFamilyName') || row.get('familyName'),
        className: enrolled.get(id) ?? '',
        yearGroup: row.get('grades'),
      })
  }
  const inUse = new Set(enrolled.values())
  return {
    ...list,
    classes: [...classes.values()]
      .filter(({ externalId }) => inUse.has(externalId))
      .map(({ externalId, name, yearGroup }) => ({ externalId, name, yearGroup })),
    kinds,
  }
}

export type Roster = {
  school: { id: string; name: string }
  year: {
    id: string
    name: string
    startsOn: string
    endsOn: string
    terms: { id: string; name: string; startsOn: string; endsOn: string }[]
  }
  classes: { id: string; externalId: string | null; name: string; yearGroup: string }[]
  people: {
    id: string
    externalId: string | null
    role: 'pupil' | 'teacher'
    firstName: string
    lastName: string
    email: string
    classIds: string[]
  }[]
  /** ISO 8601 moment of the export. */
  at: string
}

const PRESENT = ['academicSessions', 'classes', 'courses', 'enrollments', 'orgs', 'users']
const ABSENT = [
  ...['categories', 'classResources', 'courseResources', 'demographics', 'lineItems'],
  ...['resources', 'results'],
]
const ROLE = { pupil: 'student', teacher: 'teacher' } as const

/** What every row begins with: its id, and the status and moment that only changes have. */
const common = (id: string): string[] => [id, '', '']
const idOf = (one: { id: string; externalId: string | null }): string => one.externalId ?? one.id
const file = (name: keyof typeof ONE_ROSTER_HEADINGS, rows: string[][]): string =>
  writeCsv(ONE_ROSTER_HEADINGS[name], rows)

/** A school's year, classes and people as OneRoster CSV files, to be put into one zip. */
export function writeOneRoster(roster: Roster, version: OneRosterVersion): OneRosterFiles {
  const { school } = roster
  return {
    'manifest.csv': writeManifest(roster, version),
    'orgs.csv': file('orgs.csv', [[...common(school.id), school.name, 'school', school.id, '']]),
    'academicSessions.csv': writeSessions(roster),
    'courses.csv': writeCourses(roster),
    'classes.csv': writeClasses(roster),
    'enrollments.csv': writeEnrolments(roster),
    'users.csv': writeUsers(roster, version),
    ...(version === '1.2' ? { 'roles.csv': writeRoles(roster) } : {}),
  }
}

const writeManifest = ({ at }: Roster, version: OneRosterVersion): string =>
  file('manifest.csv', [
    ['manifest.version', '1.0'],
    ['oneroster.version', version],
    ...[...PRESENT, ...(version === '1.2' ? ['roles'] : [])].map((name) => [
      `file.${name}`,
      'bulk',
    ]),
    ...ABSENT.map((name) => [`file.${name}`, 'absent']),
    ['source.systemName', 'Nibquill'],
    ['source.systemCode', at],
  ])

function writeSessions({ year }: Roster): string {
  const schoolYear = year.endsOn.slice(0, 4)
  return file('academicSessions.csv', [
    [...common(year.id), year.name, 'schoolYear', year.startsOn, year.endsOn, '', schoolYear],
    ...year.terms.map(({ id, name, startsOn, endsOn }) => [
      ...common(id),
      ...[name, 'term', startsOn, endsOn, year.id, schoolYear],
    ]),
  ])
}

const writeCourses = ({ school, year, classes }: Roster): string =>
  file(
    'courses.csv',
    classes.map((one) => [
      ...common(`course-${idOf(one)}`),
      ...[year.id, one.name, '', one.yearGroup, school.id, '', ''],
    ]),
  )

function writeClasses({ school, year, classes }: Roster): string {
  const terms = year.terms.map(({ id }) => id).join(',') || year.id
  return file(
    'classes.csv',
    classes.map((one) => [
      ...common(idOf(one)),
      ...[one.name, one.yearGroup, `course-${idOf(one)}`, '', 'homeroom', '', school.id, terms],
      ...['', '', ''],
    ]),
  )
}

function writeEnrolments({ school, classes, people }: Roster): string {
  const classOf = new Map(classes.map((one) => [one.id, idOf(one)]))
  return file(
    'enrollments.csv',
    people.flatMap((person) =>
      person.classIds.map((classId) => {
        const of = classOf.get(classId) ?? classId
        return [
          ...common(`${idOf(person)}-${of}`),
          ...[of, school.id, idOf(person), ROLE[person.role], 'false', '', ''],
        ]
      }),
    ),
  )
}

function writeUsers({ school, people }: Roster, version: OneRosterVersion): string {
  const rows = people.map((person) => {
    const start = [...common(idOf(person)), 'true']
    const names = [
      ...[person.email || idOf(person), '', person.firstName, person.lastName || '-', '', ''],
      ...[person.email, '', '', '', '', ''],
    ]
    return version === '1.1'
      ? [...start, school.id, ROLE[person.role], ...names]
      : [...start, ...names, '', '', '', '', '', school.id, '']
  })
  return file(version === '1.1' ? 'users.csv' : 'users.csv 1.2', rows)
}

const writeRoles = ({ school, people }: Roster): string =>
  file(
    'roles.csv',
    people.map((person) => [
      ...common(`role-${idOf(person)}`),
      ...[idOf(person), 'primary', ROLE[person.role], '', '', school.id, ''],
    ]),
  )
