import { createHash, randomUUID } from 'node:crypto'
import { cp, mkdtemp, readdir, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import type { Arrived } from '@nibquill/contract'
import { AloneServer } from '../testing/alone.ts'
import { ObjectStore } from '../testing/objectStore.ts'
import { type Person, picture, SmallSchool, TestServer, until } from '../testing/testServer.ts'
import { addressOf, begin, send, TUS } from '../testing/uploadSteps.ts'
import type { S3Config } from './config.ts'
import { openStorage } from './openStorage.ts'

// Two servers, each with a data folder of its own: what they share is the database and a bucket of
// OpenStack Swift.
let objects: ObjectStore
let bucket: S3Config
let test_: TestServer
let school: SmallSchool
let other: AloneServer
let otherFolder: string
beforeAll(async () => {
  objects = await ObjectStore.start()
  bucket = await objects.bucket()
  test_ = await TestServer.start({ s3: bucket })
  school = await SmallSchool.open(test_)
  otherFolder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-other-'))
  // As docs/running-it.md says.
  await cp(path.join(test_.config.dataFolder, 'secret.key'), path.join(otherFolder, 'secret.key'))
  other = await AloneServer.start(test_.config, { dataFolder: otherFolder })
})
afterAll(async () => {
  await other.end()
  await test_.stop()
  await objects.stop()
  await rm(otherFolder, { recursive: true, force: true })
})

const there = (person: Person) => person.copiedInto(person.browser, other.at)
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const waiting = async () => {
  const storage = await openStorage({ s3: bucket, dataFolder: otherFolder })
  const keys: string[] = []
  for await (const { key } of storage.list()) keys.push(key)
  return keys
}

test('a photo of many parts, begun at one server and cut, ends at the other and is seen at both', async () => {
  const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const
  const photo = await sharp({
    create: { width: 3800, height: 2800, channels: 3, background: '#888', noise },
  })
    .jpeg({ quality: 97 })
    .toBuffer()
  // More than two of the parts an object store takes, and not a whole number of them.
  expect(photo.length).toBeGreaterThan(10 * 1024 * 1024)
  const mediaId = newId()
  const address = addressOf(await begin(school.wren, photo.length, mediaId, sha256(photo)))
  const cut = 7_000_001
  expect((await send(school.wren, address, 0, photo.subarray(0, cut))).status).toBe(204)
  const asked = await there(school.wren).fetch('HEAD', address, { headers: TUS })
  expect(asked.headers.get('upload-offset')).toBe(String(cut))
  const done = await send(there(school.wren), address, cut, photo.subarray(cut))
  const arrived = (await done.json()) as Arrived
  expect([done.status, arrived.sentSha256]).toEqual([200, sha256(photo)])
  await until(
    async () =>
      (
        await test_.manager.query<unknown[]>(
          `select 1 from media where id = $1 and state = 'ready'`,
          [mediaId],
        )
      ).length === 1,
    30_000,
  )
  for (const person of [school.wren, there(school.wren)]) {
    const full = await person.fetch('GET', `/media/${mediaId}/full`)
    expect(sha256(new Uint8Array(await full.arrayBuffer()))).toBe(arrived.keptSha256)
    const part = await person.fetch('GET', `/media/${mediaId}/full`, {
      headers: { Range: 'bytes=1000-1999' },
    })
    expect([part.status, (await part.arrayBuffer()).byteLength]).toEqual([206, 1000])
    const small = await person.fetch('GET', `/media/${mediaId}/320`)
    const { width } = await sharp(await small.arrayBuffer()).metadata()
    expect(width).toBe(320)
  }
  // Neither data folder has any of it, and the bucket nothing half-arrived.
  for (const folder of [test_.config.dataFolder, otherFolder])
    expect(await readdir(folder)).toEqual(['secret.key'])
  const again = await there(school.wren).fetch('HEAD', address, { headers: TUS })
  expect(again.status).toBe(404)
})

test('whoever comes to a half-arrived file of somebody else finds nothing', async () => {
  const address = addressOf(await begin(school.wren, 100))
  const stranger = await there(school.tomasz).fetch('HEAD', address, { headers: TUS })
  expect(stranger.status).toBe(404)
})

test('half-arrived files nobody comes back for go from the bucket too', async () => {
  const bytes = await picture(900, 700)
  const address = addressOf(await begin(school.wren, bytes.length))
  await send(school.wren, address, 0, bytes.subarray(0, 500))
  await test_.server.uploads.cleanUp(new Date(test_.clock.now().getTime() + 1000))
  const asked = await school.wren.fetch('HEAD', address, { headers: TUS })
  expect(asked.status).toBe(404)
  expect(await test_.manager.query('select 1 from upload')).toEqual([])
})

test('a file nobody refers to any more is taken out of the bucket', async () => {
  const storage = await openStorage({ s3: bucket, dataFolder: otherFolder })
  const stray = `${randomUUID()}.jpg`
  await storage.put(stray, Buffer.from('x'))
  expect(await waiting()).toContain(stray)
  test_.clock.set(new Date(Date.now() + 100 * 24 * 3600 * 1000))
  await test_.server.retention.run()
  expect(await waiting()).not.toContain(stray)
})
