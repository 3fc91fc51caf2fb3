import type { MyPieces, NewsItem, Piece, Problem } from '@nibquill/contract'
import { recording } from '../testing/madeFiles.ts'
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

const say = async (who: Person = school.teacher) =>
  (await who.upload(await recording(), { filename: 'voice.webm' })).mediaId
const decide = (piece: Piece, decision: object) =>
  school.teacher.ask<Piece & Problem>('POST', `/review/pieces/${piece.id}`, {
    ...{ move: 'send-back', message: '', seenVersion: piece.version },
    ...decision,
  })
const mayHear = async (who: Person, mediaId: string) =>
  (await who.fetch('GET', `/media/${mediaId}/playable`)).status === 200

test('what is said is enough for another go; its pupil finds it on the desk, with the news and the version', async () => {
  const piece = await school.submitted()
  const voiceId = await say()
  const { body } = await decide(piece, { voiceId })
  expect(body.versions[0]!.decision).toMatchObject({ message: '', voice: { mediaId: voiceId } })
  const { pieces } = (await school.wren.ask<MyPieces>('GET', '/pieces')).body
  expect(pieces.find(({ id }) => id === piece.id)?.voice?.mediaId).toBe(voiceId)
  const { body: news } = await school.wren.ask<NewsItem[]>('GET', '/notices/news')
  expect(news[0]).toMatchObject({ kind: 'returned', voice: { mediaId: voiceId } })
  expect(await mayHear(school.wren, voiceId)).toBe(true)
})

test('nobody hears it but who makes the piece and its teachers: no family, no other pupil, also once it is approved', async () => {
  const piece = await school.submitted()
  const voiceId = await say()
  const { body } = await decide(piece, { move: 'approve', voiceId })
  expect(body.state).toBe('approved')
  expect(await mayHear(school.wren, voiceId)).toBe(true)
  expect(await mayHear(school.parent, voiceId)).toBe(false)
  expect(await mayHear(school.tomasz, voiceId)).toBe(false)
  expect((await test_.visitor().fetch('GET', `/media/${voiceId}/playable`)).status).toBe(401)
  const { body: child } = await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)
  expect(JSON.stringify(child)).not.toContain(voiceId)
})

test('neither words nor a voice is no next step; a picture and somebody else’s voice are none', async () => {
  const piece = await school.submitted()
  expect((await decide(piece, {})).status).toBe(400)
  const { mediaId } = await school.teacher.upload(await picture(40, 40, '#2f6e8c'))
  expect((await decide(piece, { voiceId: mediaId })).body.type).toBe('/problems/media/not-found')
  const foreign = await say(school.wren)
  expect((await decide(piece, { voiceId: foreign })).body.type).toBe('/problems/media/not-found')
})

test('taken back, nobody hears it any more; said again, it is heard', async () => {
  const piece = await school.submitted()
  const voiceId = await say()
  const { body: decided } = await decide(piece, { voiceId })
  const { body: back } = await school.teacher.ask<Piece>(
    'POST',
    `/review/pieces/${piece.id}/take-back`,
    { seenVersion: decided.version },
  )
  expect(await mayHear(school.wren, voiceId)).toBe(false)
  await decide(back, { voiceId })
  await until(() => mayHear(school.wren, voiceId))
})
