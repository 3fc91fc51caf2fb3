import { planClassList } from './classList.ts'
import {
  isOneRoster,
  ONE_ROSTER_HEADINGS,
  readOneRoster,
  writeOneRoster,
  type Roster,
} from './oneRoster.ts'

const ROSTER: Roster = {
  school: { id: 's1', name: 'Saltmarsh Primary School' },
  year: {
    id: 'y1',
    name: '2026/27',
    startsOn: '2026-09-01',
    endsOn: '2027-08-31',
    terms: [{ id: 't1', name: 'Autumn', startsOn: '2026-09-02', endsOn: '2026-12-18' }],
  },
  classes: [
    { id: 'c1', externalId: null, name: 'Heron', yearGroup: 'Year 3' },
    { id: 'c2', externalId: 'X2', name: 'Plover', yearGroup: 'Year 1' },
  ],
  people: [
    {
      id: 'p1',
      externalId: '17',
      role: 'pupil',
      firstName: 'Wren',
      lastName: 'Shore',
      email: '',
      classIds: ['c1'],
    },
    {
      id: 'p2',
      externalId: null,
      role: 'pupil',
      firstName: 'Zoë',
      lastName: 'O"Neill, the 2nd',
      email: '',
      classIds: ['c2'],
    },
    {
      id: 'p3',
      externalId: null,
      role: 'pupil',
      firstName: '=cmd',
      lastName: 'Lis',
      email: '',
      classIds: ['c2'],
    },
    {
      id: 'a1',
      externalId: null,
      role: 'teacher',
      firstName: 'Ada',
      lastName: 'Adeyemi',
      email: 'a@saltmarsh.example',
      classIds: ['c1', 'c2'],
    },
  ],
  at: '2026-11-23T10:00:00.000Z',
}

describe.each(['1.1', '1.2'] as const)('OneRoster %s', (version) => {
  const files = writeOneRoster(ROSTER, version)

  test('every file starts with its published headings, and the manifest names what is there', () => {
    for (const [name, text] of Object.entries(files)) {
      const headings =
        name === 'users.csv' && version === '1.2'
          ? ONE_ROSTER_HEADINGS['users.csv 1.2']
          : ONE_ROSTER_HEADINGS[name as keyof typeof ONE_ROSTER_HEADINGS]
      expect({ name, head: text.split('\r\n')[0] }).toEqual({ name, head: headings.join(',') })
      const columns = headings.length
      expect(
        text
          .trimEnd()
          .split('\r\n')
          .every((line) => line.includes('"') || line.split(',').length === columns),
      ).toBe(true)
      if (name !== 'manifest.csv')
        expect(files['manifest.csv']).toContain(`file.${name.replace('.csv', '')},bulk`)
    }
    expect(files['manifest.csv']).toContain(`oneroster.version,${version}`)
    expect(isOneRoster(files)).toBe(true)
  })

  test('what goes out comes back in: the same pupils, the same classes, and nothing to change', () => {
    const read = readOneRoster(files)
    expect(read.faults).toEqual([])
    expect(
      read.pupils.map(({ externalId, firstName, lastName, className }) => [
        externalId,
        firstName,
        lastName,
        className,
      ]),
    ).toEqual([
      ['17', 'Wren', 'Shore', 'c1'],
      ['p2', 'Zoë', 'O"Neill, the 2nd', 'X2'],
      ['p3', '=cmd', 'Lis', 'X2'],
    ])
    expect(read.classes).toEqual([
      { externalId: 'c1', name: 'Heron', yearGroup: 'Year 3' },
      { externalId: 'X2', name: 'Plover', yearGroup: 'Year 1' },
    ])
    const known = ROSTER.people
      .filter(({ role }) => role === 'pupil')
      .map((person) => ({ ...person, classId: person.classIds[0]! }))
    const classes = ROSTER.classes.map((one) => ({ ...one, externalId: one.externalId ?? one.id }))
    const { steps } = planClassList(read, { pupils: known, classes, defaultClassId: null })
    expect(steps.map(({ does }) => does)).toEqual(['nothing', 'nothing', 'nothing'])
  })
})

test('staff, the deleted and those without a number are not taken for pupils', () => {
  const { pupils, faults } = readOneRoster({
    'users.csv':
      'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName\n' +
      '1,active,,true,s,student,w,,Wren,Shore\n2,tobedeleted,,true,s,student,t,,Tomasz,Lis\n3,active,,true,s,teacher,a,,Ada,Adeyemi\n,active,,true,s,student,x,,Bo,Li\n',
  })
  expect(pupils.map(({ firstName }) => firstName)).toEqual(['Wren'])
  expect(faults).toMatchObject([{ line: 5, reason: 'no-sourced-id' }])
})

