import fc from 'fast-check'
import { planClassList, readClassList, type KnownPupil } from './classList.ts'
import { decodeText, readCsv, writeCsv } from './csv.ts'

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
      [3, 'There is no first name in this row.'],
      [4, 'This row has more columns than the first row.'],
      [5, 'A name in this row is longer than 60 letters.'],
    ])
  })

  test('letters of a Windows-1252 file come out right, as do those of UTF-16', () => {
    expect(decodeText(Uint8Array.from([0x5a, 0x6f, 0xeb]))).toBe('Zoë')
    expect(decodeText(Uint8Array.from([0xff, 0xfe, 0x5a, 0, 0x6f, 0, 0xeb, 0]))).toBe('Zoë')
    expect(decodeText(new TextEncoder().encode('Zoë'))).toBe('Zoë')
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
    expect(faults).toMatchObject([{ line: 5, reason: 'There is no class called Wader.' }])
  })

  test('two pupils of the same name stay two, and the same list again changes nothing', () => {
    const first = plan('Wren Shore\nWren Shore', [])
    expect(first.steps.map(({ does }) => does)).toEqual(['add', 'add'])
    const second = plan('Wren Shore\nWren Shore', after([], first.steps))
    expect(second.steps.map(({ does }) => does)).toEqual(['nothing', 'nothing'])
    expect(new Set(second.steps.map(({ pupilId }) => pupilId)).size).toBe(2)
  })

  test('a number that stands twice, and a row without a class where none is given, are pointed out', () => {
    expect(plan('Id,Name\n1,Wren\n1,Bo', []).faults).toMatchObject([
      { line: 3, reason: 'The number 1 stands twice in this list.' },
    ])
    expect(plan('Wren', [], null).faults).toMatchObject([{ reason: 'This row names no class.' }])
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
