import type { MyPieces, Piece, Portfolio, Tray, WorkNews } from '@nibquill/contract'
import { v7 as newId } from 'uuid'
import {
  picture,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const move = (piece: Piece, name: string, seenVersion = piece.version) =>
  school.wren.ask('POST', `/pieces/${piece.id}/${name}`, { seenVersion })
const judge = (piece: Piece, decision: object) =>
  school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    message: '',
    seenVersion: piece.version,
    ...decision,
  })

test('a piece goes into the tray, back for another go, and into the folder; each version stays as it was', async () => {
  const first = await school.submitted()
  expect(first).toMatchObject({ state: 'submitted', goes: 1, term: { name: 'Autumn term 2026' } })
  expect(
    (await judge(first, { move: 'send-back', message: 'Name three more parts.' })).body,
  ).toMatchObject({ state: 'returned' })
  const returned = (await school.wren.ask<Piece>('GET', `/pieces/${first.id}`)).body
  const better = (
    await school.wren.ask('PATCH', `/pieces/${first.id}`, {
      seenVersion: returned.version,
      title: 'Rock pool crab, labelled',
    })
  ).body
  const second = (await move(better, 'hand-in')).body
  expect(second).toMatchObject({ state: 'submitted', goes: 2 })
  const approved = (
    await judge(second, { move: 'approve', message: 'Lovely labels.', folderId: school.ids.whole })
  ).body
  expect(approved).toMatchObject({
    state: 'approved',
    approved: true,
    folder: { name: 'Out of class' },
  })
  expect(
    approved.versions.map(({ number, title, decision }) => [number, title, decision?.move]),
  ).toEqual([
    [2, 'Rock pool crab, labelled', 'approve'],
    [1, 'Rock pool crab', 'send-back'],
  ])
  const news = (await school.wren.ask<WorkNews[]>('GET', '/notices/news')).body
  expect(news.slice(0, 2).map(({ kind, message, seen }) => [kind, message, seen])).toEqual([
    ['approved', 'Lovely labels.', false],
    ['returned', 'Name three more parts.', false],
  ])
  // What came while one looked at the other is still news.
  const see = (ids: string[]) => school.wren.ask('POST', '/notices/news/seen', { ids })
  const seen = async () =>
    (await school.wren.ask<WorkNews[]>('GET', '/notices/news')).body.map((item) => item.seen)
  await see([news[1]!.id])
  expect((await seen()).slice(0, 2)).toEqual([false, true])
  await see(news.map(({ id }) => id))
  expect(await seen()).not.toContain(false)
})

test('taking it out of the tray hides it from the teacher; a verdict on it then comes too late', async () => {
  const piece = await school.submitted()
  const inTray = async () =>
    (await school.teacher.ask<Tray>('GET', '/review/tray')).body.pieces.some(
      ({ id }) => id === piece.id,
    )
  expect(await inTray()).toBe(true)
  const out = (await move(piece, 'withdraw')).body
  expect(out).toMatchObject({ state: 'draft', goes: 0 })
  expect(await inTray()).toBe(false)
  expect((await judge(piece, { move: 'approve' })).body).toMatchObject({
    status: 409,
    type: '/problems/piece/stale',
    state: 'draft',
  })
  expect((await judge(out, { move: 'approve' })).body).toMatchObject({
    status: 409,
    type: '/problems/piece/move-refused',
  })
})

test('the same PUT twice makes one piece and one part', async () => {
  const id = newId()
  const partId = newId()
  const bodies = [
    await school.wren.ask('PUT', `/pieces/${id}`, { taskId: school.ids.task }),
    await school.wren.ask('PUT', `/pieces/${id}`, { taskId: school.ids.task }),
  ]
  expect(bodies[1]).toMatchObject({ status: 200, body: bodies[0]!.body })
  const { mediaId } = await school.wren.upload(await picture())
  await school.wren.ask('PUT', `/pieces/${id}/parts/${partId}`, {
    kind: 'photo',
    files: { picture: mediaId },
    name: 'a',
  })
  const again = await school.wren.ask('PUT', `/pieces/${id}/parts/${partId}`, {
    kind: 'photo',
    files: { picture: mediaId },
    name: 'a',
  })
  expect(again.body.parts).toHaveLength(1)
  const atOnce = newId()
  const answers = await Promise.all(
    [1, 2, 3].map(() => school.wren.ask('PUT', `/pieces/${atOnce}`, { taskId: null })),
  )
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200])
})

