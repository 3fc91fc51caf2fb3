import type { FolderDetail } from '@nibquill/contract'
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

const find = async (query: string, who: Person = school.wren) => {
  const { status, body } = await who.ask<FolderDetail>('GET', `/folders/${school.ids.open}${query}`)
  return status === 200 ? body.pieces.map(({ title }) => title).sort() : status
}
const titled = async (title: string, part?: object, person = school.wren) => {
  const piece = await school.draft({ person, ...(part ? { part } : {}) })
  const { version } = piece
  const named = await person.ask('PATCH', `/pieces/${piece.id}`, { seenVersion: version, title })
  const handed = await person.ask('POST', `/pieces/${piece.id}/hand-in`, {
    seenVersion: named.body.version,
  })
  return (
    await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
      ...{ move: 'approve', message: '', seenVersion: handed.body.version },
    })
  ).body
}

beforeAll(async () => {
  await titled('100% Kelp')
  await titled('A story', { kind: 'writing', name: '', text: 'The limpet went home.' })
  await titled('Tomasz’s tide', undefined, school.tomasz)
  const { mediaId } = await school.wren.upload(await recording(), { filename: 'voice.webm' })
  const voice = { kind: 'voice', name: '', files: { sound: mediaId } }
  const spoken = await titled('What I heard', voice)
  const part = spoken.versions[0]!.parts[0]!.id
  await school.teacher.ask('PUT', `/review/pieces/${spoken.id}/parts/${part}/transcript`, {
    ...{ text: 'Gulls, and a bell.', seenText: '' },
  })
})

test.each([
  ['?words=kelp', ['100% Kelp']],
  ['?words=LIMPET%20home', ['A story']],
  ['?words=bell', ['What I heard']],
  ['?words=limpet%20bell', []],
  // What means something to the database means nothing here.
  ['?words=%25%20Kelp', ['100% Kelp']],
  ['?words=_', []],
  ['?words=%5C', []],
  ['?words=sideways', ['100% Kelp', 'A story', 'What I heard']],
])('a pupil looks for %s and finds %j', async (query, found) => {
  expect(await find(query)).toEqual(found)
})

test('a teacher looks for a name too; a pupil finds nothing of anybody else', async () => {
  expect(await find('?words=tomasz', school.teacher)).toEqual(['Tomasz’s tide'])
  expect(await find('?words=tide')).toEqual([])
  expect(await find('?words=kelp', school.aoife)).toBe(404)
})

test('by the month in which it was approved, by the school’s clock', async () => {
  await test_.manager.query(
    "update piece set approved_at = '2026-10-31T23:30:00Z' where title = '100% Kelp'",
  )
  expect(await find('?month=2026-10')).toEqual(['100% Kelp'])
  expect(await find('?month=2026-11')).toEqual(['A story', 'What I heard'])
  expect(await find('?month=2026-10&words=story')).toEqual([])
  const { body } = await school.wren.ask<FolderDetail>('GET', `/folders/${school.ids.open}`)
  expect(body.months).toEqual(['2026-11', '2026-10'])
  expect(await find('?month=2026-13')).toBe(400)
  expect(await find(`?words=${'x'.repeat(81)}`)).toBe(400)
})

test('what is bettered is found by what was approved, not by what is written now', async () => {
  const piece = await titled('Old name')
  const open = await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, {
    seenVersion: piece.version,
  })
  await school.wren.ask('PATCH', `/pieces/${piece.id}`, {
    ...{ seenVersion: open.body.version, title: 'New name' },
  })
  expect(await find('?words=old')).toEqual(['Old name'])
  expect(await find('?words=new')).toEqual([])
})

test('a piece says how far it was when it was approved, whatever goes on in a later go', async () => {
  const stepOf = async (id: string) => {
    const { body } = await school.wren.ask<FolderDetail>('GET', `/folders/${school.ids.open}`)
    return body.pieces.find((piece) => piece.id === id)?.step
  }
  const draft = await school.draft()
  const at = `/pieces/${draft.id}`
  const planned = { seenVersion: draft.version, step: 'plan' }
  const { version } = (await school.wren.ask('PATCH', at, planned)).body
  const handed = (await school.wren.ask('POST', `${at}/hand-in`, { seenVersion: version })).body
  const decided = { move: 'approve', message: '', seenVersion: handed.version }
  const approved = (await school.teacher.ask('POST', `/review${at}`, decided)).body
  const seen = { seenVersion: approved.version }
  const again = (await school.wren.ask('POST', `${at}/another-go`, seen)).body
  const built = { seenVersion: again.version, step: 'trying-out' }
  expect((await school.wren.ask('PATCH', at, built)).body.step).toBe('trying-out')
  expect(await stepOf(draft.id)).toBe('plan')
})
