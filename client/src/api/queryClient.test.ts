import { QueryObserver } from '@tanstack/react-query'
import { AskingQueryClient } from './queryClient'

const queryKey = ['comments', 'waiting']

/** A school where something is said while the answer of before is on its way. */
function school() {
  const queries = new AskingQueryClient({ defaultOptions: { queries: { staleTime: 60_000 } } })
  let said = 0
  const onTheirWay: (() => void)[] = []
  const queryFn = () => {
    const read = said
    return new Promise<number>((resolve) => onTheirWay.push(() => resolve(read)))
  }
  const arrive = async () => {
    for (const answer of onTheirWay.splice(0)) answer()
    await new Promise((resolve) => setTimeout(resolve, 5))
  }
  const change = () => {
    said += 1
    return queries.invalidateQueries({ queryKey: ['comments'] })
  }
  const look = () => {
    const observer = new QueryObserver(queries, { queryKey, queryFn })
    return { observer, leave: observer.subscribe(() => undefined) }
  }
  return { queries, queryFn, arrive, change, look, asked: () => onTheirWay.length }
}

test('what changes while it is asked for the first time is asked for once more', async () => {
  const { change, arrive, look, asked } = school()
  const { observer } = look()
  const changed = [change(), change()]
  await arrive()
  expect(asked()).toBe(1)
  await arrive()
  await Promise.all(changed)
  expect([observer.getCurrentResult().data, asked()]).toEqual([2, 0])
})

test('what was asked ahead and changed on the way is asked again when it is looked at', async () => {
  const { queries, queryFn, change, arrive, look } = school()
  const ahead = queries.fetchQuery({ queryKey, queryFn })
  const changed = change()
  await arrive()
  expect(await ahead).toBe(0)
  await changed
  const { observer } = look()
  await arrive()
  expect(observer.getCurrentResult().data).toBe(1)
})

test('what is here already is asked for once', async () => {
  const { change, arrive, look, asked } = school()
  const { observer } = look()
  await arrive()
  const changed = change()
  expect(asked()).toBe(1)
  await arrive()
  await changed
  expect([observer.getCurrentResult().data, asked()]).toEqual([1, 0])
})

test('an answer that does not come is not asked for for ever', async () => {
  const { queries, change } = school()
  let asked = 0
  new QueryObserver(queries, {
    queryKey,
    retry: false,
    queryFn: () => Promise.reject(new Error(`away ${(asked += 1)}`)),
  }).subscribe(() => undefined)
  await change()
  expect(asked).toBe(2)
})
