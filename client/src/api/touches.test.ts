import { LIVE_TOPICS } from '@nibquill/contract'
import { QueryClient, QueryObserver, type QueryKey } from '@tanstack/react-query'
import { touchedBy } from './touches'

/** What is on a page at once, and how often each was asked since. */
async function page(...keys: QueryKey[]) {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: 60_000 } } })
  const asked: string[] = []
  for (const queryKey of keys)
    new QueryObserver(queries, {
      queryKey,
      queryFn: () => {
        asked.push(queryKey.join(' '))
        return 'answer'
      },
    }).subscribe(() => undefined)
  await new Promise((resolve) => setTimeout(resolve, 10))
  asked.length = 0
  const hears = async (topic: (typeof LIVE_TOPICS)[number], id?: string) => {
    for (const queryKey of touchedBy({ topic, id })) void queries.invalidateQueries({ queryKey })
    await new Promise((resolve) => setTimeout(resolve, 10))
    return asked.sort()
  }
  return { hears }
}

const TRAY: QueryKey[] = [
  ...[['review', 'tray'], ['pieces', 'judged'], ['folders'], ['school', 'classes']],
  ...[['notices', 'staff'], ['tasks']],
]

test('one title changed on a draft asks nothing of a teacher who looks at something else', async () => {
  const { hears } = await page(...TRAY)
  expect(await hears('work', 'other')).toEqual([])
})

test('the piece a teacher looks at is asked for once, and nothing else', async () => {
  const { hears } = await page(...TRAY)
  expect(await hears('work', 'judged')).toEqual(['pieces judged'])
})

test('on a pupil’s desk the list is asked for once', async () => {
  const { hears } = await page(['pieces', 'mine'], ['tasks'], ['notices', 'news'], ['folders'])
  expect(await hears('work', 'mine-too')).toEqual(['pieces mine'])
})

test('a piece that is handed in turns up in the tray, on the task and in the class', async () => {
  const { hears } = await page(...TRAY)
  expect(await hears('pieces', 'new')).toEqual(expect.arrayContaining(['review tray', 'tasks']))
})

test('of what is done to one piece, nothing is asked about another', async () => {
  const about: QueryKey[] = [
    ...['judged', 'other'].flatMap((id) =>
      ['pieces', 'comments', 'mark-ups'].map((capability) => [capability, id]),
    ),
    ['comments', 'waiting'],
  ]
  const { hears } = await page(...about)
  expect(await hears('pieces', 'judged')).toEqual([
    ...['comments judged', 'comments waiting', 'mark-ups judged', 'pieces judged'],
  ])
  // Where it is not said of which, all are asked about.
  expect(new Set(await hears('pieces')).size).toBe(about.length)
})

test('every topic touches something', () => {
  for (const topic of LIVE_TOPICS) expect(touchedBy({ topic }).length).toBeGreaterThan(0)
})
