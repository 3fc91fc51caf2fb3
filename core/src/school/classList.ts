import { readCsv } from './csv.ts'
import { MAX_NAME_LENGTH } from './names.ts'
import { MOST_PEGS } from './pegs.ts'
import type { RowFault } from './rowFaults.ts'

/**
 * A pupil as a list names them. `externalId` is the register's own number; `className` is empty
 * when the list has no such column.
 */
export type ListedPupil = {
  line: number
  externalId: string
  firstName: string
  lastName: string
  className: string
  yearGroup: string
}
/** A row that cannot be used. @param about - The class or number it is about, empty for none. */
export type ListFault = { line: number; cells: string[]; reason: RowFault; about: string }
export type ReadList = { pupils: ListedPupil[]; faults: ListFault[] }

type Column = 'firstName' | 'lastName' | 'fullName' | 'externalId' | 'className' | 'yearGroup'
/** What schools write above their columns, in lower case without spaces and marks. */
const HEADINGS: Record<Column, readonly string[]> = {
  firstName: [
    'firstname',
    'forename',
    'givenname',
    'first',
    'preferredname',
    'vorname',
    'prénom',
    'prenom',
    'nombre',
  ],
  lastName: [
    'lastname',
    'surname',
    'familyname',
    'last',
    'nachname',
    'nom',
    'apellido',
    'apellidos',
  ],
  fullName: ['name', 'pupil', 'pupilname', 'fullname', 'student', 'studentname', 'child'],
  externalId: [
    'id',
    'pupilid',
    'studentid',
    'number',
    'no',
    'upn',
    'admissionno',
    'admissionnumber',
    'identifier',
    'sourcedid',
  ],
  className: ['class', 'classname', 'form', 'group', 'registrationgroup', 'reggroup', 'klasse'],
  yearGroup: ['year', 'yeargroup', 'grade', 'nationalcurriculumyear', 'ncyear'],
}

