import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { router } from 'expo-router'
import { show } from '../testing'
import type * as Router from '../testing/router'
import { keepFirst, useHandOver, useHandOverStage } from './handOver'
import { useSession } from './session'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const SESSION = {
  firstRun: false,
  school: {
    name: 'Saltmarsh Primary School',
    timeZone: 'Europe/London',
    address: 'http://nibquill.example',
    mails: true,
  },
  person: {
    id: '01890000-0000-7000-8000-000000000001',
    role: 'pupil',
    firstName: 'Wren',
    lastName: 'A.',
    peg: null,
    leads: false,
    className: 'Heron',
    mayPropose: false,
    young: false,
    sounds: false,
    idleMinutes: 10,
  },
  door: { className: 'Heron', tabletNumber: 1, open: true, until: null, reason: 'hours' },
}

function Tablet() {
  const { handOver, leaveBehind } = useHandOver()
  const stage = useHandOverStage()
  const session = useSession()
  return (
    <>
      <p>{`${session.data?.person?.firstName ?? 'nobody'} ${stage}`}</p>
      <button onClick={() => void handOver()}>next pupil</button>
      <button onClick={leaveBehind}>go without it</button>
    </>
  )
}
const use = async () => {
  const asked = show(<Tablet />, {
    'GET /accounts/session': SESSION,
    'POST /accounts/sign-out': { done: true },
    'GET /health': {},
  })
  await screen.findByText('Wren none')
  return () => asked.filter(({ path }) => path === '/accounts/sign-out').length
}
beforeEach(() => (router.replace as jest.Mock).mockClear())

test('the session ends only once everything is kept, and the pegs come next', async () => {
  let done = () => undefined as void
  const forget = keepFirst(() => new Promise<void>((resolve) => (done = resolve)))
  const signOuts = await use()
  fireEvent.click(screen.getByText('next pupil'))
  await screen.findByText('Wren keeping')
  expect(signOuts()).toBe(0)
  act(() => done())
  await waitFor(() => expect(signOuts()).toBe(1))
  await waitFor(() => expect(router.replace).toHaveBeenCalledWith('/pegs'))
  forget()
})

test('gone without it, the handing over that was overtaken ends nobody else’s session', async () => {
  let done = () => undefined as void
  const forget = keepFirst(() => new Promise<void>((resolve) => (done = resolve)))
  const signOuts = await use()
  fireEvent.click(screen.getByText('next pupil'))
  await screen.findByText('Wren keeping')
  fireEvent.click(screen.getByText('go without it'))
  await waitFor(() => expect(router.replace).toHaveBeenCalledTimes(1))
  // The next pupil is at the desk by now when the former one's work is kept after all.
  await act(async () => {
    done()
    await new Promise((resolve) => setTimeout(resolve, 50))
  })
  expect(signOuts()).toBe(1)
  expect(router.replace).toHaveBeenCalledTimes(1)
  forget()
})

test('what cannot be kept keeps the desk covered, and nobody is signed out', async () => {
  const forget = keepFirst(() => Promise.reject(new Error('no network')))
  const signOuts = await use()
  fireEvent.click(screen.getByText('next pupil'))
  await screen.findByText('Wren not-kept')
  expect(signOuts()).toBe(0)
  fireEvent.click(screen.getByText('go without it'))
  await waitFor(() => expect(signOuts()).toBe(1))
  forget()
})