test('a stale version is answered with how the piece stands now, and nothing is lost', async () => {
  const piece = await school.draft()
  await school.wren.ask('PATCH', `/pieces/${piece.id}`, {
    seenVersion: piece.version,
    title: 'newer',
  })
  const stale = await school.wren.ask('PATCH', `/pieces/${piece.id}`, {
    seenVersion: piece.version,
    title: 'older',
  })
  expect(stale.body).toMatchObject({
    status: 409,
    type: '/problems/piece/stale',
    state: 'draft',
    version: piece.version + 1,
  })
  expect(stale.headers.get('content-type')).toMatch(/application\/problem\+json/)
  expect((await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body.title).toBe('newer')
})

test('a task’s folder is chosen already and can be changed only where the task allows', async () => {
  const start = async (taskId: string) =>
    (await school.wren.ask('PUT', `/pieces/${newId()}`, { taskId })).body
  const [free, fixed] = [await start(school.ids.task), await start(school.ids.fixedTask)]
  expect([free.folder?.name, fixed.folder?.name]).toEqual(['Rock pools', 'Rock pools'])
  expect(free.suggestedTitle).toMatch(/^Rock pool survey, week 13/)
  expect(
    (
      await school.wren.ask('PATCH', `/pieces/${free.id}`, {
        seenVersion: 1,
        folderId: school.ids.whole,
      })
    ).status,
  ).toBe(200)
  expect(
    (
      await school.wren.ask('PATCH', `/pieces/${fixed.id}`, {
        seenVersion: 1,
        folderId: school.ids.whole,
      })
    ).body,
  ).toMatchObject({ status: 409, type: '/problems/folder/fixed' })
})

test('what cannot be handed in says why', async () => {
  const id = newId()
  const empty = (await school.wren.ask('PUT', `/pieces/${id}`, { taskId: school.ids.task })).body
  expect((await move(empty, 'hand-in')).body).toMatchObject({
    status: 409,
    type: '/problems/piece/empty',
  })
  const homeless = (await school.wren.ask('PUT', `/pieces/${newId()}`, { taskId: null })).body
  expect((await move(homeless, 'hand-in')).body).toMatchObject({
    status: 404,
    type: '/problems/folder/not-found',
  })
  const waiting = await school.submitted()
  expect(
    (
      await school.wren.ask('PATCH', `/pieces/${waiting.id}`, {
        seenVersion: waiting.version,
        title: 'x',
      })
    ).body,
  ).toMatchObject({ type: '/problems/piece/not-open' })
})

describe('input', () => {
  test.each([
    ['a title of 10,000 characters', { title: 'a'.repeat(10_000) }, 'title'],
    ['a number for a title', { title: 5 }, 'title'],
    ['an unknown field', { colour: 'red' }, 'colour'],
    ['a folder that is no id', { folderId: '../etc' }, 'folderId'],
    ['a step there is not', { step: 'someday' }, 'step'],
    ['a control character', { title: 'a\u0000b' }, 'title'],
  ])('%s is refused, naming the field', async (_what, change, field) => {
    const piece = await school.draft()
    const answer = await school.wren.ask<{ status: number; fields: object }>(
      'PATCH',
      `/pieces/${piece.id}`,
      {
        seenVersion: piece.version,
        ...change,
      },
    )
    expect(answer.body).toMatchObject({ status: 400, type: '/problems/request/invalid' })
    expect(Object.keys(answer.body.fields)).toEqual([field])
  })

  test('that is not JSON, or far too long, is refused', async () => {
    const piece = await school.draft()
    const send = (body: string) =>
      school.wren.fetch('PATCH', `/pieces/${piece.id}`, {
        body,
        headers: { 'Content-Type': 'application/json' },
      })
    expect((await send('{"title": ')).status).toBe(400)
    expect((await send(JSON.stringify({ title: 'a'.repeat(300_000) }))).status).toBe(413)
  })

  test.each(['O’Brien & "Söhne" <b>', '🦀🌊', 'سرطان البحر', 'a'.repeat(120)])(
    'the title %s comes back as it was written',
    async (title) => {
      const piece = await school.draft()
      expect(
        (
          await school.wren.ask('PATCH', `/pieces/${piece.id}`, {
            seenVersion: piece.version,
            title,
          })
        ).body.title,
      ).toBe(title)
    },
  )

  test('addresses that are no ids are not there', async () => {
    expect((await school.wren.ask('GET', '/pieces/nonsense')).status).toBe(400)
    expect((await school.wren.ask('GET', '/nowhere')).status).toBe(404)
  })
})

test('a piece holds thirty parts; a part taken out can be put back', async () => {
  const piece = await school.draft()
  const { mediaId } = await school.wren.upload(await picture())
  const add = () =>
    school.wren.ask('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
      kind: 'photo',
      files: { picture: mediaId },
      name: '',
    })
  for (let i = 0; i < 29; i++) expect((await add()).status).toBe(200)
  expect((await add()).body).toMatchObject({ status: 409, type: '/problems/piece/full' })
  const gone = await school.wren.ask('DELETE', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}`)
  expect(gone.body.parts).toHaveLength(29)
  expect(
    (await school.wren.ask('POST', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}/restore`)).body
      .parts[0]!.id,
  ).toBe(piece.parts[0]!.id)
})

