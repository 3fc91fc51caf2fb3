import fc from 'fast-check'
import { Temporal } from 'temporal-polyfill'
import {
  isSchoolDay,
  schoolDay,
  schoolMoment,
  schoolWeeks,
  shiftBySchoolWeeks,
  termOn,
  weekOfTerm,
} from './calendar.ts'
import { faultsOfYear, guessYear, isTimeZone } from './year.ts'

const AUTUMN = { id: 'autumn', startsOn: '2026-09-02', endsOn: '2026-12-18' }
const SPRING = { id: 'spring', startsOn: '2027-01-05', endsOn: '2027-03-26' }

test.each([
  { day: '2026-09-02', term: 'autumn', why: 'the first day counts' },
  { day: '2026-12-18', term: 'autumn', why: 'the last day counts' },
  { day: '2026-12-27', term: 'autumn', why: 'holiday work goes with the term that ended' },
  { day: '2027-01-05', term: 'spring', why: 'a new term begins' },
  { day: '2026-08-01', term: 'autumn', why: 'before the first term, the first' },
])('$day belongs to $term: $why', ({ day, term }) =>
  expect(termOn(day, [SPRING, AUTUMN])?.id).toBe(term),
)

test('a school without terms has no running term', () =>
  expect(termOn('2026-09-02', [])).toBeUndefined())

// 2 September 2026 is a Wednesday of ISO week 36 (ISO 8601: the week of 31 August).
test.each([
  { day: '2026-09-02', week: 1 },
  { day: '2026-09-06', week: 1 },
  { day: '2026-09-07', week: 2 },
  { day: '2026-10-26', week: 9 },
  { day: '2026-08-20', week: 1 },
])('$day is week $week of the autumn term', ({ day, week }) =>
  expect(weekOfTerm(day, AUTUMN)).toBe(week),
)

test.each([
  { at: '2026-10-24T23:30:00Z', day: '2026-10-25', why: 'still summer time: half past midnight' },
  { at: '2026-10-25T23:30:00Z', day: '2026-10-25', why: 'clocks went back: half past eleven' },
  { at: '2027-03-28T23:30:00Z', day: '2027-03-29', why: 'clocks went forward' },
])('$at is $day in London: $why', ({ at, day }) =>
  expect(schoolDay(new Date(at), 'Europe/London')).toBe(day),
)

test('the school day agrees with the platform’s own calendar in every zone and at every moment', () => {
  const zones = ['Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kathmandu']
  fc.assert(
    fc.property(
      fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
      fc.constantFrom(...zones),
      (at, zone) =>
        expect(schoolDay(at, zone)).toBe(
          new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at),
        ),
    ),
  )
})

test('knows a time zone from a word', () => {
  expect(isTimeZone('Europe/London')).toBe(true)
  expect(isTimeZone('UTC')).toBe(true)
  expect(isTimeZone('Saltmarsh')).toBe(false)
  expect(isTimeZone('Europe/Saltmarsh')).toBe(false)
})

const YEAR = {
  startsOn: '2026-09-01',
  endsOn: '2027-08-31',
  terms: [
    { name: 'Autumn', startsOn: '2026-09-02', endsOn: '2026-12-18' },
    { name: 'Spring', startsOn: '2027-01-05', endsOn: '2027-03-26' },
    { name: 'Summer', startsOn: '2027-04-12', endsOn: '2027-07-21' },
  ],
  closedDays: [{ name: 'Half-term', startsOn: '2026-10-26', endsOn: '2026-10-30' }],
}
const NEXT = {
  startsOn: '2027-09-01',
  endsOn: '2028-08-31',
  terms: [{ name: 'Autumn', startsOn: '2027-09-06', endsOn: '2027-12-17' }],
  closedDays: [
    { name: 'Half-term', startsOn: '2027-10-25', endsOn: '2027-10-29' },
    { name: 'Staff day', startsOn: '2027-09-13', endsOn: '2027-09-13' },
  ],
}

// The weeks that ISO 8601 itself and its usual tables name as hard, counted from the Monday of
// their year's week 1.
test.each([
  { day: '2005-01-01', from: '2003-12-29', week: 53 },
  { day: '2005-01-02', from: '2003-12-29', week: 53 },
  { day: '2005-12-31', from: '2005-01-03', week: 52 },
  { day: '2007-01-01', from: '2007-01-01', week: 1 },
  { day: '2008-12-29', from: '2008-12-29', week: 1 },
  { day: '2010-01-03', from: '2008-12-29', week: 53 },
  { day: '2020-12-31', from: '2019-12-30', week: 53 },
  { day: '2026-11-23', from: '2025-12-29', week: 48 },
])('$day is week $week counted from $from', ({ day, from, week }) =>
  expect(weekOfTerm(day, { startsOn: from })).toBe(week),
)

const anyDay = fc
  .date({ min: new Date('2000-01-01'), max: new Date('2060-12-31'), noInvalidDate: true })
  .map((at) => at.toISOString().slice(0, 10))

