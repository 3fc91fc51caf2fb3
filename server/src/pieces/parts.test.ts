import type { Part, Piece, Problem } from '@nibquill/contract'
import { AS_IT_WAS, type Tidying } from '@nibquill/core'
import { v7 as newId } from 'uuid'
import { film, recording } from '../testing/madeFiles.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

const FLAT: Tidying = {
  ...AS_IT_WAS,
  corners: [
    { x: 0.1, y: 0.1 },
    { x: 0.9, y: 0.12 },
    { x: 0.95, y: 0.9 },
    { x: 0.05, y: 0.88 },
  ],
  brighten: { way: 'page', strength: 0.7 },
}

const partNames = (piece: Piece) => piece.parts.map(({ name }) => name)

/** A draft of Wren's with parts of these names. */
async function draftOf(...names: string[]): Promise<Piece> {
  const piece = await school.draft()
  for (const name of names) {
    const { mediaId } = await school.wren.upload(await picture(64, 48))
    await school.wren.ask('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
      kind: 'photo',
      files: { picture: mediaId },
      name,
    })
  }
  return (await school.wren.ask('DELETE', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}`)).body
}

const tidy = async (
  piece: Piece,
  partId: string,
  tidying: Tidying | null,
  mediaId?: string,
  who: Person = school.wren,
) =>
  who.ask<Piece & Problem>('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
    kind: 'photo',
    files: { picture: mediaId ?? (await who.upload(await picture(80, 60))).mediaId },
    name: '',
    instead: { partId, tidying },
  })

describe('order', () => {
  test('parts stand as their pupil put them; those another tablet added meanwhile follow', async () => {
    const piece = await draftOf('one', 'two', 'three')
    const [one, two, three] = piece.parts.map(({ id }) => id)
    const wished = [three!, one!]
    const { body } = await school.wren.ask<Piece>('PUT', `/pieces/${piece.id}/order`, {
      partIds: wished,
    })
    expect(body.parts.map(({ id }) => id)).toEqual([three, one, two])
    expect(body.version).toBe(piece.version + 1)
    const again = await school.wren.ask<Piece>('PUT', `/pieces/${piece.id}/order`, {
      partIds: wished,
    })
    expect(again.body.version).toBe(body.version)
  })

  test('a version keeps the order and the names it was handed in with', async () => {
    const piece = await draftOf('one', 'two')
    const [one, two] = piece.parts.map(({ id }) => id)
    await school.wren.ask('PUT', `/pieces/${piece.id}/order`, { partIds: [two, one] })
    const named = await school.wren.ask<Piece>('PATCH', `/pieces/${piece.id}/parts/${two}`, {
      name: 'the far side',
    })
    const handedIn = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/hand-in`, {
      seenVersion: named.body.version,
    })
    expect(handedIn.body.versions[0]!.parts.map(({ name }) => name)).toEqual([
      'the far side',
      'one',
    ])
    const refused = await school.wren.ask('PATCH', `/pieces/${piece.id}/parts/${two}`, {
      name: 'later',
    })
    expect(refused.body).toMatchObject({ status: 409, type: '/problems/piece/not-open' })
    const out = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/withdraw`, {
      seenVersion: handedIn.body.version,
    })
    await school.wren.ask('PATCH', `/pieces/${piece.id}/parts/${two}`, { name: 'later' })
    const { body } = await school.wren.ask<Piece>('PUT', `/pieces/${piece.id}/order`, {
      partIds: [one, two],
    })
    expect(partNames(body)).toEqual(['one', 'later'])
    expect(out.body.versions[0]!.parts.map(({ name }) => name)).toEqual(['the far side', 'one'])
    expect(body.versions[0]!.parts.map(({ name }) => name)).toEqual(['the far side', 'one'])
  })
})

describe('the picture that stands for a film', () => {
  const filmed = async () => {
    const piece = await school.draft({
      part: {
        ...{ kind: 'film', name: '' },
        files: { film: (await school.wren.upload(await film(), { filename: 'it.webm' })).mediaId },
      },
    })
    const choose = (mediaId: string | null, who = school.wren) =>
      who.ask<Piece & Problem>('PUT', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}/poster`, {
        mediaId,
      })
    return { piece, choose }
  }
  const sentBy = async (who: Person) => (await who.upload(await picture(64, 48))).mediaId
  const posterOf = (parts: readonly Part[]) =>
    parts[0]?.kind === 'film' ? (parts[0].files.poster?.mediaId ?? null) : undefined

  test('is chosen, chosen anew and left to the school again; the same again changes nothing', async () => {
    const { choose } = await filmed()
    const [one, two] = [await sentBy(school.wren), await sentBy(school.wren)]
    expect(posterOf((await choose(one)).body.parts)).toBe(one)
    const { body } = await choose(two)
    expect(posterOf(body.parts)).toBe(two)
    expect((await choose(two)).body.version).toBe(body.version)
    expect(posterOf((await choose(null)).body.parts)).toBeNull()
  })
  test('versions keep theirs; its family sees the approved one, and no later one', async () => {
    const { piece, choose } = await filmed()
    const [one, two] = [await sentBy(school.wren), await sentBy(school.wren)]
    const { version: seenVersion } = (await choose(one)).body
    const { body: waiting } = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/hand-in`, {
      seenVersion,
    })
    expect((await choose(two)).body.type).toBe('/problems/piece/not-open')
    await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
      ...{ move: 'approve', message: '', seenVersion: waiting.version },
    })
    const { body: approved } = await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)
    await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, {
      seenVersion: approved.version,
    })
    const { body } = await choose(two)
    expect([posterOf(body.parts), posterOf(body.versions[0]!.parts)]).toEqual([two, one])
    for (const [mediaId, status] of [
      [one, 200],
      [two, 404],
    ] as const)
      expect((await school.parent.fetch('GET', `/media/${mediaId}/320`)).status).toBe(status)
  })
  test('is one that a maker sent, and stands for a film only', async () => {
    const { choose } = await filmed()
    expect((await choose(await sentBy(school.tomasz))).body.type).toBe('/problems/media/not-found')
    const { mediaId: sound } = await school.wren.upload(await recording(), { filename: 'a.webm' })
    expect((await choose(sound)).body.type).toBe('/problems/media/not-found')
    expect((await choose(null, school.tomasz)).status).toBe(404)
    const photo = await school.draft()
    const at = `/pieces/${photo.id}/parts/${photo.parts[0]!.id}/poster`
    const { body } = await school.wren.ask<Problem>('PUT', at, {
      mediaId: await sentBy(school.wren),
    })
    expect(body.type).toBe('/problems/piece/part-gone')
  })
})

describe('a tidied photo', () => {
  test('takes the place and the name of the one it came from, and keeps its original with the recipe', async () => {
    const piece = await draftOf('one', 'two', 'three')
    const two = piece.parts[1]!
    const { body } = await tidy(piece, two.id, FLAT)
    expect(partNames(body)).toEqual(['one', 'two', 'three'])
    expect(body.parts[1]).toMatchObject({
      tidied: { originalMediaId: pictureOf(two), tidying: FLAT },
    })
    expect((await school.wren.fetch('GET', `/media/${pictureOf(two)}/full`)).status).toBe(200)
  })

  test('tidied again, it still knows what the camera saw; as it was, there is no recipe left', async () => {
    const piece = await draftOf('one')
    const original = pictureOf(piece.parts[0])
    const first = (await tidy(piece, piece.parts[0]!.id, FLAT)).body
    const second = (await tidy(piece, first.parts[0]!.id, { ...FLAT, quarters: 1 })).body
    expect(second.parts[0]).toMatchObject({
      tidied: { originalMediaId: original, tidying: { quarters: 1 } },
    })
    const back = (await tidy(piece, second.parts[0]!.id, null, original)).body
    expect(back.parts).toHaveLength(1)
    expect(back.parts[0]).toMatchObject({
      files: { picture: { mediaId: original } },
      tidied: null,
      name: 'one',
    })
  })

  test('handed in before, the earlier version shows the photo as it was then', async () => {
    const piece = await school.submitted()
    const out = (
      await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/withdraw`, {
        seenVersion: piece.version,
      })
    ).body
    const { body } = await tidy(out, out.parts[0]!.id, FLAT)
    expect(pictureOf(body.parts[0])).not.toBe(pictureOf(piece.parts[0]))
    expect(pictureOf(body.versions[0]!.parts[0])).toBe(pictureOf(piece.parts[0]))
  })

  test('what the camera saw is for makers and teachers only: parents see the tidied photo', async () => {
    const draft = await school.draft()
    const original = pictureOf(draft.parts[0])
    const tidied = (await tidy(draft, draft.parts[0]!.id, FLAT)).body
    const waiting = (
      await school.wren.ask<Piece>('POST', `/pieces/${draft.id}/hand-in`, {
        seenVersion: tidied.version,
      })
    ).body
    await school.teacher.ask('POST', `/review/pieces/${draft.id}`, {
      move: 'approve',
      message: '',
      seenVersion: waiting.version,
    })
    const read = async (who: Person, mediaId: string) =>
      (await who.fetch('GET', `/media/${mediaId}/full`)).status
    expect(await read(school.parent, pictureOf(tidied.parts[0]))).toBe(200)
    expect(await read(school.parent, original)).toBe(404)
    expect(await read(school.teacher, original)).toBe(200)
    expect(await read(school.tomasz, original)).toBe(404)
  })

  test('full pieces can be tidied; thirty stay thirty', async () => {
    const piece = await school.draft()
    const { mediaId } = await school.wren.upload(await picture(64, 48))
    for (let i = 0; i < 29; i++)
      await school.wren.ask('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
        kind: 'photo',
        files: { picture: mediaId },
        name: '',
      })
    const { body } = await tidy(piece, piece.parts[0]!.id, FLAT)
    expect(body.parts).toHaveLength(30)
    const restored = await school.wren.ask(
      'POST',
      `/pieces/${piece.id}/parts/${piece.parts[0]!.id}/restore`,
    )
    expect(restored.body).toMatchObject({ status: 409, type: '/problems/piece/full' })
  })

  test.each([
    ['a degree too far', { ...FLAT, degrees: 16 }],
    [
      'corners somewhere else',
      {
        ...FLAT,
        corners: [
          { x: 9, y: 0 },
          { x: 1, y: 0 },
          { x: 1, y: 1 },
          { x: 0, y: 1 },
        ],
      },
    ],
    ['nothing left of it', { ...FLAT, trim: { left: 0.5, top: 0, right: 0.5, bottom: 1 } }],
    ['a way that is none', { ...FLAT, brighten: { way: 'disco', strength: 1 } }],
  ])('a recipe with %s is refused by name', async (_, tidying) => {
    const piece = await draftOf('one')
    const { body } = await tidy(piece, piece.parts[0]!.id, tidying as Tidying)
    expect(body).toMatchObject({ status: 400, type: '/problems/request/invalid' })
  })

  test('somebody else’s photo, or a part of another piece, takes no place here', async () => {
    const [piece, other] = [await draftOf('one'), await draftOf('else')]
    expect((await tidy(piece, other.parts[0]!.id, FLAT)).body).toMatchObject({
      type: '/problems/piece/part-gone',
    })
    const { mediaId } = await school.tomasz.upload(await picture(50, 50))
    expect((await tidy(piece, piece.parts[0]!.id, FLAT, mediaId)).body).toMatchObject({
      type: '/problems/media/not-found',
    })
  })
})

