import { v7 as newId } from 'uuid'
import { film } from '../testing/madeFiles.ts'
import type { ClassPiece, MyPieces, Notice, Readers } from '@nibquill/contract'
import {
  picture,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const make = (
  audience: 'class' | 'parents',
  words = 'Boots on Friday.',
  mediaIds: string[] = [],
  id = newId(),
  who = school.teacher,
) =>
  who.ask<Notice[]>('PUT', `/notices/${id}`, {
    classId: school.ids.heron,
    audience,
    words,
    mediaIds,
  })
const wordsFor = async (who = school.wren) =>
  (await who.ask<Notice[]>('GET', '/notices')).body.map(({ words }) => words)

describe('notices', () => {
  test('reach the class or its parents, and nobody else', async () => {
    await make('class', 'For the class')
    await make('parents', 'For the parents')
    expect(await wordsFor(school.wren)).toEqual(['For the class'])
    expect(await wordsFor(school.parent)).toEqual(['For the parents'])
    for (const who of [school.aoife, school.otherParent, school.otherTeacher])
      expect(await wordsFor(who)).toEqual([])
    expect((await test_.visitor().ask('GET', '/notices')).status).toBe(401)
  })

  test('a film is watched by those it was sent to, and by nobody else', async () => {
    const { mediaId } = await school.teacher.upload(await film(), { filename: 'walk.webm' })
    await make('parents', 'Our walk', [mediaId])
    const told = async () =>
      (await school.parent.ask<Notice[]>('GET', '/notices')).body.flatMap(({ media }) => media)
    await until(async () => (await told()).some(({ state }) => state === 'ready'))
    expect(await told()).toMatchObject([{ kind: 'film', mediaId, width: 64, height: 48 }])
    for (const [who, status] of [
      [school.parent, 200],
      [school.otherParent, 404],
      [school.wren, 404],
    ] as const)
      expect((await who.fetch('GET', `/media/${mediaId}/playable`)).status).toBe(status)
  })

  test('say who has seen them', async () => {
    const id = newId()
    await make('class', 'Look', [], id)
    for (let i = 0; i < 2; i++)
      expect((await school.wren.ask('POST', `/notices/${id}/seen`)).status).toBe(200)
    const mine = (await school.wren.ask<Notice[]>('GET', '/notices')).body.find(
      (notice) => notice.id === id,
    )!
    expect(mine).toMatchObject({ seen: true, seenBy: null })
    const theirs = (await school.teacher.ask<Notice[]>('GET', '/notices')).body.find(
      (notice) => notice.id === id,
    )!
    expect(theirs.seenBy).toEqual({ seen: 1, of: 2 })
    const readers = (await school.teacher.ask<Readers>('GET', `/notices/${id}/readers`)).body
    expect(readers.map(({ name, seenAt }) => [name, seenAt !== null])).toEqual([
      ['tomasz A.', false],
      ['wren A.', true],
    ])
    for (const who of [school.wren, school.otherTeacher, school.parent])
      expect((await who.ask('GET', `/notices/${id}/readers`)).status).toBe(404)
    expect((await school.parent.ask('POST', `/notices/${id}/seen`)).status).toBe(404)
  })

  test('carry pictures for those they are for, and come down with a way back', async () => {
    const { mediaId } = await school.teacher.upload(await picture())
    const id = newId()
    await make('parents', '', [mediaId], id)
    expect((await school.parent.fetch('GET', `/media/${mediaId}/320`)).status).toBe(200)
    for (const who of [school.otherParent, school.wren])
      expect((await who.fetch('GET', `/media/${mediaId}/320`)).status).toBe(404)
    await school.teacher.ask('POST', `/notices/${id}/withdraw`)
    expect(
      (await school.parent.ask<Notice[]>('GET', '/notices')).body.some(
        (notice) => notice.id === id,
      ),
    ).toBe(false)
    expect((await school.parent.fetch('GET', `/media/${mediaId}/320`)).status).toBe(404)
    await school.teacher.ask('POST', `/notices/${id}/restore`)
    expect((await school.parent.fetch('GET', `/media/${mediaId}/320`)).status).toBe(200)
  })

  test('are put up by the class’s teachers only, and say something', async () => {
    expect((await make('class', '')).status).toBe(400)
    expect((await make('class', 'x', [newId()])).status).toBe(404)
    expect((await make('class', 'x', [], newId(), school.otherTeacher)).status).toBe(404)
    expect((await make('class', 'x', [], newId(), school.wren)).status).toBe(404)
  })
})

describe('a piece started for everyone', () => {
  const start = (id = newId(), who = school.teacher) =>
    who.ask<ClassPiece[]>('PUT', `/pieces/for-everyone/${id}`, {
      classId: school.ids.heron,
      folderId: school.ids.open,
      title: 'Our walk',
      instructions: 'One photo.',
    })
  const mine = async (who = school.wren) =>
    (await who.ask<MyPieces>('GET', '/pieces')).body.pieces.filter(
      ({ title }) => title === 'Our walk',
    )

  test('lies on every desk once; closing hands in what was made and locks the rest', async () => {
    const id = newId()
    for (let i = 0; i < 2; i++)
      expect((await start(id)).body.find((piece) => piece.id === id)).toMatchObject({
        pupils: 2,
        begun: 0,
        closed: false,
      })
    expect(await mine(school.wren)).toHaveLength(1)
    expect(await mine(school.aoife)).toHaveLength(0)
    const [piece] = await mine()
    const { mediaId } = await school.wren.upload(await picture())
    await school.wren.ask('PUT', `/pieces/${piece!.id}/parts/${newId()}`, {
      kind: 'photo',
      files: { picture: mediaId },
      name: 'photo',
    })

    const closed = (
      await school.teacher.ask<ClassPiece[]>('POST', `/pieces/for-everyone/${id}/close`)
    ).body.find((one) => one.id === id)
    expect(closed).toMatchObject({ begun: 1, closed: true })
    const handedIn = (await school.wren.ask('GET', `/pieces/${piece!.id}`)).body
    expect(handedIn).toMatchObject({
      state: 'submitted',
      classPiece: { closed: true, title: 'Our walk' },
    })
    expect(
      (
        await school.wren.ask('POST', `/pieces/${piece!.id}/withdraw`, {
          seenVersion: handedIn.version,
        })
      ).body,
    ).toMatchObject({ type: '/problems/piece/closed' })
    const [empty] = await mine(school.tomasz)
    const other = await school.tomasz.upload(await picture())
    expect(
      (
        await school.tomasz.ask('PUT', `/pieces/${empty!.id}/parts/${newId()}`, {
          kind: 'photo',
          files: { picture: other.mediaId },
          name: '',
        })
      ).body,
    ).toMatchObject({ type: '/problems/piece/closed' })

    // Sent back, it is its maker's again, closed or not.
    const back = await school.teacher.ask('POST', `/review/pieces/${piece!.id}`, {
      move: 'send-back',
      message: 'One more?',
      seenVersion: handedIn.version,
    })
    expect(
      (
        await school.wren.ask('PATCH', `/pieces/${piece!.id}`, {
          seenVersion: back.body.version,
          reflection: 'Now two.',
        })
      ).status,
    ).toBe(200)
    await school.teacher.ask('POST', `/pieces/for-everyone/${id}/reopen`)
    expect(
      (
        await school.tomasz.ask('PUT', `/pieces/${empty!.id}/parts/${newId()}`, {
          kind: 'photo',
          files: { picture: other.mediaId },
          name: '',
        })
      ).status,
    ).toBe(200)
  })

  test('is started by the class’s teachers only', async () => {
    for (const [who, status] of [
      [school.otherTeacher, 404],
      [school.wren, 404],
      [school.parent, 404],
      [test_.visitor(), 401],
    ] as const)
      expect((await start(newId(), who)).status).toBe(status)
  })
})
