import type { ChildWork, FolderDetail, Piece, Tray, WorkNews } from '@nibquill/contract'
import { DECISION_OPEN_MS } from '@nibquill/core'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const takeBack = (piece: Piece, by: Person = school.teacher) =>
  by.ask('POST', `/review/pieces/${piece.id}/take-back`, { seenVersion: piece.version })
const decide = (piece: Piece, move: 'approve' | 'send-back', message = '') =>
  school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    move,
    message,
    seenVersion: piece.version,
  })
const inTray = async () =>
  (await school.teacher.ask<Tray>('GET', '/review/tray')).body.pieces.map(({ id }) => id)
const newsOf = async (pieceId: string) =>
  (await school.wren.ask<WorkNews[]>('GET', '/notices/news')).body.filter(
    (item) => item.pieceId === pieceId,
  )
const inFolder = async () =>
  (await school.wren.ask<FolderDetail>('GET', `/folders/${school.ids.open}`)).body.pieces.map(
    ({ id }) => id,
  )
const atHome = async () => {
  const { body } = await school.parent.ask<ChildWork>('GET', `/sharing/children/${school.ids.wren}`)
  return (body.chapters ?? []).flatMap(({ pieces }) => pieces.map(({ id }) => id))
}
const goAgain = async (piece: Piece) => {
  const draft = (
    await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, { seenVersion: piece.version })
  ).body
  return (
    await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, { seenVersion: draft.version })
  ).body
}

beforeAll(() =>
  school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/consents/sharing`, {
    granted: true,
  }),
)

test('an approval just made is taken back: it waits in the tray, and is nowhere else', async () => {
  const approved = await school.approved()
  expect(await inFolder()).toContain(approved.id)
  expect(await atHome()).toContain(approved.id)
  const { status, body } = await takeBack(approved)
  expect([status, body.state, body.approved]).toEqual([200, 'submitted', false])
  expect(body.versions[0]?.decision).toBeNull()
  expect(await inTray()).toContain(approved.id)
  expect(await inFolder()).not.toContain(approved.id)
  expect(await atHome()).not.toContain(approved.id)
  expect(await newsOf(approved.id)).toEqual([])
  // And can be decided otherwise.
  expect((await decide(body, 'send-back', 'Add labels.')).body.state).toBe('returned')
})

test('sent back by mistake: taken back, it lies in the tray as it was handed in', async () => {
  const piece = await school.submitted()
  const returned = (await decide(piece, 'send-back', 'Add labels.')).body
  const { body } = await takeBack(returned)
  expect([body.state, body.reflection]).toEqual(['submitted', piece.reflection])
  expect(await newsOf(piece.id)).toEqual([])
})

test('a later go’s approval taken back leaves the earlier one where it was, filed where it was', async () => {
  const first = await school.approved()
  const second = await goAgain(first)
  const elsewhere = (
    await school.teacher.ask('POST', `/review/pieces/${second.id}`, {
      move: 'approve',
      message: '',
      folderId: school.ids.whole,
      seenVersion: second.version,
    })
  ).body
  const { body } = await takeBack(elsewhere)
  expect([body.state, body.approved]).toEqual(['submitted', true])
  expect(await inFolder()).toContain(first.id)
  expect(await newsOf(first.id)).toHaveLength(1)
})

test.each([
  {
    why: 'once the pupil has begun another go',
    meanwhile: async (piece: Piece) =>
      void (await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, {
        seenVersion: piece.version,
      })),
    type: '/problems/piece/stale',
  },
  {
    why: 'after a minute',
    meanwhile: async () =>
      test_.clock.set(new Date(test_.clock.now().getTime() + DECISION_OPEN_MS + 1)),
    type: '/problems/piece/decided-earlier',
  },
])('not $why', async ({ meanwhile, type }) => {
  const approved = await school.approved()
  await meanwhile(approved)
  expect((await takeBack(approved)).body.type).toBe(type)
  expect(await inFolder()).toContain(approved.id)
})

test('nobody takes back what is not decided, what another decided, or what they may not judge', async () => {
  const waiting = await school.submitted()
  expect((await takeBack(waiting)).body.type).toBe('/problems/piece/move-refused')
  const approved = await school.approved()
  for (const stranger of [school.otherTeacher, school.wren, school.parent])
    expect((await takeBack(approved, stranger)).status).toBe(404)
  expect((await takeBack({ ...approved, version: 1 })).body.type).toBe('/problems/piece/stale')
})
