import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { FamilyScreen } from './FamilyScreen'
import { Requests } from './Requests'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const REQUEST = { id: ID(1), childName: 'Bilal', className: 'Heron', askedBy: 'Ms Ray' }

test.each([
  ['Yes, Bilal is mine', 'accept'],
  ['No', 'decline'],
])('a parent is asked whether a child is theirs, and says “%s”', async (label, word) => {
  const asked = show(<Requests />, {
    'GET /sharing/requests': [REQUEST],
    [`POST /sharing/requests/${ID(1)}/${word}`]: [],
  })
  expect(
    await screen.findByText('Ms Ray asks: is Bilal of Heron class your child as well?'),
  ).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: label }))
  await waitFor(() =>
    expect(asked.some(({ path }) => path === `/sharing/requests/${ID(1)}/${word}`)).toBe(true),
  )
})

test('after a yes the child that was looked at stays in sight, though the new one comes first', async () => {
  const child = (n: number, firstName: string) => ({
    id: ID(n),
    firstName,
    lastName: 'A.',
    peg: { symbol: 'fish', colour: 'aubergine' },
    classId: null,
    className: 'Heron',
    shared: false,
  })
  const answers: Record<string, unknown> = {
    'GET /sharing/children': [child(2, 'Wren')],
    'GET /sharing/requests': [REQUEST],
    [`POST /sharing/requests/${ID(1)}/accept`]: [],
  }
  show(<FamilyScreen />, answers)
  const yes = await screen.findByRole('button', { name: 'Yes, Bilal is mine' })
  answers['GET /sharing/children'] = [child(3, 'Bilal'), child(2, 'Wren')]
  answers['GET /sharing/requests'] = []
  fireEvent.click(yes)
  expect((await screen.findByRole('tab', { name: 'Wren' })).getAttribute('aria-selected')).toBe(
    'true',
  )
  expect(screen.getByRole('heading', { level: 1, name: 'Wren' })).toBeTruthy()
})
