/// <reference types="node" />
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { openDB } from 'idb'
import { deserialize, serialize } from 'node:v8'
import type { Intent } from '@nibquill/core'
import { NotKept, OutboxStore, type Kept } from './store'

// Every real browser has it; the test's does not.
globalThis.structuredClone ??= <T>(value: T): T => deserialize(serialize(value)) as T

let store: OutboxStore
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
  store = new OutboxStore()
})
afterEach(() => store.close())

const intent = (id: string): Intent => ({ id, pieceId: 'piece', at: 1, kind: 'hand-in' })
const kept = (id: string, ownerId = 'wren', order = 1): Kept => ({
  ...{ id, ownerId, order, tried: false, intent: intent(id) },
})
const bytesOf = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0)).buffer
/** The page's own File has no arrayBuffer in this test browser. */
const file = (text: string, name = 'a.jpg'): File => {
  const bytes = Uint8Array.from(text, (letter) => letter.charCodeAt(0))
  return Object.assign(new File([text], name, { type: 'image/jpeg', lastModified: 5 }), {
    slice: (from: number, to: number) => ({
      arrayBuffer: () => Promise.resolve(bytes.slice(from, to).buffer),
    }),
  }) as File
}

test('a recording that ran when the page ended is found again, slice by slice; ended, nothing is left', async () => {
  const running = { recordingId: 'r', ownerId: 'wren', pieceId: 'piece', bodies: [], mediaId: 'm' }
  const slice = (text: string) => ({ arrayBuffer: () => Promise.resolve(bytesOf(text)) }) as Blob
  await store.beginRecording(running, 'voice.webm', 'audio/webm')
  await store.addSlice('r', 0, slice('she '))
  await store.addSlice('r', 1, slice('said'))
  await store.close()
  const after = new OutboxStore()
  expect(await after.leftRecordings('tomasz')).toEqual([])
  expect(await after.leftRecordings('wren')).toEqual([running])
  expect(await after.takeFile('r')).toMatchObject({ name: 'voice.webm', size: 8 })
  await after.endRecording('r')
  expect([await after.leftRecordings('wren'), await after.takeFile('r')]).toEqual([[], null])
  await after.close()
})

test('what was wanted is there after the page is gone, in the order it was wanted', async () => {
  await store.write([kept('b', 'wren', 2), kept('a', 'wren', 1)], [])
  await store.close()
  const after = new OutboxStore()
  expect((await after.list('wren')).map(({ id }) => id)).toEqual(['a', 'b'])
  await after.write([], ['a'])
  expect((await after.list('wren')).map(({ id }) => id)).toEqual(['b'])
  await after.close()
})

test('each pupil’s work is apart', async () => {
  await store.write([kept('a'), kept('b', 'tomasz')], [])
  expect((await store.list('tomasz')).map(({ id }) => id)).toEqual(['b'])
  expect(await store.list('aoife')).toEqual([])
})

test('a file longer than a slice comes back whole, and goes with all its slices', async () => {
  const long = 'abcdefgh'.repeat(1024 * 1024)
  await store.putFile('m', 'wren', file(long))
  const taken = await store.takeFile('m')
  expect([taken!.name, taken!.type, taken!.lastModified, taken!.size]).toEqual([
    ...['a.jpg', 'image/jpeg', 5],
    long.length,
  ])
  await store.dropFile('m')
  expect(await store.takeFile('m')).toBeNull()
  // Dropping twice is dropping once.
  await store.dropFile('m')
})

test('a tablet that is full says so, and nothing of the file is left', async () => {
  const full = Object.assign(file('x'), {
    slice: () => ({
      arrayBuffer: () => Promise.reject(new DOMException('', 'QuotaExceededError')),
    }),
  })
  await expect(store.putFile('m', 'wren', full)).rejects.toMatchObject({ full: true })
  await expect(store.putFile('m', 'wren', full)).rejects.toBeInstanceOf(NotKept)
  expect(await store.takeFile('m')).toBeNull()
})

