import { isYoungYearGroup } from './youngYears.ts'

test.each([
  'Reception',
  'Nursery',
  'Year 1',
  'year 2',
  'Y1',
  'Y 2',
  '1',
  '2',
  'Grade 1',
  ' Year 1 and 2',
])('%s is young', (yearGroup) => expect(isYoungYearGroup(yearGroup)).toBe(true))
test.each(['', 'Year 3', 'Year 10', 'Y12', '3', 'Grade 4', 'Years 3 and 4', 'Choir'])(
  '%s is not',
  (yearGroup) => expect(isYoungYearGroup(yearGroup)).toBe(false),
)
