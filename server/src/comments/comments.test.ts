import type { Comments, News, WaitingComment } from '@nibquill/contract'
import { MAX_COMMENTS, MAX_WAITING_COMMENTS } from '@nibquill/core'
import type * as v from 'valibot'
import { v7 as newId } from 'uuid'
import { recording } from '../testing/madeFiles.ts'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))
beforeEach(() => test_.manager.query('delete from comment'))

const say = (
  who: Person,
  pieceId: string,
  words: string,
  more: { id?: string; answersId?: string; voiceId?: string; thoughts?: boolean } = {},
) => {
  const { id = newId(), ...rest } = more
  return who.ask('PUT', `/comments/${id}`, { pieceId, words, ...rest })
}
const read = (who: Person, pieceId: string) =>
  who.ask<Comments>('GET', `/comments/pieces/${pieceId}`)
const wordsOf = async (who: Person, pieceId: string) =>
  (await read(who, pieceId)).body.comments.map(({ words }) => words)
const waiting = async (who: Person = school.teacher) =>
  (await who.ask<WaitingComment[]>('GET', '/comments/waiting')).body
const decide = (
  id: string,
  move: 'show' | 'hide',
  more: { seenState?: string; why?: string } = {},
  who: Person = school.teacher,
) => who.ask('POST', `/comments/${id}/${move}`, { seenState: 'waiting', ...more })
const news = async (who: Person) =>
  (await who.ask<v.InferOutput<typeof News>>('GET', '/notices/news')).body
const madeTogether = async () => {
  const piece = await school.draft()
  await school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds: [school.ids.tomasz] })
  const { version } = (await school.wren.ask('GET', `/pieces/${piece.id}`)).body
  await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, { seenVersion: version })
  const seenVersion = (await school.wren.ask('GET', `/pieces/${piece.id}`)).body.version
  const decided = { move: 'approve', message: '', seenVersion }
  return (await school.teacher.ask('POST', `/review/pieces/${piece.id}`, decided)).body
}

describe('what each thinks of what they made together', () => {
  const thoughts = { thoughts: true }
  test('waits as everything does; once shown, its makers and its author’s own family read it', async () => {
    await test_.manager.query(
      'insert into guardian (parent_id, pupil_id) values ($1, $2) on conflict do nothing',
      [school.ids.aoifesParent, school.ids.tomasz],
    )
    const piece = await madeTogether()
    expect((await say(school.wren, piece.id, 'I did the legs.', thoughts)).status).toBe(200)
    await say(school.tomasz, piece.id, 'I did the claws.', thoughts)
    const both = [school.parent, school.otherParent]
    for (const parent of both) expect(await wordsOf(parent, piece.id)).toEqual([])
    const [legs] = await waiting()
    expect(legs).toMatchObject({ words: 'I did the legs.', thoughts: true, state: 'waiting' })
    await decide(legs!.id, 'show')
    expect(await wordsOf(school.parent, piece.id)).toEqual(['I did the legs.'])
    expect(await wordsOf(school.otherParent, piece.id)).toEqual([])
    expect(await wordsOf(school.tomasz, piece.id)).toEqual(['I did the legs.', 'I did the claws.'])
    // What is only said about it stays at school, and what is hidden again is gone from home.
    await say(school.wren, piece.id, 'Can we hang it up?')
    await decide((await waiting()).at(-1)!.id, 'show')
    expect(await wordsOf(school.parent, piece.id)).toEqual(['I did the legs.'])
    await decide(legs!.id, 'hide', { seenState: 'shown' })
    expect(await wordsOf(school.parent, piece.id)).toEqual([])
    await test_.manager.query('delete from guardian where pupil_id = $1', [school.ids.tomasz])
  })

  test('is for what several made and a teacher approved', async () => {
    const alone = await school.approved()
    const draft = await school.draft()
    await school.wren.ask('PUT', `/pieces/${draft.id}/makers`, { makerIds: [school.ids.tomasz] })
    for (const [who, { id }] of [
      [school.wren, alone],
      [school.wren, draft],
      [school.teacher, await madeTogether()],
    ] as const)
      expect((await say(who, id, 'Mine.', thoughts)).body.type).toBe('/problems/piece/not-together')
  })
})

