import { v7 as newId } from 'uuid'
import {
  type Person,
  picture,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const start = async (folderId = school.ids.open) => {
  const id = newId()
  await school.teacher.ask('PUT', `/pieces/for-everyone/${id}`, {
    classId: school.ids.heron,
    folderId,
    title: 'Walk',
    instructions: '',
  })
  return id
}
const pieceOf = async (classPieceId: string, pupilId: string) =>
  (
    await test_.manager.query<{ id: string; state: string }[]>(
      'select id, state from piece where class_piece_id = $1 and pupil_id = $2',
      [classPieceId, pupilId],
    )
  )[0]!
const addPhoto = async (person: Person, pieceId: string, mediaId: string) =>
  person.ask('PUT', `/pieces/${pieceId}/parts/${newId()}`, {
    kind: 'photo',
    files: { picture: mediaId },
    name: '',
  })

test('closing hands in what has something in it and leaves the rest, in one step', async () => {
  const id = await start()
  const [wrens, tomaszs] = [
    await pieceOf(id, school.ids.wren),
    await pieceOf(id, school.ids.tomasz),
  ]
  const { mediaId } = await school.wren.upload(await picture())
  await addPhoto(school.wren, wrens.id, mediaId)
  expect((await school.teacher.ask('POST', `/pieces/for-everyone/${id}/close`)).status).toBe(200)
  expect((await pieceOf(id, school.ids.wren)).state).toBe('submitted')
  expect((await pieceOf(id, school.ids.tomasz)).state).toBe('draft')
  const late = await school.tomasz.upload(await picture(300, 300, '#aa0000'))
  expect((await addPhoto(school.tomasz, tomaszs.id, late.mediaId)).body.type).toBe(
    '/problems/piece/closed',
  )
})

test('a photo added while it is closed is either handed in or refused, never left between', async () => {
  const { mediaId } = await school.wren.upload(await picture(320, 240, '#00aa00'))
  const outcomes = new Set<string>()
  for (let round = 0; round < 12; round++) {
    const id = await start()
    const { id: pieceId } = await pieceOf(id, school.ids.wren)
    const [added, closed] = await Promise.all([
      addPhoto(school.wren, pieceId, mediaId),
      school.teacher.ask('POST', `/pieces/for-everyone/${id}/close`),
    ])
    expect(closed.status).toBe(200)
    const { state } = await pieceOf(id, school.ids.wren)
    const outcome = `${added.status} ${state}`
    expect(['200 submitted', '409 draft']).toContain(outcome)
    outcomes.add(outcome)
  }
  expect(outcomes.size).toBeGreaterThan(0)
})

test('when one of them cannot be handed in, nothing has happened: it is not closed, and nobody’s piece has moved', async () => {
  const id = await start(school.ids.closed)
  for (const [person, pupilId] of [
    [school.wren, school.ids.wren],
    [school.tomasz, school.ids.tomasz],
  ] as const) {
    const { mediaId } = await person.upload(await picture(200, 200, '#0000aa'))
    await addPhoto(person, (await pieceOf(id, pupilId)).id, mediaId)
  }
  // The second of the two has chosen a folder that was put away since.
  const last = [await pieceOf(id, school.ids.wren), await pieceOf(id, school.ids.tomasz)].sort(
    (a, b) => a.id.localeCompare(b.id),
  )[1]!
  await test_.manager.query('update piece set folder_id = $1 where id = $2', [
    school.ids.whole,
    last.id,
  ])
  await test_.manager.query('update folder set put_away_at = now() where id = $1', [
    school.ids.whole,
  ])
  const refused = await school.teacher.ask('POST', `/pieces/for-everyone/${id}/close`)
  expect([refused.status, refused.body.type]).toEqual([409, '/problems/folder/put-away'])
  expect((await pieceOf(id, school.ids.wren)).state).toBe('draft')
  expect((await pieceOf(id, school.ids.tomasz)).state).toBe('draft')
  await test_.manager.query('update folder set put_away_at = null where id = $1', [
    school.ids.whole,
  ])
  expect((await school.teacher.ask('POST', `/pieces/for-everyone/${id}/close`)).status).toBe(200)
  expect((await pieceOf(id, school.ids.tomasz)).state).toBe('submitted')
})
