import { COLOURS, PEG_SYMBOLS } from '@nibquill/core'
import { schoolDay } from '@nibquill/core/school/calendar'
import { isYoungYearGroup } from '@nibquill/core/school/youngYears'
import {
  ClassRow,
  ClosedDayRow,
  ConsentRow,
  EnrolmentRow,
  PersonRow,
  SchoolRow,
  SchoolYearRow,
  TermRow,
} from '@nibquill/server/school/rows'
import { DateTime } from 'luxon'
import { v7 as newId } from 'uuid'
import type { ClassName, Place, Pupil } from './place.ts'
import { DEMO_CARDS, DEMO_DOORS, DEMO_PASSWORD, DEMO_STAFF, ZONE } from './signIns.ts'

/** The school, its two teachers and two school years. */
export async function makeSchool(place: Place): Promise<{ current: string; earlier: string }> {
  const { accounts, passwords } = place.server.capabilities
  place.clock.set(place.at(-500, 9))
  await accounts.setUp({
    schoolName: 'Saltmarsh Primary School',
    timeZone: ZONE,
    firstName: 'Mr',
    lastName: 'Adeyemi',
    email: DEMO_STAFF.heron,
    password: DEMO_PASSWORD,
  })
  const school = await place.manager.findOneOrFail(SchoolRow, { where: {} })
  place.schoolId = school.id
  const first = await place.manager.findOneByOrFail(PersonRow, { email: DEMO_STAFF.heron })
  place.teacherIds.Heron = first.id
  const second = newId()
  await place.manager.insert(PersonRow, {
    id: second,
    schoolId: school.id,
    role: 'teacher',
    firstName: 'Mrs',
    lastName: 'Okafor',
    email: DEMO_STAFF.plover,
    passwordHash: await passwords.hash(DEMO_PASSWORD),
    leads: false,
    createdAt: place.now,
  })
  place.teacherIds.Plover = second
  const startYear = schoolYearStart(place.now)
  const years = { current: newId(), earlier: newId() }
  for (const [id, year] of [
    [years.earlier, startYear - 1],
    [years.current, startYear],
  ] as const) {
    const name = `${year}/${String(year + 1).slice(2)}`
    await place.manager.insert(SchoolYearRow, {
      id,
      schoolId: school.id,
      name,
      startsOn: `${year}-09-01`,
      endsOn: `${year + 1}-08-31`,
    })
    for (const [closed, startsOn, endsOn] of closedDaysOf(year))
      await place.manager.insert(ClosedDayRow, {
        id: newId(),
        schoolYearId: id,
        name: closed,
        startsOn,
        endsOn,
      })
    const terms = termsOf(year, schoolDay(place.now, ZONE))
    place.terms.push(...terms.map(([, startsOn, endsOn]) => ({ startsOn, endsOn })))
    for (const [term, startsOn, endsOn] of terms)
      await place.manager.insert(TermRow, {
        id: newId(),
        schoolYearId: id,
        name: `${term} ${startsOn.slice(0, 4)}`,
        startsOn,
        endsOn,
      })
  }
  return years
}

/** The class of this year and the one the same pupils sat in last year. */
export async function makeClass(
  place: Place,
  name: ClassName,
  yearGroup: string,
  names: readonly string[],
  years: { current: string; earlier: string },
): Promise<Pupil[]> {
  const classId = newId()
  const earlierId = newId()
  const earlier =
    name === 'Heron'
      ? { name: 'Sandpiper', yearGroup: 'Year 2' }
      : { name: 'Dunlin', yearGroup: 'Reception' }
  await place.manager.insert(ClassRow, {
    id: earlierId,
    schoolYearId: years.earlier,
    ...earlier,
    idleMinutes: 10,
    pupilsPropose: false,
    young: true,
    sounds: false,
    version: 1,
  })
  await place.manager.insert(ClassRow, {
    id: classId,
    schoolYearId: years.current,
    name,
    yearGroup,
    idleMinutes: 10,
    pupilsPropose: true,
    young: isYoungYearGroup(yearGroup),
    sounds: false,
    version: 1,
  })
  const teacher = place.teacherOf(name)
  await place.manager.insert(
    EnrolmentRow,
    [classId, earlierId].map((id) => ({ classId: id, personId: teacher.personId })),
  )
  await place.server.capabilities.doors.issueCard(place.manager, classId, DEMO_DOORS[name])
  const pupils: Pupil[] = []
  for (const [i, full] of names.entries()) {
    const [firstName, initial] = full.split(' ') as [string, string]
    const id = newId()
    await place.manager.insert(PersonRow, {
      id,
      schoolId: place.schoolId,
      role: 'pupil',
      firstName,
      lastName: `${initial}.`,
      pegSymbol: PEG_SYMBOLS[(i + (name === 'Plover' ? 24 : 0)) % PEG_SYMBOLS.length],
      pegColour: COLOURS[(i * 3) % COLOURS.length],
      leads: false,
      createdAt: place.now,
    })
    await place.manager.insert(
      EnrolmentRow,
      [classId, earlierId].map((enrolled) => ({ classId: enrolled, personId: id })),
    )
    const code = DEMO_CARDS[firstName as keyof typeof DEMO_CARDS]
    await place.server.capabilities.nameCards.issue(place.manager, id, code)
    // Bilal's parents have not said yes: his work is never shared.
    await place.manager.insert(ConsentRow, {
      pupilId: id,
      kind: 'sharing',
      granted: firstName !== 'Bilal',
      saidBy: teacher.personId,
      saidAt: place.now,
    })
    pupils.push({ id, firstName, classId, className: name })
  }
  return pupils
}

type Span = readonly [name: string, startsOn: string, endsOn: string]

/**
 * Three terms with holidays between. Whoever tries the demo in a holiday finds the school open all
 * the same: the term before goes on until a week later.
 */
function termsOf(year: number, today: string): Span[] {
  const terms: Span[] = [
    ['Autumn term', `${year}-09-01`, `${year}-12-18`],
    ['Spring term', `${year + 1}-01-05`, `${year + 1}-03-27`],
    ['Summer term', `${year + 1}-04-13`, `${year + 1}-07-21`],
  ]
  return terms.map(([name, startsOn, endsOn], i) => {
    const next = terms[i + 1]?.[1] ?? `${year + 1}-09-01`
    if (today <= endsOn || today >= next) return [name, startsOn, endsOn]
    const goesOn = DateTime.fromISO(today).plus({ days: 7 }).toISODate()!
    const dayBefore = DateTime.fromISO(next).minus({ days: 1 }).toISODate()!
    return [name, startsOn, goesOn < dayBefore ? goesOn : dayBefore]
  })
}

const closedDaysOf = (year: number): Span[] => [
  ['Half-term', `${year}-10-26`, `${year}-10-30`],
  ['Half-term', `${year + 1}-02-16`, `${year + 1}-02-20`],
  ['Half-term', `${year + 1}-05-25`, `${year + 1}-05-29`],
]

/** School years start on 1 September. */
function schoolYearStart(now: Date): number {
  const [year, month] = schoolDay(now, ZONE).split('-').map(Number) as [number, number]
  return month >= 9 ? year : year - 1
}
