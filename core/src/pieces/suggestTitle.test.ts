import { suggestTitle } from './suggestTitle.ts'

test.each([
  {
    from: { task: 'Plan your bridge', folder: 'Bridges', week: 2 },
    title: 'Plan your bridge, week 2',
  },
  {
    from: { task: 'Plan your bridge', week: 2, earlier: 1 },
    title: 'Plan your bridge, week 2, try 2',
  },
  { from: { folder: 'Rock pools', week: 12 }, title: 'Rock pools, week 12' },
  { from: { folder: 'Rock pools' }, title: 'Rock pools' },
  { from: {}, title: 'My work' },
])('suggests "$title"', ({ from, title }) => expect(suggestTitle(from)).toBe(title))
