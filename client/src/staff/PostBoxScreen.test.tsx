import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { PostBoxScreen } from './PostBoxScreen'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const MAIL = {
  id: ID(1),
  to: 'bryn@saltmarsh.example',
  subject: 'Wren’s work at school',
  state: 'kept',
  createdAt: '2026-11-01T10:00:00.000Z',
}
const OPENED = {
  id: MAIL.id,
  subject: MAIL.subject,
  body: 'Open this page: http://x.example/invitation/abc',
  blanked: false,
}

test('without a mail server a letter is opened after a question, and only then shown', async () => {
  const asked = show(<PostBoxScreen />, {
    'GET /mail': { server: false, mails: [MAIL] },
    [`POST /mail/${MAIL.id}/open`]: OPENED,
  })
  expect(await screen.findByText(MAIL.subject)).toBeTruthy()
  expect(screen.queryByText(/invitation/)).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Open the letter' }))
  expect(await screen.findByText(/the teachers it concerns are told/)).toBeTruthy()
  expect(asked.some(({ method }) => method === 'POST')).toBe(false)
  fireEvent.click(screen.getAllByRole('button', { name: 'Open the letter' }).at(-1)!)
  await waitFor(() => expect(screen.getByText(OPENED.body)).toBeTruthy())
})

test('what lets in somebody who has come in before is left out, and that is said', async () => {
  show(<PostBoxScreen />, {
    'GET /mail': { server: false, mails: [MAIL] },
    [`POST /mail/${MAIL.id}/open`]: { ...OPENED, body: 'Open this page: …', blanked: true },
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Open the letter' }))
  fireEvent.click((await screen.findAllByRole('button', { name: 'Open the letter' })).at(-1)!)
  expect(await screen.findByText(/The way in is left out/)).toBeTruthy()
})

test('with a mail server nothing can be opened; an empty box says so', async () => {
  show(<PostBoxScreen />, { 'GET /mail': { server: true, mails: [{ ...MAIL, state: 'sent' }] } })
  expect(await screen.findByText(/sent$/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Open the letter' })).toBeNull()
})