const plain = (heading: string): string => heading.toLowerCase().replace(/[\s._\-:#()]/g, '')
const columnOf = (heading: string): Column | undefined =>
  (Object.keys(HEADINGS) as Column[]).find((column) => HEADINGS[column].includes(plain(heading)))

/**
 * Reads a class list: typed, pasted from a spreadsheet, or a CSV file; columns in any order, found
 * by their headings.
 * Without headings one column is the whole name, two are first and last name.
 */
export function readClassList(text: string): ReadList {
  const rows = readCsv(text)
  const headings = rows[0]?.cells.map(columnOf) ?? []
  const headed = headings.some(
    (column) => column === 'firstName' || column === 'lastName' || column === 'fullName',
  )
  const columns: (Column | undefined)[] = headed
    ? headings
    : (rows[0]?.cells.length ?? 0) > 1
      ? ['firstName', 'lastName']
      : ['fullName']
  const read: ReadList = { pupils: [], faults: [] }
  // `Shore, Wren` under one heading is one cell, whatever the comma else stands for.
  const wholeNames = headed && columns.length === 1 && columns[0] === 'fullName'
  for (const { line, cells } of headed ? rows.slice(1) : rows) {
    const found = readRow(line, wholeNames ? [cells.join(', ')] : cells, columns)
    if ('reason' in found) read.faults.push(found)
    else read.pupils.push(found)
  }
  return read
}

function readRow(
  line: number,
  cells: string[],
  columns: readonly (Column | undefined)[],
): ListedPupil | ListFault {
  const fault = (reason: RowFault): ListFault => ({ line, cells, reason, about: '' })
  if (cells.slice(columns.length).some((cell) => cell !== '')) return fault('more-columns')
  const cell = (column: Column): string =>
    cells[columns.indexOf(column)]?.normalize('NFC').replace(/\s+/g, ' ') ?? ''
  const [firstName, lastName] = columns.includes('fullName')
    ? splitName(cell('fullName'))
    : [cell('firstName'), cell('lastName')]
  if (!firstName) return fault(lastName ? 'no-first-name' : 'no-name')
  if (firstName.length > MAX_NAME_LENGTH || lastName.length > MAX_NAME_LENGTH)
    return fault('name-too-long')
  if (/[\u0000-\u001f\ufffd]/.test(firstName + lastName) || !(firstName + lastName).isWellFormed())
    return fault('name-unreadable')
  return {
    line,
    externalId: cell('externalId'),
    firstName,
    lastName,
    className: cell('className'),
    yearGroup: cell('yearGroup'),
  }
}

/** `Shore, Wren` and `Wren Shore` are the same pupil. */
export function splitName(name: string): [string, string] {
  const comma = name.indexOf(',')
  if (comma >= 0) return [name.slice(comma + 1).trim(), name.slice(0, comma).trim()]
  const space = name.indexOf(' ')
  return space < 0 ? [name, ''] : [name.slice(0, space), name.slice(space + 1).trim()]
}

/**
 * A pupil who is at the school already. `classId` is the class they are in now, null when in none.
 */
export type KnownPupil = {
  id: string
  externalId: string | null
  firstName: string
  lastName: string
  classId: string | null
}
/** A class the list may put pupils into. */
export type KnownClass = { id: string; externalId: string | null; name: string }

/** What a row will do once it is confirmed. */
export type ListStep = {
  line: number
  does: 'add' | 'change' | 'nothing'
  pupilId: string | null
  firstName: string
  lastName: string
  externalId: string | null
  classId: string
  /** In words, what changes: `name`, `class`, `number`. */
  changes: ('name' | 'class' | 'number')[]
  /** New, and called like another of the class, in this list or at school: to be asked about. */
  twin: boolean
}
export type ListPlan = { steps: ListStep[]; faults: ListFault[] }

/**
 * What a list would do: who is new, who changes, who stays. Pupils are found by the register's
 * number, then by name;
 * of several with one name each is found once, so two pupils of the same name stay two.
 * The same list twice plans nothing the second time.
 * @param defaultClassId - Where rows go that name no class; null: such rows are faults.
 */
export function planClassList(
  read: ReadList,
  known: {
    pupils: readonly KnownPupil[]
    classes: readonly KnownClass[]
    defaultClassId: string | null
  },
): ListPlan {
  const plan: ListPlan = { steps: [], faults: [...read.faults] }
  const classes = new Map<string, string>()
  for (const one of known.classes) {
    classes.set(keyOfName(one.name), one.id)
    if (one.externalId) classes.set(`#${one.externalId}`, one.id)
  }
  const byNumber = new Map<string, KnownPupil>()
  for (const pupil of known.pupils) byNumber.set(pupil.id, pupil)
  for (const pupil of known.pupils) if (pupil.externalId) byNumber.set(pupil.externalId, pupil)
  const byName = groupBy(known.pupils, (pupil) => keyOfName(`${pupil.firstName} ${pupil.lastName}`))
  const found = new Set<string>()
  const numbers = new Set<string>()
  for (const row of read.pupils) {
    const fault = (reason: RowFault, about = '') =>
      plan.faults.push({
        line: row.line,
        cells: [row.firstName, row.lastName, row.className].filter(Boolean),
        reason,
        about,
      })
    const classId = row.className
      ? (classes.get(`#${row.className}`) ?? classes.get(keyOfName(row.className)) ?? null)
      : known.defaultClassId
    if (!classId) {
      fault(row.className ? 'unknown-class' : 'no-class', row.className)
      continue
    }
    if (row.externalId && numbers.has(row.externalId)) {
      fault('number-twice', row.externalId)
      continue
    }
    if (row.externalId) numbers.add(row.externalId)
    const pupil = findPupil(row, classId, byNumber, byName, found)
    if (pupil) found.add(pupil.id)
    const changes: ListStep['changes'] = []
    if (pupil && (pupil.firstName !== row.firstName || pupil.lastName !== row.lastName))
      changes.push('name')
    if (pupil && pupil.classId !== classId) changes.push('class')
    const number = row.externalId === pupil?.id ? null : row.externalId || null
    if (pupil && number && pupil.externalId !== number) changes.push('number')
    plan.steps.push({
      line: row.line,
      does: !pupil ? 'add' : changes.length > 0 ? 'change' : 'nothing',
      pupilId: pupil?.id ?? null,
      firstName: row.firstName,
      lastName: row.lastName,
      externalId: number ?? pupil?.externalId ?? null,
      classId,
      changes,
      twin: false,
    })
  }
  plan.faults.sort((a, b) => a.line - b.line)
  markTwins(plan.steps, known.pupils)
  return plan
}

/** Without a number of their own, two of one name in one class may be one pupil written twice. */
function markTwins(steps: ListStep[], known: readonly KnownPupil[]): void {
  const keyOf = (pupil: { firstName: string; lastName: string; classId: string | null }) =>
    `${pupil.classId} ${keyOfName(`${pupil.firstName} ${pupil.lastName}`)}`
  const there = new Set(known.map(keyOf))
  for (const step of steps) {
    step.twin = step.does === 'add' && step.externalId === null && there.has(keyOf(step))
    there.add(keyOf(step))
  }
}

/** Classes that a list names and that are not here: each once, as it is written first. */
export function classesNamed(read: ReadList): { name: string; yearGroup: string }[] {
  const named = new Map<string, { name: string; yearGroup: string }>()
  for (const { className, yearGroup } of read.pupils)
    if (className && !named.has(keyOfName(className)))
      named.set(keyOfName(className), { name: className, yearGroup })
  return [...named.values()]
}

/**
 * Classes that would hold more pupils than there are pegs for.
 * @param inClass - How many are in each class now, by its id.
 */
export function overfull(
  steps: readonly Pick<ListStep, 'does' | 'classId' | 'changes'>[],
  inClass: ReadonlyMap<string, number>,
): { classId: string; count: number }[] {
  const counts = new Map(inClass)
  for (const { does, classId, changes } of steps)
    if (does === 'add' || changes.includes('class'))
      counts.set(classId, (counts.get(classId) ?? 0) + 1)
  const touched = new Set(steps.map(({ classId }) => classId))
  return [...counts]
    .filter(([classId, count]) => touched.has(classId) && count > MOST_PEGS)
    .map(([classId, count]) => ({ classId, count }))
}

function findPupil(
  row: ListedPupil,
  classId: string,
  byNumber: ReadonlyMap<string, KnownPupil>,
  byName: ReadonlyMap<string, readonly KnownPupil[]>,
  found: ReadonlySet<string>,
): KnownPupil | undefined {
  const numbered = row.externalId ? byNumber.get(row.externalId) : undefined
  if (numbered) return found.has(numbered.id) ? undefined : numbered
  const namesakes = (byName.get(keyOfName(`${row.firstName} ${row.lastName}`)) ?? []).filter(
    // Somebody else with the same name and another number is somebody else.
    (pupil) => !found.has(pupil.id) && (!row.externalId || !pupil.externalId),
  )
  return namesakes.find((pupil) => pupil.classId === classId) ?? namesakes[0]
}

const keyOfName = (name: string): string =>
  name.normalize('NFC').trim().toLowerCase().replace(/\s+/g, ' ')

function groupBy<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of items) {
    const key = keyOf(item)
    const group = groups.get(key)
    if (group) group.push(item)
    else groups.set(key, [item])
  }
  return groups
}
