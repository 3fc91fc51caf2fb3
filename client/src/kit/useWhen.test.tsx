import { act, renderHook } from '@testing-library/react'
import { heedServerClock } from './clock'
import { setSchoolZone } from './dates'
import { useWhen } from './useWhen'

beforeAll(() => setSchoolZone('Europe/London'))
afterEach(() => {
  jest.useRealTimers()
  heedServerClock(new Date().toUTCString())
})

const DUE = '2026-11-24T09:00:00Z'

test('on a screen that stays open, today becomes yesterday by itself, and what is due was due', () => {
  jest.useFakeTimers({ now: Date.parse('2026-11-23T23:58:30Z') })
  const { result, unmount } = renderHook(() => useWhen())
  const said = () => [
    result.current.whenWasIt('2026-11-23T09:12:00Z'),
    result.current.whenIsItDue(DUE),
    result.current.isToCome(DUE),
  ]
  expect(said()).toEqual(['today 9:12', 'by tomorrow 9:00', true])
  act(() => jest.advanceTimersByTime(2 * 60_000))
  expect(said()).toEqual(['yesterday', 'by today 9:00', true])
  act(() => jest.advanceTimersByTime(10 * 3_600_000))
  expect(said()).toEqual(['yesterday', 'was due at 9:00', false])
  unmount()
  expect(jest.getTimerCount()).toBe(0)
})

test('when the school says that this tablet’s clock is wrong, it is heeded at once', () => {
  jest.useFakeTimers({ now: Date.parse('2026-11-25T10:00:00Z') })
  const { result } = renderHook(() => useWhen())
  expect(result.current.isToCome(DUE)).toBe(false)
  act(() => heedServerClock('Mon, 23 Nov 2026 10:00:00 GMT'))
  expect(result.current.whenIsItDue(DUE)).toBe('by tomorrow 9:00')
})
