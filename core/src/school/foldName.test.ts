import { foldName } from './foldName.ts'

test.each([
  ['Ñandú', 'nandu'],
  ['ŁUKASZ  Żółw', 'lukasz zolw'],
  ['Søren Strauß', 'soren strauss'],
  ['O’Neill', "o'neill"],
  ['Zoë', 'zoe'],
  ['नीर', 'नीर'],
])('%s is found by %s', (name, typed) => {
  expect(foldName(name)).toBe(foldName(typed))
})
