import { Uploader } from './uploader'

beforeEach(() => {
  localStorage.clear()
  Blob.prototype.arrayBuffer = () => new Promise(() => undefined)
  URL.createObjectURL = () => 'blob:preview'
  URL.revokeObjectURL = () => undefined
})
const file = (size: number, name = 'a.jpg') =>
  Object.defineProperty(new File(['x'], name, { lastModified: 5 }), 'size', { value: size })
/** Takes files on and never gets anywhere: the network is for the interface tests. */
const offline = () => {
  globalThis.fetch = () => new Promise(() => undefined)
  return new Uploader(() => Promise.resolve())
}

test('a file over the limit and an empty one are refused before anything is sent, with a sentence', () => {
  const uploader = offline()
  void uploader.add('wren', 'piece', file(61 * 1024 * 1024))
  void uploader.add('wren', 'piece', file(0, 'b.jpg'))
  expect(uploader.getSnapshot().map(({ state, sentence }) => [state, sentence])).toEqual([
    ['refused', 'This file is too big. The most is 60 MB.'],
    ['refused', 'This file is empty, so there is nothing to keep.'],
  ])
})

test('a file half-way before a reload keeps its ids when it is picked again, for its own pupil and piece only', () => {
  const before = offline()
  void before.add('wren', 'piece', file(100))
  const after = offline()
  expect(after.listHalfWay('wren', 'piece')).toEqual(['a.jpg'])
  expect(after.listHalfWay('tomasz', 'piece')).toEqual([])
  void after.add('wren', 'piece', file(100))
  expect(after.getSnapshot()[0]!.mediaId).toBe(before.getSnapshot()[0]!.mediaId)
  expect(after.listHalfWay('wren', 'piece')).toEqual([])
  const other = offline()
  void other.add('tomasz', 'piece', file(100))
  expect(other.getSnapshot()[0]!.mediaId).not.toBe(before.getSnapshot()[0]!.mediaId)
})

test('picked twice, a file goes once; two go at a time; signing out forgets what is shown', () => {
  const uploader = offline()
  for (const name of ['a.jpg', 'a.jpg', 'b.jpg', 'c.jpg']) void uploader.add('wren', 'piece', file(100, name))
  expect(uploader.getSnapshot().map(({ name, state }) => [name, state])).toEqual([
    ['a.jpg', 'sending'],
    ['b.jpg', 'sending'],
    ['c.jpg', 'waiting'],
  ])
  uploader.clear()
  expect(uploader.getSnapshot()).toEqual([])
  expect(uploader.listHalfWay('wren', 'piece')).toHaveLength(3)
})

describe('with a shelf', () => {
  /** A shelf whose answer is given by hand. */
  const shelf = () => {
    const asked: { partId: string; done: () => void; fail: () => void }[] = []
    const dropped: string[] = []
    return {
      asked,
      dropped,
      put: ({ partId }: { partId: string }) =>
        new Promise<void>((resolve, reject) => asked.push({ partId, done: resolve, fail: () => reject(new Error('full')) })),
      drop: (partId: string) => Promise.resolve(void dropped.push(partId)),
    }
  }
  /** The network is away: whatever is asked fails at once. */
  const away = (on: ReturnType<typeof shelf>) => {
    globalThis.fetch = () => Promise.reject(new TypeError('no network'))
    return new Uploader(() => Promise.resolve(), on)
  }

  test('nothing is sent, and nothing called kept, before it is on the shelf', async () => {
    const on = shelf()
    const uploader = away(on)
    const added = uploader.add('wren', 'piece', file(100))
    expect(uploader.getSnapshot()).toMatchObject([{ state: 'keeping', kept: false }])
    on.asked[0]!.done()
    await added
    expect(uploader.getSnapshot()).toMatchObject([{ state: 'sending', kept: true }])
  })

  test('a tablet that cannot keep it says so, and it is sent all the same', async () => {
    const on = shelf()
    const uploader = away(on)
    const added = uploader.add('wren', 'piece', file(100))
    on.asked[0]!.fail()
    await added
    expect(uploader.getSnapshot()).toMatchObject([{ kept: false, state: 'sending', sentence: 'This tablet cannot keep it. Leave this page open until it has arrived.' }]) // prettier-ignore
  })

  test('a pupil may leave while their files wait on the shelf: they are taken up again for them later', async () => {
    jest.useFakeTimers()
    const on = shelf()
    const uploader = away(on)
    const added = uploader.add('wren', 'piece', file(100))
    on.asked[0]!.done()
    await added
    const settled = uploader.settle()
    await jest.advanceTimersByTimeAsync(21_000)
    await settled
    const line = { ...uploader.getSnapshot()[0]! }
    uploader.clear()
    expect(uploader.getSnapshot()).toEqual([])
    expect(on.dropped).toEqual([])
    uploader.restore(line, file(100))
    uploader.restore(line, file(100))
    expect(uploader.getSnapshot()).toMatchObject([{ partId: line.partId, mediaId: line.mediaId, kept: true }])
    jest.useRealTimers()
  })

  test('what is taken out leaves the shelf', async () => {
    const on = shelf()
    const uploader = away(on)
    const added = uploader.add('wren', 'piece', file(100))
    on.asked[0]!.done()
    await added
    uploader.forget(on.asked[0]!.partId)
    expect(on.dropped).toEqual([on.asked[0]!.partId])
  })
})
