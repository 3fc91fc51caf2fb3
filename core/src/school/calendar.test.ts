import fc from 'fast-check'
import { isTimeZone, schoolDay, termOn, weekOfTerm } from './calendar.ts'

const AUTUMN = { id: 'autumn', startsOn: '2026-09-02', endsOn: '2026-12-18' }
const SPRING = { id: 'spring', startsOn: '2027-01-05', endsOn: '2027-03-26' }

test.each([
  { day: '2026-09-02', term: 'autumn', why: 'the first day counts' },
  { day: '2026-12-18', term: 'autumn', why: 'the last day counts' },
  { day: '2026-12-27', term: 'autumn', why: 'holiday work goes with the term that ended' },
  { day: '2027-01-05', term: 'spring', why: 'a new term begins' },
  { day: '2026-08-01', term: 'autumn', why: 'before the first term, the first' },
])('$day belongs to $term: $why', ({ day, term }) => expect(termOn(day, [SPRING, AUTUMN])?.id).toBe(term))

test('a school without terms has no running term', () => expect(termOn('2026-09-02', [])).toBeUndefined())

// 2 September 2026 is a Wednesday of ISO week 36 (ISO 8601: the week of 31 August).
test.each([
  { day: '2026-09-02', week: 1 },
  { day: '2026-09-06', week: 1 },
  { day: '2026-09-07', week: 2 },
  { day: '2026-10-26', week: 9 },
  { day: '2026-08-20', week: 1 },
])('$day is week $week of the autumn term', ({ day, week }) => expect(weekOfTerm(day, AUTUMN)).toBe(week))

test.each([
  { at: '2026-10-24T23:30:00Z', day: '2026-10-25', why: 'still summer time: half past midnight' },
  { at: '2026-10-25T23:30:00Z', day: '2026-10-25', why: 'clocks went back: half past eleven' },
  { at: '2027-03-28T23:30:00Z', day: '2027-03-29', why: 'clocks went forward' },
])('$at is $day in London: $why', ({ at, day }) => expect(schoolDay(new Date(at), 'Europe/London')).toBe(day))

test('the school day agrees with the platform’s own calendar in every zone and at every moment', () => {
  const zones = ['Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kathmandu']
  fc.assert(
    fc.property(
      fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
      fc.constantFrom(...zones),
      (at, zone) => expect(schoolDay(at, zone)).toBe(new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at)),
    ),
  )
})

test('knows a time zone from a word', () => {
  expect(isTimeZone('Europe/London')).toBe(true)
  expect(isTimeZone('UTC')).toBe(true)
  expect(isTimeZone('Saltmarsh')).toBe(false)
  expect(isTimeZone('Europe/Saltmarsh')).toBe(false)
})
