import { schoolToday, setSchoolZone, sizeOf, whenIsItDue, whenWasIt } from './dates'

beforeAll(() => setSchoolZone('Europe/London'))
const NOW = new Date('2026-11-23T10:00:00Z')

test.each([
  ['2026-11-23T09:12:00Z', 'today 9:12'],
  ['2026-11-22T23:59:00Z', 'yesterday'],
  ['2026-11-19T12:00:00Z', 'Thursday'],
  ['2026-10-06T12:00:00Z', '6 October'],
])('%s was %s', (moment, words) => expect(whenWasIt(moment, NOW)).toBe(words))

test.each([
  ['2026-11-23T15:00:00Z', 'by today 15:00'],
  ['2026-11-24T15:00:00Z', 'by tomorrow 15:00'],
  ['2026-11-25T14:00:00Z', 'by Wednesday 14:00'],
  ['2026-12-14T14:00:00Z', 'by 14 December 14:00'],
  ['2026-11-23T09:00:00Z', 'was due at 9:00'],
  ['2026-11-20T15:00:00Z', 'was due on Friday'],
])('due at %s reads %s', (moment, words) => expect(whenIsItDue(moment, NOW)).toBe(words))

test('a moment is told in the school’s zone, not the tablet’s', () => {
  setSchoolZone('Pacific/Auckland')
  expect(whenIsItDue('2026-11-23T15:00:00Z', NOW)).toBe('by tomorrow 4:00')
  setSchoolZone('Europe/London')
})

test('today is the school’s day, wherever the tablet is', () => {
  setSchoolZone('Pacific/Auckland')
  expect(schoolToday(new Date('2026-11-23T12:00:00Z'))).toBe('2026-11-24')
  setSchoolZone('America/Toronto')
  expect(schoolToday(new Date('2026-11-23T02:00:00Z'))).toBe('2026-11-22')
  setSchoolZone('Europe/London')
})

test('sizes are told roughly', () =>
  expect([sizeOf(400), sizeOf(45_000), sizeOf(2_340_000)]).toEqual(['1 KB', '45 KB', '2.3 MB']))
