import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { ClassListScreen } from './ClassListScreen'

jest.mock('expo-router', () => ({
  router: { canGoBack: () => false, back: jest.fn(), replace: jest.fn(), push: jest.fn() },
  useLocalSearchParams: () => ({}),
}))

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
  faults: [{ line: 5, cells: ['', 'Nobody'], reason: 'There is no first name in this row.' }],
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

test('what cannot be read is said in the server’s sentence, and the names stay', async () => {
  const body = {
    type: '/problems/school/list-unreadable',
    title: 'This is not a class list we can read.',
    status: 415,
  }
  await look({ 'POST /school/class-lists': { status: 415, body } })
  expect(await screen.findByText('This is not a class list we can read.')).toBeTruthy()
  expect((screen.getByLabelText('Names') as HTMLTextAreaElement).value).toBe('Wren Shore')
})
