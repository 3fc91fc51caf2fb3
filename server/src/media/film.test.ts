import type { Arrived, Problem } from '@nibquill/contract'
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { addJob } from '../platform/queue.ts'
import { film, type FilmOf } from '../testing/madeFiles.ts'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

let folder = ''
beforeAll(() => (folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-film-'))))
afterAll(() => rmSync(folder, { recursive: true }))

const served = async (mediaId: string, form: string) => {
  const response = await school.wren.fetch('GET', `/media/${mediaId}/${form}`)
  return { status: response.status, bytes: Buffer.from(await response.arrayBuffer()) }
}
const send = async (of: FilmOf) => {
  const { status, mediaId } = await school.wren.upload(await film(of), { filename: 'film' })
  expect(status).toBe(200)
  await until(async () => {
    const [row] = await test_.manager.query<{ state: string }[]>(
      'select state from media where id = $1',
      [mediaId],
    )
    return row!.state !== 'arrived'
  })
  return mediaId
}

type Probed = {
  format: { duration: string; tags?: Record<string, string> }
  streams: {
    codec_type: string
    codec_name: string
    width?: number
    height?: number
    nb_frames?: string
  }[]
}
/** What ffprobe says of it. */
function about(bytes: Buffer): Probed {
  const file = path.join(folder, 'one')
  writeFileSync(file, bytes)
  return JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_format', '-show_streams', '-of', 'json', file], {
      encoding: 'utf8',
    }),
  ) as Probed
}
/** A digest of its pictures as they are coded. */
const pictures = (bytes: Buffer): string => {
  const file = path.join(folder, 'one')
  writeFileSync(file, bytes)
  return execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-map', '0:v', '-c', 'copy', '-f', 'md5', '-'],
    {
      encoding: 'utf8',
    },
  )
}

test.each<[string, FilmOf, [number, number]]>([
  [
    'as a telephone films: HEVC, large, upright by a note',
    { coder: 'libx265', size: '1920x1080', turned: true },
    [720, 1280],
  ],
  [
    'as a telephone films in poor light: HEVC whose pictures come unevenly',
    { coder: 'libx265', uneven: true, seconds: 3 },
    [64, 48],
  ],
  ['as a browser films, without its length', { unended: true, seconds: 2 }, [64, 48]],
  [
    'as a browser on a busy tablet films: its pictures come when they come',
    { unended: true, uneven: true, seconds: 3 },
    [64, 48],
  ],
  ['without a sound', { sound: false, size: '321x241' as const }, [320, 240]],
])('a film %s becomes one that every browser plays', async (_, of, [width, height]) => {
  const id = await send({ ...of, tell: { location: '+53.3+0.4/', title: 'Nobody' } })
  const { bytes } = await served(id, 'playable')
  const { streams, format } = about(bytes)
  expect(streams.map(({ codec_name }) => codec_name)).toEqual(
    of.sound === false ? ['h264'] : ['h264', 'aac'],
  )
  expect([streams[0]!.width, streams[0]!.height]).toEqual([width, height])
  expect(Math.abs(Number(format.duration) - (of.seconds ?? 1))).toBeLessThan(0.15)
  // No picture twice for the sake of an even beat that nobody filmed in.
  expect(Number(streams[0]!.nb_frames)).toBeLessThanOrEqual(30 * Number(format.duration))
  for (const form of ['playable', 'full']) {
    const { bytes: kept } = await served(id, form)
    expect(JSON.stringify(about(kept))).not.toMatch(/Nobody|53\.3/)
  }
  const peaks = JSON.parse((await served(id, 'peaks')).bytes.toString()) as { durationMs: number }
  expect(Math.abs(peaks.durationMs - 1000 * (of.seconds ?? 1))).toBeLessThan(150)
  const poster = await sharp((await served(id, '320')).bytes).metadata()
  expect(poster.format).toBe('jpeg')
  expect(poster.width! / poster.height!).toBeCloseTo(width / height, 1)
})

test('what every browser plays already is not coded anew', async () => {
  const sent = await film({ coder: 'libx264', size: '320x240', seconds: 2 })
  const { mediaId } = await school.wren.upload(sent, { filename: 'film.mp4' })
  await until(async () => (await served(mediaId, 'peaks')).status === 200)
  expect(pictures((await served(mediaId, 'playable')).bytes)).toBe(pictures(sent))
})

test('a program that is stuck on a film is ended; the film itself stays, and is played', async () => {
  const programs = path.join(folder, 'programs')
  mkdirSync(programs)
  // Named like ffmpeg: a stand-in that is told to stop for want of time wherever it codes a film.
  const standIn = `#!/bin/sh\ncase "$*" in *libx264*) kill -XCPU $$;; esac\nexec /usr/bin/ffmpeg "$@"\n`
  writeFileSync(path.join(programs, 'ffmpeg'), standIn, { mode: 0o755 })
  const sent = await film()
  const before = process.env.PATH
  process.env.PATH = `${programs}:${before}`
  const { mediaId } = await school.wren.upload(sent, { filename: 'film.webm' })
  const stateOf = async () => {
    const [row] = await test_.manager.query<{ state: string }[]>(
      'select state from media where id = $1',
      [mediaId],
    )
    return row!.state
  }
  await until(async () => (await stateOf()) !== 'arrived').finally(() => {
    process.env.PATH = before
  })
  expect(await stateOf()).toBe('unmade')
  const { status, bytes } = await served(mediaId, 'playable')
  expect([status, pictures(bytes)]).toEqual([200, pictures(sent)])
})

test('until it is ready the film itself is played, and there is no picture of it', async () => {
  const mediaId = await send({})
  await test_.manager.query('delete from media_form where media_id = $1', [mediaId])
  expect((await served(mediaId, 'playable')).status).toBe(200)
  for (const form of ['320', 'peaks']) expect((await served(mediaId, form)).status).toBe(404)
})

test.each<[string, () => Promise<Buffer>, string]>([
  [
    'longer than two minutes',
    () => film({ seconds: 126, size: '32x32' as const }),
    'media/film-too-long',
  ],
  [
    'a playlist',
    () => Promise.resolve(Buffer.from('#EXTM3U\n#EXTINF:10,\nfile:///etc/passwd\n')),
    'media/not-opened',
  ],
  [
    'cut off in its head',
    async () => (await film({ coder: 'libx264' })).subarray(0, 200),
    'media/not-opened',
  ],
])('%s: refused with a sentence', async (_, bytes, type) => {
  const { body } = await school.wren.upload(await bytes(), { filename: 'film.mp4' })
  expect(JSON.parse(body) as Arrived & Problem).toMatchObject({
    type: `/problems/${type}`,
    title: expect.stringMatching(/\w+ .*\.$/) as string,
  })
})

test('who waits for a film is told how many are made ready before it', async () => {
  const mediaId = await send({})
  const wait = { line: 'films', waitMs: 60_000 }
  for (const id of [newId(), newId(), mediaId])
    await addJob(test_.manager, 'media.prepare', { mediaId: id }, id, wait)
  const progress = (who: Person) => who.ask('GET', `/media/${mediaId}/progress`)
  expect((await progress(school.wren)).body).toEqual({ percent: expect.any(Number), before: 2 })
  expect((await progress(school.tomasz)).status).toBe(404)
  await test_.manager.query('delete from graphile_worker._private_jobs where run_at > now()')
})
