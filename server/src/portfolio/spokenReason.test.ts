import type { ChildWork, Piece, Portfolio, Problem } from '@nibquill/contract'
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

const say = async (who: Person = school.wren) =>
  (await who.upload(await recording(), { filename: 'voice.webm' })).mediaId
const pick = (piece: Piece, change: object) =>
  school.wren.ask<Portfolio & Problem>('PUT', `/portfolio/${school.ids.wren}/picks/${piece.id}`, {
    reason: '',
    ...change,
  })
const voiceIn = ({ chapters }: Portfolio) => chapters.flatMap(({ picks }) => picks)[0]?.voice
const mayHear = async (who: Person, mediaId: string) =>
  (await who.fetch('GET', `/media/${mediaId}/playable`)).status === 200

test('why something was picked is said: its pupil, their teacher and their family hear it', async () => {
  const piece = await school.approved()
  const voiceId = await say()
  expect(voiceIn((await pick(piece, { voiceId })).body)?.mediaId).toBe(voiceId)
  for (const who of [school.wren, school.teacher, school.parent])
    expect(await mayHear(who, voiceId)).toBe(true)
  for (const who of [school.tomasz, school.otherParent])
    expect(await mayHear(who, voiceId)).toBe(false)
  const { body: work } = await school.parent.ask<ChildWork>(
    'GET',
    `/sharing/children/${school.ids.wren}`,
  )
  const shared = work.chapters.flatMap(({ pieces }) => pieces).find(({ id }) => id === piece.id)
  expect(shared?.reasonVoice?.mediaId).toBe(voiceId)
  // Another place leaves it; said anew, the first is nobody's any more; picked no more, neither is.
  expect(voiceIn((await pick(piece, { place: 0 })).body)?.mediaId).toBe(voiceId)
  const again = await say()
  await pick(piece, { voiceId: again })
  expect(await mayHear(school.parent, voiceId)).toBe(false)
  expect(await mayHear(school.parent, again)).toBe(true)
  await school.wren.ask('DELETE', `/portfolio/${school.ids.wren}/picks/${piece.id}`)
  expect(await mayHear(school.parent, again)).toBe(false)
})

test('the family of who made it too does not hear why somebody else picked it', async () => {
  const { body: draft } = await school.wren.ask<Piece>(
    'PUT',
    `/pieces/${(await school.draft()).id}/makers`,
    { makerIds: [school.ids.tomasz] },
  )
  await test_.manager.query('update guardian set pupil_id = $1 where parent_id = $2', [
    school.ids.tomasz,
    school.ids.aoifesParent,
  ])
  for (const pupilId of [school.ids.wren, school.ids.tomasz])
    await school.teacher.ask('PUT', `/sharing/pupils/${pupilId}/consents/sharing`, {
      granted: true,
    })
  const { body: handedIn } = await school.wren.ask<Piece>('POST', `/pieces/${draft.id}/hand-in`, {
    seenVersion: draft.version,
  })
  await school.teacher.ask('POST', `/review/pieces/${draft.id}`, {
    ...{ move: 'approve', message: '', seenVersion: handedIn.version },
  })
  const voiceId = await say()
  await pick(handedIn, { voiceId })
  expect(await mayHear(school.parent, voiceId)).toBe(true)
  expect(await mayHear(school.otherParent, voiceId)).toBe(false)
})

test('nobody says it with somebody else’s voice', async () => {
  const piece = await school.approved()
  const refused = await pick(piece, { voiceId: await say(school.tomasz) })
  expect(refused.body.type).toBe('/problems/media/not-found')
})
