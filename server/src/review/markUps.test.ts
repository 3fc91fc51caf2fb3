import type { MarkUp, Piece } from '@nibquill/contract'
import type { InkDocument, Thing } from '@nibquill/core/ink/document'
import { newInk } from '@nibquill/core/ink/document'
import { copyToMark, sheetToMark } from '@nibquill/core/ink/markUp'
import { v7 as newId } from 'uuid'
import {
  picture,
  pictureOf,
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const line = (): Thing => ({
  ...{ kind: 'ruled', id: newId(), shape: 'line', from: { x: 0, y: 0 }, to: { x: 900, y: 900 } },
  pen: { ink: ['madder'], water: 0, edge: null, width: 90 },
})
/** The copy of a photo with something written on it. */
const marked = (mediaId: string, ...more: Thing[]): InkDocument => {
  const ink = newInk('s')
  const sheet = sheetToMark({ sheetId: 's', thingId: 'p' }, mediaId, { width: 640, height: 480 })
  return { ...ink, sheets: [{ ...sheet, things: [...sheet.things, line(), ...more] }] }
}
const at = (piece: Piece) => {
  const version = piece.versions[0]!
  return `/review/pieces/${piece.id}/mark-ups/${version.id}/${version.parts[0]!.id}`
}
const photoOf = (piece: Piece) => pictureOf(piece.versions[0]!.parts[0])
const put = (piece: Piece, body: object, who: Person = school.teacher) =>
  who.ask<MarkUp[]>('PUT', at(piece), { seenMediaId: null, ...body })
const list = async (piece: Piece, who: Person) => {
  const { status, body } = await who.ask<MarkUp[]>('GET', `/review/pieces/${piece.id}/mark-ups`)
  return status === 200 ? body : status
}
const reads = async (who: Person, mediaId: string) =>
  (await who.fetch('GET', `/media/${mediaId}/full`)).status === 200
const decide = async (piece: Piece, move: 'approve' | 'send-back') =>
  (
    await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
      ...{ move, message: 'Look at what I wrote.', seenVersion: piece.version },
    })
  ).body

test('is seen by teachers at once, and by its makers once the version is decided', async () => {
  const piece = await school.submitted()
  const { status, body } = await put(piece, { ink: marked(photoOf(piece)) })
  expect(status).toBe(200)
  expect(body).toMatchObject([
    {
      ...{ versionId: piece.versions[0]!.id, partId: piece.versions[0]!.parts[0]!.id },
      ...{ by: 'Mr Adeyemi', changedAt: test_.clock.now().toISOString() },
    },
  ])
  const { mediaId } = body[0]!
  expect(await list(piece, school.wren)).toEqual([])
  expect(await reads(school.wren, mediaId)).toBe(false)
  const returned = await decide(piece, 'send-back')
  expect(await list(piece, school.wren)).toHaveLength(1)
  expect(await reads(school.wren, mediaId)).toBe(true)
  // Taken back in the same minute, it is not there any more.
  await school.teacher.ask('POST', `/review/pieces/${piece.id}/take-back`, {
    seenVersion: returned.version,
  })
  expect(await list(piece, school.wren)).toEqual([])
  expect(await reads(school.wren, mediaId)).toBe(false)
})

test('stays with the version it was written on, whatever comes after', async () => {
  const piece = await school.submitted()
  await put(piece, { ink: marked(photoOf(piece)) })
  const returned = await decide(piece, 'send-back')
  const again = await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, {
    seenVersion: returned.version,
  })
  expect(again.body.versions).toHaveLength(2)
  const found = await list(piece, school.wren)
  expect(found).toMatchObject([{ versionId: piece.versions[0]!.id }])
  // Nothing of the pupil's own was touched.
  expect(photoOf(again.body)).toBe(photoOf(piece))
})

test('reaches no family, no link and no stranger, not even by the id of its ink', async () => {
  const piece = await school.submitted()
  const { body } = await put(piece, { ink: marked(photoOf(piece)) })
  await decide(piece, 'approve')
  const { mediaId } = body[0]!
  for (const who of [school.parent, school.aoife, school.otherTeacher, school.otherParent]) {
    expect(await list(piece, who)).toBe(404)
    expect(await reads(who, mediaId)).toBe(false)
  }
  const work = await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)
  expect(JSON.stringify(work.body)).not.toContain(mediaId)
  for (const who of [school.wren, school.parent, school.otherTeacher])
    expect((await put(piece, { ink: null, seenMediaId: mediaId }, who)).status).toBe(404)
})

test('two teachers at once: the second is told, and nothing is written over', async () => {
  const piece = await school.submitted()
  const both = await Promise.all([1, 2].map(() => put(piece, { ink: marked(photoOf(piece)) })))
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
  const late = both.find(({ status }) => status === 409)!.body as unknown as { type: string }
  expect(late.type).toBe('/problems/piece/marked-already')
  const first = both.find(({ status }) => status === 200)!.body[0]!
  const next = await put(piece, { ink: marked(photoOf(piece), line()), seenMediaId: first.mediaId })
  expect(next.status).toBe(200)
  expect(next.body[0]!.mediaId).not.toBe(first.mediaId)
  const none = await put(piece, { ink: null, seenMediaId: next.body[0]!.mediaId })
  expect(none.body).toEqual([])
})

test('takes pictures of that part and the teacher’s own, and no others', async () => {
  const piece = await school.submitted()
  const other = await school.submitted({ person: school.tomasz })
  const own = await school.teacher.upload(await picture(300, 200, '#123456'))
  expect((await put(piece, { ink: marked(photoOf(other)) })).status).toBe(404)
  const laid = await put(piece, { ink: marked(own.mediaId) })
  expect(laid.status).toBe(200)
  await decide(piece, 'send-back')
  expect(await reads(school.wren, own.mediaId)).toBe(true)
  expect(await reads(school.tomasz, own.mediaId)).toBe(false)
})

test('only on what can be drawn on, as it was handed in', async () => {
  const spoken = await school.submitted({
    part: { kind: 'writing', name: '', text: 'The wind.' },
  })
  expect((await put(spoken, { ink: copyToMark(newInk('s')) })).status).toBe(409)
  const piece = await school.submitted()
  const elsewhere = await school.submitted()
  const { id: versionId } = elsewhere.versions[0]!
  const wrong = `/review/pieces/${piece.id}/mark-ups/${versionId}/${elsewhere.versions[0]!.parts[0]!.id}`
  const body = { ink: marked(photoOf(elsewhere)), seenMediaId: null }
  expect((await school.teacher.ask('PUT', wrong, body)).status).toBe(409)
})
