import { v7 as newId } from 'uuid'
import type { Book, Portfolio } from '@nibquill/contract'
import { type SmallSchool, type TestServer, until, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const about = (pupilId = school.ids.wren) => ({
  pupilId,
  termId: school.ids.term,
  madeFor: 'home' as const,
})
const ready = (id: string) =>
  until(async () => {
    const { body } = await school.teacher.ask<Book>('GET', `/book/${id}`)
    return body.state === 'ready' && body
  })
const portfolioOf = async (pupilId: string) =>
  (await school.teacher.ask<Portfolio>('GET', `/portfolio/${pupilId}`)).body
const pick = (pieceId: string, reason: string, place?: number) =>
  school.wren.ask('PUT', `/portfolio/${school.ids.wren}/picks/${pieceId}`, {
    reason,
    ...(place === undefined ? {} : { place }),
  })

test('there is no book of an empty term, and none of a term or pupil that is not there', async () => {
  expect((await school.teacher.ask('POST', '/book', about(school.ids.tomasz))).body).toMatchObject({
    type: '/problems/book/nothing-to-print',
  })
  expect((await school.teacher.ask('POST', '/book', { ...about(), termId: newId() })).status).toBe(
    409,
  )
  expect((await school.teacher.ask('POST', '/book', about(newId()))).status).toBe(404)
  expect((await school.teacher.ask('POST', '/book', { pupilId: 'wren' })).status).toBe(400)
})

describe('with three approved pieces', () => {
  let ids: string[]
  beforeAll(async () => {
    ids = []
    for (let i = 0; i < 3; i++) ids.push((await school.approved()).id)
  })

  test('picks keep their order and their reasons, and can be moved and taken out', async () => {
    const [first, second, third] = ids as [string, string, string]
    await pick(first, 'It was hard.')
    await pick(second, 'I like the claws.')
    expect((await pick(third, 'My best.', 0)).status).toBe(200)
    let chapter = (await portfolioOf(school.ids.wren)).chapters[0]!
    expect(chapter.picks.map(({ pieceId, reason }) => [pieceId, reason])).toEqual([
      [third, 'My best.'],
      [first, 'It was hard.'],
      [second, 'I like the claws.'],
    ])
    expect(chapter.others).toEqual([])
    await pick(first, 'It was very hard.', 2)
    await school.wren.ask('DELETE', `/portfolio/${school.ids.wren}/picks/${second}`)
    chapter = (await portfolioOf(school.ids.wren)).chapters[0]!
    expect(chapter.picks.map(({ pieceId, reason }) => [pieceId, reason])).toEqual([
      [third, 'My best.'],
      [first, 'It was very hard.'],
    ])
    expect(chapter.others.map(({ id }) => id)).toEqual([second])
  })

  test('what is not approved, or another’s, is not picked', async () => {
    const draft = await school.draft()
    expect((await pick(draft.id, 'no')).body).toMatchObject({
      type: '/problems/portfolio/not-approved',
    })
    const others = await school.approved({ person: school.tomasz })
    expect((await pick(others.id, 'no')).status).toBeGreaterThanOrEqual(400)
    expect(
      (
        await school.tomasz.ask('PUT', `/portfolio/${school.ids.wren}/picks/${ids[0]!}`, {
          reason: '',
        })
      ).status,
    ).toBe(404)
  })

  test('the book holds the picks; the plan says how long it will be, asking twice makes one, and a change makes another', async () => {
    const plan = await school.teacher.ask<{ pieces: number; pages: number }>(
      'GET',
      `/book/plan?pupilId=${school.ids.wren}&termId=${school.ids.term}&madeFor=home`,
    )
    expect(plan.body).toEqual({ pieces: 2, pages: 4, leftOut: [] })
    const [one, two] = await Promise.all([
      school.teacher.ask<Book>('POST', '/book', about()),
      school.teacher.ask<Book>('POST', '/book', about()),
    ])
    expect(one.body.id).toBe(two.body.id)
    const book = await ready(one.body.id)
    expect(book).toMatchObject({
      pageCount: 4,
      pagesDone: 4,
      openLinks: 2,
      term: { id: school.ids.term },
    })
    const file = await school.teacher.fetch('GET', `/book/${book.id}/file`)
    expect(file.headers.get('content-type')).toBe('application/pdf')
    expect(file.headers.get('content-disposition')).toMatch(/^attachment; filename/)
    expect((await file.arrayBuffer()).byteLength).toBe(book.sizeBytes)

    await pick(ids[1]!, 'I want it in, too.')
    const changed = await school.teacher.ask<Book>('POST', '/book', about())
    expect(changed.body.id).not.toBe(book.id)
    await ready(changed.body.id)
    const list = await school.teacher.ask<Book[]>('GET', `/book?pupilId=${school.ids.wren}`)
    expect(list.body.map(({ id }) => id)).toEqual(
      expect.arrayContaining([book.id, changed.body.id]),
    )
    await school.teacher.ask('POST', `/book/${book.id}/links/withdraw`)
    expect((await school.teacher.ask<Book>('GET', `/book/${book.id}`)).body.openLinks).toBe(0)
    expect((await school.teacher.ask<Book>('GET', `/book/${changed.body.id}`)).body.openLinks).toBe(
      3,
    )
  })
})

test('work is not approved into a folder that was put away meanwhile', async () => {
  const piece = await school.submitted({ folderId: school.ids.closed })
  const approve = (folderId?: string) =>
    school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
      move: 'approve',
      message: '',
      seenVersion: piece.version,
      ...(folderId ? { folderId } : {}),
    })
  await test_.manager.query('update folder set put_away_at = now() where id = $1', [
    school.ids.closed,
  ])
  expect((await approve()).body).toMatchObject({ type: '/problems/folder/put-away' })
  expect((await approve(school.ids.open)).status).toBe(200)
  await test_.manager.query('update folder set put_away_at = null where id = $1', [
    school.ids.closed,
  ])
})
