import fc from 'fast-check'
import { groupLooks } from './groupLooks.ts'

const look = (pupil: string, strand: string | null) => ({
  pupil: { id: pupil, firstName: pupil, lastName: '' },
  strand,
})

test('by pupil and by strand; most to be looked at again comes first, no strand last', () => {
  const [a, b, c, d] = [
    look('wren', null),
    look('wren', 'Number'),
    look('kofi', 'Number'),
    look('ravi', null),
  ]
  const looks = [a, b, c, d]
  expect(groupLooks(looks, 'pupil').map(({ key }) => key)).toEqual(['wren', 'kofi', 'ravi'])
  expect(groupLooks(looks, 'strand')).toEqual([
    { key: 'Number', looks: [b, c] },
    { key: null, looks: [a, d] },
  ])
})
test('each stands in one group, and no group is empty', () => {
  const some = fc.constantFrom('a', 'b', 'c')
  fc.assert(
    fc.property(
      fc.array(fc.tuple(some, fc.option(some)).map(([pupil, strand]) => look(pupil, strand))),
      fc.constantFrom('pupil' as const, 'strand' as const),
      (looks, by) => {
        const groups = groupLooks(looks, by)
        expect(groups.every((group) => group.looks.length > 0)).toBe(true)
        const all = groups.flatMap((group) => group.looks)
        expect(all).toHaveLength(looks.length)
        for (const one of looks) expect(all).toContain(one)
      },
    ),
  )
})
