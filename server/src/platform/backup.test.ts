import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { randomUUID } from 'node:crypto'
import { appendFile, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import pg from 'pg'
import type { Book, ChildWork } from '@nibquill/contract'
import { AloneServer, plainScript } from '../testing/alone.ts'
import type { S3Config } from './config.ts'
import { openStorage } from './openStorage.ts'
import { ObjectStore } from '../testing/objectStore.ts'
import { SmallSchool, testConfig, TestServer, until, pictureOf } from '../testing/testServer.ts'

type Where = { dataFolder: string; databaseUrl: string; s3: S3Config | null }
/** In a process of its own, while this one goes on. */
async function run(
  name: 'backup' | 'restore',
  { dataFolder, databaseUrl, s3 }: Where,
  ...words: string[]
): Promise<{ status: number; said: string }> {
  const child = spawn(process.execPath, [await plainScript(`scripts/${name}.ts`), ...words], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      DATABASE_URL: databaseUrl,
      NIBQUILL_DATA: dataFolder,
      ...(s3 && {
        NIBQUILL_S3_ENDPOINT: s3.endpoint,
        NIBQUILL_S3_BUCKET: s3.bucket,
        NIBQUILL_S3_KEY_ID: s3.keyId,
        NIBQUILL_S3_SECRET: s3.secret,
      }),
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  const said: Buffer[] = []
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk: Buffer) => said.push(chunk))
  const [status] = (await once(child, 'close')) as [number]
  return { status, said: Buffer.concat(said).toString() }
}
async function emptyPlace(): Promise<Where> {
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
  await main.connect()
  await main.query(`create database ${name}`)
  await main.end()
  return testConfig(name, await mkdtemp(path.join(os.tmpdir(), 'nibquill-data-')))
}

let test_: TestServer
let school: SmallSchool
let copy: string
beforeAll(async () => {
  test_ = await TestServer.start()
  school = await SmallSchool.open(test_)
  copy = path.join(await mkdtemp(path.join(os.tmpdir(), 'nibquill-copy-')), 'monday')
})
afterAll(async () => {
  await test_.stop()
  await rm(path.dirname(copy), { recursive: true, force: true })
})

test('a school copied while people work comes back whole elsewhere: rows, files, ways in', async () => {
  const approved = await school.approved()
  const order = { pupilId: school.ids.wren, termId: school.ids.term, madeFor: 'home' }
  const { body: book } = await school.teacher.ask<Book>('POST', '/book', order)
  await until(
    async () => (await school.teacher.ask<Book>('GET', `/book/${book.id}`)).body.state === 'ready',
  )
  const working = { on: true, made: 0 }
  const work = (async () => {
    for (; working.on; working.made++) await school.draft()
  })()
  const made = await run('backup', test_.config, copy)
  working.on = false
  await work
  expect(working.made).toBeGreaterThan(2)
  expect(made).toMatchObject({ status: 0 })
  expect(
    spawnSync('sha256sum', ['-c', '--quiet', 'manifest-sha256.txt'], { cwd: copy }).status,
  ).toBe(0)

  const place = await emptyPlace()
  expect(await run('restore', place, copy)).toMatchObject({ status: 0 })
  const back = await AloneServer.start({ ...test_.config, ...place })
  const parent = school.parent.copiedInto(school.parent.browser, back.at)
  const { body } = await parent.ask<ChildWork>('GET', `/sharing/children/${school.ids.wren}`)
  expect(body.newest).toMatchObject({ id: approved.id, title: approved.title })
  const photo = (size: string) =>
    parent.fetch('GET', `/media/${pictureOf(approved.parts[0])}/${size}`)
  const before = Buffer.from(
    await (
      await school.parent.fetch('GET', `/media/${pictureOf(approved.parts[0])}/full`)
    ).arrayBuffer(),
  )
  expect(Buffer.from(await (await photo('full')).arrayBuffer()).equals(before)).toBe(true)
  expect((await photo('320')).status).toBe(200)
  const teacher = school.teacher.copiedInto(school.teacher.browser, back.at)
  expect((await teacher.fetch('GET', `/book/${book.id}/file`)).status).toBe(200)
  // It works on: another piece is made, and its sizes as well.
  const wren = school.wren.copiedInto(school.wren.browser, back.at)
  expect((await wren.ask('GET', '/pieces')).status).toBe(200)
  await back.end()

  // A school with work in it is not overwritten unless somebody says so.
  const again = await run('restore', place, copy)
  expect([again.status, again.said]).toEqual([
    1,
    expect.stringMatching(/holds Saltmarsh Primary School with its work.*--overwrite/s),
  ])
  expect(await run('restore', place, copy, '--overwrite')).toMatchObject({ status: 0 })
  await rm(place.dataFolder, { recursive: true, force: true })
})

