import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { ID, show } from '../testing'
import { ParentsBox } from './ParentsBox'

const WAY_IN = {
  id: ID(9),
  state: 'open',
  createdAt: '2026-11-01T10:00:00.000Z',
  expiresAt: '2027-11-01T10:00:00.000Z',
  lastUsedAt: null,
}
const CONSENTS = [
  { kind: 'photos', granted: null, saidBy: null, saidAt: null },
  { kind: 'voice', granted: false, saidBy: 'Mr Adeyemi', saidAt: '2026-11-02T10:00:00.000Z' },
  { kind: 'sharing', granted: true, saidBy: 'Mr Adeyemi', saidAt: '2026-11-02T10:00:00.000Z' },
]
const BRYN = {
  id: ID(2),
  firstName: 'Bryn',
  lastName: 'A.',
  email: 'b@saltmarsh.example',
  invitation: WAY_IN,
}
const AT = `/sharing/pupils/${ID(1)}`

test('says who is invited, and what was agreed to by whom', async () => {
  show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [BRYN] },
  })
  const line = await screen.findByRole('article', { name: 'Bryn A.' })
  expect(line.textContent).toMatch(/invited until 1 November 2027, b@saltmarsh.example(?!,)/)
  expect(screen.getByText('nobody has said yet')).toBeTruthy()
  expect(screen.getByText(/^no, written down by Mr Adeyemi/)).toBeTruthy()
  // Yes, no, and nobody has said: three different things.
  const answers = (kind: string) =>
    within(screen.getByRole('radiogroup', { name: kind }))
      .getAllByRole('radio')
      .map((radio) => [radio.textContent, radio.getAttribute('aria-checked')])
  expect(answers('Approved work is shared with the parents')).toEqual([
    ['yes', 'true'],
    ['no', 'false'],
  ])
  expect(answers('Photos that show the child may be used')).toEqual([
    ['yes', 'false'],
    ['no', 'false'],
  ])
})

test('a word of the parents is sent as it is given', async () => {
  const asked = show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [] },
    [`PUT ${AT}/consents`]: { consents: CONSENTS, guardians: [] },
  })
  expect(await screen.findByText('No parent is invited yet.')).toBeTruthy()
  const photos = screen.getByRole('radiogroup', { name: 'Photos that show the child may be used' })
  fireEvent.click(within(photos).getByRole('radio', { name: 'yes' }))
  await waitFor(() =>
    expect(asked).toContainEqual({
      method: 'PUT',
      path: `${AT}/consents/photos`,
      body: { granted: true },
    }),
  )
})

test('an address that is none is said before anything is sent; without one a letter will do', async () => {
  const asked = show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [] },
    [`PUT ${AT}/parents`]: {
      consents: CONSENTS,
      guardians: [BRYN],
      address: 'http://x.example/invitation/abc',
    },
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Invite a parent' }))
  fireEvent.change(screen.getByLabelText('First name of the parent'), {
    target: { value: 'Nerys' },
  })
  fireEvent.change(screen.getByLabelText('E-mail address'), { target: { value: 'nonsense' } })
  fireEvent.click(screen.getByRole('button', { name: 'Invite' }))
  expect(await screen.findByRole('alert')).toBeTruthy()
  expect(asked.filter(({ method }) => method === 'PUT')).toEqual([])
  fireEvent.change(screen.getByLabelText('E-mail address'), { target: { value: '' } })
  fireEvent.click(screen.getByRole('button', { name: 'Invite' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
      firstName: 'Nerys',
      lastName: '',
      email: null,
    }),
  )
  // Told this once, to be copied, and gone when it is not needed any more.
  expect(await screen.findByText('http://x.example/invitation/abc')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'I have it' }))
  expect(screen.queryByText('http://x.example/invitation/abc')).toBeNull()
})

test('somebody who is here for another child waits for their own yes; the question can be taken back', async () => {
  const asked = show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: {
      consents: CONSENTS,
      guardians: [
        { ...BRYN, invitation: { ...WAY_IN, id: ID(2), state: 'asked', expiresAt: null } },
      ],
    },
    [`DELETE ${AT}/parents`]: { consents: CONSENTS, guardians: [] },
  })
  const line = await screen.findByRole('article', { name: 'Bryn A.' })
  expect(line.textContent).toMatch(/asked by mail; waits for their yes, b@saltmarsh.example/)
  expect(screen.queryByRole('button', { name: 'A new link' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Take the question back' }))
  await waitFor(() =>
    expect(
      asked.some(({ method, path }) => method === 'DELETE' && path === `${AT}/parents/${ID(2)}`),
    ).toBe(true),
  )
})

test('a new way in that was mailed is not shown', async () => {
  show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [BRYN] },
    [`POST ${AT}/invitations/${ID(9)}/renew`]: {
      consents: CONSENTS,
      guardians: [BRYN],
      address: null,
    },
  })
  fireEvent.click(await screen.findByRole('button', { name: 'A new link' }))
  await waitFor(() =>
    expect(screen.getByRole('button', { name: 'A new link' }).getAttribute('aria-busy')).not.toBe(
      'true',
    ),
  )
  expect(screen.queryByText(/shown this once/)).toBeNull()
})