test('a browser that keeps nothing is known by it', async () => {
  globalThis.indexedDB = {
    open: () => {
      throw new DOMException('no', 'SecurityError')
    },
  } as unknown as IDBFactory
  expect(await store.works()).toBe(false)
  await expect(store.write([kept('a')], [])).rejects.toBeInstanceOf(NotKept)
})

describe('what an older Nibquill wrote', () => {
  const line = (partId: string, more: object = {}) => ({
    ...{ partId, mediaId: `media-${partId}`, pieceId: 'piece', taskId: 'task', ownerId: 'wren' },
    ...{ name: `${partId}.jpg`, keptAt: 1 },
    ...more,
  })
  const bytes = (partId: string) => ({
    ...{ partId, type: 'image/jpeg', lastModified: 5 },
    data: new Uint8Array([1, 2, 3]).buffer,
  })

  test('version 1, photos alone, is brought along as a piece, its files and its parts', async () => {
    const old = await openDB('nibquill.outbox', 1, {
      upgrade: (db) => {
        db.createObjectStore('lines', { keyPath: 'partId' }).createIndex('owner', 'ownerId')
        db.createObjectStore('bytes', { keyPath: 'partId' })
      },
    })
    await old.put('lines', line('b', { keptAt: 2 }))
    await old.put('lines', line('a'))
    // Its bytes are gone: there is nothing to bring.
    await old.put('lines', line('lost'))
    for (const id of ['a', 'b']) await old.put('bytes', bytes(id))
    old.close()
    const intents = (await store.list('wren')).map(({ intent }) => intent)
    expect(intents).toMatchObject([
      { kind: 'start', taskId: 'task' },
      { kind: 'file', mediaId: 'media-a', sizeBytes: 3 },
      { kind: 'add-part', partId: 'a', part: { mediaId: 'media-a', instead: null } },
      { kind: 'file', mediaId: 'media-b' },
      { kind: 'add-part', partId: 'b' },
    ])
    expect((await store.takeFile('media-a'))!.size).toBe(3)
  })

  test('what cannot be brought along whole stays as it was, for a Nibquill that can', async () => {
    const old = await openDB('nibquill.outbox', 1, {
      upgrade: (db) => {
        db.createObjectStore('lines', { keyPath: 'partId' }).createIndex('owner', 'ownerId')
        db.createObjectStore('bytes', { keyPath: 'partId' })
      },
    })
    for (const id of ['a', 'b']) await old.put('lines', line(id))
    await old.put('bytes', bytes('a'))
    await old.put('bytes', { partId: 'b' })
    old.close()
    await expect(store.list('wren')).rejects.toThrow()
    const after = await openDB('nibquill.outbox', 1)
    expect([after.version, await after.count('lines'), await after.count('bytes')]).toEqual([
      1, 2, 2,
    ])
    after.close()
  })

  test('version 2, words and handing in as well, is brought along after the photos', async () => {
    const old = await openDB('nibquill.outbox', 2, {
      upgrade: (db) => {
        db.createObjectStore('lines', { keyPath: 'partId' }).createIndex('owner', 'ownerId')
        db.createObjectStore('bytes', { keyPath: 'partId' })
        db.createObjectStore('drafts', { keyPath: 'pieceId' }).createIndex('owner', 'ownerId')
      },
    })
    const instead = { partId: 'before', tidying: { quarters: 1 } }
    await old.put('lines', line('a', { kind: 'photo', instead }))
    await old.put('bytes', bytes('a'))
    const words = { title: 'Crab', reflection: '', step: 'finished', folderId: null }
    await old.put('drafts', {
      ...{ pieceId: 'piece', ownerId: 'wren', taskId: null, keptAt: 3, handIn: true },
      ...{ words, base: { ...words, title: '' } },
    })
    old.close()
    const intents = (await store.list('wren')).map(({ intent }) => intent)
    expect(intents).toMatchObject([
      { kind: 'start' },
      { kind: 'file' },
      { kind: 'add-part', part: { name: '', instead } },
      { kind: 'words', words: { title: 'Crab' }, base: { title: '' } },
      { kind: 'hand-in' },
    ])
  })
})
