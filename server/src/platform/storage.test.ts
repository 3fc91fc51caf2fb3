import { randomBytes } from 'node:crypto'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { buffer } from 'node:stream/consumers'
import { ObjectStore } from '../testing/objectStore.ts'
import { openStorage } from './openStorage.ts'
import type { S3Config } from './config.ts'
import type { Storage } from './storage.ts'

let objects: ObjectStore
let folder: string
beforeAll(async () => {
  objects = await ObjectStore.start()
  folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-storage-'))
})
afterAll(async () => {
  await objects.stop()
  await rm(folder, { recursive: true, force: true })
})

const listed = async (storage: Storage) => {
  const keys: string[] = []
  for await (const { key } of storage.list()) keys.push(key)
  return keys.sort()
}

// One suite for both: what stores files passes all of it. The object store is OpenStack Swift, an
// independent implementation (Debian's python3-swift).
describe.each([
  ['files on disk', async (): Promise<S3Config | null> => null],
  ['an S3-compatible store', () => objects.bucket()],
] as const)('%s', (_name, s3) => {
  let storage: Storage
  beforeEach(async () => {
    storage = await openStorage({
      s3: await s3(),
      dataFolder: await mkdtemp(path.join(folder, 'data-')),
    })
  })

  test('holds what was put, byte for byte, whole or in ranges', async () => {
    const bytes = randomBytes(300_000)
    await storage.put('ab12.jpg', bytes)
    expect((await storage.read('ab12.jpg')).equals(bytes)).toBe(true)
    expect((await buffer(await storage.stream('ab12.jpg'))).equals(bytes)).toBe(true)
    for (const [start, end] of [
      [0, 0],
      [100, 99_999],
      [299_999, 299_999],
    ] as const) {
      const part = await buffer(await storage.stream('ab12.jpg', { start, end }))
      expect(part.equals(bytes.subarray(start, end + 1))).toBe(true)
    }
  })

  test('takes a file, and lends one', async () => {
    const file = path.join(folder, 'sent')
    const bytes = randomBytes(6_000_000)
    await writeFile(file, bytes)
    await storage.put('cd34-2048.jpg', { file })
    // What happens to the sent one is nothing to the kept one.
    await writeFile(file, 'other')
    await rm(file)
    let lent = ''
    const read = await storage.withFile('cd34-2048.jpg', (place) => {
      lent = place
      return readFile(place)
    })
    expect(read.equals(bytes)).toBe(true)
    expect(path.basename(lent)).toBe('cd34-2048.jpg')
    await expect(
      storage.withFile('cd34-2048.jpg', () => Promise.reject(new Error('no good'))),
    ).rejects.toThrow('no good')
  })

  test('takes a file that is given away', async () => {
    const file = path.join(folder, 'given')
    await writeFile(file, 'a cleaned picture')
    await storage.put('gh78.jpg', { file, given: true })
    await rm(file, { force: true })
    expect((await storage.read('gh78.jpg')).toString()).toBe('a cleaned picture')
  })

  test('says what lies there, since when, and what does not', async () => {
    const before = Date.now()
    await storage.put('ef56.pdf', Buffer.from('a paper'))
    const about = await storage.about('ef56.pdf')
    expect(about!.sizeBytes).toBe(7)
    expect(Math.abs(about!.storedAt.getTime() - before)).toBeLessThan(10_000)
    expect(await storage.about('ef57.pdf')).toBeNull()
    await expect(storage.read('ef57.pdf')).rejects.toThrow()
    await expect(storage.stream('ef57.pdf').then(buffer)).rejects.toThrow()
    await expect(storage.withFile('ef57.pdf', (place) => readFile(place))).rejects.toThrow()
  })

  test('what is put again under its key is the new one; an empty file is a file', async () => {
    await storage.put('book-1.pdf', Buffer.from('first'))
    await storage.put('book-1.pdf', Buffer.from('second'))
    expect((await storage.read('book-1.pdf')).toString()).toBe('second')
    await storage.put('empty.txt', Buffer.alloc(0))
    expect((await storage.about('empty.txt'))!.sizeBytes).toBe(0)
  })

  test('takes away, and what is not there is gone already', async () => {
    await storage.put('aa11.jpg', Buffer.from('x'))
    await storage.remove('aa11.jpg')
    await storage.remove('aa11.jpg')
    expect(await storage.about('aa11.jpg')).toBeNull()
  })

  test('lists everything', async () => {
    expect(await listed(storage)).toEqual([])
    const keys = Array.from({ length: 40 }, (_, i) => `${String(i).padStart(2, '0')}-960.jpg`)
    await Promise.all(keys.map((key) => storage.put(key, Buffer.from(key))))
    expect(await listed(storage)).toEqual(keys)
  })

  test('eight writers of one key at once leave one whole file', async () => {
    const files = Array.from({ length: 8 }, () => randomBytes(100_000))
    await Promise.all(files.map((bytes) => storage.put('same.jpg', bytes)))
    const kept = await storage.read('same.jpg')
    expect(files.some((bytes) => bytes.equals(kept))).toBe(true)
    expect(await listed(storage)).toEqual(['same.jpg'])
  })

  test('takes no key that leads elsewhere', async () => {
    for (const key of ['../secret.key', 'a/b.jpg', '', 'noending', '.hidden'])
      await expect(storage.put(key, Buffer.from('x'))).rejects.toThrow('not a storage key')
  })

  test('says that it can be written to', async () => {
    await expect(storage.check()).resolves.toBeUndefined()
  })
})

test('a bucket that is not there, and a store that is away, are said', async () => {
  const config = await objects.bucket()
  const nowhere = await openStorage({
    s3: { ...config, bucket: 'no-such-bucket' },
    dataFolder: folder,
  })
  await expect(nowhere.check()).rejects.toThrow()
  const away = await openStorage({
    s3: { ...config, endpoint: 'http://127.0.0.1:9' },
    dataFolder: folder,
  })
  await expect(away.check()).rejects.toThrow()
})
