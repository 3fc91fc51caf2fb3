import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { ClassListScreen } from './ClassListScreen'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const list = (change: object = {}) => ({
  id: ID(1),
  state: 'shown',
  counts: { add: 1, change: 1, nothing: 1, faults: 1, newClasses: 1 },
  rowsDone: 0,
  newClasses: ['Dunlin'],
  steps: [
    { line: 2, does: 'add', firstName: 'Wren', lastName: 'Shore', className: 'Heron', changes: [] },
    {
      line: 3,
      does: 'change',
      firstName: 'Bo',
      lastName: 'Li',
      className: 'Heron',
      changes: ['name', 'class'],
    },
    {
      line: 4,
      does: 'nothing',
      firstName: 'Ada',
      lastName: 'Lis',
      className: 'Heron',
      changes: [],
    },
  ],
  mostInClass: 384,
  faults: [{ line: 5, cells: ['', 'Nobody'], reason: 'no-first-name', about: '' }],
  ...change,
})

async function look(answers: Record<string, unknown>) {
  const asked = show(<ClassListScreen />, answers)
  fireEvent.change(await screen.findByLabelText('Names'), { target: { value: 'Wren Shore' } })
  fireEvent.click(screen.getByRole('button', { name: 'See what it does' }))
  return asked
}

test('says what will be added, changed and left alone, and each bad row with its reason, before anything happens', async () => {
  const asked = await look({
    'POST /school/class-lists': list(),
    [`GET /school/class-lists/${ID(1)}`]: list(),
  })
  expect(await screen.findByText('Nothing has happened yet.')).toBeTruthy()
  for (const words of [
    '1 pupil is new',
    '1 pupil changes',
    '1 pupil stays as they are',
    'New classes: Dunlin',
    'changes, name, class',
  ])
    expect(screen.getByText(words)).toBeTruthy()
  expect(screen.getByText('line 5: There is no first name in this row.')).toBeTruthy()
  expect(
    asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body]),
  ).toEqual([['/school/class-lists', 'Wren Shore']])
})

test('a register that says of no class that it counts is asked about, and nothing can be taken over before', async () => {
  const kinds = [
    { id: 'reg', name: 'Registration', classes: ['Heron', 'Plover'], pupils: 58 },
    { id: 'num', name: 'Maths', classes: ['Set 1'], pupils: 31 },
  ]
  const none = { add: 0, change: 0, nothing: 0, faults: 0, newClasses: 0 }
  const open = list({ kinds, kind: null, counts: none, steps: [], faults: [], newClasses: [] })
  const answers = {
    'POST /school/class-lists?kind=reg': list({ kinds, kind: 'reg' }),
    'POST /school/class-lists': open,
    [`GET /school/class-lists/${ID(1)}`]: open,
  }
  const asked = await look(answers)
  const first = await screen.findByRole('radio', { name: 'Registration, 58 pupils' })
  expect(screen.getByText('58 pupils: Heron, Plover')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Take it over' })).toBeNull()
  fireEvent.click(first)
  // The same list goes once more, with the answer.
  expect(await screen.findByRole('button', { name: 'Take it over' })).toBeTruthy()
  expect(
    asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body]),
  ).toEqual([
    ['/school/class-lists', 'Wren Shore'],
    ['/school/class-lists?kind=reg', 'Wren Shore'],
  ])
  expect(
    screen.getByRole('radio', { name: 'Registration, 58 pupils' }).getAttribute('aria-checked'),
  ).toBe('true')
})

test('while it is taken over it shows how far it is, and the end', async () => {
  let far = 0
  const answers = {
    'POST /school/class-lists': list(),
    [`POST /school/class-lists/${ID(1)}/confirm`]: list({ state: 'running' }),
    get [`GET /school/class-lists/${ID(1)}`]() {
      far++
      return far < 2
        ? list()
        : far < 4
          ? list({ state: 'running', rowsDone: 1 })
          : list({ state: 'done', rowsDone: 2 })
    },
  }
  await look(answers)
  fireEvent.click(await screen.findByRole('button', { name: 'Take it over' }))
  expect(await screen.findByText('1 of 2 taken over')).toBeTruthy()
  await waitFor(
    () => expect(screen.getByText('Done. The list has been taken over.')).toBeTruthy(),
    { timeout: 4000 },
  )
})

test('a list with nothing new says so and offers the way on', async () => {
  const same = list({
    counts: { add: 0, change: 0, nothing: 3, faults: 0, newClasses: 0 },
    faults: [],
    newClasses: [],
  })
  await look({ 'POST /school/class-lists': same, [`GET /school/class-lists/${ID(1)}`]: same })
  expect(
    await screen.findByText('Everything is here already. There is nothing to take over.'),
  ).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Take it over' })).toBeNull()
})

test.each([
  [{ nothing: 0, faults: 3000 }, /None of the rows can be used/],
  [{ nothing: 2, faults: 1 }, /The rows that can be used are here already/],
])('the headline is true for %j', async (counts, words) => {
  const none = list({ counts: { add: 0, change: 0, newClasses: 0, ...counts }, newClasses: [] })
  await look({ 'POST /school/class-lists': none, [`GET /school/class-lists/${ID(1)}`]: none })
  expect(await screen.findByText(words)).toBeTruthy()
  expect(screen.queryByText(/Everything is here already/)).toBeNull()
})

test('two of one name are asked about; put away unanswered, nothing happens', async () => {
  const twins = list({
    steps: [
      { line: 2, does: 'add', firstName: 'Wren', lastName: 'Shore', className: '', changes: [] },
      {
        line: 3,
        does: 'add',
        firstName: 'Wren',
        lastName: 'Shore',
        className: '',
        changes: [],
        twin: true,
      },
    ],
    encoding: 'windows-1252',
  })
  const path = `/school/class-lists/${ID(1)}`
  const asked = await look({
    'POST /school/class-lists': twins,
    [`GET ${path}`]: twins,
    [`POST ${path}/confirm`]: list({ state: 'running' }),
  })
  expect(await screen.findByText(/read as WINDOWS-1252/)).toBeTruthy()
  const take = () => fireEvent.click(screen.getByRole('button', { name: 'Take it over' }))
  const confirmed = () => asked.filter((one) => one.path === `${path}/confirm`)
  take()
  expect(await screen.findByText('A name stands twice. Are they two pupils?')).toBeTruthy()
  fireEvent.keyDown(window, { key: 'Escape' })
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
  expect(confirmed()).toHaveLength(0)
  take()
  fireEvent.click(await screen.findByRole('button', { name: 'No, once is enough' }))
  await waitFor(() => expect(confirmed().map(({ body }) => body)).toEqual([{ leaveOut: [3] }]))
})

test('what cannot be read is said in a sentence, and the names stay', async () => {
  const body = {
    type: '/problems/school/list-unreadable',
    title: 'Unreadable.',
    status: 415,
  }
  await look({ 'POST /school/class-lists': { status: 415, body } })
  expect(await screen.findByText(/not a class list we can read/)).toBeTruthy()
  expect((screen.getByLabelText('Names') as HTMLTextAreaElement).value).toBe('Wren Shore')
})
