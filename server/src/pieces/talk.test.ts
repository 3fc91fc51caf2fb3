import type { Piece, Problem, TalkFilm, TalkPart } from '@nibquill/contract'
import type { InkOfTalk } from '@nibquill/contract/ink'
import type { Thing } from '@nibquill/core/ink/document'
import { TalkReplay, type Talk } from '@nibquill/core/ink/talk'
import { packPoints } from '@nibquill/core/ink/points'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { inkFile, SEA_LINE, talkOf } from '../testing/ink.ts'
import { recording } from '../testing/madeFiles.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const said = async (who: Person = school.wren) =>
  (await who.upload(await recording(), { filename: 'said.webm' })).mediaId
const laid = (mediaId: string): Thing => ({
  ...{ kind: 'picture', id: 'p', mediaId, at: { x: 8000, y: 6000 }, turn: 0, locked: true },
  ...{ width: 16_000, height: 12_000 },
})
const add = (piece: Piece, talk: Talk, sound: string, partId = newId(), who = school.wren) =>
  who.ask<Piece & Problem>('PUT', `/pieces/${piece.id}/parts/${partId}/talk`, {
    ...{ name: '', sound, talk },
  })
const partOf = ({ parts }: Piece) => parts.find(({ kind }) => kind === 'talk') as TalkPart

test('a talk-through comes back as it was drawn, step by step; its sheet is as it was left', async () => {
  const piece = await school.draft()
  const { body } = await add(piece, talkOf(), await said())
  const { ink } = partOf(body).files
  const read = (await (
    await school.wren.fetch('GET', `/media/${ink.mediaId}/full`)
  ).json()) as InkOfTalk
  expect(read.talk).toEqual(talkOf())
  expect(read.sheets).toEqual([new TalkReplay(read.talk).at(Infinity).sheet])
  // What stands for it in a list is a picture of what was drawn.
  const shown = () => school.wren.fetch('GET', `/media/${ink.mediaId}/320`)
  await until(async () => (await shown()).headers.get('content-type') === 'image/jpeg')
  const jpeg = Buffer.from(await (await shown()).arrayBuffer())
  const { channels } = await sharp(jpeg).stats()
  expect(channels[0]!.min).toBeLessThan(120)
})

test('the same again changes nothing; another talk under its id is refused', async () => {
  const piece = await school.draft()
  const [partId, sound] = [newId(), await said()]
  const first = await add(piece, talkOf(), sound, partId)
  const again = await add(piece, talkOf(), sound, partId)
  expect(again.body.version).toBe(first.body.version)
  expect(partOf(again.body).files.ink.mediaId).toBe(partOf(first.body).files.ink.mediaId)
  expect((await add(piece, talkOf(), await said(), partId)).body.type).toBe(
    '/problems/media/id-taken',
  )
})

test('it is drawn on what hangs on the piece, never on anybody else’s picture', async () => {
  const piece = await school.draft()
  const [photo] = piece.parts
  const mine = Object.values(photo!.files)[0]!.mediaId
  const { body } = await add(piece, talkOf([laid(mine)]), await said())
  expect(partOf(body)).toBeDefined()
  const foreign = await school.tomasz.upload(await picture(60, 40, '#aa3333'))
  const refused = await add(piece, talkOf([laid(foreign.mediaId)]), await said())
  expect(refused.body.type).toBe('/problems/media/not-found')
  // Nor for a moment in the middle of it.
  const [step] = talkOf().steps
  const passing: Talk = {
    ...talkOf(),
    steps: [
      { atMs: 10, changes: [{ ...step!.changes[0]!, things: [laid(foreign.mediaId)] } as never] },
      { atMs: 20, changes: [{ kind: 'take', sheetId: 's', ids: ['p'] }] },
    ],
  }
  expect((await add(piece, passing, await said())).body.type).toBe('/problems/media/not-found')
})

test('what is no talk-through is refused: a clock that runs back, a picture for a voice, a stranger', async () => {
  const piece = await school.draft()
  const [step] = talkOf().steps
  const back = { ...talkOf(), steps: [step!, { ...step!, atMs: 5 }] }
  expect((await add(piece, back, await said())).status).toBe(400)
  const { mediaId } = await school.wren.upload(await picture(60, 40, '#336633'))
  expect((await add(piece, talkOf(), mediaId)).body.type).toBe('/problems/media/not-for-pieces')
  const theirs = await said(school.tomasz)
  expect((await add(piece, talkOf(), theirs, newId(), school.tomasz)).status).toBe(404)
  expect((await add(piece, talkOf(), theirs)).body.type).toBe('/problems/media/not-found')
})

test('how it came to be is not sent as a drawing', async () => {
  const ink = { ...JSON.parse(inkFile('plain', [SEA_LINE]).toString()), talk: talkOf() }
  const sent = await school.wren.upload(Buffer.from(JSON.stringify(ink)), {
    filename: 'drawing.json',
  })
  expect(JSON.parse(sent.body)).toMatchObject({ type: '/problems/media/ink-unreadable' })
})

test('as a film each line comes within a frame of when it was drawn, and is heard', async () => {
  const piece = await school.draft()
  const sound = (await school.wren.upload(await recording(), { filename: 'said.webm' })).mediaId
  // Bars from top to bottom, each drawn in a moment.
  const [bar] = talkOf().steps[0]!.changes
  const times = [200, 400, 533, 800]
  const steps = times.map((atMs, i): Talk['steps'][number] => {
    const [x, id] = [3000 + 3000 * i, `bar${i}`]
    const ends = [2000, 10_000].map((y, n) => ({ x, y, timeMs: n, pressure: 1 }))
    const things = [{ ...SEA_LINE, id, points: packPoints(ends) }]
    return { atMs, changes: [{ ...bar!, things } as Talk['steps'][number]['changes'][number]] }
  })
  const { body } = await add(piece, { ...talkOf(), steps }, sound)
  const { ink } = partOf(body).files
  const ask = (who: Person) => who.ask<TalkFilm>('POST', `/media/${ink.mediaId}/film`)
  const film = () => school.wren.fetch('GET', `/media/${ink.mediaId}/as-film`)
  expect((await ask(school.wren)).body).toEqual({ ready: false })
  expect((await film()).status).toBe(404)
  expect((await ask(school.tomasz)).status).toBe(404)
  await until(async () => (await ask(school.wren)).body.ready)
  const file = path.join(test_.config.dataFolder, 'film.mp4')
  writeFileSync(file, Buffer.from(await (await film()).arrayBuffer()))
  const streams = execFileSync(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'stream=codec_name,nb_frames', '-of', 'csv=p=0', file],
    { encoding: 'utf8' },
  )
  expect(streams).toMatch(/h264,1[56]\naac,\d+/)
  // One row of pixels through the middle, picture by picture.
  const [width, height] = [160, 120]
  const grey = execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', file, '-vf', `scale=${width}:${height}`],
    ...['-pix_fmt', 'gray', '-f', 'rawvideo', '-'],
  ])
  const row = (frame: number) => {
    const from = (frame * height + height / 2) * width
    return grey.subarray(from, from + width)
  }
  times.forEach((atMs, i) => {
    const x = 30 + 30 * i
    const first = Array.from({ length: 15 }, (_, n) => n).find((n) => row(n)[x]! < 160)
    expect(Math.abs((first! * 1000) / 15 - atMs)).toBeLessThanOrEqual(1000 / 15)
  })
  // What is no talk-through has none.
  const [photo] = piece.parts
  const none = await school.wren.ask(
    'POST',
    `/media/${Object.values(photo!.files)[0]!.mediaId}/film`,
  )
  expect(none.status).toBe(404)
})