describe('what is said', () => {
  test('by a teacher is seen by the makers at once, and is news to them', async () => {
    const piece = await school.submitted()
    await say(school.teacher, piece.id, 'Look at its eyes again.')
    const { comments } = (await read(school.wren, piece.id)).body
    expect(comments).toMatchObject([
      {
        ...{ words: 'Look at its eyes again.', state: 'shown', answersId: null, voice: null },
        by: { name: 'Mr Adeyemi', role: 'teacher', peg: null, mine: false },
        saidAt: test_.clock.now().toISOString(),
      },
    ])
    expect((await news(school.wren))[0]).toMatchObject({
      ...{ kind: 'commented', pieceId: piece.id, from: 'Mr Adeyemi', seen: false },
      words: 'Look at its eyes again.',
    })
    expect(await waiting()).toEqual([])
  })

  test('by a pupil or a parent waits: its author and teachers see it, nobody else', async () => {
    const piece = await madeTogether()
    await say(school.wren, piece.id, 'I want to add a tail.')
    await say(school.parent, piece.id, 'What a crab!')
    expect(await wordsOf(school.wren, piece.id)).toEqual(['I want to add a tail.'])
    expect(await wordsOf(school.tomasz, piece.id)).toEqual([])
    expect(await wordsOf(school.parent, piece.id)).toEqual(['What a crab!'])
    expect((await waiting()).map(({ words, by }) => [by.role, words])).toEqual([
      ['pupil', 'I want to add a tail.'],
      ['parent', 'What a crab!'],
    ])
  })

  test('is shown: makers see a classmate’s, and of parents only their own', async () => {
    const piece = await madeTogether()
    await say(school.wren, piece.id, 'I drew the shell.')
    await say(school.parent, piece.id, 'Well done!')
    for (const { id } of await waiting()) expect((await decide(id, 'show')).status).toBe(200)
    expect(await wordsOf(school.wren, piece.id)).toEqual(['I drew the shell.', 'Well done!'])
    expect(await wordsOf(school.tomasz, piece.id)).toEqual(['I drew the shell.'])
    expect(await wordsOf(school.parent, piece.id)).toEqual(['Well done!'])
    const told = async (who: Person) =>
      (await news(who)).filter((item) => item.kind === 'commented' && item.pieceId === piece.id)
    expect(await told(school.tomasz)).toHaveLength(1)
    expect(await told(school.wren)).toHaveLength(1)
    // Whoever is their parent no more says nothing to them any more.
    await test_.manager.query('delete from guardian where parent_id = $1', [school.ids.wrensParent])
    expect(await wordsOf(school.wren, piece.id)).toEqual(['I drew the shell.'])
    expect(await told(school.wren)).toEqual([])
    await test_.manager.query('insert into guardian (parent_id, pupil_id) values ($1, $2)', [
      ...[school.ids.wrensParent, school.ids.wren],
    ])
  })

  test('is hidden and stays: its author sees why, nobody else sees it, and it can be shown after all', async () => {
    const piece = await madeTogether()
    await say(school.wren, piece.id, 'Tomasz did nothing.')
    const [{ id }] = (await waiting()) as [WaitingComment]
    await decide(id, 'hide', { why: 'Say it to him.' })
    expect((await read(school.wren, piece.id)).body.comments).toMatchObject([
      { state: 'hidden', hiddenWhy: 'Say it to him.' },
    ])
    expect(await wordsOf(school.tomasz, piece.id)).toEqual([])
    expect(await wordsOf(school.teacher, piece.id)).toEqual(['Tomasz did nothing.'])
    await decide(id, 'show', { seenState: 'hidden' })
    expect(await wordsOf(school.tomasz, piece.id)).toEqual(['Tomasz did nothing.'])
    await decide(id, 'hide', { seenState: 'shown' })
    await decide(id, 'show', { seenState: 'hidden' })
    const told = (await news(school.tomasz)).filter(
      (item) => 'words' in item && item.words === 'Tomasz did nothing.',
    )
    expect(told).toHaveLength(1)
  })

  test('is decided once: the second teacher is told how it stands', async () => {
    const piece = await school.submitted()
    await say(school.wren, piece.id, 'Hello')
    const [{ id }] = (await waiting()) as [WaitingComment]
    const both = await Promise.all([decide(id, 'show'), decide(id, 'hide')])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const late = both.find(({ status }) => status === 409)!
    expect(late.body).toMatchObject({ type: '/problems/comment/decided-already' })
    expect(['shown', 'hidden']).toContain(late.body.state)
  })

  test('with the same id again is said once, and nobody takes another’s id', async () => {
    const piece = await school.submitted()
    const id = newId()
    const twice = await Promise.all([1, 2, 3].map(() => say(school.wren, piece.id, 'Hi', { id })))
    expect(twice.map(({ status }) => status)).toEqual([200, 200, 200])
    expect(await wordsOf(school.teacher, piece.id)).toEqual(['Hi'])
    const others = await say(school.teacher, piece.id, 'Mine', { id })
    expect([others.status, others.body.type]).toEqual([404, '/problems/comment/not-found'])
  })
})

