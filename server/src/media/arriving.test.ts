import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { connect } from 'node:net'
import { readFile } from 'node:fs/promises'
import { DomainError } from '@nibquill/core'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { AloneServer } from '../testing/alone.ts'
import { saidToBe } from '../testing/madeFiles.ts'
import { picture, SmallSchool, TestServer, until } from '../testing/testServer.ts'
import { addressOf, begin, send, TUS } from '../testing/uploadSteps.ts'
import { MOST_BEGUN } from './uploads.ts'

let test_: TestServer
let school: SmallSchool
beforeAll(async () => {
  test_ = await TestServer.start()
  school = await SmallSchool.open(test_)
})
afterAll(() => test_.stop())

const uploads = async () =>
  (await test_.manager.query<{ n: number }[]>('select count(*)::int as n from upload'))[0]!.n

/** Sends the last bytes of a photo while its taking in fails: the database refuses its row. */
async function sentInVain(): Promise<{ mediaId: string; address: string }> {
  const bytes = await picture(800, 600, '#345678')
  const mediaId = newId()
  const address = addressOf(await begin(school.wren, bytes.length, mediaId))
  await test_.manager.query('alter table media add constraint not_now check (false) not valid')
  const failed = await send(school.wren, address, 0, bytes)
  expect(failed.status).toBe(500)
  await test_.manager.query('alter table media drop constraint not_now')
  const head = await school.wren.fetch('HEAD', address, { headers: TUS })
  expect(head.headers.get('upload-offset')).toBe(String(bytes.length))
  return { mediaId, address }
}

test('a photo whose last byte came and whose row did not is taken in when its tablet asks', async () => {
  const { mediaId } = await sentInVain()
  expect(await uploads()).toBe(1)
  const other = await school.tomasz.ask('GET', `/media/${mediaId}`)
  expect(other.status).toBe(404)
  expect((await school.wren.ask('GET', `/media/${mediaId}`)).body).toMatchObject({ mediaId })
  expect(await uploads()).toBe(0)
})

test('and by the next process that starts, without anybody asking', async () => {
  const { mediaId } = await sentInVain()
  const next = await AloneServer.start(test_.config)
  expect(await test_.manager.query('select 1 from media where id = $1', [mediaId])).toHaveLength(1)
  expect(await uploads()).toBe(0)
  await next.end()
})

test('a process that is told to stop takes in what has come before it goes', async () => {
  const alone = await AloneServer.start(test_.config)
  const wren = school.wren.copiedInto(school.wren.browser, alone.at)
  const bytes = await sharp({
    create: {
      width: 2400,
      height: 1800,
      channels: 3,
      background: '#99aa55',
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
    },
  })
    .jpeg()
    .toBuffer()
  const mediaId = newId()
  const address = addressOf(await begin(wren, bytes.length, mediaId))
  const sent = send(wren, address, 0, bytes).catch(() => null)
  await until(
    async () =>
      (await wren.fetch('HEAD', address, { headers: TUS })).headers.get('upload-offset') !== '0',
  )
  await alone.end('SIGTERM')
  const answer = await sent
  expect(answer?.status).toBe(200)
  expect(await test_.manager.query('select 1 from media where id = $1', [mediaId])).toHaveLength(1)
})

test('of two different files under one id at once the second is told that the place is taken', async () => {
  const mediaId = newId()
  const [one, two] = [await picture(700, 500, '#ff0000'), await picture(700, 500, '#0000ff')]
  const answers = await Promise.all(
    [one, two].map((bytes) => school.wren.upload(bytes, { mediaId })),
  )
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
  const same = await Promise.all(
    [0, 1, 2, 3].map(() => school.wren.upload(one, { mediaId: `${mediaId.slice(0, -1)}0` })),
  )
  expect(same.map(({ status }) => status)).toEqual([200, 200, 200, 200])
})

test('nobody fills the school with beginnings: so many, so large, then a clear answer; those an hour old make room', async () => {
  const statuses = []
  for (let i = 0; i < MOST_BEGUN + 2; i++) statuses.push((await begin(school.tomasz, 1000)).status)
  expect(statuses).toEqual([...Array<number>(MOST_BEGUN).fill(201), 429, 429])
  const refused = await begin(school.tomasz, 1000)
  expect(JSON.parse(await refused.text())).toMatchObject({
    type: '/problems/media/too-many-uploads',
  })
  // Nobody else is kept out.
  expect((await begin(school.wren, 1000)).status).toBe(201)
  const large = []
  for (let i = 0; i < 8; i++) large.push((await begin(school.aoife, 60 * 1024 * 1024)).status)
  expect(large).toEqual([...Array<number>(6).fill(201), 429, 429])
  await test_.manager.query(
    "update upload set created_at = created_at - interval '2 hours' where owner_id = $1",
    [school.ids.tomasz],
  )
  expect((await begin(school.tomasz, 1000)).status).toBe(201)
  await test_.manager.query('delete from upload')
})