describe('made together', () => {
  const together = (piece: Piece, ...makerIds: string[]) =>
    school.wren.ask<Piece & Problem>('PUT', `/pieces/${piece.id}/makers`, { makerIds })
  const onDesk = async (who: Person, pieceId: string) =>
    (await who.ask<{ pieces: { id: string }[] }>('GET', '/pieces')).body.pieces.some(
      ({ id }) => id === pieceId,
    )

  test('all of them see it and each adds to it; the one who began it always stays', async () => {
    const piece = await draftOf('one')
    const { body } = await together(piece, school.ids.tomasz)
    expect(body.makers.map(({ firstName }) => firstName).sort()).toEqual(['tomasz', 'wren'])
    expect(await onDesk(school.tomasz, piece.id)).toBe(true)
    const { mediaId } = await school.tomasz.upload(await picture(64, 48))
    const added = await school.tomasz.ask<Piece>('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
      kind: 'photo',
      files: { picture: mediaId },
      name: 'his',
    })
    expect(partNames(added.body)).toEqual(['one', 'his'])
    // What Wren took, Tomasz tidies back to how it was.
    const tidied = (await tidy(added.body, added.body.parts[0]!.id, FLAT)).body
    const back = await tidy(
      tidied,
      tidied.parts[0]!.id,
      null,
      pictureOf(piece.parts[0]),
      school.tomasz,
    )
    expect(back.body.parts[0]).toMatchObject({
      files: { picture: { mediaId: pictureOf(piece.parts[0]) } },
      tidied: null,
    })
    const alone = await together(piece)
    expect(alone.body.makers.map(({ firstName }) => firstName)).toEqual(['wren'])
    expect(await onDesk(school.tomasz, piece.id)).toBe(false)
    expect(partNames(alone.body)).toEqual(['one', 'his'])
  })

  test('only with pupils of the own class, and not once it is in the tray', async () => {
    const piece = await school.draft()
    expect((await together(piece, school.ids.aoife)).body).toMatchObject({
      status: 422,
      type: '/problems/piece/not-a-classmate',
    })
    const handedIn = await school.submitted()
    expect((await together(handedIn, school.ids.tomasz)).body).toMatchObject({
      type: '/problems/piece/not-open',
    })
  })

  test('classmates are told by first name and peg, and nobody of another class', async () => {
    type Mate = { id: string; firstName: string; lastName: string }
    const { body } = await school.wren.ask<Mate[]>('GET', '/pieces/classmates')
    expect(body.map(({ firstName }) => firstName)).toEqual(['tomasz'])
    expect(body[0]!.lastName).toBe('')
    expect((await school.teacher.ask('GET', '/pieces/classmates')).status).toBe(404)
  })
})
