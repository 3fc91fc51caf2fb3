import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import type {
  Child,
  GuardianRequest,
  InvitedParent,
  Problem,
  PupilSharing,
} from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const invite = (
  pupilId: string,
  parent: { firstName: string; email: string | null },
  id = newId(),
  who: Person = school.teacher,
) =>
  who.ask<InvitedParent & Problem>('PUT', `/sharing/pupils/${pupilId}/parents/${id}`, {
    lastName: '',
    ...parent,
  })
const letters = (of: { classId?: string; pupilId?: string }) =>
  school.teacher.fetch('POST', '/sharing/letters', {
    body: JSON.stringify(of),
    headers: { 'Content-Type': 'application/json' },
  })
const open = async (address: string): Promise<Person> => {
  const parent = test_.visitor()
  await parent.ask('POST', '/accounts/sign-in/invitation', { token: address.split('/').at(-1)! })
  return parent
}

const requestsOf = async (parent: Person) =>
  (await parent.ask<GuardianRequest[]>('GET', '/sharing/requests')).body
const childrenOf = async (parent: Person) =>
  (await parent.ask<Child[]>('GET', '/sharing/children')).body.map(({ firstName }) => firstName)

test('a parent who is here already is asked first: whoever invites learns nothing, and nothing is seen before they say yes', async () => {
  const id = newId()
  const bryn = { firstName: 'Bryn', email: 'Bryn@Saltmarsh.example' }
  for (let i = 0; i < 2; i++) {
    const { status, body } = await invite(school.ids.aoife, bryn, id, school.otherTeacher)
    // Mailed, so it is told to nobody.
    expect([status, body.address]).toEqual([200, null])
  }
  const letters = await test_.lettersTo('bryn@saltmarsh.example')
  expect(letters.map(({ subject }) => subject)).toEqual(['aoife’s work at school'])
  const parent = await open(/https?:\S+/.exec(letters[0]!.body)![0])
  expect(await childrenOf(parent)).toEqual(['aoife'])

  // Another class's teacher invites the same address, as somebody new.
  const requestId = newId()
  const asked = await invite(
    school.ids.wren,
    { firstName: 'B.', email: 'bryn@saltmarsh.example' },
    requestId,
  )
  expect(asked.body.address).toBeNull()
  const line = asked.body.guardians.find(({ email }) => email === 'bryn@saltmarsh.example')!
  expect(line).toMatchObject({
    id: requestId,
    firstName: 'B.',
    invitation: { id: requestId, state: 'asked', lastUsedAt: null },
  })
  const everything = JSON.stringify(asked.body)
  for (const secret of ['aoife', 'invitation/', id]) expect(everything).not.toContain(secret)
  expect(await childrenOf(parent)).toEqual(['aoife'])
  expect((await parent.ask('GET', `/sharing/children/${school.ids.wren}`)).status).toBe(404)
  const [, question] = await test_.lettersTo('bryn@saltmarsh.example')
  expect(question!.body).toContain('http://nibquill.example/family')
  expect(question!.body).not.toMatch(/invitation\//)

  // Asked twice, by two people, it is one question. Nobody else answers it.
  await invite(school.ids.wren, { firstName: 'Bryn', email: 'bryn@saltmarsh.example' })
  const [question_, ...more] = await requestsOf(parent)
  expect([question_, more.length]).toEqual([
    { id: requestId, childName: 'wren', className: 'heron', askedBy: 'Mr Adeyemi' },
    0,
  ])
  expect((await school.parent.ask('POST', `/sharing/requests/${requestId}/accept`)).status).toBe(
    404,
  )
  expect((await school.teacher.ask('POST', `/sharing/requests/${requestId}/accept`)).status).toBe(
    404,
  )
  expect((await parent.ask('POST', `/sharing/requests/${requestId}/accept`)).body).toEqual([])
  expect(await childrenOf(parent)).toEqual(['aoife', 'wren'])

  // From now on the way in shows two children: it is told to neither teacher, renewed or not.
  const { body } = await school.teacher.ask<PupilSharing>(
    'GET',
    `/sharing/pupils/${school.ids.wren}`,
  )
  const now = body.guardians.find(({ id: other }) => other === id)!
  const renewed = await school.teacher.ask<InvitedParent>(
    'POST',
    `/sharing/pupils/${school.ids.wren}/invitations/${now.invitation!.id}/renew`,
  )
  expect([renewed.status, renewed.body.address]).toEqual([200, null])
  expect(JSON.stringify(renewed.body)).not.toContain('aoife')
  expect((await test_.lettersTo('bryn@saltmarsh.example')).at(-1)!.body).toMatch(/invitation\//)

  // Taken away from one child, the other stays; with none left, nothing opens.
  const again = await open(
    /https?:\S+/.exec((await test_.lettersTo('bryn@saltmarsh.example')).at(-1)!.body)![0],
  )
  await school.teacher.ask('DELETE', `/sharing/pupils/${school.ids.wren}/parents/${id}`)
  expect((await again.ask('GET', `/sharing/children/${school.ids.wren}`)).status).toBe(404)
  expect(await childrenOf(again)).toEqual(['aoife'])
  await school.otherTeacher.ask('DELETE', `/sharing/pupils/${school.ids.aoife}/parents/${id}`)
  expect((await again.ask('GET', '/sharing/children')).status).toBe(401)
})

test('a way in that a teacher was told, or printed, opens nothing of a child that comes later', async () => {
  const mail = 'eira@saltmarsh.example'
  await invite(school.ids.aoife, { firstName: 'Eira', email: mail }, newId(), school.otherTeacher)
  // The teacher prints the letter before Eira has come, keeps a copy, and tries it.
  const printed = await school.otherTeacher.fetch('POST', '/sharing/letters', {
    body: JSON.stringify({ pupilId: school.ids.aoife }),
    headers: { 'Content-Type': 'application/json' },
  })
  const file = path.join(test_.config.dataFolder, 'kept.pdf')
  writeFileSync(file, Buffer.from(await printed.arrayBuffer()))
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
  const kept = /Dear Eira[\s\S]*?(http:\/\/nibquill\.example\/invitation\/\S+)/.exec(text)![1]!
  const snoop = await open(kept)
  expect(await childrenOf(snoop)).toEqual(['aoife'])

  const parent = await open(/https?:\S+/.exec((await test_.lettersTo(mail))[0]!.body)![0])
  const requestId = newId()
  await invite(school.ids.wren, { firstName: 'Eira', email: mail }, requestId)
  expect((await parent.ask('POST', `/sharing/requests/${requestId}/accept`)).status).toBe(200)
  // The page she said yes on goes on, the one opened by the copy does not, and the copy opens
  // nothing any more.
  expect(await childrenOf(parent)).toEqual(['aoife', 'wren'])
  expect((await snoop.ask('GET', '/sharing/children')).status).toBe(401)
  expect(
    (
      await test_
        .visitor()
        .ask('POST', '/accounts/sign-in/invitation', { token: kept.split('/').at(-1) })
    ).status,
  ).toBe(410)
  const fresh = await open(/https?:\S+/.exec((await test_.lettersTo(mail)).at(-1)!.body)![0])
  expect(await childrenOf(fresh)).toEqual(['aoife', 'wren'])
})

test('a parent who says no, or whose question is taken back, stays where they were', async () => {
  const mail = 'cerys@saltmarsh.example'
  await invite(school.ids.aoife, { firstName: 'Cerys', email: mail }, newId(), school.otherTeacher)
  const parent = await open(/https?:\S+/.exec((await test_.lettersTo(mail))[0]!.body)![0])
  const first = newId()
  await invite(school.ids.wren, { firstName: 'Cerys', email: mail }, first)
  expect((await parent.ask('POST', `/sharing/requests/${first}/decline`)).body).toEqual([])
  expect((await parent.ask('POST', `/sharing/requests/${first}/accept`)).status).toBe(404)
  const second = newId()
  await invite(school.ids.wren, { firstName: 'Cerys', email: mail }, second)
  await school.teacher.ask('DELETE', `/sharing/pupils/${school.ids.wren}/parents/${second}`)
  expect(await requestsOf(parent)).toEqual([])
  expect((await parent.ask('POST', `/sharing/requests/${second}/accept`)).status).toBe(404)
  expect(await childrenOf(parent)).toEqual(['aoife'])
})

test('a way in is told once, to whoever made it, and can be made anew', async () => {
  const id = newId()
  const made = await invite(school.ids.wren, { firstName: 'Dilys', email: null }, id)
  const parent = await open(made.body.address!)
  expect(await childrenOf(parent)).toEqual(['wren'])
  expect(
    (await invite(school.ids.wren, { firstName: 'Dilys', email: null }, id)).body.address,
  ).toBeNull()
  const { body } = await school.teacher.ask<PupilSharing>(
    'GET',
    `/sharing/pupils/${school.ids.wren}`,
  )
  expect(JSON.stringify(body)).not.toContain('/invitation/')
  const { id: invitationId } = body.guardians.find((guardian) => guardian.id === id)!.invitation!
  const renewed = await school.teacher.ask<InvitedParent>(
    'POST',
    `/sharing/pupils/${school.ids.wren}/invitations/${invitationId}/renew`,
  )
  expect(renewed.body.address).not.toBe(made.body.address)
  expect((await parent.ask('GET', '/sharing/children')).status).toBe(401)
  expect(await childrenOf(await open(renewed.body.address!))).toEqual(['wren'])
})

test('the address of a member of staff is nobody’s parent, and another parent’s id opens nothing', async () => {
  expect(
    (await invite(school.ids.wren, { firstName: 'X', email: 'a@saltmarsh.example' })).body.type,
  ).toBe('/problems/accounts/email-taken')
  expect(
    (await invite(school.ids.wren, { firstName: 'X', email: null }, school.ids.aoifesParent))
      .status,
  ).toBe(404)
  expect((await invite(school.ids.wren, { firstName: '', email: null })).status).toBe(400)
  expect((await invite(school.ids.wren, { firstName: 'X', email: 'no address' })).status).toBe(400)
})

test('letters carry the way in, for those who have not come yet', async () => {
  await invite(school.ids.tomasz, { firstName: 'Nerys', email: null })
  const response = await letters({ classId: school.ids.heron })
  expect(response.headers.get('content-type')).toBe('application/pdf')
  const file = path.join(test_.config.dataFolder, 'letters.pdf')
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  execFileSync('qpdf', ['--check', file])
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
  const address = /http:\/\/nibquill\.example\/invitation\/\S+/.exec(text)![0]
  expect(text).toContain('Dear Nerys')
  const parent = await open(address)
  expect(
    (await parent.ask<Child[]>('GET', '/sharing/children')).body.map(({ firstName }) => firstName),
  ).toEqual(['tomasz'])
  // Now that she has come, there is nobody left to write to.
  const none = await letters({ pupilId: school.ids.tomasz })
  expect(((await none.json()) as Problem).type).toBe('/problems/sharing/no-letters')
})

test('an invitation says whose work it opens, and is not used by that; one that ended says so', async () => {
  const { body } = await invite(school.ids.tomasz, { firstName: 'Idris', email: null })
  const token = body.address!.split('/').at(-1)!
  const look = (one: string) => test_.visitor().ask('POST', '/accounts/invitation', { token: one })
  for (let i = 0; i < 2; i++) expect((await look(token)).body).toEqual({ childNames: ['tomasz'] })
  const sharing = await school.teacher.ask<PupilSharing>(
    'GET',
    `/sharing/pupils/${school.ids.tomasz}`,
  )
  const invited = sharing.body.guardians.find(({ firstName }) => firstName === 'Idris')!
  expect(invited.invitation!.lastUsedAt).toBeNull()
  await school.teacher.ask(
    'POST',
    `/sharing/pupils/${school.ids.tomasz}/invitations/${invited.invitation!.id}/withdraw`,
  )
  for (const ended of [token, 'never-was-an-invitation'])
    expect((await look(ended)).body.type).toBe('/problems/accounts/invitation-over')
})

test('consent is written down with who and when, and counts at once', async () => {
  const piece = await school.approved()
  const at = `/sharing/pupils/${school.ids.wren}`
  const sees = async () =>
    (await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)).status
  expect(await sees()).toBe(200)
  await school.teacher.ask('PUT', `${at}/consents/sharing`, { granted: false })
  expect(await sees()).toBe(404)
  expect((await school.parent.ask('GET', `/media/${pictureOf(piece.parts[0])}/320`)).status).toBe(
    404,
  )
  const { body } = await school.teacher.ask<PupilSharing>('PUT', `${at}/consents/voice`, {
    granted: true,
  })
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
  for (const [who, status] of [
    [school.otherTeacher, 404],
    [school.wren, 404],
    [school.parent, 404],
    [test_.visitor(), 401],
  ] as const) {
    expect(
      (await invite(school.ids.wren, { firstName: 'X', email: null }, newId(), who)).status,
    ).toBe(status)
    expect((await who.ask('GET', at)).status).toBe(status)
    expect((await who.ask('PUT', `${at}/consents/sharing`, { granted: true })).status).toBe(status)
    expect((await who.ask('POST', '/sharing/letters', { classId: school.ids.heron })).status).toBe(
      status,
    )
    expect((await who.ask('DELETE', `${at}/parents/${school.ids.wrensParent}`)).status).toBe(status)
    expect((await who.ask('GET', '/mail')).status).toBe(status)
    expect((await who.ask('POST', `/accounts/pupils/${school.ids.wren}/card`)).status).toBe(status)
  }
})