test('weeks counted from week 1 of a year agree with an independent calendar on every day', () => {
  fc.assert(
    fc.property(anyDay, (day) => {
      const date = Temporal.PlainDate.from(day)
      // 4 January always lies in week 1.
      const startsOn = Temporal.PlainDate.from({
        year: date.yearOfWeek!,
        month: 1,
        day: 4,
      }).toString()
      expect(weekOfTerm(day, { startsOn })).toBe(date.weekOfYear)
    }),
  )
})

test.each([
  {
    day: '2027-03-28',
    time: '01:30',
    at: '2027-03-28T01:30:00.000Z',
    why: 'left out by the spring change, so an hour later',
  },
  {
    day: '2026-10-25',
    time: '01:30',
    at: '2026-10-25T00:30:00.000Z',
    why: 'shown twice in autumn: the first',
  },
  { day: '2026-10-25', time: '15:00', at: '2026-10-25T15:00:00.000Z', why: 'winter time again' },
  { day: '2026-10-24', time: '15:00', at: '2026-10-24T14:00:00.000Z', why: 'still summer time' },
])('$day $time in London is $at: $why', ({ day, time, at }) =>
  expect(schoolMoment(day, time, 'Europe/London').toISOString()).toBe(at),
)

test('due moments agree with an independent calendar in every zone, over every clock change', () => {
  const zones = [
    'Europe/London',
    'America/New_York',
    'Australia/Lord_Howe',
    'America/St_Johns',
    'Asia/Kathmandu',
    'Pacific/Auckland',
  ]
  const time = fc
    .tuple(fc.nat(23), fc.nat(59))
    .map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}`)
  const change = fc.constantFrom(
    '2027-03-28',
    '2026-10-25',
    '2027-03-14',
    '2026-11-01',
    '2026-10-04',
    '2027-04-04',
    '2026-09-27',
  )
  fc.assert(
    fc.property(fc.oneof(anyDay, change), time, fc.constantFrom(...zones), (day, at, zone) => {
      const independent = Temporal.PlainDateTime.from(`${day}T${at}`).toZonedDateTime(zone, {
        disambiguation: 'compatible',
      })
      expect(schoolMoment(day, at, zone).getTime()).toBe(independent.epochMilliseconds)
    }),
    { numRuns: 500 },
  )
})

test.each([
  { day: '2026-10-23', open: true, why: 'a Friday in term' },
  { day: '2026-10-24', open: false, why: 'a Saturday' },
  { day: '2026-10-28', open: false, why: 'half-term' },
  { day: '2026-12-21', open: false, why: 'after the term' },
])('$day: $why', ({ day, open }) => expect(isSchoolDay(day, YEAR)).toBe(open))

test('school weeks skip holidays and closed weeks', () => {
  const weeks = schoolWeeks(YEAR)
  expect(weeks[0]).toBe('2026-08-31')
  expect(weeks).not.toContain('2026-10-26')
  expect(weeks).toContain('2026-11-02')
  expect(weeks).toHaveLength(15 + 12 + 15)
})

test.each([
  { day: '2026-09-02', to: '2027-09-08', why: 'first week, Wednesday' },
  { day: '2026-09-07', to: '2027-09-14', why: 'the second Monday is a staff day, so the Tuesday' },
  { day: '2026-11-04', to: '2027-11-10', why: 'after both half-terms' },
  { day: '2027-06-01', to: '2027-12-14', why: 'beyond the last week known: the last week' },
])('$day of one year is $to of the next: $why', ({ day, to }) =>
  expect(shiftBySchoolWeeks(day, YEAR, NEXT)).toBe(to),
)

test('a shifted day is always a school day, and shifting into the same year changes no school day', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 360 }), (n) => {
      const day = new Date(Date.UTC(2026, 8, 1 + n)).toISOString().slice(0, 10)
      expect(isSchoolDay(shiftBySchoolWeeks(day, YEAR, NEXT), NEXT)).toBe(true)
      if (isSchoolDay(day, YEAR)) expect(shiftBySchoolWeeks(day, YEAR, YEAR)).toBe(day)
    }),
  )
})

test('a year says what is wrong with it', () => {
  expect(faultsOfYear(YEAR)).toEqual({})
  expect(faultsOfYear({ ...YEAR, endsOn: '2026-08-01', terms: [], closedDays: [] })).toEqual({
    endsOn: ['ends-before-it-starts'],
  })
  const [autumn, spring] = YEAR.terms as [(typeof YEAR.terms)[0], (typeof YEAR.terms)[0]]
  expect(faultsOfYear({ ...YEAR, terms: [autumn, { ...spring, startsOn: '2026-12-18' }] })).toEqual(
    {
      'terms.1.startsOn': ['overlaps'],
    },
  )
  expect(faultsOfYear({ ...YEAR, terms: [{ ...autumn, endsOn: '2026-08-30' }] })).toEqual({
    'terms.0.endsOn': ['ends-before-it-starts'],
  })
  expect(
    faultsOfYear({
      ...YEAR,
      closedDays: [{ name: 'x', startsOn: '2028-01-01', endsOn: '2028-01-02' }],
    }),
  ).toEqual({
    'closedDays.0.startsOn': ['outside-the-year'],
  })
  expect(faultsOfYear(guessYear('2026-09-02', (season, year) => `${season} ${year}`))).toEqual({})
})