test('of many classes a pupil is enrolled in the homeroom counts, else the first of them, wherever it stands', () => {
  const head = (name: keyof typeof ONE_ROSTER_HEADINGS) => ONE_ROSTER_HEADINGS[name].join(',')
  const enrolment = (pupil: string, of: string, primary = '') =>
    `e-${pupil}-${of},,,${of},s,${pupil},student,${primary},,`
  const read = readOneRoster({
    'users.csv': [
      head('users.csv'),
      ...['u1', 'u2', 'u3'].map((id) => `${id},,,true,s,student,${id},,Wren,Shore,,,,,,,`),
    ].join('\r\n'),
    'classes.csv': [
      head('classes.csv'),
      'home,,,Heron,3,,,homeroom,,s,,,,',
      ...['maths', 'music'].map((id) => `${id},,,${id},3,,,scheduled,,s,,,,`),
    ].join('\r\n'),
    'enrollments.csv': [
      head('enrollments.csv'),
      ...[enrolment('u1', 'home'), enrolment('u1', 'maths', 'true'), enrolment('u1', 'music')],
      ...[enrolment('u2', 'maths'), enrolment('u2', 'music', 'true')],
      ...[enrolment('u3', 'music'), enrolment('u3', 'maths')],
    ].join('\r\n'),
  })
  expect(read.pupils.map(({ externalId, className }) => [externalId, className])).toEqual([
    ['u1', 'home'],
    ['u2', 'music'],
    ['u3', 'music'],
  ])
})

describe('a register that says of no class that it is a homeroom', () => {
  const head = (name: keyof typeof ONE_ROSTER_HEADINGS) => ONE_ROSTER_HEADINGS[name].join(',')
  const aClass = (id: string, title: string, course: string) =>
    `${id},,,${title},3,${course},,scheduled,,s,,,,`
  const enrolment = (pupil: string, of: string) => `e-${pupil}-${of},,,${of},s,${pupil},student,,,`
  const files = {
    'users.csv': [
      head('users.csv'),
      ...['u1', 'u2', 'u3'].map((id) => `${id},,,true,s,student,${id},,Wren,Shore,,,,,,,`),
    ].join('\r\n'),
    'courses.csv': [
      head('courses.csv'),
      'reg,,,y,Registration,,3,s,,',
      'num,,,y,Maths sets,,3,s,,',
    ].join('\r\n'),
    'classes.csv': [
      head('classes.csv'),
      ...[aClass('m1', 'Maths set 1', 'num'), aClass('m2', 'Maths set 2', 'num')],
      ...[aClass('h', 'Heron', 'reg'), aClass('p', 'Plover', 'reg')],
    ].join('\r\n'),
    'enrollments.csv': [
      head('enrollments.csv'),
      ...[enrolment('u1', 'm1'), enrolment('u1', 'h'), enrolment('u2', 'm2'), enrolment('u2', 'p')],
      enrolment('u3', 'h'),
    ].join('\r\n'),
  }

  test('asks which kind counts, and places nobody before that', () => {
    const { pupils, classes, kinds } = readOneRoster(files)
    expect([pupils, classes]).toEqual([[], []])
    expect(kinds).toEqual([
      { id: 'reg', name: 'Registration', classes: ['Heron', 'Plover'], pupils: 3 },
      { id: 'num', name: 'Maths sets', classes: ['Maths set 1', 'Maths set 2'], pupils: 2 },
    ])
    expect(readOneRoster(files, 'no such kind').pupils).toEqual([])
  })

  test.each([
    { kind: 'reg', placed: ['h', 'p', 'h'], named: ['Heron', 'Plover'] },
    // Who is in none of that kind is where the register has them.
    { kind: 'num', placed: ['m1', 'm2', 'h'], named: ['Maths set 1', 'Maths set 2', 'Heron'] },
  ])('then places them: $kind', ({ kind, placed, named }) => {
    const { pupils, classes } = readOneRoster(files, kind)
    expect(pupils.map(({ className }) => className)).toEqual(placed)
    expect(classes.map(({ name }) => name)).toEqual(named)
  })

  test('asks nothing where each pupil is in one class', () => {
    const enrolments = [head('enrollments.csv'), enrolment('u1', 'h'), enrolment('u2', 'm2')]
    const read = readOneRoster({ ...files, 'enrollments.csv': enrolments.join('\r\n') })
    expect(read.kinds).toEqual([])
    expect(read.pupils.map(({ className }) => className)).toEqual(['h', 'm2', ''])
  })
})
