import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import type { Child, PostBox, Problem, PupilSharing } from '@nibquill/contract'
import { type Person, type SmallSchool, type TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const invite = (
  pupilId: string,
  parent: { firstName: string; email: string | null },
  id = newId(),
  who: Person = school.teacher,
) => who.ask<PupilSharing & Problem>('PUT', `/sharing/pupils/${pupilId}/parents/${id}`, { lastName: '', ...parent })
const mails = async () => (await school.teacher.ask<PostBox>('GET', '/mail')).body.mails
const open = async (address: string): Promise<Person> => {
  const parent = test_.visitor()
  await parent.ask('POST', '/accounts/sign-in/invitation', { token: address.split('/').at(-1)! })
  return parent
}

test('a parent is invited by mail, once however often it is sent, and sees both children by one invitation', async () => {
  const id = newId()
  const bryn = { firstName: 'Bryn', email: 'Bryn@Saltmarsh.example' }
  for (let i = 0; i < 2; i++) expect((await invite(school.ids.wren, bryn, id)).status).toBe(200)
  const letters = (await mails()).filter(({ to }) => to === 'bryn@saltmarsh.example')
  expect(letters).toMatchObject([{ subject: 'wren’s work at school', state: 'kept' }])
  const parent = await open(/https?:\S+/.exec(letters[0]!.body)![0])
  expect((await parent.ask<Child[]>('GET', '/sharing/children')).body.map(({ firstName }) => firstName)).toEqual(['wren'])
  const second = await invite(school.ids.tomasz, bryn)
  expect(second.body.guardians.at(-1)).toMatchObject({ id, otherChildren: ['wren'] })
  expect((await mails()).filter(({ to }) => to === 'bryn@saltmarsh.example')).toHaveLength(1)
  expect((await parent.ask<Child[]>('GET', '/sharing/children')).body.map(({ firstName }) => firstName)).toEqual([
    'tomasz',
    'wren',
  ])

  // Taken away from one child, the other stays; with none left, nothing opens.
  await school.teacher.ask('DELETE', `/sharing/pupils/${school.ids.tomasz}/parents/${id}`)
  expect((await parent.ask('GET', `/sharing/children/${school.ids.tomasz}`)).status).toBe(404)
  expect((await parent.ask<Child[]>('GET', '/sharing/children')).body).toHaveLength(1)
  await school.teacher.ask('DELETE', `/sharing/pupils/${school.ids.wren}/parents/${id}`)
  expect((await parent.ask('GET', '/sharing/children')).status).toBe(401)
})

test('the address of a member of staff is nobody’s parent, and another parent’s id opens nothing', async () => {
  expect((await invite(school.ids.wren, { firstName: 'X', email: 'a@saltmarsh.example' })).body.type).toBe(
    '/problems/accounts/email-taken',
  )
  expect((await invite(school.ids.wren, { firstName: 'X', email: null }, school.ids.aoifesParent)).status).toBe(404)
  expect((await invite(school.ids.wren, { firstName: '', email: null })).status).toBe(400)
  expect((await invite(school.ids.wren, { firstName: 'X', email: 'no address' })).status).toBe(400)
})

test('letters carry the way in, for those who have not come yet', async () => {
  await invite(school.ids.tomasz, { firstName: 'Nerys', email: null })
  const response = await school.teacher.fetch('GET', `/sharing/letters?classId=${school.ids.heron}`)
  expect(response.headers.get('content-type')).toBe('application/pdf')
  const file = path.join(test_.config.dataFolder, 'letters.pdf')
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  execFileSync('qpdf', ['--check', file])
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
  const address = /http:\/\/nibquill\.example\/invitation\/\S+/.exec(text)![0]
  expect(text).toContain('Dear Nerys')
  const parent = await open(address)
  expect((await parent.ask<Child[]>('GET', '/sharing/children')).body.map(({ firstName }) => firstName)).toEqual(['tomasz'])
  // Now that she has come, there is nobody left to write to.
  expect((await school.teacher.ask<Problem>('GET', `/sharing/letters?pupilId=${school.ids.tomasz}`)).body.type).toBe(
    '/problems/sharing/no-letters',
  )
})

test('consent is written down with who and when, and counts at once', async () => {
  const piece = await school.approved()
  const at = `/sharing/pupils/${school.ids.wren}`
  const sees = async () => (await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)).status
  expect(await sees()).toBe(200)
  await school.teacher.ask('PUT', `${at}/consents/sharing`, { granted: false })
  expect(await sees()).toBe(404)
  expect((await school.parent.ask('GET', `/media/${piece.parts[0]!.mediaId}/320`)).status).toBe(404)
  const { body } = await school.teacher.ask<PupilSharing>('PUT', `${at}/consents/voice`, { granted: true })
  expect(body.consents).toMatchObject([
    { kind: 'photos', granted: null, saidBy: null },
    { kind: 'voice', granted: true, saidBy: 'Mr Adeyemi', saidAt: '2026-11-23T10:00:00.000Z' },
    { kind: 'sharing', granted: false },
  ])
  await school.teacher.ask('PUT', `${at}/consents/sharing`, { granted: true })
  expect(await sees()).toBe(200)
})

test('all of this is for the class’s teachers and the lead', async () => {
  const at = `/sharing/pupils/${school.ids.wren}`
  for (const [who, status] of [[school.otherTeacher, 404], [school.wren, 404], [school.parent, 404], [test_.visitor(), 401]] as const) {
    expect((await invite(school.ids.wren, { firstName: 'X', email: null }, newId(), who)).status).toBe(status)
    expect((await who.ask('GET', at)).status).toBe(status)
    expect((await who.ask('PUT', `${at}/consents/sharing`, { granted: true })).status).toBe(status)
    expect((await who.ask('GET', `/sharing/letters?classId=${school.ids.heron}`)).status).toBe(status)
    expect((await who.ask('DELETE', `${at}/parents/${school.ids.wrensParent}`)).status).toBe(status)
    expect((await who.ask('GET', '/mail')).status).toBe(status)
    expect((await who.ask('POST', `/accounts/pupils/${school.ids.wren}/card`)).status).toBe(status)
  }
}) // prettier-ignore
