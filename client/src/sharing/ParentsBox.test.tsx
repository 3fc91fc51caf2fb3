import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { ParentsBox } from './ParentsBox'

const WAY_IN = {
  id: ID(9), state: 'open', createdAt: '2026-11-01T10:00:00.000Z', expiresAt: '2027-11-01T10:00:00.000Z', lastUsedAt: null, address: 'http://x.example/invitation/abc',
} // prettier-ignore
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
  otherChildren: ['Aoife'],
  invitation: WAY_IN,
}
const AT = `/sharing/pupils/${ID(1)}`

test('says who is invited, for whom else, and what was agreed to by whom', async () => {
  show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, { [`GET ${AT}`]: { consents: CONSENTS, guardians: [BRYN] } })
  const line = await screen.findByRole('article', { name: 'Bryn A.' })
  expect(line.textContent).toMatch(/invited until 1 November 2027, b@saltmarsh.example, also of Aoife/)
  expect(screen.getByText('nobody has said yet')).toBeTruthy()
  expect(screen.getByText(/^no, written down by Mr Adeyemi/)).toBeTruthy()
  expect(screen.getByRole('switch', { name: 'Approved work is shared with the parents' }).getAttribute('aria-checked')).toBe(
    'true',
  )
})

test('a word of the parents is sent as it is given', async () => {
  const asked = show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [] },
    [`PUT ${AT}/consents`]: { consents: CONSENTS, guardians: [] },
  })
  expect(await screen.findByText('No parent is invited yet.')).toBeTruthy()
  fireEvent.click(screen.getByRole('switch', { name: 'Photos that show the child may be used' }))
  await waitFor(() => expect(asked).toContainEqual({ method: 'PUT', path: `${AT}/consents/photos`, body: { granted: true } }))
})

test('an address that is none is said before anything is sent; without one a letter will do', async () => {
  const asked = show(<ParentsBox pupilId={ID(1)} firstName="Wren" />, {
    [`GET ${AT}`]: { consents: CONSENTS, guardians: [] },
    [`PUT ${AT}/parents`]: { consents: CONSENTS, guardians: [BRYN] },
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Invite a parent' }))
  fireEvent.change(screen.getByLabelText('First name of the parent'), { target: { value: 'Nerys' } })
  fireEvent.change(screen.getByLabelText('E-mail address'), { target: { value: 'nonsense' } })
  fireEvent.click(screen.getByRole('button', { name: 'Invite' }))
  expect(await screen.findByRole('alert')).toBeTruthy()
  expect(asked.filter(({ method }) => method === 'PUT')).toEqual([])
  fireEvent.change(screen.getByLabelText('E-mail address'), { target: { value: '' } })
  fireEvent.click(screen.getByRole('button', { name: 'Invite' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({ firstName: 'Nerys', lastName: '', email: null }),
  )
})
