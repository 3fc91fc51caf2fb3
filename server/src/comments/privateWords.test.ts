import type { Comments, News, OpenedPrivateWords } from '@nibquill/contract'
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
let teacherId: string
useSmallSchool((opened) => ({ test: test_, school } = opened))
beforeAll(async () => {
  const [row] = await test_.manager.query<{ id: string }[]>(
    "select id from person where email = 'a@saltmarsh.example'",
  )
  teacherId = row!.id
})
beforeEach(() => test_.manager.query('delete from private_word'))

const say = (who: Person, pieceId: string, withId: string, words: string, id = newId()) =>
  who.ask('PUT', `/comments/private/${id}`, { pieceId, withId, words })
const read = async (who: Person, pieceId: string) =>
  (await who.ask<Comments>('GET', `/comments/pieces/${pieceId}`)).body
const wordsOf = async (who: Person, pieceId: string) =>
  (await read(who, pieceId)).privateWords.map(({ words }) => words)
const news = async (who: Person) =>
  (await who.ask<v.InferOutput<typeof News>>('GET', '/notices/news')).body
const together = async () => {
  const piece = await school.draft()
  await school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds: [school.ids.tomasz] })
  return piece
}

test('is read by the two of them, and by nobody else who sees the piece', async () => {
  const piece = await together()
  expect((await read(school.wren, piece.id)).with).toEqual([{ id: teacherId, name: 'Mr Adeyemi' }])
  expect((await read(school.teacher, piece.id)).with.map(({ name }) => name)).toEqual([
    'tomasz',
    'wren',
  ])
  expect((await say(school.wren, piece.id, teacherId, 'I am stuck.')).status).toBe(200)
  expect((await say(school.teacher, piece.id, school.ids.wren, 'Come to me.')).status).toBe(200)
  expect(await wordsOf(school.wren, piece.id)).toEqual(['I am stuck.', 'Come to me.'])
  expect(await wordsOf(school.teacher, piece.id)).toEqual(['I am stuck.', 'Come to me.'])
  expect(await wordsOf(school.tomasz, piece.id)).toEqual([])
  await say(school.teacher, piece.id, school.ids.tomasz, 'And you?')
  expect(await wordsOf(school.tomasz, piece.id)).toEqual(['And you?'])
  expect(await wordsOf(school.wren, piece.id)).toHaveLength(2)
})

test('another teacher of the class reads none of it', async () => {
  const piece = await school.submitted()
  await say(school.wren, piece.id, teacherId, 'Just you.')
  const [other] = await test_.manager.query<{ id: string }[]>(
    "select id from person where email = 'o@saltmarsh.example'",
  )
  await test_.manager.query('insert into enrolment (class_id, person_id) values ($1, $2)', [
    ...[school.ids.heron, other!.id],
  ])
  expect(await wordsOf(school.otherTeacher, piece.id)).toEqual([])
  expect((await read(school.wren, piece.id)).with).toHaveLength(2)
  await test_.manager.query('delete from enrolment where class_id = $1 and person_id = $2', [
    ...[school.ids.heron, other!.id],
  ])
})

test('is said to those who teach or make it only, by those who may', async () => {
  const piece = await school.approved()
  const refused = [
    await say(school.wren, piece.id, school.ids.tomasz, 'Psst'),
    await say(school.teacher, piece.id, school.ids.aoife, 'Psst'),
  ]
  for (const { status, body } of refused)
    expect([status, body.type]).toEqual([422, '/problems/comment/not-for-you'])
  for (const who of [school.parent, school.aoife, school.otherTeacher, school.tomasz])
    expect((await say(who, piece.id, teacherId, 'Psst')).status).toBe(404)
  expect(await read(school.parent, piece.id)).toMatchObject({ privateWords: [], with: [] })
})

test('is news to the other: in words to a pupil, as a hint to a teacher', async () => {
  const piece = await school.submitted()
  await say(school.wren, piece.id, teacherId, 'A secret.')
  expect((await news(school.teacher))[0]).toMatchObject({
    ...{ kind: 'private-word', from: 'wren', words: '', pieceId: piece.id },
  })
  await say(school.teacher, piece.id, school.ids.wren, 'I see.')
  expect((await news(school.wren))[0]).toMatchObject({
    ...{ kind: 'private-word', from: 'Mr Adeyemi', words: 'I see.' },
  })
})

test('whoever does not make it any more reads it no more, not even as news', async () => {
  const piece = await together()
  await say(school.teacher, piece.id, school.ids.tomasz, 'Only for Tomasz.')
  await school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds: [] })
  expect((await school.tomasz.ask('GET', `/comments/pieces/${piece.id}`)).status).toBe(404)
  expect(JSON.stringify(await news(school.tomasz))).not.toContain('Only for Tomasz.')
})

test('the same word twice is said once', async () => {
  const piece = await school.submitted()
  const id = newId()
  await say(school.wren, piece.id, teacherId, 'Once', id)
  await say(school.wren, piece.id, teacherId, 'Once', id)
  expect(await wordsOf(school.wren, piece.id)).toEqual(['Once'])
  expect((await say(school.teacher, piece.id, school.ids.wren, 'Mine', id)).status).toBe(404)
})

describe('opened by whoever leads the school', () => {
  const open = (who: Person, pupilId: string, reason = 'A worry was passed on.') =>
    who.ask<OpenedPrivateWords>('POST', '/comments/private/open', { pupilId, reason })

  test('shows all of one pupil’s, and is noted with its reason', async () => {
    const [piece, other] = [await school.submitted(), await school.submitted()]
    await say(school.wren, piece.id, teacherId, 'One')
    await say(school.teacher, other.id, school.ids.wren, 'Two')
    const { body } = await open(school.teacher, school.ids.wren)
    expect(body.map(({ words }) => words)).toEqual(['One', 'Two'])
    expect(body[0]).toMatchObject({
      ...{ pieceId: piece.id, title: 'Rock pool crab', teacherName: 'Mr Adeyemi' },
      pupil: { id: school.ids.wren },
    })
    const [noted] = await test_.manager.query<{ personId: string; details: object }[]>(
      `select person_id as "personId", details from audit where action = 'private-words.open' order by happened_at desc limit 1`,
    )
    expect(noted).toEqual({
      ...{ personId: teacherId, details: { reason: 'A worry was passed on.' } },
    })
  })

  test('by nobody else, and never without a reason', async () => {
    for (const who of [school.otherTeacher, school.wren, school.parent])
      expect((await open(who, school.ids.wren)).status).toBe(404)
    expect((await open(test_.visitor(), school.ids.wren)).status).toBe(401)
    expect((await open(school.teacher, school.ids.wren, ' ')).status).toBe(400)
    expect((await open(school.teacher, school.ids.wrensParent)).status).toBe(404)
  })
})
