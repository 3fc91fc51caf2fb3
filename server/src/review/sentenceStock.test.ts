import type { Sentences } from '@nibquill/contract'
import { type Person, type SmallSchool, useSmallSchool } from '../testing/testServer.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

const put = (who: Person, sentences: string[]) =>
  who.ask<Sentences>('PUT', '/review/sentences', { sentences })
const list = async (who: Person) =>
  (await who.ask<Sentences>('GET', '/review/sentences')).body.sentences

test('a teacher’s stock is their own, in their order, each sentence once', async () => {
  expect(await list(school.teacher)).toEqual([])
  const { body } = await put(school.teacher, [' Read it aloud. ', 'Add a label.', 'Read it aloud.'])
  expect(body.sentences).toEqual(['Read it aloud.', 'Add a label.'])
  expect(await list(school.otherTeacher)).toEqual([])
  await put(school.teacher, ['Add a label.'])
  expect(await list(school.teacher)).toEqual(['Add a label.'])
})

test('nobody but teachers has one', async () => {
  for (const who of [school.wren, school.parent]) expect((await put(who, ['x'])).status).toBe(404)
})
