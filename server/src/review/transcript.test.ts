import type { ChildWork, Piece, Problem, VoicePart } from '@nibquill/contract'
import { recording } from '../testing/madeFiles.ts'
import { type Person, type SmallSchool, useSmallSchool } from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

async function spoken(): Promise<Piece> {
  const { mediaId } = await school.wren.upload(await recording(), { filename: 'said.webm' })
  return school.submitted({ part: { kind: 'voice', name: '', files: { sound: mediaId } } })
}
const voiceOf = ({ parts }: Pick<Piece, 'parts'>) => parts[0] as VoicePart
const type = (piece: Piece, text: string, seenText = '', who: Person = school.teacher) =>
  who.ask<Piece & Problem>(
    'PUT',
    `/review/pieces/${piece.id}/parts/${piece.parts[0]!.id}/transcript`,
    { text, seenText },
  )

test('a teacher types what is said: whoever sees the piece reads it, and nothing of the piece changes', async () => {
  const piece = await spoken()
  const { body } = await type(piece, 'It walks sideways.')
  expect(body.version).toBe(piece.version)
  expect(voiceOf(body.versions[0]!)).toMatchObject({ text: '', typed: 'It walks sideways.' })
  expect(voiceOf((await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body).typed).toBe(
    'It walks sideways.',
  )
  await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    ...{ move: 'approve', message: '', seenVersion: piece.version },
  })
  const { body: work } = await school.parent.ask<ChildWork>(
    'GET',
    `/sharing/children/${school.ids.wren}`,
  )
  const shared = work.chapters.flatMap(({ pieces }) => pieces).find(({ id }) => id === piece.id)!
  expect(voiceOf(shared).typed).toBe('It walks sideways.')
})

test('what another teacher typed is not written over; nobody but a teacher of the class types', async () => {
  const piece = await spoken()
  await type(piece, 'It hides.')
  const late = await type(piece, 'It walks.')
  expect(late.body).toMatchObject({ type: '/problems/piece/part-changed', text: 'It hides.' })
  expect((await type(piece, 'It walks.', 'It hides.')).status).toBe(200)
  for (const who of [school.wren, school.tomasz, school.parent])
    expect((await type(piece, 'Mine.', 'It walks.', who)).status).toBeGreaterThanOrEqual(400)
  const photo = await school.submitted()
  expect((await type(photo, 'Words')).body.type).toBe('/problems/piece/part-gone')
})
