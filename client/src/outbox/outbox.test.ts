import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { openDB } from 'idb'
import { deserialize, serialize } from 'node:v8'
import { NotKept, Outbox, type OutboxLine } from './outbox'

// Every real browser has it; the test's does not.
globalThis.structuredClone ??= <T>(value: T): T => deserialize(serialize(value)) as T

let outbox: Outbox
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory()
  outbox = new Outbox()
})
afterEach(() => outbox.close())

const line = (partId: string, ownerId = 'wren', keptAt = 1): OutboxLine => ({
  partId,
  mediaId: `media-${partId}`,
  pieceId: 'piece',
  taskId: null,
  ownerId,
  kind: 'photo',
  name: `${partId}.jpg`,
  instead: null,
  keptAt,
})
/** The page's own File has no arrayBuffer in this test browser. */
const file = (text: string, name = 'a.jpg'): File =>
  Object.assign(new File([text], name, { type: 'image/jpeg', lastModified: 5 }), {
    arrayBuffer: () =>
      Promise.resolve(Uint8Array.from(text, (letter) => letter.charCodeAt(0)).buffer),
  })

test('what was put is there after the page is gone, byte for byte, in the order it was made', async () => {
  await outbox.put(line('b', 'wren', 2), file('second'))
  await outbox.put(line('a', 'wren', 1), file('first'))
  await outbox.close()
  const after = new Outbox()
  const lines = await after.list('wren')
  expect(lines.map(({ partId }) => partId)).toEqual(['a', 'b'])
  const taken = await after.take(lines[0]!)
  expect([taken!.name, taken!.type, taken!.lastModified, taken!.size]).toEqual([
    'a.jpg',
    'image/jpeg',
    5,
    5,
  ])
  await after.close()
})

test('each pupil’s work is apart', async () => {
  await outbox.put(line('a', 'wren'), file('x'))
  await outbox.put(line('b', 'tomasz'), file('y'))
  expect((await outbox.list('tomasz')).map(({ partId }) => partId)).toEqual(['b'])
  expect(await outbox.list('aoife')).toEqual([])
})

test('what has arrived is dropped with its bytes; dropping twice is dropping once', async () => {
  await outbox.put(line('a'), file('x'))
  await outbox.drop('a')
  await outbox.drop('a')
  expect(await outbox.list('wren')).toEqual([])
  expect(await outbox.take(line('a'))).toBeNull()
})

test('the same part again replaces itself', async () => {
  await outbox.put(line('a'), file('x'))
  await outbox.put(line('a'), file('longer'))
  expect(await outbox.list('wren')).toHaveLength(1)
  expect((await outbox.take(line('a')))!.size).toBe(6)
})

test('a browser that keeps nothing, and a full tablet, say so before anything is called kept', async () => {
  globalThis.indexedDB = {
    open: () => {
      throw new DOMException('no', 'InvalidStateError')
    },
  } as unknown as IDBFactory
  const none = new Outbox()
  await expect(none.put(line('a'), file('x'))).rejects.toMatchObject({ full: false })
  await expect(none.list('wren')).rejects.toThrow()
  const full = Object.assign(file('x'), {
    arrayBuffer: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
  })
  await expect(outbox.put(line('a'), full)).rejects.toEqual(new NotKept(true))
})

test('words wait apart for each pupil, one line a piece, and are dropped when they have arrived', async () => {
  const words = { title: 'Crab', reflection: '', step: 'plan' as const, folderId: null }
  const draft = {
    pieceId: 'piece',
    ownerId: 'wren',
    taskId: null,
    words,
    base: { ...words, title: '' },
    handIn: true,
    keptAt: 1,
  }
  await outbox.putDraft(draft)
  await outbox.putDraft({ ...draft, keptAt: 2 })
  expect(await outbox.listDrafts('wren')).toEqual([{ ...draft, keptAt: 2 }])
  expect(await outbox.listDrafts('tomasz')).toEqual([])
  await outbox.dropDraft('piece')
  expect(await outbox.listDrafts('wren')).toEqual([])
  expect(await outbox.works()).toBe(true)
})

test('work an older Nibquill left is there after the change of shape, byte for byte', async () => {
  // As version 1 wrote it: no kinds, nothing tidied, no words.
  const old = await openDB('nibquill.outbox', 1, {
    upgrade: (db) => {
      db.createObjectStore('lines', { keyPath: 'partId' }).createIndex('owner', 'ownerId')
      db.createObjectStore('bytes', { keyPath: 'partId' })
    },
  })
  const { kind: _k, instead: _i, ...former } = line('a')
  await old.put('lines', former)
  await old.put('bytes', {
    partId: 'a',
    type: 'image/jpeg',
    lastModified: 5,
    data: Uint8Array.from([1, 2, 3]).buffer,
  })
  old.close()
  const [found] = await outbox.list('wren')
  expect(found).toEqual(line('a'))
  expect((await outbox.take(found!))!.size).toBe(3)
  await outbox.putDraft({
    pieceId: 'p',
    ownerId: 'wren',
    taskId: null,
    words: { title: '', reflection: '', step: 'plan', folderId: null },
    base: { title: '', reflection: '', step: 'plan', folderId: null },
    handIn: false,
    keptAt: 1,
  })
  expect(await outbox.listDrafts('wren')).toHaveLength(1)
})
