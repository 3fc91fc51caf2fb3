import type { Piece, SecondLook } from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))
beforeEach(() => test_.manager.query('delete from second_look'))

const ask = (pieceId: string, reason = 'Number bonds again.', who: Person = school.teacher) =>
  who.ask<SecondLook[]>('PUT', `/review/pieces/${pieceId}/second-look`, { reason })
const list = async (who: Person = school.teacher) =>
  (await who.ask<SecondLook[]>('GET', '/review/second-looks')).body
const tick = (pieceId: string, move: 'done' | 'restore', who: Person = school.teacher) =>
  who.ask<SecondLook[]>('POST', `/review/pieces/${pieceId}/second-look/${move}`)

test('is kept with its reason until it is ticked; the tick can be taken back', async () => {
  const piece = await school.submitted()
  await ask(piece.id)
  const { body } = await ask(piece.id, 'Takes ten from ten.')
  expect(body).toMatchObject([
    {
      ...{ pieceId: piece.id, title: 'Rock pool crab', reason: 'Takes ten from ten.' },
      pupil: { id: school.ids.wren, firstName: 'wren' },
      askedAt: test_.clock.now().toISOString(),
    },
  ])
  expect((await tick(piece.id, 'done')).body).toEqual([])
  expect((await tick(piece.id, 'restore')).body).toHaveLength(1)
})
test('says the strand of its task, or of its folder', async () => {
  const piece = await school.submitted()
  const [strand] = await test_.manager.query<{ id: string; name: string }[]>(
    "insert into strand (id, school_id, name, position) select gen_random_uuid(), id, 'Number', 99 from school returning id, name",
  )
  await ask(piece.id)
  expect((await list())[0]!.strand).toBeNull()
  await test_.manager.query('update folder set strand_id = $1 where id = $2', [
    ...[strand!.id, school.ids.open],
  ])
  expect((await list())[0]!.strand).toBe('Number')
})
test('stays when the piece goes back and comes again; goes with a piece that is thrown away', async () => {
  const piece = await school.submitted()
  await ask(piece.id)
  await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    ...{ move: 'send-back', message: 'One more.', seenVersion: piece.version },
  })
  expect(await list()).toHaveLength(1)
  await test_.manager.query('update piece set binned_at = now() where id = $1', [piece.id])
  expect(await list()).toEqual([])
})
test('is for teachers of the class: nobody else marks, ticks, lists or reads one', async () => {
  const piece = await school.approved()
  await ask(piece.id, 'Only for us.')
  for (const who of [school.wren, school.parent, school.otherTeacher]) {
    expect((await ask(piece.id, 'Mine', who)).status).toBe(404)
    expect((await tick(piece.id, 'done', who)).status).toBe(404)
  }
  for (const who of [school.wren, school.parent])
    expect((await who.ask('GET', '/review/second-looks')).status).toBe(404)
  expect(await list(school.otherTeacher)).toEqual([])
  const reads: [Person, string][] = [
    [school.wren, `/pieces/${piece.id}`],
    [school.wren, '/pieces'],
    [school.wren, '/notices/news'],
    [school.wren, `/portfolio/${school.ids.wren}`],
    [school.parent, `/sharing/children/${school.ids.wren}`],
  ]
  for (const [who, address] of reads) {
    const { status, body } = await who.ask<Piece>('GET', address)
    expect(status).toBe(200)
    expect(JSON.stringify(body)).not.toContain('Only for us')
  }
  expect(await list()).toHaveLength(1)
})
