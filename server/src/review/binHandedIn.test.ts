import type { MyPieces, News, Piece, PupilDesk, Tray } from '@nibquill/contract'
import type * as v from 'valibot'
import { v7 as newId } from 'uuid'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const bin = ({ id, version }: Piece, who: Person = school.teacher) =>
  who.ask('POST', `/review/pieces/${id}/bin`, { seenVersion: version })
const restore = ({ id }: Piece, who: Person = school.teacher) =>
  who.ask('POST', `/review/pieces/${id}/restore`)
const decide = async ({ id, version }: Piece, move: 'approve' | 'send-back') =>
  (
    await school.teacher.ask('POST', `/review/pieces/${id}`, {
      ...{ move, message: 'Once more.', seenVersion: version },
    })
  ).body
const tray = async () =>
  (await school.teacher.ask<Tray>('GET', '/review/tray')).body.pieces.map(({ id }) => id)
const desk = async () =>
  (await school.teacher.ask<PupilDesk>('GET', `/review/pupils/${school.ids.wren}`)).body
const mine = async () =>
  (await school.wren.ask<MyPieces>('GET', '/pieces')).body.pieces.map(({ id }) => id)

test('what was handed in by mistake goes, stands on its pupil’s page in the bin, and comes back into the tray as it was', async () => {
  const piece = await school.submitted()
  expect((await bin(piece)).status).toBe(200)
  expect([await tray(), await mine()].flat()).not.toContain(piece.id)
  for (const who of [school.teacher, school.wren])
    expect((await who.ask('GET', `/pieces/${piece.id}`)).status).toBe(404)
  expect((await desk()).binned.map(({ id }) => id)).toEqual([piece.id])
  expect((await restore(piece)).status).toBe(200)
  // Sent once more, its answer was lost.
  expect((await restore(piece)).status).toBe(200)
  expect(await tray()).toContain(piece.id)
  const { body } = await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)
  expect([body.state, body.versions.map(({ id }) => id)]).toEqual([
    'submitted',
    piece.versions.map(({ id }) => id),
  ])
  expect((await desk()).binned).toEqual([])
})

test('its makers hear of it for as long as it lies there, and nobody else', async () => {
  const news = async (who: Person) =>
    (await who.ask<v.InferOutput<typeof News>>('GET', '/notices/news')).body.filter(
      ({ kind }) => kind === 'binned',
    )
  const draft = await school.draft()
  const at = `/pieces/${draft.id}/makers`
  const together = (await school.wren.ask('PUT', at, { makerIds: [school.ids.tomasz] })).body
  const seen = { seenVersion: together.version }
  const piece = (await school.wren.ask('POST', `/pieces/${draft.id}/hand-in`, seen)).body
  await bin(piece)
  for (const maker of [school.wren, school.tomasz])
    expect(await news(maker)).toMatchObject([
      {
        kind: 'binned',
        pieceId: piece.id,
        pieceTitle: 'Rock pool crab',
        by: 'Mr Adeyemi',
        seen: false,
      },
    ])
  for (const who of [school.aoife, school.teacher]) expect(await news(who)).toEqual([])
  await restore(piece)
  expect(await news(school.wren)).toEqual([])
  // What its own pupil throws away is no news to them.
  const own = await school.draft()
  await school.wren.ask('DELETE', `/pieces/${own.id}`)
  expect(await news(school.wren)).toEqual([])
})

test('what came back for another go can go, too; a draft is its pupil’s, and what hangs in a folder stays', async () => {
  const returned = await decide(await school.submitted(), 'send-back')
  expect((await bin(returned)).status).toBe(200)
  await restore(returned)
  expect((await school.wren.ask<Piece>('GET', `/pieces/${returned.id}`)).body.state).toBe(
    'returned',
  )
  expect((await bin(await school.draft())).body.type).toBe('/problems/piece/move-refused')
  const approved = await school.approved()
  expect((await bin(approved)).body.type).toBe('/problems/piece/in-folder')
  // Not while it is bettered either.
  const open = (
    await school.wren.ask('POST', `/pieces/${approved.id}/another-go`, {
      seenVersion: approved.version,
    })
  ).body
  const again = await school.wren.ask('POST', `/pieces/${approved.id}/hand-in`, {
    seenVersion: open.version,
  })
  expect((await bin(again.body)).body.type).toBe('/problems/piece/in-folder')
})

test('is done by its teachers, to what they saw', async () => {
  const piece = await school.submitted()
  for (const who of [school.wren, school.parent, school.otherTeacher]) {
    expect((await bin(piece, who)).status).toBe(404)
    expect((await restore(piece, who)).status).toBe(404)
  }
  await school.wren.ask('POST', `/pieces/${piece.id}/withdraw`, { seenVersion: piece.version })
  expect((await bin(piece)).body.type).toBe('/problems/piece/stale')
})

test('after thirty days it is gone, with everything that was said and decided about it', async () => {
  const returned = await decide(await school.submitted(), 'send-back')
  await school.teacher.ask('PUT', `/review/pieces/${returned.id}/second-look`, { reason: 'Legs.' })
  await school.teacher.ask('PUT', `/comments/${newId()}`, {
    ...{ pieceId: returned.id, words: 'I looked at it.' },
  })
  await bin(returned)
  const now = test_.clock.now()
  test_.clock.set(new Date(now.getTime() + 31 * 24 * 3600 * 1000))
  await test_.server.retention.run()
  const [left] = await test_.manager.query<{ pieces: number; decisions: number }[]>(
    `select (select count(*)::int from piece where id = $1) as pieces,
       (select count(*)::int from decision where piece_id = $1) as decisions`,
    [returned.id],
  )
  expect(left).toEqual({ pieces: 0, decisions: 0 })
  test_.clock.set(now)
})
