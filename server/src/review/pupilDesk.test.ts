import type { PupilDesk } from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))
beforeEach(() => test_.manager.query('update piece set binned_at = now() where binned_at is null'))

const desk = (who: Person = school.teacher, pupilId = school.ids.wren) =>
  who.ask<PupilDesk>('GET', `/review/pupils/${pupilId}`)
const decide = (id: string, seenVersion: number, move: 'approve' | 'send-back') =>
  school.teacher.ask('POST', `/review/pieces/${id}`, { move, message: 'Once more.', seenVersion })

test('now: what waits, then what came back, then what is half done; the year: what was approved', async () => {
  const draft = await school.draft()
  const returned = await school.submitted()
  await decide(returned.id, returned.version, 'send-back')
  const waits = await school.submitted()
  const approved = await school.approved()
  const { body } = await desk()
  expect(body.now.map(({ id, state }) => [id, state])).toEqual([
    [waits.id, 'submitted'],
    [returned.id, 'returned'],
    [draft.id, 'draft'],
  ])
  expect(body.year).toMatchObject([
    {
      ...{ id: approved.id, strand: null, state: 'approved' },
      approvedAt: test_.clock.now().toISOString(),
    },
  ])
  expect((await desk(school.teacher, school.ids.tomasz)).body).toEqual({
    ...{ now: [], year: [], binned: [] },
  })
})

test('what is bettered stands in both: as it was approved, and as it is worked on', async () => {
  const piece = await school.approved()
  await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, { seenVersion: piece.version })
  const { now, year } = (await desk()).body
  expect(now.map(({ id, state }) => [id, state])).toEqual([[piece.id, 'draft']])
  expect(year.map(({ id, state }) => [id, state])).toEqual([[piece.id, 'approved']])
})

test('says the strand, and leaves earlier years out', async () => {
  const piece = await school.approved()
  const [strand] = await test_.manager.query<{ id: string }[]>(
    "insert into strand (id, school_id, name, position) select gen_random_uuid(), id, 'Number', 99 from school returning id",
  )
  await test_.manager.query('update folder set strand_id = $1 where id = $2', [
    ...[strand!.id, school.ids.open],
  ])
  expect((await desk()).body.year[0]!.strand).toBe('Number')
  await test_.manager.query("update piece set approved_at = '2026-06-01' where id = $1", [piece.id])
  expect((await desk()).body.year).toEqual([])
})

test('is for the pupil’s own teachers', async () => {
  for (const who of [school.otherTeacher, school.wren, school.parent])
    expect((await desk(who)).status).toBe(404)
  expect((await desk(test_.visitor())).status).toBe(401)
})
