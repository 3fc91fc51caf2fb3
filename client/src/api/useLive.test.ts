import { listen } from './useLive'

/** A stream that does what the test says. */
class FakeStream {
  static made: FakeStream[] = []
  readyState = 0
  onmessage: ((event: { data: string }) => void) | null = null
  onopen: (() => void) | null = null
  onerror: (() => void) | null = null
  closed = false
  readonly #others = new Map<string, () => void>()
  constructor() {
    FakeStream.made.push(this)
  }
  addEventListener(name: string, heard: () => void) {
    this.#others.set(name, heard)
  }
  close() {
    this.closed = true
  }
  opens() {
    this.readyState = 1
    this.onopen?.()
  }
  /** The browser connects again by itself, or gives up. */
  breaks(givesUp: boolean) {
    this.readyState = givesUp ? 2 : 0
    this.onerror?.()
  }
  says(name: string) {
    this.#others.get(name)?.()
  }
}

const last = () => FakeStream.made.at(-1)!
let heard: unknown[]
beforeEach(() => {
  jest.useFakeTimers()
  FakeStream.made = []
  heard = []
  Object.assign(globalThis, { EventSource: FakeStream })
})
afterEach(() => jest.useRealTimers())

test('what is told is heard; what nobody understands is not', () => {
  const stop = listen((event) => heard.push(event))
  last().opens()
  last().onmessage!({ data: '{"topic":"pieces","id":"1"}' })
  last().onmessage!({ data: '{"topic":"weather"}' })
  last().says('missed')
  expect(heard).toEqual([{ topic: 'pieces', id: '1' }, 'missed'])
  stop()
  expect(last().closed).toBe(true)
})

test('after a gap that the browser bridged, everything may have been missed', () => {
  const stop = listen((event) => heard.push(event))
  last().opens()
  last().breaks(false)
  expect([heard, FakeStream.made.length]).toEqual([[], 1])
  last().opens()
  expect(heard).toEqual(['missed'])
  stop()
})

test('a stream that was refused is opened again, one at a time, however often it fails', () => {
  const stop = listen((event) => heard.push(event))
  for (let failures = 1; failures <= 5; failures++) {
    last().breaks(true)
    last().breaks(true)
    jest.advanceTimersByTime(60_000)
    expect(FakeStream.made.length).toBe(failures + 1)
  }
  // Whoever listens asks who is here: a desk that was ended is closed at once.
  expect(heard).toEqual(Array.from({ length: 5 }, () => 'refused'))
  last().opens()
  expect(heard.at(-1)).toBe('missed')
  last().breaks(true)
  stop()
  jest.advanceTimersByTime(120_000)
  expect(FakeStream.made.length).toBe(6)
})
