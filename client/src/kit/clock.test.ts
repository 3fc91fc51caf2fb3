import { heedServerClock, schoolNow } from './clock'
import { setSchoolZone, whenIsItDue } from './dates'

const SERVED = 'Mon, 23 Nov 2026 10:00:00 GMT'
const at = (iso: string) => Date.parse(iso)
afterEach(() => {
  jest.useRealTimers()
  heedServerClock(new Date().toUTCString())
})

test.each([
  { tablet: '2026-11-24T10:00:00Z', why: 'a day ahead' },
  { tablet: '2026-11-22T10:00:00Z', why: 'a day behind' },
  { tablet: '2001-01-01T00:00:00Z', why: 'never set' },
])('on a tablet whose clock is $why, due moments are said as they are at school', ({ tablet }) => {
  jest.useFakeTimers({ now: at(tablet) })
  setSchoolZone('Europe/London')
  heedServerClock(SERVED)
  expect(schoolNow().toISOString()).toBe('2026-11-23T10:00:00.000Z')
  expect(whenIsItDue('2026-11-24T14:00:00Z')).toBe('by tomorrow 14:00')
})

test('seconds of travel are no difference, and an answer without a date changes nothing', () => {
  jest.useFakeTimers({ now: at('2026-11-23T10:00:20Z') })
  heedServerClock(SERVED)
  expect(schoolNow().toISOString()).toBe('2026-11-23T10:00:20.000Z')
  heedServerClock(null)
  heedServerClock('no date')
  expect(schoolNow().toISOString()).toBe('2026-11-23T10:00:20.000Z')
})
