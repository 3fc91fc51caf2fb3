import { act, fireEvent, screen } from '@testing-library/react'
import { show } from '../testing'
import { clearToast, toast, ToastPlace } from './Toast'

beforeEach(() => void jest.useFakeTimers())
afterEach(() => {
  clearToast()
  jest.useRealTimers()
})
const wait = (ms: number) => act(() => jest.advanceTimersByTimeAsync(ms))

test('a message that takes another’s place has its whole time, also when it says the same', async () => {
  show(<ToastPlace />, {})
  act(() => toast('Thrown away.'))
  await wait(6000)
  const undo = jest.fn()
  act(() => toast('Thrown away.', { undo }))
  await wait(5000)
  expect(screen.getByText('Thrown away.')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Undo' }))
  expect(undo).toHaveBeenCalledTimes(1)
  await wait(1000)
  expect(screen.queryByText('Thrown away.')).toBeNull()
})

test('it goes by itself, and at once when somebody leaves', async () => {
  show(<ToastPlace />, {})
  act(() => toast('The year is kept.'))
  await wait(9000)
  expect(screen.queryByText('The year is kept.')).toBeNull()
  act(() => toast('Wren is in the tray.'))
  await wait(500)
  act(() => clearToast())
  await wait(500)
  expect(screen.queryByText(/Wren/)).toBeNull()
})
