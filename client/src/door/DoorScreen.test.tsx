import { fireEvent, screen, waitFor } from '@testing-library/react'
import { HERON, ID, show } from '../testing'
import type * as Router from '../testing/router'
import { DoorScreen } from './DoorScreen'

jest.mock('expo-router', () =>
  jest
    .requireActual<typeof Router>('../testing/router')
    .routerAt({ classId: '01890000-0000-7000-8000-000000000005' }),
)

const DOOR = {
  switch: 'hours',
  open: true,
  until: '2026-11-23T15:30:00.000Z',
  reason: 'hours',
  opensAt: '08:30',
  closesAt: '15:30',
  tabletLimit: 16,
  asksSecret: false,
  onlyHere: false,
  cardMadeAt: null,
  tablets: [],
  sessions: [],
}
const CLASS = { ...HERON, pupils: [], left: [], notPrintable: [] }
const desk = (n: number, firstName: string, change: object = {}) => ({
  id: ID(n),
  way: 'peg',
  tabletNumber: 3,
  pupil: { id: ID(n + 10), firstName, lastName: 'A.', peg: { symbol: 'fish', colour: 'sea' } },
  openedAt: '2026-11-23T09:00:00.000Z',
  seenAt: '2026-11-23T09:05:00.000Z',
  ...change,
})
const at = (door: object = {}, change: Record<string, unknown> = {}) => ({
  [`GET /accounts/classes/${ID(5)}/door`]: { ...DOOR, ...door },
  [`GET /school/classes/${ID(5)}`]: CLASS,
  ...change,
})

test('an empty door says what to do first', async () => {
  show(<DoorScreen />, at())
  expect(await screen.findByText(/There is no door card yet/)).toBeTruthy()
  expect(screen.getByText('No tablet shows the pegs yet.')).toBeTruthy()
  expect(screen.getByText('No desk is open.')).toBeTruthy()
})

test.each([
  { onlyHere: true, says: 'From home only their own name card works.' },
  { onlyHere: false, says: /a tablet taken home shows the pegs as well while the door is open/ },
])(
  'what a tablet at home can do is said as it is: kept to the school’s network $onlyHere',
  async ({ onlyHere, says }) => {
    show(<DoorScreen />, at({ onlyHere }))
    expect(await screen.findByText(says)).toBeTruthy()
  },
)

test('the switch is sent with one tap; new times wait until they are kept', async () => {
  const asked = show(<DoorScreen />, at({}, { [`PATCH /accounts/classes/${ID(5)}/door`]: DOOR }))
  const changes = () => asked.filter(({ method }) => method === 'PATCH').map(({ body }) => body)
  fireEvent.click(await screen.findByRole('radio', { name: 'Shut until tonight' }))
  await waitFor(() => expect(changes()).toEqual([{ switch: 'shut' }]))
  fireEvent.change(screen.getByLabelText('Shuts at'), { target: { value: '16:00' } })
  expect(changes()).toHaveLength(1)
  fireEvent.click(screen.getByRole('button', { name: 'Keep' }))
  await waitFor(() => expect(changes()[1]).toEqual({ opensAt: '08:30', closesAt: '16:00' }))
})

test('a refusal stands beside what was refused', async () => {
  const body = {
    type: '/problems/request/invalid',
    title: 'Something is not right.',
    status: 400,
    fields: { closesAt: ['shuts-before-it-opens'] },
  }
  show(<DoorScreen />, at({}, { [`PATCH /accounts/classes/${ID(5)}/door`]: { status: 400, body } }))
  fireEvent.click(await screen.findByRole('radio', { name: 'Shut until tonight' }))
  expect((await screen.findByRole('alert')).textContent).toContain(
    'It is not later than the opening time.',
  )
})

test('open desks say where they are; one is closed at once, all of them after a question', async () => {
  const sessions = [desk(1, 'Wren'), desk(2, 'Tomasz', { way: 'card', tabletNumber: null })]
  const asked = show(
    <DoorScreen />,
    at({ sessions }, { [`DELETE /accounts/classes/${ID(5)}`]: DOOR }),
  )
  expect(await screen.findByText(/on tablet 3/)).toBeTruthy()
  expect(screen.getByText(/by name card/)).toBeTruthy()
  const ended = () =>
    asked
      .filter(({ method }) => method === 'DELETE')
      .map(({ path }) => path.replace(/.*door|.*classes\/[^/]+/, ''))
  fireEvent.click(screen.getByRole('button', { name: 'Close Tomasz’s desk' }))
  await waitFor(() => expect(ended()).toEqual([`/sessions/${ID(2)}`]))
  fireEvent.click(screen.getByRole('button', { name: 'Close all desks' }))
  expect(await screen.findByText('Close all open desks?')).toBeTruthy()
  expect(ended()).toHaveLength(1)
  fireEvent.click(screen.getAllByRole('button', { name: 'Close all desks' }).at(-1)!)
  await waitFor(() => expect(ended()[1]).toBe('/sessions'))
})
