import { v7 as newId } from 'uuid'
import type { InvitedParent, NewsItem, PostBox, StaffMember } from '@nibquill/contract'
import {
  picture,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

type Note = {
  action: string
  personId: string | null
  subjectId: string | null
  details: Record<string, unknown> | null
}
/** What is noted while something is done, oldest first. */
async function notesOf(work: () => Promise<unknown>): Promise<Note[]> {
  const [before] = await test_.manager.query<{ id: string }[]>(
    'select coalesce(max(id::text), $1) as id from audit',
    [''],
  )
  await work()
  return test_.manager.query(
    'select action, person_id as "personId", subject_id as "subjectId", details from audit where id::text > $1 order by id',
    [before!.id],
  )
}
const actionsOf = async (work: () => Promise<unknown>) =>
  (await notesOf(work)).map(({ action }) => action)

test('who makes a piece, its parts, their names and order: each change is noted by whoever did it', async () => {
  const piece = await school.draft()
  const partId = piece.parts[0]!.id
  const at = `/pieces/${piece.id}`
  const [makers] = await notesOf(() =>
    school.wren.ask('PUT', `${at}/makers`, { makerIds: [school.ids.tomasz] }),
  )
  expect(makers).toMatchObject({
    action: 'piece.makers',
    personId: school.ids.wren,
    subjectId: piece.id,
  })
  expect(makers!.details).toMatchObject({
    before: [school.ids.wren],
    after: expect.arrayContaining([school.ids.tomasz]),
  })
  const second = newId()
  const { mediaId } = await school.tomasz.upload(await picture(300, 200, '#445566'))
  const [added] = await notesOf(() =>
    school.tomasz.ask('PUT', `${at}/parts/${second}`, {
      kind: 'photo',
      files: { picture: mediaId },
      name: '',
    }),
  )
  expect(added).toMatchObject({
    action: 'part.add',
    personId: school.ids.tomasz,
    details: { partId: second },
  })
  expect(
    await actionsOf(() => school.wren.ask('PATCH', `${at}/parts/${partId}`, { name: 'Claw' })),
  ).toEqual(['part.name'])
  expect(
    await actionsOf(() => school.wren.ask('PUT', `${at}/order`, { partIds: [second, partId] })),
  ).toEqual(['part.order'])
  expect(await actionsOf(() => school.wren.ask('DELETE', `${at}/parts/${partId}`))).toEqual([
    'part.remove',
  ])
  expect(await actionsOf(() => school.wren.ask('POST', `${at}/parts/${partId}/restore`))).toEqual([
    'part.restore',
  ])
})

test('picks, in and out', async () => {
  const piece = await school.approved()
  const at = `/portfolio/${school.ids.wren}/picks/${piece.id}`
  expect(await actionsOf(() => school.wren.ask('PUT', at, { reason: 'best' }))).toEqual([
    'portfolio.pick',
  ])
  expect(await actionsOf(() => school.wren.ask('DELETE', at))).toEqual(['portfolio.unpick'])
})

test('rights of folders, staff and doors are noted with what was and what is', async () => {
  const { body: staff } = await school.teacher.ask<StaffMember[]>('GET', '/school/staff')
  const okafor = staff.find(({ email }) => email === 'o@saltmarsh.example')!
  const [change] = await notesOf(() =>
    school.teacher.ask('PATCH', `/school/staff/${okafor.id}`, { leads: true }),
  )
  expect(change).toMatchObject({
    action: 'staff.change',
    subjectId: okafor.id,
    details: { before: { leads: false }, after: { leads: true } },
  })
  await school.teacher.ask('PATCH', `/school/staff/${okafor.id}`, { leads: false })
  const door = `/accounts/classes/${school.ids.heron}/door`
  const [opened] = await notesOf(() => school.teacher.ask('PATCH', door, { tabletLimit: 5 }))
  expect(opened).toMatchObject({
    action: 'door.change',
    details: { before: { tabletLimit: 16 }, after: { tabletLimit: 5 } },
  })
})

test('coming in, in vain, and leaving', async () => {
  const visitor = test_.visitor()
  const signIn = (password: string) =>
    visitor.ask('POST', '/accounts/sign-in/password', { email: 'o@saltmarsh.example', password })
  expect(await notesOf(() => signIn('not this one'))).toMatchObject([
    {
      action: 'sign-in.failed',
      personId: null,
      subjectId: expect.any(String),
      details: { way: 'password' },
    },
  ])
  expect(
    await notesOf(() =>
      visitor.ask('POST', '/accounts/sign-in/card', { code: 'ACDE FGHJ KMNP RTWX' }),
    ),
  ).toMatchObject([{ action: 'sign-in.failed', details: { way: 'card' } }])
  expect(
    await notesOf(() =>
      visitor.ask('POST', '/accounts/sign-in/invitation', { token: 'nothing-behind-this' }),
    ),
  ).toMatchObject([{ action: 'sign-in.failed', details: { way: 'invitation' } }])
  await signIn('a long enough password')
  expect(await notesOf(() => visitor.ask('POST', '/accounts/sign-out'))).toMatchObject([
    { action: 'signed-out', details: { why: 'asked' } },
  ])
})

test('what is taken away: books, lists, letters', async () => {
  await school.approved()
  const order = { pupilId: school.ids.wren, termId: school.ids.term, madeFor: 'school' }
  const { body } = await school.teacher.ask<{ id: string }>('POST', '/book', order)
  await until(
    async () =>
      (await school.teacher.ask<{ state: string }>('GET', `/book/${body.id}`)).body.state ===
      'ready',
  )
  expect(
    await notesOf(async () =>
      (await school.teacher.fetch('GET', `/book/${body.id}/file`)).arrayBuffer(),
    ),
  ).toMatchObject([{ action: 'book.download', subjectId: body.id }])
  const list = `/school/export?format=csv&classId=${school.ids.heron}`
  expect(await notesOf(async () => (await school.teacher.fetch('GET', list)).text())).toMatchObject(
    [{ action: 'list.download', subjectId: school.ids.heron, details: { format: 'csv' } }],
  )
  const letters = () =>
    school.teacher.fetch('POST', '/sharing/letters', {
      body: JSON.stringify({ classId: school.ids.heron }),
      headers: { 'Content-Type': 'application/json' },
    })
  await school.teacher.ask<InvitedParent>(
    'PUT',
    `/sharing/pupils/${school.ids.tomasz}/parents/${newId()}`,
    { firstName: 'N', lastName: '', email: null },
  )
  expect(await actionsOf(async () => (await letters()).arrayBuffer())).toEqual([
    'invitation.make',
    'letters.print',
  ])
})

describe('a new name card', () => {
  const newsOf = async (person = school.otherTeacher) =>
    (await person.ask<NewsItem[]>('GET', '/notices/news')).body.filter(({ seen }) => !seen)
  beforeAll(async () => {
    const [row] = await test_.manager.query<{ id: string }[]>(
      "select id from person where email = 'o@saltmarsh.example'",
    )
    await test_.manager.query('insert into enrolment (class_id, person_id) values ($1, $2)', [
      school.ids.heron,
      row!.id,
    ])
  })

  test('for one pupil is news for the other teachers of the class, until they have seen it', async () => {
    expect(
      await actionsOf(() =>
        school.teacher.ask('POST', `/accounts/pupils/${school.ids.tomasz}/card`),
      ),
    ).toContain('name-card')
    expect(await newsOf()).toMatchObject([
      { kind: 'name-card', by: 'Mr Adeyemi', about: 'tomasz A.', className: null },
    ])
    expect(await newsOf(school.teacher)).toEqual([])
    expect((await newsOf(school.wren)).every(({ kind }) => kind === 'approved')).toBe(true)
    // Somebody else's word for it does not count.
    const ids = (await newsOf()).map(({ id }) => id)
    await school.teacher.ask('POST', '/notices/news/seen', { ids })
    expect(await newsOf()).toHaveLength(1)
    await school.otherTeacher.ask('POST', '/notices/news/seen', { ids })
    expect(await newsOf()).toEqual([])
  })

  test('for a whole class is one line', async () => {
    await school.teacher.ask('POST', '/accounts/cards', { classId: school.ids.heron })
    const news = await until(async () => {
      const found = await newsOf()
      return found.length > 0 && found
    })
    expect(news).toMatchObject([{ kind: 'name-card', about: null, className: 'heron' }])
    const ids = news.map(({ id }) => id)
    await school.otherTeacher.ask('POST', '/notices/news/seen', { ids })
  })

  test('and so is a letter with a way in that was opened in the post box', async () => {
    const parentId = newId()
    await school.otherTeacher.ask(
      'PUT',
      `/sharing/pupils/${school.ids.aoife}/parents/${parentId}`,
      {
        firstName: 'Cai',
        lastName: 'B.',
        email: 'cai@saltmarsh.example',
      },
    )
    const { body: box } = await school.teacher.ask<PostBox>('GET', '/mail')
    const letter = box.mails.find(({ to }) => to === 'cai@saltmarsh.example')!
    expect(JSON.stringify(box)).not.toMatch(/invitation\//)
    const opened = await school.teacher.ask<{ body: string; blanked: boolean }>(
      'POST',
      `/mail/${letter.id}/open`,
    )
    expect(opened.body.blanked).toBe(false)
    expect(await newsOf()).toMatchObject([
      { kind: 'letter-opened', by: 'Mr Adeyemi', about: 'Cai B.' },
    ])

    // Once they have come in, nobody else is shown how.
    const token = /invitation\/(\S+)/.exec(opened.body.body)![1]!
    await test_.visitor().ask('POST', '/accounts/sign-in/invitation', { token })
    const again = await notesOf(async () => {
      const { body } = await school.teacher.ask<{ body: string; blanked: boolean }>(
        'POST',
        `/mail/${letter.id}/open`,
      )
      expect(body.blanked).toBe(true)
      expect(body.body).not.toContain(token)
      expect(body.body).toContain('…')
    })
    expect(again).toMatchObject([
      { action: 'letter.open', subjectId: parentId, details: { blanked: true } },
    ])
    expect((await school.otherTeacher.ask('POST', `/mail/${letter.id}/open`)).status).toBe(404)
  })
})
