import * as v from 'valibot'
import {
  AddParent,
  ChangeFolder,
  ChoosePassword,
  Decide,
  FirstRun,
  MakeNotice,
  MakeTask,
  PutYear,
  Strands,
  text,
  words,
} from './index.ts'

const ID = '01890000-0000-7000-8000-000000000001'
const faultsOf = (schema: v.GenericSchema, input: unknown): string[] => {
  const { issues } = v.safeParse(schema, input)
  return (issues ?? []).map((issue) => `${v.getDotPath(issue) ?? ''}: ${issue.message}`)
}

describe('what people write', () => {
  test('is trimmed, and whatever cannot be kept is refused', () => {
    expect(v.parse(text(20), '  Zoë 👩‍🔬\n')).toBe('Zoë 👩‍🔬')
    for (const bad of ['a\u0000b', '\ud800', 'a\u0007'])
      expect(v.safeParse(text(20), bad).success).toBe(false)
    expect(faultsOf(text(3), 'four')).toEqual([': too-long:3'])
    expect(faultsOf(words(3), '   ')).toEqual([': empty'])
  })
  test('addresses are compared in small letters', () => {
    expect(
      v.parse(AddParent, { firstName: 'Bryn', lastName: '', email: ' Bryn@Saltmarsh.EXAMPLE ' })
        .email,
    ).toBe('bryn@saltmarsh.example')
    expect(v.parse(AddParent, { firstName: 'Bryn', lastName: '', email: null }).email).toBeNull()
  })
})

const YEAR = {
  name: '2026/27',
  startsOn: '2026-09-01',
  endsOn: '2027-08-31',
  closedDays: [],
  terms: [{ id: ID, name: 'Autumn', startsOn: '2026-09-01', endsOn: '2026-12-18' }],
}

test.each([
  { what: 'a year that is in order', schema: PutYear, input: YEAR, faults: [] },
  {
    what: 'a term that ends before it starts',
    schema: PutYear,
    input: { ...YEAR, terms: [{ ...YEAR.terms[0]!, endsOn: '2026-08-31' }] },
    faults: ['terms.0.endsOn: ends-before-it-starts'],
  },
  {
    what: 'a day that is none',
    schema: PutYear,
    input: { ...YEAR, startsOn: '2026-13-01', terms: [] },
    faults: [expect.stringMatching(/^startsOn: /)],
  },
  {
    what: 'a folder for no class',
    schema: ChangeFolder,
    input: {
      name: 'A',
      symbol: 'star',
      colour: 'sea',
      strandId: null,
      classIds: [],
      wholeSchool: false,
      parentsSee: true,
      pupilsFile: true,
      seenVersion: 1,
    },
    faults: ['classIds: for-no-class'],
  },
  {
    what: 'a verdict without a word',
    schema: Decide,
    input: { move: 'send-back', message: ' ', seenVersion: 1 },
    faults: ['message: without-next-step'],
  },
  {
    what: 'an approval without a word',
    schema: Decide,
    input: { move: 'approve', message: '', seenVersion: 1 },
    faults: [],
  },
  {
    what: 'an empty notice',
    schema: MakeNotice,
    input: { classId: ID, audience: 'class', words: '', mediaIds: [] },
    faults: ['words: says-nothing'],
  },
  {
    what: 'a notice of a picture alone',
    schema: MakeNotice,
    input: { classId: ID, audience: 'class', words: '', mediaIds: [ID] },
    faults: [],
  },
  {
    what: 'a short password',
    schema: ChoosePassword,
    input: { password: 'short' },
    faults: ['password: too-short:10'],
  },
  {
    what: 'too many strands',
    schema: Strands,
    input: Array.from({ length: 41 }, () => ({ id: ID, name: 'x' })),
    faults: [': too-many:40'],
  },
  {
    what: 'a field nobody asked for',
    schema: ChoosePassword,
    input: { password: 'long enough', role: 'office' },
    faults: [expect.stringMatching(/^role: /)],
  },
] as const)('$what', ({ schema, input, faults }) => expect(faultsOf(schema, input)).toEqual(faults))

test('a task’s due time is a time of day', () => {
  const task = {
    classId: ID,
    folderId: ID,
    unitId: null,
    strandId: null,
    title: 'T',
    instructions: '',
    media: [],
    steps: ['finished'],
    asks: [],
    opens: null,
    folderChangeable: true,
    asksThoughts: false,
    pupilIds: null,
  }
  for (const time of ['00:00', '09:05', '23:59'])
    expect(faultsOf(MakeTask, { ...task, due: { day: '2026-12-01', time } })).toEqual([])
  for (const time of ['24:00', '9:05', '12:60', 'noon'])
    expect(faultsOf(MakeTask, { ...task, due: { day: '2026-12-01', time } })).toEqual([
      'due.time: not-a-time',
    ])
})

test('nobody makes themselves lead by what they send', () => {
  const input = {
    schoolName: 'S',
    timeZone: 'Europe/London',
    firstName: 'A',
    lastName: '',
    email: 'a@b.example',
    password: 'long enough',
  }
  expect(v.safeParse(FirstRun, input).success).toBe(true)
  expect(v.safeParse(FirstRun, { ...input, leads: true }).success).toBe(false)
})