describe('an answer', () => {
  test('to a parent is seen by that parent and by teachers, by no pupil', async () => {
    const piece = await school.approved()
    const id = newId()
    await say(school.parent, piece.id, 'Can I see it at school?', { id })
    await say(school.teacher, piece.id, 'Come on Friday.', { answersId: id })
    expect(await wordsOf(school.parent, piece.id)).toEqual([
      'Can I see it at school?',
      'Come on Friday.',
    ])
    await decide(id, 'show')
    expect(await wordsOf(school.wren, piece.id)).toEqual(['Can I see it at school?'])
    expect(
      (await news(school.wren)).some((item) => 'words' in item && item.words === 'Come on Friday.'),
    ).toBe(false)
  })

  test('is a teacher’s only, and stands under the same piece', async () => {
    const piece = await school.submitted()
    const other = await school.submitted()
    const id = newId()
    await say(school.wren, piece.id, 'Is it done?', { id })
    expect((await say(school.wren, piece.id, 'Yes', { answersId: id })).status).toBe(404)
    expect((await say(school.teacher, other.id, 'Yes', { answersId: id })).status).toBe(404)
  })
})

describe('who says and reads', () => {
  test('strangers to a piece neither say, nor read, nor decide', async () => {
    const piece = await school.approved()
    const id = newId()
    await say(school.wren, piece.id, 'Only ours.', { id })
    for (const who of [school.aoife, school.otherTeacher, school.otherParent]) {
      expect((await say(who, piece.id, 'Me too')).status).toBe(404)
      expect((await read(who, piece.id)).status).toBe(404)
      expect((await decide(id, 'show', {}, who)).status).toBe(404)
    }
    expect((await decide(id, 'show', {}, school.wren)).status).toBe(404)
    expect((await decide(id, 'show', {}, school.parent)).status).toBe(404)
    expect(await waiting(school.otherTeacher)).toEqual([])
    expect((await school.wren.ask('GET', '/comments/waiting')).status).toBe(404)
  })

  test('a parent under what is shown at home only, and not after consent went', async () => {
    const draft = await school.submitted()
    expect((await say(school.parent, draft.id, 'Nice')).status).toBe(404)
    const closed = await school.approved({ folderId: school.ids.closed })
    expect((await say(school.parent, closed.id, 'Nice')).status).toBe(404)
    const piece = await school.approved()
    await say(school.parent, piece.id, 'Nice')
    const consent = (granted: boolean) =>
      school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/consents/sharing`, { granted })
    await consent(false)
    expect((await read(school.parent, piece.id)).status).toBe(404)
    await consent(true)
    expect(await wordsOf(school.parent, piece.id)).toEqual(['Nice'])
  })

  test('whoever is left out of the next go reads their own, and what answers it', async () => {
    const piece = await madeTogether()
    const id = newId()
    await say(school.tomasz, piece.id, 'I did the legs.', { id })
    await decide(id, 'show')
    await say(school.teacher, piece.id, 'Fine legs.', { answersId: id })
    await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, { seenVersion: piece.version })
    await school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds: [] })
    await say(school.teacher, piece.id, 'Now a background.')
    expect(await wordsOf(school.tomasz, piece.id)).toEqual(['I did the legs.', 'Fine legs.'])
    expect((await say(school.tomasz, piece.id, 'May I?')).status).toBe(404)
  })

  test('nothing of it reaches a page link, a shared piece or a pupil’s piece', async () => {
    const piece = await school.approved()
    await say(school.teacher, piece.id, 'Never at home.')
    for (const [who, address] of [
      [school.parent, `/sharing/children/${school.ids.wren}`],
      [school.wren, `/pieces/${piece.id}`],
      [school.wren, `/portfolio/${school.ids.wren}`],
    ] as const)
      expect(JSON.stringify((await who.ask('GET', address)).body)).not.toContain('Never at home.')
    expect(JSON.stringify((await read(school.parent, piece.id)).body)).not.toContain('Never')
  })
})

describe('a voice', () => {
  test('is heard by those who see the comment, from the moment they do', async () => {
    const piece = await madeTogether()
    const voice = await school.wren.upload(await recording(), { filename: 'voice.webm' })
    const id = newId()
    expect((await say(school.wren, piece.id, '', { id, voiceId: voice.mediaId })).status).toBe(200)
    const hears = async (who: Person) =>
      (await who.fetch('GET', `/media/${voice.mediaId}/full`)).status === 200
    expect(await hears(school.teacher)).toBe(true)
    expect(await hears(school.tomasz)).toBe(false)
    await decide(id, 'show')
    expect(await hears(school.tomasz)).toBe(true)
    expect(await hears(school.parent)).toBe(false)
    expect((await say(school.tomasz, piece.id, '', { voiceId: voice.mediaId })).status).toBe(404)
  })
})

describe('the school’s word list', () => {
  test('names what stands in a comment; whoever leads the school changes it', async () => {
    const piece = await school.submitted()
    const { body } = await school.teacher.ask<{ words: string[] }>('GET', '/comments/held-words')
    expect(body.words).toContain('stupid*')
    await say(school.wren, piece.id, 'That was STUPID, and a crab.')
    expect((await waiting())[0]!.held).toEqual(['stupid*'])
    await school.teacher.ask('PUT', '/comments/held-words', { words: ['crab', 'crab'] })
    expect((await waiting())[0]!.held).toEqual(['crab'])
    for (const who of [school.otherTeacher, school.wren, school.parent])
      expect((await who.ask('PUT', '/comments/held-words', { words: [] })).status).toBe(404)
  })
})

describe('there is an end', () => {
  const fill = (pieceId: string, count: number, state: string) =>
    test_.manager.query(
      `insert into comment (id, piece_id, by_id, words, state, thoughts, hidden_why, said_at)
       select gen_random_uuid(), $1, $2, 'x', $4, false, '', now() from generate_series(1, $3)`,
      [pieceId, school.ids.wren, count, state],
    )
  test('to what waits of one person, and to what stands under one piece', async () => {
    const piece = await school.submitted()
    await fill(piece.id, MAX_WAITING_COMMENTS, 'waiting')
    const waits = await say(school.wren, piece.id, 'More')
    expect([waits.status, waits.body.type]).toEqual([429, '/problems/comment/too-many-waiting'])
    await fill(piece.id, MAX_COMMENTS, 'shown')
    const full = await say(school.teacher, piece.id, 'More')
    expect([full.status, full.body.type]).toEqual([409, '/problems/comment/too-many'])
  })
})

test('each move is noted', async () => {
  const piece = await school.submitted()
  const id = newId()
  await say(school.wren, piece.id, 'Hi', { id })
  await decide(id, 'hide')
  await decide(id, 'show', { seenState: 'hidden' })
  const notes = await test_.manager.query<{ action: string }[]>(
    `select action from audit where subject_id = $1 and details ->> 'commentId' = $2 order by happened_at, id`,
    [piece.id, id],
  )
  expect(notes.map(({ action }) => action)).toEqual(['comment.say', 'comment.hide', 'comment.show'])
})

test('what waits goes with a piece that is thrown away, and comes back with it', async () => {
  const piece = await school.draft()
  await say(school.wren, piece.id, 'Hm')
  await school.wren.ask('DELETE', `/pieces/${piece.id}`)
  expect(await waiting()).toEqual([])
  await school.wren.ask('POST', `/pieces/${piece.id}/restore`)
  expect(await waiting()).toHaveLength(1)
})
