import fc from 'fast-check'
import {
  classesNamed,
  overfull,
  planClassList,
  readClassList,
  type KnownPupil,
} from './classList.ts'
import { decodeText, readCsv, writeCsv } from './csv.ts'
import { MOST_PEGS } from './pegs.ts'

const names = (text: string) =>
  readClassList(text).pupils.map(({ firstName, lastName }) => [firstName, lastName])

describe('reading a list', () => {
  test.each([
    {
      how: 'typed, one name a line',
      text: 'Wren Shore\nTomasz\n\nAoife de la Mare',
      pupils: [
        ['Wren', 'Shore'],
        ['Tomasz', ''],
        ['Aoife', 'de la Mare'],
      ],
    },
    {
      how: 'pasted from a spreadsheet, with tabs',
      text: 'Wren\tShore\nTomasz\tLis',
      pupils: [
        ['Wren', 'Shore'],
        ['Tomasz', 'Lis'],
      ],
    },
    {
      how: 'comma-separated, columns in another order',
      text: 'Surname,Class,First name\r\nShore,Heron,Wren',
      pupils: [['Wren', 'Shore']],
    },
    {
      how: 'with semicolons and a byte-order mark',
      text: '\uFEFFVorname;Nachname\nWren;Shore',
      pupils: [['Wren', 'Shore']],
    },
    { how: 'whole names, surname first', text: 'Name\n"Shore, Wren"', pupils: [['Wren', 'Shore']] },
    {
      how: 'quotes and line ends inside a cell',
      text: 'Forename,Surname\n"Wren ""the""\nquick",Shore',
      pupils: [['Wren "the" quick', 'Shore']],
    },
    {
      how: 'a name that starts like a formula',
      text: "Forename,Surname\n'=cmd,Shore",
      pupils: [['=cmd', 'Shore']],
    },
  ])('$how', ({ text, pupils }) => expect(names(text)).toEqual(pupils))

  test('each bad row keeps its line and says why', () => {
    const { pupils, faults } = readClassList(
      'First name,Last name\nWren,Shore\n,Lis\nAoife,Kelly,extra\n' + 'x'.repeat(61) + ',Y',
    )
    expect(pupils).toHaveLength(1)
    expect(faults.map(({ line, reason }) => [line, reason])).toEqual([
      [3, 'no-first-name'],
      [4, 'more-columns'],
      [5, 'name-too-long'],
    ])
  })

  // What iconv, Debian’s own, writes of `Šimon Dušek, Ann O’Neill, Žofia Œuvre …` in each encoding.
  const NAMES = 'Šimon Dušek, Ann O’Neill, Žofia Œuvre …'
  test.each([
    [
      'windows-1252',
      '8a696d6f6e2044759a656b2c20416e6e204f924e65696c6c2c208e6f666961208c757672652085',
    ],
    [
      'utf-8',
      'c5a0696d6f6e204475c5a1656b2c20416e6e204fe280994e65696c6c2c20c5bd6f66696120c5927576726520e280a6',
    ],
    [
      'utf-16le',
      'fffe600169006d006f006e0020004400750061016500' +
        '6b002c00200041006e006e0020004f0019204e00650069006c006c002c0020007d016f006600690061002000520175007600720065002000' +
        '2620',
    ],
  ])('a list in %s gives the same names, and says how it was read', (encoding, hex) => {
    expect(decodeText(Uint8Array.from(Buffer.from(hex, 'hex')))).toEqual({
      text: expect.stringContaining(NAMES),
      encoding,
    })
  })

  test('a picture is no list', () => {
    expect(decodeText(Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13]))).toBeNull()
  })

  test('surname and first name in one column are one name, whatever the comma else parts', () => {
    const { pupils, faults } = readClassList('Pupil\nO’Neill, Sean\n"Shore, Wren"\nAoife Kelly')
    expect(faults).toEqual([])
    expect(pupils.map(({ firstName, lastName }) => [firstName, lastName])).toEqual([
      ['Sean', 'O’Neill'],
      ['Wren', 'Shore'],
      ['Aoife', 'Kelly'],
    ])
  })

  test('classes a list names come once each, as they were written first', () => {
    const read = readClassList(
      'Name,Class,Year\nWren Shore,Heron,3\nBo Li,heron ,3\nAda Lis,Wader,1',
    )
    expect(classesNamed(read)).toEqual([
      { name: 'Heron', yearGroup: '3' },
      { name: 'Wader', yearGroup: '1' },
    ])
  })
})

