import { whileMine } from './whileMine'

/**
 * Places as a browser gives them: one holder, the others in a line.
 * @see Web Locks API, exclusive mode
 */
function placesOfABrowser() {
  let last: Promise<unknown> = Promise.resolve()
  return {
    request: async (
      _name: string,
      { signal }: { signal: AbortSignal },
      work: () => Promise<void>,
    ) => {
      const before = last
      let leave = () => {}
      last = new Promise<void>((resolve) => (leave = resolve))
      try {
        await Promise.race([
          before,
          new Promise((_, reject) =>
            signal.addEventListener('abort', () => reject(new DOMException('gone', 'AbortError'))),
          ),
        ])
        await work()
      } finally {
        void before.then(leave)
      }
    },
  }
}
const give = (locks: unknown) =>
  Object.defineProperty(navigator, 'locks', { value: locks, configurable: true })
beforeEach(() => give(placesOfABrowser()))
afterEach(() => {
  give(undefined)
  jest.useRealTimers()
})
const soon = () => new Promise((resolve) => setTimeout(resolve, 20))

test('the second page works when the first has gone, and not before', async () => {
  const [first, second] = [new AbortController(), new AbortController()]
  const did: string[] = []
  const gone = whileMine('outbox', first.signal, async () => void did.push('first'))
  void whileMine('outbox', second.signal, async () => void did.push('second'))
  await soon()
  expect(did).toEqual(['first'])
  first.abort()
  await gone
  await soon()
  expect(did).toEqual(['first', 'second'])
  second.abort()
})

test('a page that goes while it is still reading leaves its place to the next one', async () => {
  const [first, second] = [new AbortController(), new AbortController()]
  let read = () => {}
  const gone = whileMine('outbox', first.signal, () => new Promise((resolve) => (read = resolve)))
  await soon()
  const did: string[] = []
  void whileMine('outbox', second.signal, async () => void did.push('second'))
  first.abort()
  await soon()
  expect(did).toEqual([])
  read()
  await gone
  await soon()
  expect(did).toEqual(['second'])
  second.abort()
})

test('what fails is begun again by itself, until it is done or the page has gone', async () => {
  jest.useFakeTimers()
  const control = new AbortController()
  let tries = 0
  const gone = whileMine('outbox', control.signal, () =>
    ++tries < 3 ? Promise.reject(new Error('busy')) : Promise.resolve(),
  )
  await jest.advanceTimersByTimeAsync(10_000)
  expect(tries).toBe(3)
  await jest.advanceTimersByTimeAsync(60_000)
  expect(tries).toBe(3)
  control.abort()
  await gone

  const hopeless = new AbortController()
  let more = 0
  const left = whileMine('outbox', hopeless.signal, () => (more++, Promise.reject(new Error('no'))))
  await jest.advanceTimersByTimeAsync(1_000)
  hopeless.abort()
  await left
  const then = more
  await jest.advanceTimersByTimeAsync(600_000)
  expect(more).toBe(then)
})

test('a browser without places, or one that refuses them, works alone; one that has gone does nothing', async () => {
  for (const locks of [
    undefined,
    { request: () => Promise.reject(new DOMException('no', 'SecurityError')) },
  ]) {
    give(locks)
    const control = new AbortController()
    let tries = 0
    const gone = whileMine('outbox', control.signal, async () => void tries++)
    await soon()
    expect(tries).toBe(1)
    control.abort()
    await gone
    await whileMine('outbox', control.signal, async () => void tries++)
    expect(tries).toBe(1)
  }
})