test('a draft thrown away leaves the desk and can be brought back; work a teacher has is not thrown away', async () => {
  const piece = await school.draft()
  const onDesk = async () =>
    (await school.wren.ask<MyPieces>('GET', '/pieces')).body.pieces.some(
      ({ id }) => id === piece.id,
    )
  await school.wren.ask('DELETE', `/pieces/${piece.id}`)
  expect(await onDesk()).toBe(false)
  expect((await school.wren.ask('GET', `/pieces/${piece.id}`)).status).toBe(404)
  await school.wren.ask('POST', `/pieces/${piece.id}/restore`)
  expect(await onDesk()).toBe(true)
  expect((await school.wren.ask('DELETE', `/pieces/${(await school.submitted()).id}`)).status).toBe(
    409,
  )
})

test('picks keep their order and reasons; only approved work is picked', async () => {
  const [a, b, c] = [await school.approved(), await school.approved(), await school.draft()]
  const pick = (piece: Piece, body: object) =>
    school.wren.ask<Portfolio>('PUT', `/portfolio/${school.ids.wren}/picks/${piece.id}`, {
      reason: '',
      ...body,
    })
  expect((await pick(c, {})).body).toMatchObject({
    status: 409,
    type: '/problems/portfolio/not-approved',
  })
  await pick(a, { reason: 'It took two goes.' })
  await pick(b, {})
  const { body } = await pick(b, { reason: 'Best.', place: 0 })
  expect(body.chapters[0]!.picks.map(({ pieceId, reason }) => [pieceId, reason])).toEqual([
    [b.id, 'Best.'],
    [a.id, 'It took two goes.'],
  ])
  const others = (
    await school.wren.ask<Portfolio>('DELETE', `/portfolio/${school.ids.wren}/picks/${a.id}`)
  ).body.chapters[0]!.others
  expect(others.some(({ id }) => id === a.id)).toBe(true)
})

test('the tray comes in pages that neither skip nor repeat', async () => {
  for (let i = 0; i < 53; i++) {
    const id = newId()
    await test_.manager.query(
      `insert into piece (id, pupil_id, class_id, title, reflection, step, state, version, goes, created_at, changed_at, submitted_at)
       values ($1, $2, $3, $4, '', 'finished', 'submitted', 1, 1, now(), now(), '2026-01-01')`,
      [id, school.ids.tomasz, school.ids.heron, `page ${i}`],
    )
  }
  const seen: string[] = []
  let after: string | null = ''
  let waiting = 0
  while (after !== null) {
    const { body }: { body: Tray } = await school.teacher.ask<Tray>(
      'GET',
      `/review/tray?after=${after}`,
    )
    seen.push(...body.pieces.map(({ id }) => id))
    after = body.next
    waiting = body.waiting
  }
  expect(new Set(seen).size).toBe(seen.length)
  expect(seen.length).toBe(waiting)
})

test('news of a verdict reaches the pupil’s open page at once', async () => {
  const stream = await school.wren.fetch('GET', '/live')
  const reader = stream.body!.getReader()
  await reader.read()
  const piece = await school.submitted()
  await judge(piece, { move: 'approve' })
  const text = new TextDecoder().decode((await reader.read()).value)
  expect(text).toContain(`"id":"${piece.id}"`)
  expect(text).not.toContain('Rock pool crab')
  await reader.cancel()
})
