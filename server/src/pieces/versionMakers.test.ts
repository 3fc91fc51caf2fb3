import type { ChildWork, FolderDetail, Piece, Portfolio, WorkNews } from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const consent = (pupilId: string, granted: boolean) =>
  school.teacher.ask('PUT', `/sharing/pupils/${pupilId}/consents/sharing`, { granted })
const makers = (piece: Piece, makerIds: string[]) =>
  school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds })
const move = (piece: Piece, name: string) =>
  school.wren.ask('POST', `/pieces/${piece.id}/${name}`, { seenVersion: piece.version })
const approve = async (piece: Piece) =>
  (
    await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
      move: 'approve',
      message: '',
      seenVersion: piece.version,
    })
  ).body
const atHome = async (parent: Person, pupilId: string) => {
  const { body } = await parent.ask<ChildWork>('GET', `/sharing/children/${pupilId}`)
  return body.chapters?.flatMap(({ pieces }) => pieces.map(({ id }) => id)) ?? []
}
const inPortfolio = async (person: Person, pupilId: string) => {
  const { body } = await person.ask<Portfolio>('GET', `/portfolio/${pupilId}`)
  return body.chapters.flatMap(({ others, picks }) => [
    ...others.map(({ id }) => id),
    ...picks.map(({ pieceId }) => pieceId),
  ])
}
/** Wren and Tomasz made it, it is approved, and Wren has begun another go. */
async function madeTogether(): Promise<{ approved: Piece; again: Piece }> {
  const draft = (await makers(await school.draft(), [school.ids.tomasz])).body
  const approved = await approve((await move(draft, 'hand-in')).body)
  return { approved, again: (await move(approved, 'another-go')).body }
}

beforeEach(async () => {
  for (const pupilId of [school.ids.wren, school.ids.tomasz]) await consent(pupilId, true)
})

test('leaving a classmate without consent out of another go does not show at home what was made with them', async () => {
  await consent(school.ids.tomasz, false)
  const { approved, again } = await madeTogether()
  expect(await atHome(school.parent, school.ids.wren)).not.toContain(approved.id)
  const alone = (await makers(again, [])).body
  expect(alone.makers.map(({ id }) => id)).toEqual([school.ids.wren])
  expect(await atHome(school.parent, school.ids.wren)).not.toContain(approved.id)
  expect(
    (await school.parent.ask('GET', `/media/${pictureOf(approved.parts[0])}/320`)).status,
  ).toBe(404)

  // Only when the go without them is approved: that version was made by Wren alone.
  await approve((await move(alone, 'hand-in')).body)
  expect(await atHome(school.parent, school.ids.wren)).toContain(approved.id)
})

test('a classmate who joins another go is not shown what was approved before, nor are their parents', async () => {
  await test_.manager.query(
    'insert into guardian (parent_id, pupil_id) values ($1, $2) on conflict do nothing',
    [school.ids.aoifesParent, school.ids.tomasz],
  )
  const approved = await school.approved()
  const again = (await move(approved, 'another-go')).body
  const together = (await makers(again, [school.ids.tomasz])).body
  expect(await atHome(school.otherParent, school.ids.tomasz)).not.toContain(approved.id)
  expect(
    (await school.otherParent.ask('GET', `/media/${pictureOf(approved.parts[0])}/320`)).status,
  ).toBe(404)
  expect(await inPortfolio(school.tomasz, school.ids.tomasz)).not.toContain(approved.id)
  expect(
    (
      await school.tomasz.ask('PUT', `/portfolio/${school.ids.tomasz}/picks/${approved.id}`, {
        reason: 'mine',
      })
    ).status,
  ).toBe(404)

  await approve((await move(together, 'hand-in')).body)
  expect(await atHome(school.otherParent, school.ids.tomasz)).toContain(approved.id)
  expect(await inPortfolio(school.tomasz, school.ids.tomasz)).toContain(approved.id)
})

test('who is left out of another go keeps what they made: to look at, not to change, and without the go they are not part of', async () => {
  const { approved, again } = await madeTogether()
  const alone = (await makers(again, [])).body
  await school.wren.ask('PATCH', `/pieces/${alone.id}`, {
    seenVersion: alone.version,
    title: 'Mine alone',
  })
  const seen = await school.tomasz.ask('GET', `/pieces/${approved.id}`)
  expect([seen.status, seen.body.title, seen.body.state, seen.body.mayChange]).toEqual([
    200,
    approved.title,
    'approved',
    false,
  ])
  expect(seen.body.versions.map(({ number }) => number)).toEqual([1])
  expect(seen.body.makers.map(({ firstName }) => firstName)).toEqual(['tomasz', 'wren'])
  expect(
    (await school.tomasz.ask('PATCH', `/pieces/${approved.id}`, { seenVersion: 1, title: 'no' }))
      .status,
  ).toBe(404)
  expect(
    (await school.tomasz.ask('POST', `/pieces/${approved.id}/hand-in`, { seenVersion: 1 })).status,
  ).toBe(404)
  expect(await inPortfolio(school.tomasz, school.ids.tomasz)).toContain(approved.id)
  const folder = await school.tomasz.ask<FolderDetail>('GET', `/folders/${school.ids.open}`)
  expect(folder.body.pieces.map(({ id }) => id)).toContain(approved.id)
  expect(
    (await school.tomasz.fetch('GET', `/media/${pictureOf(approved.parts[0])}/320`)).status,
  ).toBe(200)

  // Approved without them, it is theirs no more, and no news of theirs.
  await approve(
    (await move((await school.wren.ask('GET', `/pieces/${alone.id}`)).body, 'hand-in')).body,
  )
  expect((await school.tomasz.ask('GET', `/pieces/${approved.id}`)).status).toBe(404)
  expect(await inPortfolio(school.tomasz, school.ids.tomasz)).not.toContain(approved.id)
  const news = await school.tomasz.ask<WorkNews[]>('GET', '/notices/news')
  expect(
    news.body.filter(({ pieceId }) => pieceId === approved.id).map(({ pieceTitle }) => pieceTitle),
  ).toEqual([approved.title])
})

test('each version says who made it', async () => {
  const { again } = await madeTogether()
  const alone = (await makers(again, [])).body
  const handedIn = (await move(alone, 'hand-in')).body
  expect(
    handedIn.versions.map(({ number, makers: made }) => [
      number,
      made.map(({ firstName }) => firstName),
    ]),
  ).toEqual([
    [2, ['wren']],
    [1, ['tomasz', 'wren']],
  ])
})

test('what is in a folder is not thrown away by way of another go', async () => {
  const approved = await school.approved()
  await move(approved, 'another-go')
  const thrown = await school.wren.ask('DELETE', `/pieces/${approved.id}`)
  expect([thrown.status, thrown.body.type]).toEqual([409, '/problems/piece/in-folder'])
  expect(await atHome(school.parent, school.ids.wren)).toContain(approved.id)
})