test('what is written is read back, whatever the cells hold, and no cell is a formula', () => {
  const cell = fc
    .string({ unit: 'grapheme', maxLength: 12 })
    .map((text) => text.replace(/[\r\n\t\0]/g, ' ').trim())
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 20 }), (rows) => {
      const filled = rows.filter(
        (row) => row.some((value) => value !== '') && !row.some((value) => /^'[=+\-@]/.test(value)),
      )
      const text = writeCsv(['a', 'b', 'c'], filled)
      expect(
        readCsv(text)
          .slice(1)
          .map(({ cells }) => cells),
      ).toEqual(filled)
      for (const { cells } of readCsv(text.replaceAll("'", '’')))
        for (const value of cells) expect(value).not.toMatch(/^[=+@-]/)
    }),
  )
})

describe('planning', () => {
  const classes = [
    { id: 'c1', externalId: null, name: 'Heron' },
    { id: 'c2', externalId: 'P1', name: 'Plover' },
  ]
  const plan = (text: string, pupils: KnownPupil[], defaultClassId: string | null = 'c1') =>
    planClassList(readClassList(text), { pupils, classes, defaultClassId })
  /** What the school holds after a plan was carried out. */
  const after = (pupils: KnownPupil[], steps: ReturnType<typeof plan>['steps']): KnownPupil[] => [
    ...pupils.map((pupil) => ({ ...pupil, ...steps.find(({ pupilId }) => pupilId === pupil.id) })),
    ...steps.filter(({ does }) => does === 'add').map((step, i) => ({ id: `new${i}`, ...step })),
  ]

  test('who is new, who changes and who stays', () => {
    const known: KnownPupil[] = [
      { id: 'p1', externalId: '17', firstName: 'Wren', lastName: 'Shore', classId: 'c1' },
      { id: 'p2', externalId: null, firstName: 'Tomasz', lastName: 'Lis', classId: 'c2' },
    ]
    const { steps, faults } = plan(
      'Id,First name,Last name,Class\n17,Wren,Shore-Lis,\n,Tomasz,Lis,heron\n,Aoife,Kelly,P1\n,Bo,Li,Wader',
      known,
    )
    expect(
      steps.map(({ does, pupilId, classId, changes }) => [does, pupilId, classId, changes]),
    ).toEqual([
      ['change', 'p1', 'c1', ['name']],
      ['change', 'p2', 'c1', ['class']],
      ['add', null, 'c2', []],
    ])
    expect(faults).toMatchObject([{ line: 5, reason: 'unknown-class', about: 'Wader' }])
  })

  test('two pupils of the same name stay two, and the same list again changes nothing', () => {
    const first = plan('Wren Shore\nWren Shore', [])
    expect(first.steps.map(({ does }) => does)).toEqual(['add', 'add'])
    const second = plan('Wren Shore\nWren Shore', after([], first.steps))
    expect(second.steps.map(({ does }) => does)).toEqual(['nothing', 'nothing'])
    expect(new Set(second.steps.map(({ pupilId }) => pupilId)).size).toBe(2)
  })

  test('a name that stands twice is to be asked about, unless a number tells them apart', () => {
    const twins = (text: string) => plan(text, []).steps.map(({ twin }) => twin)
    expect(twins('Wren Shore\nwren  shore\nBo Li')).toEqual([false, true, false])
    expect(twins('Id,Name\n1,Wren Shore\n2,Wren Shore')).toEqual([false, false])
    expect(twins('Name,Class\nWren Shore,Heron\nWren Shore,Plover')).toEqual([false, false])
  })

  test('more pupils in a class than pegs can hang there are told before', () => {
    const many = plan(Array.from({ length: MOST_PEGS }, (_, i) => `Pupil ${i}`).join('\n'), [])
    expect(overfull(many.steps, new Map())).toEqual([])
    expect(overfull(many.steps, new Map([['c1', 1]]))).toEqual([
      { classId: 'c1', count: MOST_PEGS + 1 },
    ])
  })

  test('a number that stands twice, and a row without a class where none is given, are pointed out', () => {
    expect(plan('Id,Name\n1,Wren\n1,Bo', []).faults).toMatchObject([
      { line: 3, reason: 'number-twice', about: '1' },
    ])
    expect(plan('Wren', [], null).faults).toMatchObject([{ reason: 'no-class' }])
  })

  test('importing twice never changes anything, whatever the list', () => {
    const name = fc.constantFrom('Wren', 'Tomasz', 'Aoife', 'Zoë', "O'Neill", '=cmd')
    const row = fc.tuple(
      fc.constantFrom('', '1', '2', '3', '4'),
      name,
      name,
      fc.constantFrom('', 'Heron', 'Plover'),
    )
    fc.assert(
      fc.property(fc.array(row, { maxLength: 25 }), (rows) => {
        const text = writeCsv(['Id', 'First name', 'Last name', 'Class'], rows)
        const first = plan(text, [])
        const second = plan(text, after([], first.steps))
        expect(second.steps.every(({ does }) => does === 'nothing')).toBe(true)
        expect(second.steps).toHaveLength(first.steps.length)
      }),
      { numRuns: 300 },
    )
  })
})
