import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { promisify } from 'node:util'
import type { Arrived, Piece } from '@nibquill/contract'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import {
  picture,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'
import { saidToBe } from '../testing/madeFiles.ts'
import { addressOf, begin, send, TUS } from '../testing/uploadSteps.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

/** Beside the server, which runs in this process and must not be held up. */
const exiftool = (words: string[]) => promisify(execFile)('exiftool', words)
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const temporary = (name: string) => path.join(test_.config.dataFolder, name)
const pixels = (bytes: Uint8Array) =>
  sharp(bytes, { failOn: 'none' }).removeAlpha().raw().toBuffer()
const serve = async (mediaId: string, size: string) =>
  Buffer.from(await (await school.wren.fetch('GET', `/media/${mediaId}/${size}`)).arrayBuffer())
const ready = (mediaId: string) =>
  until(
    async () =>
      (
        await test_.manager.query<{ state: string }[]>(
          "select state from media where id = $1 and state <> 'arrived'",
          [mediaId],
        )
      )[0]?.state,
  )

/** Every tag in which exiftool sees place, time, device or words. */
async function traces(bytes: Buffer, name: string): Promise<string[]> {
  writeFileSync(temporary(name), bytes)
  const { stdout } = await exiftool(['-j', '-G1', '-a', '-u', '-ee', temporary(name)])
  const [tags] = JSON.parse(stdout) as [Record<string, unknown>]
  return Object.keys(tags).filter((tag) =>
    /GPS|XMP|IPTC|MakerNotes|Serial|:(Make|Model|DateTime|Software|Comment|Artist)|ExifIFD|Photoshop|Trailer/i.test(
      tag,
    ),
  )
}

test.each(['jpeg', 'png', 'webp'] as const)(
  'a %s loses position, device and words in every size; its pixels and its upright turn stay',
  async (format) => {
    const drawn = await sharp({
      create: { width: 400, height: 300, channels: 3, background: '#2f5e8c' },
    })
      .composite([{ input: await picture(60, 40, '#ffffff'), left: 10, top: 10 }])
      .toFormat(format)
      .toBuffer()
    const file = temporary(`sent.${format}`)
    writeFileSync(file, drawn)
    await exiftool([
      '-q',
      '-overwrite_original',
      '-n',
      '-Orientation=6',
      '-GPSLatitude=53.3',
      '-GPSLatitudeRef=N',
      '-GPSLongitude=0.4',
      '-GPSLongitudeRef=W',
      '-Make=Nobody',
      '-Model=Made-up 1',
      '-XMP:Creator=Nobody',
      file,
    ])
    const sent = readFileSync(file)
    expect((await traces(sent, 'before')).length).toBeGreaterThan(3)
    const { mediaId, body } = await school.wren.upload(sent, { sha256: sha256(sent) })
    const arrived = JSON.parse(body) as Arrived
    expect(arrived.sentSha256).toBe(sha256(sent))
    expect(await ready(mediaId)).toBe('ready')
    const full = await serve(mediaId, 'full')
    expect(sha256(full)).toBe(arrived.keptSha256)
    for (const size of ['320', '960', '2048'])
      expect(await traces(await serve(mediaId, size), `size-${size}`)).toEqual([])
    expect(await traces(full, 'full')).toEqual([])
    expect((await pixels(full)).equals(await pixels(sent))).toBe(true)
    const upright = await sharp(await serve(mediaId, '320')).metadata()
    expect([upright.width, upright.height]).toEqual([240, 320])
  },
)

test('a HEIC photo becomes an upright JPEG without position', async () => {
  const sent = readFileSync(new URL('../testing/fixtures/drawing.heic', import.meta.url))
  expect((await traces(sent, 'heic')).join()).toMatch(/GPS/)
  const { mediaId } = await school.wren.upload(sent, { filename: 'IMG_1.HEIC' })
  expect(await ready(mediaId)).toBe('ready')
  const full = await serve(mediaId, 'full')
  expect(await traces(full, 'from-heic')).toEqual([])
  expect(await sharp(full).metadata()).toMatchObject({ format: 'jpeg', width: 320, height: 240 })
})

describe('what is not a picture is refused with a sentence and leaves nothing behind', () => {
  const cases: { what: string; bytes: () => Promise<Uint8Array>; status: number; type: string }[] =
    [
      {
        what: 'a text named .jpg',
        bytes: async () => Buffer.from('Dear teacher, this is a text.'),
        status: 415,
        type: '/problems/media/not-opened',
      },
      {
        what: 'a page of HTML named .jpg',
        bytes: async () => Buffer.from('<!doctype html><script>alert(1)</script>'),
        status: 415,
        type: '/problems/media/not-opened',
      },
      {
        what: 'a drawing that is a program (SVG)',
        bytes: async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
        status: 415,
        type: '/problems/media/not-opened',
      },
      {
        what: 'a JPEG that ends in its head',
        bytes: async () => (await picture()).subarray(0, 40),
        status: 422,
        type: '/problems/media/unreadable',
      },
    ]
  test.each(cases)('$what', async ({ bytes, status, type }) => {
    const before = await test_.manager.query('select count(*) from media')
    const answer = await school.wren.upload(await bytes())
    expect({ status: answer.status, ...(JSON.parse(answer.body) as object) }).toMatchObject({
      status,
      type,
      title: expect.stringMatching(/\w+ .*\.$/),
    })
    expect(await test_.manager.query('select count(*) from media')).toEqual(before)
  })

  test('an empty file', async () => {
    const response = await begin(school.wren, 0)
    expect(response.status).toBe(422)
    expect(await response.json()).toMatchObject({ type: '/problems/media/empty' })
  })

  test('a file over the limit, before a byte of it is sent', async () => {
    const response = await begin(school.wren, 401 * 1024 * 1024)
    expect(response.status).toBe(413)
  })

  test('a file that is not what its sender hashed', async () => {
    const answer = await school.wren.upload(await picture(), {
      sha256: sha256(Buffer.from('something else')),
    })
    expect(JSON.parse(answer.body)).toMatchObject({ type: '/problems/media/differs' })
  })
})

test('a JPEG cut off half-way is kept and shown as far as it goes', async () => {
  const whole = await sharp({
    create: {
      width: 1200,
      height: 900,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg()
    .toBuffer()
  const { mediaId, status } = await school.wren.upload(
    whole.subarray(0, Math.floor(whole.length / 2)),
  )
  expect(status).toBe(200)
  expect(await ready(mediaId)).toBe('ready')
  expect(await sharp(await serve(mediaId, '960')).metadata()).toMatchObject({
    width: 960,
    height: 720,
  })
})

test('a 100-megapixel picture is taken in bounded memory; a larger one is refused', async () => {
  const large = await sharp({
    create: { width: 12_000, height: 8334, channels: 3, background: '#2a6f68' },
  })
    .jpeg({ quality: 60 })
    .toBuffer()
  const before = process.memoryUsage().rss
  const { mediaId } = await school.wren.upload(large)
  expect(await ready(mediaId)).toBe('ready')
  const grownMb = (process.memoryUsage().rss - before) / 1e6
  // Decoded whole it would take 300 MB.
  expect(grownMb).toBeLessThan(250)
  const beyond = saidToBe(12_000, 10_500, await picture())
  expect(JSON.parse((await school.wren.upload(beyond)).body)).toMatchObject({
    type: '/problems/media/too-many-pixels',
  })
})

test('the same file under the same id arrives once; another file under that id is refused', async () => {
  const mediaId = newId()
  const bytes = await picture(300, 200, '#93344f')
  const [first, second] = [
    await school.wren.upload(bytes, { mediaId }),
    await school.wren.upload(bytes, { mediaId }),
  ]
  expect(second.body).toBe(first.body)
  expect((await school.wren.upload(await picture(300, 201), { mediaId })).status).toBe(409)
  expect((await school.tomasz.upload(bytes, { mediaId })).status).toBe(409)
})

test('half an upload of another pupil cannot be looked at, continued or ended', async () => {
  const address = addressOf(await begin(school.wren, 1000))
  expect(
    (
      await school.tomasz.fetch('HEAD', address, {
        headers: { ...TUS, 'X-Nibquill-Viewer': school.ids.wren },
      })
    ).status,
  ).toBe(404)
  expect((await send(school.tomasz, address, 0, Buffer.from('x'))).status).toBe(404)
  expect((await school.tomasz.fetch('DELETE', address, { headers: TUS })).status).toBe(404)
  expect(
    (
      await school.parent.fetch('POST', '/media/uploads', {
        headers: { ...TUS, 'Upload-Length': '10' },
      })
    ).status,
  ).toBe(404)
  expect((await school.wren.fetch('HEAD', address, { headers: TUS })).status).toBe(200)
})

test('names with quotes, emoji, right-to-left letters and a path in them are kept as words', async () => {
  const name = '../"Ωmega" 🦀 سرطان.jpg'
  const { mediaId } = await school.wren.upload(await picture(), { filename: name })
  const response = await school.wren.fetch('GET', `/media/${mediaId}/full?save=1`)
  expect(response.status).toBe(200)
  expect(decodeURIComponent(response.headers.get('content-disposition')!)).toContain(name)
})

test('reading answers ranges and may be kept for good', async () => {
  const { mediaId } = await school.wren.upload(await picture())
  const response = await school.wren.fetch('GET', `/media/${mediaId}/full`, {
    headers: { Range: 'bytes=0-9' },
  })
  expect(response.status).toBe(206)
  expect((await response.arrayBuffer()).byteLength).toBe(10)
  expect(response.headers.get('cache-control')).toMatch(/private.*immutable/)
})

test('an approved piece keeps its photos when the draft loses them', async () => {
  const piece = await school.approved()
  const again = (
    await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, { seenVersion: piece.version })
  ).body
  await school.wren.ask('DELETE', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}`)
  const now = (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body
  expect(now.parts).toEqual([])
  expect(now.versions[0]!.parts).toHaveLength(1)
  expect(again.state).toBe('draft')
  expect((await school.parent.fetch('GET', `/media/${pictureOf(piece.parts[0])}/320`)).status).toBe(
    200,
  )
})

describe('the press, which makes the sizes of pictures in a process of its own', () => {
  const about = (id: string, file: string) => readFileSync(`/proc/${id}/${file}`, 'utf8')
  /** The presses of this process, with the hundredths of a second each has worked so far. */
  const presses = () =>
    readdirSync('/proc')
      .filter((id) => /^\d+$/.test(id))
      .flatMap((id) => {
        try {
          const mine = about(id, 'status').includes(`\nPPid:\t${process.pid}\n`)
          const [worked, inSystem] = about(id, 'stat').split(') ')[1]!.split(' ').slice(11, 13)
          return mine && about(id, 'cmdline').includes('press.mjs')
            ? [{ id, worked: Number(worked) + Number(inSystem) }]
            : []
        } catch {
          // It ended while it was looked at.
          return []
        }
      })
  /** Ends presses that are at work, until it is enough. */
  const breakIt = async (isEnough: (broken: number) => boolean) => {
    const before = new Map<string, number>()
    let broken = 0
    await until(() => {
      for (const { id, worked } of presses()) {
        if (worked - (before.get(id) ?? worked) > 1 && !isEnough(broken)) {
          process.kill(Number(id), 'SIGKILL')
          broken++
        }
        before.set(id, worked)
      }
      return Promise.resolve(isEnough(broken))
    }, 40_000)
  }
  /** Slow enough to be met in the press. */
  const slow = () =>
    sharp({
      create: {
        ...{ width: 3600, height: 2400, channels: 3, background: '#335577' },
        noise: { type: 'gaussian', mean: 120, sigma: 40 },
      },
    })
      .png({ compressionLevel: 1 })
      .toBuffer()

  test('broken once, each picture in it gets another go', async () => {
    const bytes = await slow()
    const [sent] = await Promise.all([school.wren.upload(bytes), breakIt((broken) => broken === 1)])
    expect(await ready(sent.mediaId)).toBe('ready')
  })

  test('a picture that breaks it whenever it is tried is kept and shown as it is, and says so', async () => {
    const sent = await school.wren.upload(await slow())
    let state: string | null = null
    const [decided] = await Promise.all([
      ready(sent.mediaId).then((found) => (state = found)),
      breakIt(() => state !== null),
    ])
    expect(decided).toBe('unmade')
    const kept = JSON.parse(sent.body) as Arrived
    const shown = await school.wren.fetch('GET', `/media/${sent.mediaId}/960`)
    expect(sha256(Buffer.from(await shown.arrayBuffer()))).toBe(kept.keptSha256)
  })
})
