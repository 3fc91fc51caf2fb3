import { QueryObserver, type QueryKey } from '@tanstack/react-query'
import * as v from 'valibot'
import { api } from './api'
import { HeardChanges } from './heardChanges'
import { AskingQueryClient } from './queryClient'

let heard: HeardChanges | null = null
beforeEach(() => jest.useFakeTimers())
afterEach(() => {
  heard?.stop()
  jest.useRealTimers()
})

/** A page on which these stand, answered at once, and what it asks from then on. */
async function page(...keys: QueryKey[]) {
  const queries = new AskingQueryClient({ defaultOptions: { queries: { staleTime: 60_000 } } })
  const changes = new HeardChanges(queries)
  heard = changes
  const asked: string[] = []
  const look = (queryKey: QueryKey, queryFn?: () => Promise<unknown>) =>
    new QueryObserver(queries, {
      queryKey,
      queryFn:
        queryFn ??
        (() => {
          asked.push(queryKey.join(' '))
          return 'answer'
        }),
    }).subscribe(() => undefined)
  for (const key of keys) look(key)
  await jest.advanceTimersByTimeAsync(1000)
  asked.length = 0
  return { queries, changes, look, asked }
}

/** Something this page does; `answer` lets the school answer it. */
function doSomething() {
  let answer = () => undefined as void
  globalThis.fetch = () =>
    new Promise((resolve) => {
      answer = () =>
        resolve({
          ok: true,
          headers: new Headers(),
          text: () => Promise.resolve('{}'),
        } as Response)
    })
  const done = api.post('/something', v.looseObject({}))
  return { done, answer: () => answer() }
}

test('what is heard on a quiet page is asked for at once; of many, what they touched is asked for once', async () => {
  const { changes, asked } = await page(['review', 'tray'], ['tasks'])
  changes.hear({ topic: 'pieces', id: '1' })
  await jest.advanceTimersByTimeAsync(1)
  expect(asked).toEqual(['review tray', 'tasks'])
  for (let i = 0; i < 30; i++) {
    changes.hear({ topic: 'pieces', id: String(i) })
    await jest.advanceTimersByTimeAsync(5)
  }
  await jest.advanceTimersByTimeAsync(300)
  expect(asked.slice(2)).toEqual(['review tray', 'tasks'])
  // Quiet again.
  await jest.advanceTimersByTimeAsync(1000)
  changes.hear({ topic: 'tasks' })
  await jest.advanceTimersByTimeAsync(1)
  expect(asked.slice(4)).toEqual(['tasks'])
})

test('what this page does is heard before it is answered: what was asked for after is not asked for twice', async () => {
  const { queries, changes, asked } = await page(['review', 'tray'], ['tasks'])
  const { done, answer } = doSomething()
  changes.hear({ topic: 'pieces', id: '1' })
  await jest.advanceTimersByTimeAsync(100)
  expect(asked).toEqual([])
  answer()
  await done
  void queries.invalidateQueries({ queryKey: ['review'] })
  await jest.advanceTimersByTimeAsync(100)
  // What the change did not know of is asked for as well.
  expect(asked).toEqual(['review tray', 'tasks'])
})

test('an answer that takes long holds nothing up', async () => {
  const { changes, asked } = await page(['tasks'])
  const { done, answer } = doSomething()
  changes.hear({ topic: 'tasks' })
  await jest.advanceTimersByTimeAsync(600)
  expect(asked).toEqual(['tasks'])
  answer()
  await done
})

test('what changes after it was asked for is asked for again', async () => {
  const { queries, changes, asked } = await page(['tasks'])
  void queries.invalidateQueries({ queryKey: ['tasks'] })
  await jest.advanceTimersByTimeAsync(1)
  changes.hear({ topic: 'tasks' })
  await jest.advanceTimersByTimeAsync(300)
  expect(asked).toEqual(['tasks', 'tasks'])
})

test('what was asked for and left before its answer is asked for when it is looked at again', async () => {
  const { queries, changes, look } = await page()
  const answers: (() => void)[] = []
  const asks = () => new Promise<string>((resolve) => answers.push(() => resolve('answer')))
  const leave = look(['tasks'], asks)
  answers.shift()!()
  await jest.advanceTimersByTimeAsync(1)
  changes.hear({ topic: 'tasks' })
  void queries.refetchQueries({ queryKey: ['tasks'] })
  await jest.advanceTimersByTimeAsync(1)
  expect(answers).toHaveLength(1)
  leave()
  void queries.cancelQueries({ queryKey: ['tasks'] })
  await jest.advanceTimersByTimeAsync(300)
  look(['tasks'], asks)
  expect(answers).toHaveLength(2)
})