test('a HEIC photo is measured before it is decoded', async () => {
  const bytes = await readFile(new URL('../testing/fixtures/drawing.heic', import.meta.url))
  // Width and height stand in the `ispe` box. @see ISO/IEC 23008-12, 6.5.3
  const at = bytes.indexOf('ispe') + 8
  const giant = Buffer.from(bytes)
  giant.writeUInt32BE(60_000, at)
  giant.writeUInt32BE(60_000, at + 4)
  const began = Date.now()
  const { status, body } = await school.wren.upload(giant, { filename: 'giant.heic' })
  expect([status, (JSON.parse(body) as { type: string }).type]).toEqual([
    422,
    '/problems/media/too-many-pixels',
  ])
  expect(Date.now() - began).toBeLessThan(10_000)
  expect((await school.wren.upload(bytes, { filename: 'drawing.heic' })).status).toBe(200)
})

test('giants that are only decoded as a whole are refused with a sentence; those decoded line by line are taken', async () => {
  const flat = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#778899' } })
  const progressive = saidToBe(
    7000,
    6000,
    await flat(70, 60).jpeg({ progressive: true }).toBuffer(),
  )
  const interlaced = await flat(7000, 6000)
    .png({ progressive: true, compressionLevel: 1 })
    .toBuffer()
  for (const bytes of [progressive, interlaced]) {
    const { status, body } = await school.wren.upload(bytes)
    expect([status, (JSON.parse(body) as { title: string }).title]).toEqual([
      422,
      expect.stringMatching(/36 for one that is interlaced/),
    ])
  }
  expect((await school.wren.upload(await flat(7000, 6000).jpeg().toBuffer())).status).toBe(200)
})

test('the largest pictures that are taken keep the server under 500 MB, two at once', async () => {
  const own = await TestServer.start()
  const people = await SmallSchool.open(own)
  await own.server.platform.queue.stop()
  const alone = await AloneServer.start(own.config)
  const wren = people.wren.copiedInto(people.wren.browser, alone.at)
  // How much memory decoding takes does not hang on what is to be seen.
  const giant = (shade: string) =>
    sharp({ create: { width: 6900, height: 5200, channels: 3, background: shade } })
      .jpeg({ progressive: true, chromaSubsampling: '4:4:4' })
      .toBuffer()
  const answers = await Promise.all([
    wren.upload(await giant('#335577')),
    wren.upload(await giant('#775533')),
  ])
  expect(answers.map(({ status }) => status)).toEqual([200, 200])
  await until(
    async () =>
      (await own.manager.query<unknown[]>("select 1 from media where state = 'ready'")).length ===
      2,
    60_000,
  )
  expect(alone.peakMemoryMb).toBeLessThan(500)
  await alone.end()
  await own.stop()
})

test('whoever cuts a connection in the middle leaves nothing half', async () => {
  const bytes = await picture(900, 700, '#123123')
  const mediaId = newId()
  const address = (await begin(school.wren, bytes.length, mediaId)).headers.get('location')!
  const socket = connect(Number(new URL(school.wren.at).port), '127.0.0.1')
  await once(socket, 'connect')
  socket.write(
    `PATCH ${address} HTTP/1.1\r\nHost: x\r\nOrigin: ${school.wren.at}\r\nCookie: ${school.wren.cookie}\r\nUser-Agent: ${school.wren.browser}\r\nTus-Resumable: 1.0.0\r\nUpload-Offset: 0\r\nContent-Type: application/offset+octet-stream\r\nContent-Length: ${bytes.length}\r\n\r\n`,
  )
  socket.write(bytes.subarray(0, 500))
  await new Promise((resolve) => setTimeout(resolve, 100))
  socket.destroy()
  expect((await school.wren.ask('GET', `/media/${mediaId}`)).status).toBe(404)
  const head = await until(async () => {
    const answer = await school.wren.fetch('HEAD', address.replace('/api', ''), { headers: TUS })
    return answer.status === 200 && answer
  })
  const offset = Number(head.headers.get('upload-offset'))
  expect(
    (await send(school.wren, address.replace('/api', ''), offset, bytes.subarray(offset))).status,
  ).toBe(200)
})

test('what is refused for good leaves no upload behind', async () => {
  const refusal = new DomainError('media/not-opened')
  const { status, body } = await school.wren.upload(Buffer.from('not a picture at all'))
  expect([status, (JSON.parse(body) as { title: string }).title]).toEqual([415, refusal.message])
  expect(await uploads()).toBe(0)
})

test('a photo that is here, as its tablet never heard, need not come again; another file under its id is not taken for it', async () => {
  const bytes = await picture(400, 300, '#a0b0c0')
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  const { mediaId, status } = await school.wren.upload(bytes, { sha256 })
  expect(status).toBe(200)
  const again = await begin(school.wren, bytes.length, mediaId, sha256)
  expect(again.status).toBe(409)
  expect(JSON.parse(await again.text())).toMatchObject({ type: '/problems/media/arrived-already' })
  expect((await begin(school.wren, bytes.length, mediaId, '0'.repeat(64))).status).toBe(201)
  // Somebody else learns nothing of it.
  expect((await begin(school.tomasz, bytes.length, mediaId, sha256)).status).toBe(201)
})