test('a school on disk moves into an object store by its copy, and from there out again', async () => {
  const objects = await ObjectStore.start()
  const [inBucket, onDisk] = [
    { ...(await emptyPlace()), s3: await objects.bucket() },
    await emptyPlace(),
  ]
  expect(await run('restore', inBucket, copy)).toMatchObject({ status: 0 })
  const out = await mkdtemp(path.join(os.tmpdir(), 'nibquill-out-'))
  expect(await run('backup', inBucket, out)).toMatchObject({ status: 0 })
  expect(await run('restore', onDisk, out)).toMatchObject({ status: 0 })
  const kept = async (where: Where) => {
    const keys: string[] = []
    for await (const { key } of (await openStorage(where)).list()) keys.push(key)
    return keys.sort()
  }
  expect((await kept(onDisk)).length).toBeGreaterThan(3)
  expect(await kept(onDisk)).toEqual(await kept(inBucket))
  expect(await readdir(inBucket.dataFolder)).not.toContain('files')
  await objects.stop()
  for (const folder of [inBucket.dataFolder, onDisk.dataFolder, out])
    await rm(folder, { recursive: true, force: true })
})

test('nothing is brought back over a running Nibquill, or from a copy that is damaged or not whole', async () => {
  expect(await run('restore', test_.config, copy)).toMatchObject({
    status: 1,
    said: expect.stringMatching(/running. Stop it first/),
  })
  const place = await emptyPlace()
  const files = path.join(copy, 'files')
  const shelf = (await readdir(files))[0]!
  const [name] = await readdir(path.join(files, shelf))
  await appendFile(path.join(files, shelf, name!), 'x')
  expect(await run('restore', place, copy)).toMatchObject({
    status: 1,
    said: expect.stringContaining(name!),
  })
  await rm(path.join(copy, 'manifest-sha256.txt'))
  expect(await run('restore', place, copy)).toMatchObject({
    status: 1,
    said: expect.stringMatching(/no whole copy/),
  })
  await rm(place.dataFolder, { recursive: true, force: true })
})

test('a copy goes into a folder of its own, and says when the school itself is damaged', async () => {
  const full = await mkdtemp(path.join(os.tmpdir(), 'nibquill-copy-'))
  await writeFile(path.join(full, 'holiday.jpg'), 'x')
  expect(await run('backup', test_.config, full)).toMatchObject({
    status: 1,
    said: expect.stringMatching(/not empty/),
  })
  const [row] = await test_.manager.query<{ hash: string }[]>(
    'select kept_sha256 as hash from media limit 1',
  )
  const file = path.join(
    test_.config.dataFolder,
    'files',
    row!.hash.slice(0, 2),
    `${row!.hash}.jpg`,
  )
  await appendFile(file, 'x')
  const other = path.join(full, 'other')
  expect(await run('backup', test_.config, other)).toMatchObject({
    status: 1,
    said: expect.stringMatching(new RegExp(`damaged: ${row!.hash}`)),
  })
  await rm(full, { recursive: true, force: true })
})
