import { ProblemError } from '../api/problems'
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
  return new Uploader(() => Promise.resolve(), null, undefined, alone)
}
/** No other page of this browser sends anything. */
const alone = (work: () => Promise<void>) => work()

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
  for (const name of ['a.jpg', 'a.jpg', 'b.jpg', 'c.jpg'])
    void uploader.add('wren', 'piece', file(100, name))
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
        new Promise<void>((resolve, reject) =>
          asked.push({ partId, done: resolve, fail: () => reject(new Error('full')) }),
        ),
      drop: (partId: string) => Promise.resolve(void dropped.push(partId)),
    }
  }
  /** The network is away: whatever is asked fails at once. */
  const away = (on: ReturnType<typeof shelf>) => {
    globalThis.fetch = () => Promise.reject(new TypeError('no network'))
    return new Uploader(() => Promise.resolve(), on, undefined, alone)
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
    expect(uploader.getSnapshot()).toMatchObject([
      {
        kept: false,
        state: 'sending',
        sentence: 'This tablet cannot keep it. Leave this page open until it has arrived.',
      },
    ])
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
    expect(uploader.getSnapshot()).toMatchObject([
      { partId: line.partId, mediaId: line.mediaId, kept: true },
    ])
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

describe('what the server says', () => {
  const PIECE = 'piece'
  /** Everything has arrived before, so that only hanging it in can fail. */
  const arrived = (deliver: () => Promise<void>, onFailed?: (error: unknown) => void) => {
    Blob.prototype.arrayBuffer = () => Promise.resolve(new ArrayBuffer(1))
    const sentSha256 = '6e340b9cffb37a989ca544e6bb780a2c78901d3fb33738768511a30617afa01d'
    globalThis.fetch = () =>
      Promise.resolve({
        ok: true,
        headers: new Headers(),
        json: () =>
          Promise.resolve({
            mediaId: '018f0000-0000-7000-8000-000000000001',
            sentSha256,
            keptSha256: sentSha256,
            sizeBytes: 1,
          }),
      } as unknown as Response)
    return new Uploader(deliver, null, onFailed, alone)
  }
  const problem = (type: string, status: number) =>
    new ProblemError({ type: `/problems/${type}`, title: 'Our sentence.', status })
  const stateAfter = async (deliver: () => Promise<void>) => {
    const uploader = arrived(deliver)
    await uploader.add('wren', PIECE, file(1, 'bare.jpg'))
    for (
      let i = 0;
      i < 50 &&
      uploader.getSnapshot()[0]?.state !== 'stuck' &&
      uploader.getSnapshot()[0]?.state !== 'refused';
      i++
    )
      await new Promise((resolve) => setTimeout(resolve, 5))
    const [sending] = uploader.getSnapshot()
    uploader.clear()
    return sending && [sending.state, sending.sentence]
  }

  test.each([
    [
      'a piece thrown away meanwhile',
      problem('piece/not-found', 404),
      ['refused', 'Our sentence.'],
    ],
    [
      'a piece handed in on another tablet',
      problem('piece/not-open', 409),
      ['refused', 'Our sentence.'],
    ],
    [
      'a session that ended',
      problem('accounts/signed-out', 401),
      ['stuck', 'It waits here for your card.'],
    ],
    ['no room at school', problem('media/no-room', 507), ['stuck', 'Our sentence.']],
    [
      'a fault of the server',
      problem('service/unexpected', 500),
      ['stuck', 'It did not get through. It is safe here; try again.'],
    ],
    [
      'no network',
      new TypeError('no network'),
      ['stuck', 'It did not get through. It is safe here; try again.'],
    ],
  ])('%s', async (_, error, expected) => {
    expect(await stateAfter(() => Promise.reject(error))).toEqual(expected)
  })

  test('whoever asks hears why a file did not arrive, and nothing of one whose pupil has left', async () => {
    const heard: unknown[] = []
    const signedOut = problem('accounts/signed-out', 401)
    const uploader = arrived(
      () => Promise.reject(signedOut),
      (error) => heard.push(error),
    )
    await uploader.add('wren', PIECE, file(1, 'bare.jpg'))
    for (let i = 0; i < 50 && heard.length === 0; i++)
      await new Promise((resolve) => setTimeout(resolve, 5))
    expect(heard).toEqual([signedOut])
    uploader.clear()
    await uploader.add('wren', PIECE, file(1, 'bare.jpg'))
    uploader.clear()
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect(heard).toEqual([signedOut])
  })

  test('a pupil who leaves before their file is under way: nothing goes under the next one’s name', async () => {
    let hung = 0
    const uploader = arrived(() => Promise.resolve(void hung++))
    let answer = () => {}
    const asked = globalThis.fetch
    globalThis.fetch = (...words) =>
      new Promise<void>((resolve) => (answer = resolve)).then(() => asked(...words))
    await uploader.add('wren', PIECE, file(1, 'bare.jpg'))
    for (let i = 0; i < 50; i++) await new Promise((resolve) => setTimeout(resolve, 1))
    uploader.clear()
    answer()
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect([hung, uploader.getSnapshot()]).toEqual([0, []])
  })

  test('what failed for a while arrives by itself, later and later', async () => {
    let tries = 0
    const uploader = arrived(() =>
      ++tries < 3 ? Promise.reject(new TypeError('no network')) : Promise.resolve(),
    )
    const spread = jest.spyOn(Math, 'random').mockReturnValue(0)
    await uploader.add('wren', PIECE, file(1, 'bare.jpg'))
    for (let i = 0; i < 100 && uploader.getSnapshot().length > 0; i++)
      await new Promise((resolve) => setTimeout(resolve, 50))
    expect([tries, uploader.getSnapshot()]).toEqual([3, []])
    spread.mockRestore()
  })

  test('a tidied photo waits for the one it takes the place of', async () => {
    const hung: string[] = []
    let release = () => undefined as void
    const first = new Promise<void>((resolve) => (release = () => resolve()))
    const uploader = arrived(() => Promise.resolve())
    const waits = new Uploader(
      ({ name }) => (hung.push(name), name === 'a.jpg' ? first : Promise.resolve()),
      null,
      undefined,
      alone,
    )
    const partId = await waits.add('wren', PIECE, file(1, 'a.jpg'))
    const tidying = {
      corners: null,
      quarters: 1,
      degrees: 0,
      trim: { left: 0, top: 0, right: 1, bottom: 1 },
      brighten: null,
    } as const
    await waits.add('wren', PIECE, file(1, 'tidied.jpg'), { partId, tidying: { ...tidying } })
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect(hung).toEqual(['a.jpg'])
    release()
    for (let i = 0; i < 50 && waits.getSnapshot().length > 0; i++)
      await new Promise((resolve) => setTimeout(resolve, 10))
    expect(hung).toEqual(['a.jpg', 'tidied.jpg'])
    uploader.clear()
  })
})
