import { fireEvent, screen, waitFor } from '@testing-library/react'
import { HERON, ID, show } from '../testing'
import type * as Router from '../testing/router'
import { StaffScreen } from './StaffScreen'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const member = (n: number, lastName: string, change: object = {}) => ({
  id: ID(n),
  firstName: 'Ms',
  lastName,
  email: `${lastName.toLowerCase()}@saltmarsh.example`,
  role: 'teacher',
  leads: false,
  left: false,
  active: true,
  oneTimeCodes: false,
  classes: [],
  lastSeenAt: null,
  ...change,
})
const at = (change: Record<string, unknown> = {}) => ({
  'GET /school/staff': [member(1, 'Ray', { leads: true })],
  'GET /school/classes': [HERON],
  ...change,
})

test('says whose class nobody teaches', async () => {
  show(<StaffScreen />, at())
  expect(await screen.findByText('Nobody teaches Heron.')).toBeTruthy()
})

test('a new member gets an account with classes; a wrong address is said before anything is sent', async () => {
  const asked = show(
    <StaffScreen />,
    at({ 'PUT /school/staff': [member(2, 'Noor', { active: false })] }),
  )
  fireEvent.click(await screen.findByRole('button', { name: 'Add a member of staff' }))
  fireEvent.change(screen.getByLabelText(/^What pupils call them/), { target: { value: 'Ms' } })
  fireEvent.change(screen.getByLabelText('Last name'), { target: { value: 'Noor' } })
  fireEvent.change(screen.getByLabelText('E-mail address'), { target: { value: 'noor' } })
  fireEvent.click(screen.getByRole('checkbox', { name: 'Heron' }))
  fireEvent.click(screen.getByRole('button', { name: 'Make the account' }))
  expect(await screen.findByText('It is not an e-mail address.')).toBeTruthy()
  expect(asked.filter(({ method }) => method === 'PUT')).toEqual([])
  fireEvent.change(screen.getByLabelText('E-mail address'), {
    target: { value: 'Noor@saltmarsh.example' },
  })
  fireEvent.click(screen.getByRole('button', { name: 'Make the account' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
      firstName: 'Ms',
      lastName: 'Noor',
      email: 'noor@saltmarsh.example',
      role: 'teacher',
      classIds: [ID(5)],
    }),
  )
})

test('a refusal, as when the last lead would step down, stands beside the member', async () => {
  const body = {
    type: '/problems/school/no-lead',
    title: 'Somebody has to lead the school.',
    status: 409,
  }
  show(<StaffScreen />, at({ [`PATCH /school/staff/${ID(1)}`]: { status: 409, body } }))
  fireEvent.click(await screen.findByRole('button', { name: 'Change' }))
  fireEvent.click(screen.getByRole('switch', { name: /^Leads the school/ }))
  expect(await screen.findByText('Somebody has to lead the school.')).toBeTruthy()
})

test('leaving is asked for once more', async () => {
  const asked = show(
    <StaffScreen />,
    at({ [`PATCH /school/staff/${ID(1)}`]: [member(1, 'Ray', { left: true })] }),
  )
  fireEvent.click(await screen.findByRole('button', { name: 'Change' }))
  fireEvent.click(screen.getByRole('button', { name: 'Has left' }))
  expect(asked.filter(({ method }) => method === 'PATCH')).toEqual([])
  fireEvent.click((await screen.findAllByRole('button', { name: 'Has left' })).at(-1)!)
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'PATCH')?.body).toEqual({ left: true }),
  )
})
