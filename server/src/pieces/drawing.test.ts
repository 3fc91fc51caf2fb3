import type { DrawingPart, Piece, Problem } from '@nibquill/contract'
import type { InkChange } from '@nibquill/core/ink/changes'
import { packPoints } from '@nibquill/core/ink/points'
import { emptySheet, MOST_THINGS, type InkDocument, type Thing } from '@nibquill/core/ink/document'
import sharp from 'sharp'
import { inkFile, SEA_LINE } from '../testing/ink.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const line = (id: string): Thing => ({ ...SEA_LINE, id })
const put = (...ids: string[]): InkChange => ({
  ...{ kind: 'put', sheetId: 's', below: null },
  things: ids.map(line),
})
const inkOf = (piece: Pick<Piece, 'parts'>) => (piece.parts[0] as DrawingPart).files.ink
const draw = (piece: Piece, changes: InkChange[], who: Person = school.wren) =>
  who.ask<Piece & Problem>('POST', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}/ink`, {
    changes,
  })
const read = async (mediaId: string, who: Person = school.wren) => {
  const response = await who.fetch('GET', `/media/${mediaId}/full`)
  return response.status === 200 ? ((await response.json()) as InkDocument) : response.status
}
const namesOn = (ink: InkDocument | number) =>
  typeof ink === 'number' ? ink : ink.sheets[0]!.things.map(({ id }) => id)

/** A draft of Wren's with one empty sheet. */
async function drawing(): Promise<Piece> {
  const { mediaId } = await school.wren.upload(inkFile('plain', []), { filename: 'drawing.json' })
  return school.draft({ part: { kind: 'drawing', name: '', files: { ink: mediaId } } })
}

test('what is drawn is kept, in its order; a batch that comes twice is there once', async () => {
  const piece = await drawing()
  await draw(piece, [put('a'), put('b')])
  const first = (await draw(piece, [put('c'), { kind: 'take', sheetId: 's', ids: ['a'] }])).body
  expect(namesOn(await read(inkOf(first).mediaId))).toEqual(['b', 'c'])
  const again = (await draw(piece, [put('c'), { kind: 'take', sheetId: 's', ids: ['a'] }])).body
  expect(inkOf(again).mediaId).toBe(inkOf(first).mediaId)
  expect(again.version).toBe(first.version)
})

test('ink that was drawn on goes at once, with its file; nothing of it is left for the night', async () => {
  const piece = await drawing()
  const before = inkOf(piece).mediaId
  const { body } = await draw(piece, [put('a')])
  await until(async () => (await read(before)) === 404)
  expect(namesOn(await read(inkOf(body).mediaId))).toEqual(['a'])
})

test('what two tablets draw on one sheet is all there', async () => {
  const piece = await drawing()
  await Promise.all(['a', 'b', 'c', 'd'].map((id) => draw(piece, [put(id)])))
  const { body } = await school.wren.ask('GET', `/pieces/${piece.id}`)
  expect((namesOn(await read(inkOf(body).mediaId)) as string[]).sort()).toEqual([
    'a',
    'b',
    'c',
    'd',
  ])
})

test('a version holds what was drawn when it was handed in, whatever is drawn afterwards', async () => {
  const { mediaId } = await school.wren.upload(inkFile('plain', [line('then')]), {
    filename: 'drawing.json',
  })
  const approved = await school.approved({
    part: { kind: 'drawing', name: '', files: { ink: mediaId } },
  })
  expect((await draw(approved, [put('now')])).body.type).toBe('/problems/piece/not-open')
  const goes = await school.wren.ask('POST', `/pieces/${approved.id}/another-go`, {
    seenVersion: approved.version,
  })
  const { body: next } = await draw(goes.body, [put('now')])
  expect(namesOn(await read(inkOf(next).mediaId))).toEqual(['then', 'now'])
  expect(next.versions.map((version) => inkOf(version).mediaId)).toEqual([mediaId])
  // Its family sees the approved one, and not what is being drawn.
  const { parent } = school
  expect(namesOn(await read(mediaId, parent))).toEqual(['then'])
  expect(await read(inkOf(next).mediaId, parent)).toBe(404)
})

test('nobody else draws on it, and nothing but a drawing is drawn on', async () => {
  const piece = await drawing()
  expect((await draw(piece, [put('x')], school.tomasz)).status).toBe(404)
  expect((await draw(piece, [put('x')], school.teacher)).status).toBe(404)
  const photo = await school.draft()
  expect((await draw(photo, [put('x')])).body.type).toBe('/problems/piece/part-gone')
})

test.each([
  [
    'sizes of sixty centimetres',
    { kind: 'put-sheet', sheet: { ...emptySheet('t'), width: 60_000 }, below: null },
  ],
  ['a later tool', { kind: 'spray', sheetId: 's' }],
  [
    'half a line',
    { ...put('a'), things: [{ ...line('a'), points: { ...packPoints([]), x: [1] } }] },
  ],
])('%s is refused', async (_what, change) => {
  const piece = await drawing()
  expect((await draw(piece, [change as InkChange])).status).toBe(400)
})

test('a full sheet says so, and keeps what it has', async () => {
  const piece = await drawing()
  const dot = { ...SEA_LINE, points: packPoints([{ x: 1, y: 1, timeMs: 0, pressure: 1 }]) }
  const many = (from: number, to: number): InkChange => ({
    ...{ kind: 'put', sheetId: 's', below: null },
    things: Array.from({ length: to - from }, (_, i) => ({ ...dot, id: `t${from + i}` })),
  })
  const { body } = await draw(piece, [many(0, MOST_THINGS)])
  expect((await draw(piece, [many(MOST_THINGS, MOST_THINGS + 1)])).body.type).toBe(
    '/problems/piece/drawing-full',
  )
  const after = (await school.wren.ask('GET', `/pieces/${piece.id}`)).body
  expect(inkOf(after).mediaId).toBe(inkOf(body).mediaId)
  expect(namesOn(await read(inkOf(after).mediaId))).toHaveLength(MOST_THINGS)
})

test('pictures of it are made when the hand has rested', async () => {
  const piece = await drawing()
  await draw(piece, [put('a')])
  const { body } = await draw(piece, [put('b')])
  const state = async () => {
    const [row] = await test_.manager.query<{ state: string }[]>(
      'select state from media where id = $1',
      [inkOf(body).mediaId],
    )
    return row!.state
  }
  expect(await state()).toBe('arrived')
  await until(async () => (await state()) === 'ready')
})

describe('pictures on a drawing', () => {
  const laid = (mediaId: string): InkChange => ({
    ...{ kind: 'put', sheetId: 's', below: null },
    things: [
      {
        ...{ kind: 'picture', id: 'photo', mediaId, at: { x: 8000, y: 6000 }, turn: 0 },
        ...{ width: 8000, height: 6000, locked: false },
      },
    ],
  })
  const photo = async (who: Person = school.wren) =>
    (await who.upload(await picture(640, 480, '#c81e1e'))).mediaId

  test('a picture is laid on, seen on the server’s picture, and by whoever sees the drawing', async () => {
    const piece = await drawing()
    const mediaId = await photo()
    const { body } = await draw(piece, [laid(mediaId)])
    await until(async () => {
      const response = await school.wren.fetch('GET', `/media/${inkOf(body).mediaId}/960`)
      if (response.headers.get('content-type') !== 'image/jpeg') return false
      const { data, info } = await sharp(Buffer.from(await response.arrayBuffer()))
        .raw()
        .toBuffer({ resolveWithObject: true })
      const at = (info.width * Math.round(info.height / 2) + Math.round(info.width / 2)) * 3
      expect(data[at]).toBeGreaterThan(180)
      expect(data[at + 1]).toBeLessThan(60)
      return true
    })
    const approved = await approve(body)
    expect((await school.parent.fetch('GET', `/media/${mediaId}/960`)).status).toBe(200)
    expect(approved.state).toBe('approved')
  })

  test('what is laid on in a later go is not seen before that is approved', async () => {
    const approved = await approve((await draw(await drawing(), [put('a')])).body)
    const { body: next } = await school.wren.ask('POST', `/pieces/${approved.id}/another-go`, {
      seenVersion: approved.version,
    })
    const mediaId = await photo()
    await draw(next, [laid(mediaId)])
    expect((await school.parent.fetch('GET', `/media/${mediaId}/960`)).status).toBe(404)
  })

  test('nobody lays on what another sent, whatever its id; nor does a file bring it along', async () => {
    const piece = await drawing()
    const theirs = await photo(school.tomasz)
    expect((await draw(piece, [laid(theirs)])).body.type).toBe('/problems/media/not-found')
    const change = laid(theirs) as Extract<InkChange, { kind: 'put' }>
    const sent = await school.wren.upload(inkFile('plain', change.things), {
      filename: 'drawing.json',
    })
    expect(sent.status).toBe(422)
  })
})

async function approve(piece: Piece): Promise<Piece> {
  const { body } = await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, {
    seenVersion: piece.version,
  })
  const decision = { move: 'approve', message: '', seenVersion: body.version }
  return (await school.teacher.ask('POST', `/review/pieces/${piece.id}`, decision)).body
}
