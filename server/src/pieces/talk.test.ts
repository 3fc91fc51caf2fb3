import type { Piece, Problem, TalkPart } from '@nibquill/contract'
import type { InkOfTalk } from '@nibquill/contract/ink'
import type { Thing } from '@nibquill/core/ink/document'
import { TalkReplay, type Talk } from '@nibquill/core/ink/talk'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { inkFile, SEA_LINE, talkOf } from '../testing/ink.ts'
import { recording } from '../testing/madeFiles.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

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
