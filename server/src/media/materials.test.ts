import { execFile } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { promisify } from 'node:util'
import { film, paper, recording } from '../testing/madeFiles.ts'
import { type SmallSchool, type TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const run = promisify(execFile)
const TELLING = {
  title: 'Secret',
  artist: 'Nobody',
  comment: 'made at home',
  location: '+53.3000-000.4000/',
}

/** What ffprobe and exiftool, neither of them ours, find of place, author, device and words. */
async function traces(bytes: Buffer, name: string): Promise<string[]> {
  const file = path.join(test_.config.dataFolder, name)
  writeFileSync(file, bytes)
  const { stdout: probed } = await run('ffprobe', [
    ...[
      '-v',
      'error',
      '-show_entries',
      'format_tags:stream_tags:chapter_tags',
      '-of',
      'json',
      file,
    ],
  ])
  const { stdout: tags } = await run('exiftool', ['-a', '-u', '-ee', '-G1', '-s', file])
  const found = (probed + tags).match(/Secret|Nobody|made at home|53\.3|Lavf\d|Lavc/g)
  return [...new Set(found ?? [])]
}
const about = async (bytes: Buffer, name: string) => {
  const file = path.join(test_.config.dataFolder, name)
  writeFileSync(file, bytes)
  const { stdout } = await run('ffprobe', [
    ...['-v', 'error', '-show_entries', 'format=duration:stream=codec_name', '-of', 'json', file],
  ])
  const { streams, format } = JSON.parse(stdout) as {
    streams: { codec_name: string }[]
    format: { duration: string }
  }
  return { codecs: streams.map(({ codec_name }) => codec_name), seconds: Number(format.duration) }
}
const served = async (mediaId: string) =>
  Buffer.from(await (await school.teacher.fetch('GET', `/media/${mediaId}/full`)).arrayBuffer())

test.each(['voice.webm', 'voice.ogg', 'voice.m4a'])(
  'a recording (%s) loses what tells of its maker, place and device; its sound stays as it was',
  async (name) => {
    const sent = await recording(name, TELLING)
    expect((await traces(sent, `sent-${name}`)).length).toBeGreaterThan(2)
    const { mediaId, status, body } = await school.teacher.upload(sent, { filename: name })
    expect({ status, ...(JSON.parse(body) as object) }).toMatchObject({
      status: 200,
      kind: 'sound',
    })
    const kept = await served(mediaId)
    expect(await traces(kept, `kept-${name}`)).toEqual([])
    const [before, after] = [await about(sent, `a-${name}`), await about(kept, `b-${name}`)]
    expect(after.codecs).toEqual(before.codecs)
    expect(after.seconds).toBeCloseTo(before.seconds, 1)
  },
)

test('a paper loses its author, title and XMP; its words and pages stay', async () => {
  const file = path.join(test_.config.dataFolder, 'sent.pdf')
  writeFileSync(file, await paper('Bring boots on Friday.'))
  await run('exiftool', [
    '-q',
    '-overwrite_original',
    '-Author=Nobody',
    '-XMP:Creator=Nobody',
    file,
  ])
  const sent = readFileSync(file)
  const told = async (bytes: Buffer) => {
    writeFileSync(file, bytes)
    const { stdout } = await run('exiftool', ['-a', '-u', '-G1', '-s', file])
    return stdout.match(/\[XMP[^\]]*\]|Nobody|Plan of our walk|Nibquill|CreateDate/g) ?? []
  }
  expect((await told(sent)).length).toBeGreaterThan(3)
  const { mediaId } = await school.teacher.upload(sent, { filename: 'walk.pdf' })
  const kept = await served(mediaId)
  expect(await told(kept)).toEqual([])
  expect(kept.includes('Nobody')).toBe(false)
  await run('qpdf', ['--check', file])
  const { stdout: words } = await run('pdftotext', [file, '-'])
  expect(words).toContain('Bring boots on Friday.')
})

test.each([
  { what: 'music of another kind', bytes: () => recording('song.mp3'), type: 'media/not-taken' },
  {
    what: 'a paper that opens by a password only',
    bytes: () => paper('Secret plan', 'boots'),
    type: 'media/file-unreadable',
  },
  {
    what: 'a paper that ends in its head',
    bytes: async () => (await paper()).subarray(0, 60),
    type: 'media/file-unreadable',
  },
  {
    what: 'a recording that is noise after its head',
    bytes: async () => Buffer.concat([(await recording()).subarray(0, 60), Buffer.alloc(900, 7)]),
    type: 'media/not-taken',
  },
])('$what is refused with a sentence', async ({ bytes, type }) => {
  const { body } = await school.teacher.upload(await bytes())
  expect(JSON.parse(body)).toMatchObject({
    type: `/problems/${type}`,
    title: expect.stringMatching(/\w+ .*\.$/),
  })
})

test('a pupil sends pictures, recordings, films and papers; music of another kind is refused', async () => {
  for (const bytes of [await recording(), await film(), await paper()])
    expect((await school.wren.upload(bytes)).status).toBe(200)
  for (const bytes of [await recording('song.mp3'), Buffer.from('just words')]) {
    const { body } = await school.wren.upload(bytes)
    expect(JSON.parse(body)).toMatchObject({ type: '/problems/media/not-opened' })
  }
})

describe('reading', () => {
  const reading = async (headers: Record<string, string>) => {
    const { mediaId } = await school.teacher.upload(await recording())
    const whole = await served(mediaId)
    const response = await school.teacher.fetch('GET', `/media/${mediaId}/full`, { headers })
    return { whole, response, body: Buffer.from(await response.arrayBuffer()) }
  }

  test('a player may ask for the end first', async () => {
    const { whole, response, body } = await reading({ Range: 'bytes=-100' })
    expect(response.status).toBe(206)
    expect(response.headers.get('content-range')).toBe(
      `bytes ${whole.length - 100}-${whole.length - 1}/${whole.length}`,
    )
    expect(body.equals(whole.subarray(-100))).toBe(true)
  })

  test('a range behind the end is refused with the length there is', async () => {
    const { whole, response } = await reading({ Range: 'bytes=99999999-' })
    expect(response.status).toBe(416)
    expect(response.headers.get('content-range')).toBe(`bytes */${whole.length}`)
  })

  test.each([
    { Range: 'lines=1-2' },
    { Range: 'bytes=0-1,5-9' },
    { 'If-Range': '"other"', Range: 'bytes=0-1' },
  ])(
    'what is not one range of bytes of this file is answered with the whole: %o',
    async (headers) => {
      const { whole, response, body } = await reading(headers as Record<string, string>)
      expect(response.status).toBe(200)
      expect(body.equals(whole)).toBe(true)
    },
  )

  test('what a browser has already is not sent again', async () => {
    const { mediaId } = await school.teacher.upload(await recording())
    const first = await school.teacher.fetch('GET', `/media/${mediaId}/full`)
    await first.arrayBuffer()
    const again = await school.teacher.fetch('GET', `/media/${mediaId}/full`, {
      // As a browser asks: Node's fetch adds `no-cache` by itself.
      headers: { 'If-None-Match': first.headers.get('etag')!, 'Cache-Control': 'max-age=0' },
    })
    expect(again.status).toBe(304)
  })
})
