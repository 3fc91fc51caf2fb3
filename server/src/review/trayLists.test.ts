import type { Drafts, MyPieces, Nudged, Piece, Tray } from '@nibquill/contract'
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
beforeEach(async () => {
  // Whoever is signed in stays so, however the clock is set.
  await test_.manager.query("update session set expires_at = '2030-01-01', ends_at = null")
  await test_.manager.query("update piece set binned_at = now() where state <> 'approved'")
})

/** @param dueAt - Of its task; null for one that is never due. */
async function handedIn(title: string, dueAt: Date | null, person: Person = school.wren) {
  const taskId = newId()
  await test_.manager.query(
    `insert into task select (jsonb_populate_record(t, jsonb_build_object('id', $1::uuid, 'due_at', $2::timestamptz))).* from task t where id = $3`,
    [taskId, dueAt, school.ids.task],
  )
  const piece = await school.submitted({ person })
  await test_.manager.query('update piece set task_id = $2, title = $3 where id = $1', [
    ...[piece.id, taskId, title],
  ])
  return piece
}
const tray = async (query = '', who = school.teacher) =>
  (await who.ask<Tray>('GET', `/review/tray${query}`)).body
const titles = ({ pieces }: Tray | Drafts) => pieces.map(({ title }) => title)
const hours = (count: number) => new Date(test_.clock.now().getTime() + count * 3_600_000)

test('in the order it was handed in, or what is due first first; what came too late is marked', async () => {
  await handedIn('no day', null)
  await handedIn('in a week', hours(170))
  await handedIn('yesterday', hours(-20))
  await handedIn('tomorrow', hours(20))
  expect(titles(await tray())).toEqual(['no day', 'in a week', 'yesterday', 'tomorrow'])
  const due = await tray('?order=due')
  expect(titles(due)).toEqual(['yesterday', 'tomorrow', 'in a week', 'no day'])
  expect(due.pieces.map(({ late }) => late)).toEqual([true, false, false, false])
  expect((await school.teacher.ask('GET', '/review/tray?order=newest')).status).toBe(400)
})
test('page by page in each order nothing is passed over and nothing comes twice', async () => {
  for (let i = 0; i < 4; i++) await handedIn(`piece ${i}`, i % 2 ? hours(10 * i) : null)
  const [first] = await test_.manager.query<{ id: string }[]>(
    "select id from piece where title = 'piece 0' and binned_at is null",
  )
  // Fifty more than a page holds, as the first.
  await test_.manager.query(
    `insert into piece select (jsonb_populate_record(p, jsonb_build_object('id', gen_random_uuid(), 'title', 'more ' || i))).*
     from piece p, generate_series(1, 60) i where p.id = $1`,
    [first!.id],
  )
  for (const order of ['oldest', 'due']) {
    const found: string[] = []
    for (let after: string | null = ''; after !== null;) {
      const page: Tray = await tray(`?order=${order}${after ? `&after=${after}` : ''}`)
      found.push(...page.pieces.map(({ id }) => id))
      after = page.next
    }
    expect([order, found.length, new Set(found).size]).toEqual([order, 64, 64])
  }
})
test('of one class, its pieces and its counts; of a class of somebody else’s, nothing', async () => {
  await handedIn('ours', null)
  const { heron, plover } = school.ids
  expect(await tray(`?classId=${heron}`)).toMatchObject({ waiting: 1, pieces: [{ title: 'ours' }] })
  for (const classId of [plover, newId()])
    expect(await tray(`?classId=${classId}`)).toMatchObject({ waiting: 0, drafts: 0, pieces: [] })
})

describe('what is not handed in', () => {
  const drafts = async (who = school.teacher) =>
    (await who.ask<Drafts>('GET', '/review/drafts')).body
  const nudge = (pieceIds: string[], who = school.teacher) =>
    who.ask<Nudged>('POST', '/review/drafts/nudge', { pieceIds })
  const mine = async () => (await school.wren.ask<MyPieces>('GET', '/pieces')).body.pieces

  test('is listed where something is in it, and counted so', async () => {
    await school.wren.ask('PUT', `/pieces/${newId()}`, { taskId: null })
    const piece = await school.draft()
    expect((await drafts()).pieces.map(({ id }) => id)).toEqual([piece.id])
    expect((await tray()).drafts).toBe(1)
    expect((await drafts(school.otherTeacher)).pieces).toEqual([])
    for (const who of [school.wren, school.parent])
      expect((await who.ask('GET', '/review/drafts')).status).toBe(404)
  })
  test('is asked for on its makers’ desks, until it is handed in; taken out again it is not asked for any more', async () => {
    const piece = await school.draft()
    expect((await mine())[0]).toMatchObject({ id: piece.id, nudgedAt: null })
    expect((await nudge([piece.id])).body).toEqual({ asked: 1 })
    expect((await mine())[0]!.nudgedAt).toBe(test_.clock.now().toISOString())
    const { version } = (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body
    // Who works on it is not disturbed.
    expect(version).toBe(piece.version)
    const { body } = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/hand-in`, {
      seenVersion: version,
    })
    expect((await nudge([piece.id])).body).toEqual({ asked: 0 })
    await school.wren.ask('POST', `/pieces/${piece.id}/withdraw`, { seenVersion: body.version })
    expect((await mine())[0]).toMatchObject({ state: 'draft', nudgedAt: null })
  })
  test('is asked for by teachers of its class only, all of them or none', async () => {
    const piece = await school.draft()
    for (const who of [school.otherTeacher, school.wren, school.parent])
      expect((await nudge([piece.id], who)).status).toBe(404)
    const theirs = await school.draft({ person: school.aoife, folderId: school.ids.whole })
    expect((await nudge([piece.id, theirs.id])).status).toBe(404)
    expect((await mine())[0]!.nudgedAt).toBeNull()
    expect((await nudge([])).status).toBe(400)
  })
})
