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
  expect(faults).toMatchObject([{ line: 5, reason: 'This user has no sourcedId.' }])
})
