import type { MadePage, Piece, Problem } from '@nibquill/contract'
import { MOST_PAGES } from '@nibquill/core'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { inkFile } from '../testing/ink.ts'
import { paper, papers } from '../testing/madeFiles.ts'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const send = async (bytes: Buffer, who: Person = school.wren) =>
  who.upload(bytes, { filename: 'plan.pdf', use: 'pages' })
const pageOf = (paperId: string, page: number, who: Person = school.wren, mediaId = newId()) =>
  who.ask<MadePage & Problem>('POST', `/media/${paperId}/pages/${page}`, { mediaId })
const served = async (mediaId: string, who: Person = school.wren) =>
  Buffer.from(await (await who.fetch('GET', `/media/${mediaId}/full`)).arrayBuffer())

test('a page comes out as pdftoppm draws it, and hangs on a drawing like any picture', async () => {
  const bytes = await papers(['Rock pools', 'Our walk', 'Home'])
  const { mediaId: paperId } = await send(bytes)
  const { body } = await pageOf(paperId, 2)
  expect(body).toMatchObject({ pages: 3, height: 2048 })
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-page-'))
  const file = path.join(folder, 'plan.pdf')
  writeFileSync(file, bytes)
  // poppler, called by hand on what was sent.
  execFileSync('pdftoppm', [
    '-f',
    '2',
    '-l',
    '2',
    '-singlefile',
    '-scale-to',
    '2048',
    '-png',
    file,
    file,
  ])
  const grey = (picture: Buffer) => sharp(picture).greyscale().raw().toBuffer()
  const [ours, theirs] = [
    await grey(await served(body.mediaId)),
    await grey(readFileSync(`${file}.png`)),
  ]
  rmSync(folder, { recursive: true })
  expect(ours.length).toBe(theirs.length)
  let off = 0
  for (const [i, value] of ours.entries()) if (Math.abs(value - theirs[i]!) > 48) off++
  expect(off / ours.length).toBeLessThan(0.001)

  const pieceId = newId()
  const partId = newId()
  await school.wren.ask('PUT', `/pieces/${pieceId}`, { taskId: null })
  const ink = await school.wren.upload(inkFile('plain', []), { filename: 'drawing.json' })
  await school.wren.ask('PUT', `/pieces/${pieceId}/parts/${partId}`, {
    ...{ kind: 'drawing', name: '', files: { ink: ink.mediaId } },
  })
  const things = [
    {
      ...{ kind: 'picture', id: 'page', mediaId: body.mediaId, locked: true, turn: 0 },
      ...{ at: { x: 8000, y: 6000 }, width: 8000, height: 11_000 },
    },
  ]
  const drawn = await school.wren.ask<Piece>('POST', `/pieces/${pieceId}/parts/${partId}/ink`, {
    changes: [{ kind: 'put', sheetId: 's', things, below: null }],
  })
  expect(drawn.status).toBe(200)
})
test('asked again because its answer was lost, it is the same picture', async () => {
  const { mediaId: paperId } = await send(await paper())
  const id = newId()
  const [first, second] = [
    await pageOf(paperId, 1, school.wren, id),
    await pageOf(paperId, 1, school.wren, id),
  ]
  expect(second.body).toEqual(first.body)
})
test('a page of what a teacher hung on a task is drawn on by its pupils; nobody reads another’s paper', async () => {
  const { mediaId: paperId } = await school.teacher.upload(await paper(), { filename: 'plan.pdf' })
  expect((await pageOf(paperId, 1, school.teacher)).status).toBe(200)
  expect((await pageOf(paperId, 1)).status).toBe(404)
  await test_.manager.query(
    "insert into task_media (task_id, media_id, role, position) values ($1, $2, 'material', 0)",
    [school.ids.task, paperId],
  )
  expect((await pageOf(paperId, 1)).status).toBe(200)
  expect((await pageOf(paperId, 1, school.aoife)).status).toBe(404)
  const mine = (await send(await paper('Mine'))).mediaId
  for (const who of [school.tomasz, school.otherTeacher, school.parent])
    expect((await pageOf(mine, 1, who)).status).toBe(404)
})
test('bad papers and pages each get a sentence, and none becomes a part', async () => {
  const { mediaId: paperId } = await send(await paper())
  expect((await pageOf(paperId, 2)).body.type).toBe('/problems/media/no-such-page')
  expect((await pageOf(paperId, 0)).status).toBe(400)
  expect((await pageOf(paperId, 41)).status).toBe(400)
  expect((await send(await paper('Secret', 'password'))).status).toBe(422)
  expect((await send(Buffer.from('%PDF-1.7 and nothing else'))).status).toBe(422)
  const picture = await school.wren.upload(
    await sharp({ create: { width: 9, height: 9, channels: 3, background: '#888' } })
      .png()
      .toBuffer(),
  )
  expect((await pageOf(picture.mediaId, 1)).body.type).toBe('/problems/media/not-taken')
  const pieceId = newId()
  await school.wren.ask('PUT', `/pieces/${pieceId}`, { taskId: null })
  const added = await school.wren.ask('PUT', `/pieces/${pieceId}/parts/${newId()}`, {
    ...{ kind: 'photo', name: '', files: { picture: paperId } },
  })
  expect(added.status).toBeGreaterThanOrEqual(400)
})
test('a paper of a thousand pages is taken in, and its first are drawn', async () => {
  const words = Array.from({ length: 1000 }, (_, i) => `Page ${i + 1}`)
  const { status, mediaId: paperId } = await send(await papers(words))
  expect(status).toBe(200)
  expect((await pageOf(paperId, MOST_PAGES)).body).toMatchObject({ pages: 1000, height: 2048 })
  expect((await pageOf(paperId, MOST_PAGES + 1)).status).toBe(400)
})
test('a page of enormous size is drawn by its pixels', async () => {
  const bytes = await paper()
  // 200 inches each way is what the format allows.
  const huge = Buffer.from(
    bytes.toString('latin1').replace(/\[0 0 [\d. ]+\]/, '[0 0 14400 14400]'),
    'latin1',
  )
  const { mediaId: paperId } = await send(huge)
  const { body } = await pageOf(paperId, 1)
  expect(Math.max(body.width, body.height)).toBeLessThanOrEqual(2048)
})
