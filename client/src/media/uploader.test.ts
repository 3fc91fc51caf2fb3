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
  uploader.add('wren', 'piece', file(61 * 1024 * 1024))
  uploader.add('wren', 'piece', file(0, 'b.jpg'))
  expect(uploader.getSnapshot().map(({ state, sentence }) => [state, sentence])).toEqual([
    ['refused', 'This file is too big. The most is 60 MB.'],
    ['refused', 'This file is empty, so there is nothing to keep.'],
  ])
})

test('a file half-way before a reload keeps its ids when it is picked again, for its own pupil and piece only', () => {
  const before = offline()
  before.add('wren', 'piece', file(100))
  const after = offline()
  expect(after.listHalfWay('wren', 'piece')).toEqual(['a.jpg'])
  expect(after.listHalfWay('tomasz', 'piece')).toEqual([])
  after.add('wren', 'piece', file(100))
  expect(after.getSnapshot()[0]!.mediaId).toBe(before.getSnapshot()[0]!.mediaId)
  expect(after.listHalfWay('wren', 'piece')).toEqual([])
  const other = offline()
  other.add('tomasz', 'piece', file(100))
  expect(other.getSnapshot()[0]!.mediaId).not.toBe(before.getSnapshot()[0]!.mediaId)
})

test('picked twice, a file goes once; two go at a time; signing out forgets what is shown', () => {
  const uploader = offline()
  for (const name of ['a.jpg', 'a.jpg', 'b.jpg', 'c.jpg']) uploader.add('wren', 'piece', file(100, name))
  expect(uploader.getSnapshot().map(({ name, state }) => [name, state])).toEqual([
    ['a.jpg', 'sending'],
    ['b.jpg', 'sending'],
    ['c.jpg', 'waiting'],
  ])
  uploader.clear()
  expect(uploader.getSnapshot()).toEqual([])
  expect(uploader.listHalfWay('wren', 'piece')).toHaveLength(3)
})
