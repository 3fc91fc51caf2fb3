import { strToU8, unzipSync, zipSync } from 'fflate'
import { v7 as newId } from 'uuid'
import type {
  ClassDetail,
  ClassList,
  LatestRollOver,
  Problem,
  PutYear,
  RollOverPlan,
  SchoolClass,
  SchoolYears,
  StaffMember,
  TakenList,
} from '@nibquill/contract'
import { ONE_ROSTER_HEADINGS } from '@nibquill/core/school/oneRoster'
import {
  PASSWORD,
  type Person,
  SmallSchool,
  TestServer,
  until,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const NEXT: PutYear = {
  name: '2027/28',
  startsOn: '2027-09-01',
  endsOn: '2028-08-31',
  terms: [{ id: newId(), name: 'Autumn 27', startsOn: '2027-09-02', endsOn: '2027-12-17' }],
  closedDays: [{ id: newId(), name: 'Half-term', startsOn: '2027-10-25', endsOn: '2027-10-29' }],
}
const putYear = (id: string, year: unknown, who: Person = school.teacher) =>
  who.ask<SchoolYears & Problem>('PUT', `/school/years/${id}`, year)

describe('school years', () => {
  const nextId = newId()
  test('are made, replaced and listed, the same PUT twice changing nothing', async () => {
    for (let i = 0; i < 2; i++) expect((await putYear(nextId, NEXT)).status).toBe(200)
    const { body } = await school.teacher.ask<SchoolYears>('GET', '/school/years')
    expect(body.years.map(({ name }) => name)).toEqual(['2027/28', '2026/27'])
    expect(body.years[0]).toMatchObject({
      terms: NEXT.terms,
      closedDays: NEXT.closedDays,
      classCount: 0,
    })
    expect(body.runningTermId).toBe(school.ids.term)
  })

  test.each([
    {
      why: 'ends-before-it-starts',
      year: { ...NEXT, endsOn: '2027-01-01', terms: [], closedDays: [] },
      path: 'endsOn',
      fault: 'ends-before-it-starts',
    },
    {
      why: 'overlapping terms',
      year: { ...NEXT, terms: [...NEXT.terms, { ...NEXT.terms[0]!, id: newId(), name: 'B' }] },
      path: 'terms.1.startsOn',
      fault: 'overlaps',
    },
    {
      why: 'closed days outside',
      year: {
        ...NEXT,
        closedDays: [{ id: newId(), name: 'x', startsOn: '2029-01-01', endsOn: '2029-01-01' }],
      },
      path: 'closedDays.0.startsOn',
      fault: 'outside-the-year',
    },
  ])('$why is refused with its place', async ({ year, path, fault }) => {
    const { status, body } = await putYear(nextId, year)
    expect([status, body.fields?.[path]]).toEqual([400, [fault]])
  })

  test('two years do not run at once, and a term with work in it stays', async () => {
    expect(
      (await putYear(newId(), { ...NEXT, startsOn: '2027-08-01', terms: [], closedDays: [] })).body
        .type,
    ).toBe('/problems/school/years-overlap')
    await school.submitted()
    const { body } = await school.teacher.ask<SchoolYears>('GET', '/school/years')
    const year = body.years.at(-1)!
    const { id, classCount: _classCount, ...rest } = year
    expect((await putYear(id, { ...rest, terms: [] })).body.type).toBe(
      '/problems/school/year-in-use',
    )
  })

  test('only whoever leads the school sets them', async () => {
    for (const [who, status] of [
      [school.otherTeacher, 404],
      [school.wren, 404],
      [school.parent, 404],
      [test_.visitor(), 401],
    ] as const)
      expect((await putYear(nextId, NEXT, who)).status).toBe(status)
  })
})

/** Sends a list as bytes. */
async function show(
  content: string | Uint8Array,
  classId: string | null = school.ids.heron,
  who = school.teacher,
  kind?: string,
): Promise<ClassList & Problem> {
  const response = await who.fetch(
    'POST',
    `/school/class-lists?${new URLSearchParams({ ...(classId ? { classId } : {}), ...(kind ? { kind } : {}) })}`,
    {
      body: typeof content === 'string' ? content : new Uint8Array(content),
      headers: { 'Content-Type': 'application/octet-stream' },
    },
  )
  return (await response.json()) as ClassList & Problem
}
async function take(list: ClassList, who = school.teacher): Promise<ClassList> {
  await who.ask('POST', `/school/class-lists/${list.id}/confirm`)
  return until(async () => {
    const { body } = await who.ask<ClassList>('GET', `/school/class-lists/${list.id}`)
    return body.state === 'done' && body
  })
}
const classOf = async (id: string) =>
  (await school.teacher.ask<ClassDetail>('GET', `/school/classes/${id}`)).body

describe('class lists', () => {
  test('nothing happens before it is confirmed; taken over twice it changes nothing; pegs differ', async () => {
    const before = (await classOf(school.ids.heron)).pupils.length
    const text =
      'First name,Last name\n' +
      Array.from({ length: 32 }, (_, i) => `Pupil${i},Shore`).join('\n') +
      '\n,Nameless'
    const list = await show(text)
    expect(list.counts).toMatchObject({ add: 32, change: 0, faults: 1 })
    expect(list.faults).toMatchObject([{ line: 34, reason: 'no-first-name' }])
    expect((await classOf(school.ids.heron)).pupils).toHaveLength(before)
    expect(await take(list)).toMatchObject({ state: 'done', rowsDone: 32 })
    const { pupils } = await classOf(school.ids.heron)
    expect(pupils).toHaveLength(before + 32)
    expect(new Set(pupils.map(({ peg }) => `${peg.symbol} ${peg.colour}`)).size).toBe(pupils.length)
    expect((await show(text)).counts).toMatchObject({ add: 0, change: 0, nothing: 32 })
    expect(
      (await school.teacher.ask('POST', `/school/class-lists/${list.id}/confirm`)).body,
    ).toMatchObject({
      type: '/problems/school/list-used',
    })
  })

  test('a list is taken back whole, also the classes it made; not once somebody it added has been here', async () => {
    await test_.manager.query(`update person set external_id = 'T1' where id = $1`, [
      school.ids.tomasz,
    ])
    const before = await classOf(school.ids.heron)
    const text =
      'Number,First name,Last name,Class\nT1,Tomek,L,Heron\nN1,Seren,B,Heron\nN2,Idris,C,Curlew'
    const list = await take(await show(text, null))
    const taken = async () =>
      (await school.teacher.ask<TakenList[]>('GET', '/school/class-lists')).body.find(
        ({ id }) => id === list.id,
      )
    expect(await taken()).toMatchObject({ state: 'done', added: 2, changed: 1, mayTakeBack: true })
    const takeBack = (who = school.teacher) =>
      who.ask<TakenList[] & Problem>('POST', `/school/class-lists/${list.id}/take-back`)
    for (const stranger of [school.otherTeacher, school.wren, school.parent])
      expect([403, 404]).toContain((await takeBack(stranger)).status)
    const [seren] = (await classOf(school.ids.heron)).pupils.filter(
      ({ firstName }) => firstName === 'Seren',
    )
    await test_.manager.query('update person set last_seen_at = now() where id = $1', [seren!.id])
    expect((await takeBack()).body.type).toBe('/problems/school/list-lived')
    await test_.manager.query('update person set last_seen_at = null where id = $1', [seren!.id])
    expect((await takeBack()).status).toBe(200)
    expect(await taken()).toMatchObject({ state: 'taken-back', mayTakeBack: false })
    const names = ({ pupils }: ClassDetail) => pupils.map(({ firstName }) => firstName)
    expect(names(await classOf(school.ids.heron))).toEqual(names(before))
    const { body: classes } = await school.teacher.ask<SchoolClass[]>('GET', '/school/classes')
    expect(classes.map(({ name }) => name)).not.toContain('Curlew')
    expect((await takeBack()).body.type).toBe('/problems/school/list-used')
  })

  test('a class says who has left it, and what a name lacks a typeface for', async () => {
    const list = await take(await show('Bo,Left\n𓀀,Shore'))
    expect(list.state).toBe('done')
    const [bo] = (await classOf(school.ids.heron)).pupils.filter(
      ({ lastName }) => lastName === 'Left',
    )
    await school.teacher.ask('PATCH', `/school/pupils/${bo!.id}`, { left: true })
    const now = await classOf(school.ids.heron)
    expect(now.left).toMatchObject([{ name: 'Bo Left' }])
    expect(now.notPrintable).toEqual(['𓀀 Shore'])
    expect([now.hasCards, now.hasFamilies]).toEqual([true, true])
    await school.teacher.ask('PATCH', `/school/pupils/${bo!.id}`, { left: false })
    expect((await classOf(school.ids.heron)).left).toEqual([])
  })

  test('Windows-1252, semicolons and ragged rows are read', async () => {
    const bytes = Buffer.from(
      'Vorname;Nachname\r\nZo\u00eb;M\u00fcller\r\nBo;Li;too much\r\n',
      'latin1',
    )
    const list = await show(bytes)
    expect(list.steps).toMatchObject([{ firstName: 'Zoë', lastName: 'Müller', does: 'add' }])
    expect(list.faults).toMatchObject([{ line: 3 }])
  })

  test('what cannot be a list is refused with a sentence', async () => {
    for (const bad of [
      new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]),
      zipSync({ 'other.txt': strToU8('x') }),
      new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 0]),
      '',
    ])
      expect((await show(bad)).type).toBe('/problems/school/list-unreadable')
  })

  test('a list for the whole school makes the classes it names; again it makes none', async () => {
    const text = 'Name,Class,Year\nMair Lis,Wader,2\nTegan Lis,wader,2\nSion Lis,Godwit,4'
    const list = await show(text, null)
    expect(list.counts).toMatchObject({ add: 3, faults: 0, newClasses: 2 })
    expect(list.newClasses).toEqual(['Wader', 'Godwit'])
    await take(list)
    expect((await show(text, null)).counts).toMatchObject({ add: 0, nothing: 3, newClasses: 0 })
  })

  test('more than a class can hold is refused whole, before anything is taken over', async () => {
    const list = await show(Array.from({ length: 400 }, (_, i) => `Many ${i}`).join('\n'))
    expect(list.overfull).toMatchObject([{ name: 'heron' }])
    expect(list.overfull[0]!.count).toBeGreaterThan(list.mostInClass)
    const answer = await school.teacher.ask('POST', `/school/class-lists/${list.id}/confirm`)
    expect(answer.body.type).toBe('/problems/school/class-overfull')
    expect(
      (await classOf(school.ids.heron)).pupils.some(({ firstName }) => firstName === 'Many'),
    ).toBe(false)
  })

  test('a name that stands twice is taken once where that is the answer', async () => {
    const list = await show('Delyth Shore\nDelyth Shore')
    expect(list.steps.map(({ twin, line }) => [line, twin])).toEqual([
      [2, true],
      [1, false],
    ])
    await school.teacher.ask('POST', `/school/class-lists/${list.id}/confirm`, { leaveOut: [2] })
    await until(async () => {
      const path = `/school/class-lists/${list.id}`
      return (await school.teacher.ask<ClassList>('GET', path)).body.state === 'done'
    })
    const { pupils } = await classOf(school.ids.heron)
    expect(pupils.filter(({ firstName }) => firstName === 'Delyth')).toHaveLength(1)
  })

  test('a teacher puts pupils into the own class only, and nobody else does', async () => {
    expect((await show('Bo', school.ids.heron, school.otherTeacher)).status).toBe(404)
    expect((await show('Bo', null, school.otherTeacher)).status).toBe(404)
    expect((await show('Bo', school.ids.heron, school.wren)).status).toBe(404)
    expect((await show('Bo', school.ids.plover, school.otherTeacher)).counts).toMatchObject({
      add: 1,
    })
    const list = await show('Bo')
    expect(
      (await school.otherTeacher.ask('POST', `/school/class-lists/${list.id}/confirm`)).status,
    ).toBe(404)
  })

  test('a list for one class takes nobody out of another, and is not taken over by who teaches the class no more', async () => {
    await test_.manager.query(`update person set external_id = 'A7' where id = $1`, [
      school.ids.aoife,
    ])
    const list = await show('Number,First name\nA7,Aoife\nB1,Seren')
    expect(list.faults).toMatchObject([{ line: 2, reason: 'number-elsewhere', about: 'A7' }])
    expect(list.counts).toMatchObject({ add: 1 })
    const theirs = await show('Bo', school.ids.plover, school.otherTeacher)
    const okafor = `(select id from person where email = 'o@saltmarsh.example')`
    await test_.manager.query(
      `delete from enrolment where class_id = $1 and person_id = ${okafor}`,
      [school.ids.plover],
    )
    expect(
      (await school.otherTeacher.ask('POST', `/school/class-lists/${theirs.id}/confirm`)).status,
    ).toBe(404)
    await test_.manager.query(
      `insert into enrolment (class_id, person_id) values ($1, ${okafor})`,
      [school.ids.plover],
    )
  })

  test('formula-like names go out harmlessly and come back as they were', async () => {
    await take(await show('First name,Last name\n"=cmd|\' /C calc\'!A0",Shore'))
    const csv = await (
      await school.teacher.fetch('GET', `/school/export?format=csv&classId=${school.ids.heron}`)
    ).text()
    expect(csv).toContain(`'=cmd|`)
    expect(csv).not.toMatch(/(^|,|\n)"?=cmd/)
    expect((await show(csv)).counts).toMatchObject({ add: 0, change: 0, faults: 0 })
  })

  test.each(['1.1', '1.2'])(
    'OneRoster %s goes out as published and comes back without a change',
    async (version) => {
      const zip = new Uint8Array(
        await (
          await school.teacher.fetch('GET', `/school/export?format=oneroster-${version}`)
        ).arrayBuffer(),
      )
      const files = Object.fromEntries(
        Object.entries(unzipSync(zip)).map(([name, content]) => [
          name,
          Buffer.from(content).toString('utf8'),
        ]),
      )
      expect(files['enrollments.csv']!.split('\r\n')[0]).toBe(
        ONE_ROSTER_HEADINGS['enrollments.csv'].join(','),
      )
      expect(files['users.csv']!.split('\r\n')[0]).toBe(
        ONE_ROSTER_HEADINGS[version === '1.1' ? 'users.csv' : 'users.csv 1.2'].join(','),
      )
      const list = await show(zip, null)
      expect(list.counts).toMatchObject({ add: 0, change: 0, faults: 0, newClasses: 0 })
      expect(list.counts.nothing).toBeGreaterThan(30)
    },
  )

  test('a register’s new classes are made, and its numbers find pupils again under a new name', async () => {
    const users = (first: string) =>
      'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName\nu1,active,,true,s,student,u1,,' +
      `${first},Dunlin\n`
    const roster = (first: string) =>
      zipSync({
        'users.csv': strToU8(users(first)),
        'classes.csv': strToU8(
          'sourcedId,status,dateLastModified,title,grades\nk1,active,,Dunlin,Year 5\n',
        ),
        'enrollments.csv': strToU8(
          'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role\ne1,active,,k1,s,u1,student\n',
        ),
      })
    const first = await show(roster('Iona'), null)
    expect(first).toMatchObject({ counts: { add: 1, newClasses: 1 }, newClasses: ['Dunlin'] })
    await take(first)
    expect((await show(roster('Ione'), null)).steps).toMatchObject([
      { does: 'change', changes: ['name'], className: 'Dunlin' },
    ])
  })

  test('a register without homerooms is taken over once it is said which kind of class counts', async () => {
    const csv = (...rows: string[][]) => strToU8(rows.map((row) => row.join(',')).join('\n'))
    const register = zipSync({
      'users.csv': csv(
        ['sourcedId', 'role', 'givenName', 'familyName'],
        ['w1', 'student', 'Isla', 'Reed'],
        ['w2', 'student', 'Omar', 'Reed'],
      ),
      'courses.csv': csv(['sourcedId', 'title'], ['reg', 'Registration'], ['num', 'Maths']),
      'classes.csv': csv(
        ['sourcedId', 'title', 'grades', 'courseSourcedId'],
        ['s1', 'Set one', '5', 'num'],
        ['k9', 'Curlew', '5', 'reg'],
      ),
      'enrollments.csv': csv(
        ['classSourcedId', 'userSourcedId', 'role'],
        ...['w1', 'w2'].flatMap((id) => ['s1', 'k9'].map((of) => [of, id, 'student'])),
      ),
    })
    const asked = await show(register, null)
    expect(asked).toMatchObject({
      kind: null,
      kinds: [
        { id: 'num', name: 'Maths', classes: ['Set one'], pupils: 2 },
        { id: 'reg', name: 'Registration', classes: ['Curlew'], pupils: 2 },
      ],
      counts: { add: 0, change: 0, nothing: 0, faults: 0, newClasses: 0 },
    })
    const answered = await show(register, null, school.teacher, 'reg')
    expect(answered).toMatchObject({ kind: 'reg', newClasses: ['Curlew'], counts: { add: 2 } })
    await take(answered)
    const again = await show(register, null, school.teacher, 'reg')
    expect(again.counts).toMatchObject({ add: 0, nothing: 2, newClasses: 0 })
  })
})

test('a peg somebody else has is exchanged', async () => {
  const [wren, tomasz] = [school.ids.wren, school.ids.tomasz]
  const pegs = async () =>
    new Map((await classOf(school.ids.heron)).pupils.map(({ id, peg }) => [id, peg]))
  const before = await pegs()
  await school.teacher.ask('PUT', `/school/classes/${school.ids.heron}/pegs`, {
    pupilId: wren,
    peg: before.get(tomasz),
  })
  const after = await pegs()
  expect([after.get(wren), after.get(tomasz)]).toEqual([before.get(tomasz), before.get(wren)])
  expect(
    (
      await school.otherTeacher.ask('PUT', `/school/classes/${school.ids.heron}/pegs`, {
        pupilId: wren,
        peg: before.get(wren),
      })
    ).status,
  ).toBe(404)
})

test('a pupil is renamed, moves, leaves and comes back; who left is out at once', async () => {
  const at = `/school/pupils/${school.ids.tomasz}`
  expect((await school.teacher.ask('PATCH', at, { firstName: 'Tomek' })).body).toMatchObject({
    firstName: 'Tomek',
  })
  expect((await school.teacher.ask('PATCH', at, { firstName: '' })).status).toBe(400)
  // Into a class one does not teach: only whoever leads may. Here the teacher leads.
  expect((await school.otherTeacher.ask('PATCH', at, { classId: school.ids.plover })).status).toBe(
    404,
  )
  expect(
    (await school.teacher.ask('PATCH', at, { classId: school.ids.plover })).body,
  ).toMatchObject({ className: 'plover' })
  expect((await school.teacher.ask('PATCH', at, { classId: school.ids.heron })).body).toMatchObject(
    { className: 'heron' },
  )
  const code = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.tomasz)
  await school.tomasz.ask('POST', '/accounts/sign-in/card', { code })
  await school.teacher.ask('PATCH', at, { left: true })
  expect((await test_.visitor().ask('POST', '/accounts/sign-in/card', { code })).status).toBe(401)
  expect((await school.tomasz.ask('GET', '/pieces')).status).toBe(401)
  expect((await classOf(school.ids.heron)).pupils.some(({ id }) => id === school.ids.tomasz)).toBe(
    false,
  )
  await school.teacher.ask('PATCH', at, { left: false })
  expect((await school.tomasz.ask('GET', '/pieces')).status).toBe(200)
})

test('a second teacher changing the class at once is told, and nothing is lost', async () => {
  const { version } = await classOf(school.ids.heron)
  const at = `/school/classes/${school.ids.heron}`
  expect(
    (await school.teacher.ask('PATCH', at, { idleMinutes: 5, seenVersion: version })).status,
  ).toBe(200)
  expect(
    (await school.teacher.ask('PATCH', at, { idleMinutes: 20, seenVersion: version })).body,
  ).toMatchObject({
    type: '/problems/school/stale',
  })
  expect((await classOf(school.ids.heron)).idleMinutes).toBe(5)
})

describe('staff', () => {
  const id = newId()
  const input = {
    firstName: 'Ms',
    lastName: 'Noor',
    email: 'noor@saltmarsh.example',
    role: 'teacher' as const,
  }
  const letter = async () => (await test_.lettersTo(input.email)).at(-1)!

  test('come in by a link that works once, and teach what they were given', async () => {
    expect(
      (
        await school.teacher.ask('PUT', `/school/staff/${id}`, {
          ...input,
          classIds: [school.ids.heron],
        })
      ).status,
    ).toBe(200)
    const token = /password\/(\S+)/.exec((await letter()).body)![1]!
    const noor = test_.visitor()
    expect((await noor.ask('GET', `/accounts/password-links/${token}`)).body).toMatchObject({
      firstName: 'Ms',
      email: input.email,
    })
    expect(
      (await noor.ask('POST', `/accounts/password-links/${token}`, { password: 'short' })).status,
    ).toBe(400)
    expect(
      (await noor.ask('POST', `/accounts/password-links/${token}`, { password: PASSWORD })).body,
    ).toMatchObject({
      person: { role: 'teacher', leads: false },
    })
    expect((await noor.ask('GET', `/school/classes/${school.ids.heron}`)).status).toBe(200)
    expect((await noor.ask('GET', '/school/staff')).status).toBe(404)
    expect((await noor.ask('GET', '/mail')).status).toBe(404)
    expect(
      (
        await test_
          .visitor()
          .ask('POST', `/accounts/password-links/${token}`, { password: PASSWORD })
      ).status,
    ).toBe(410)

    // Leaving: signed out at once, and in by no way, not by a letter sent before either when they
    // come back.
    await noor.ask('POST', '/accounts/password-forgotten', { email: input.email })
    const forgotten = /password\/(\S+)/.exec((await letter()).body)![1]!
    await school.teacher.ask('PATCH', `/school/staff/${id}`, { left: true })
    await school.teacher.ask('PATCH', `/school/staff/${id}`, { left: false })
    expect((await noor.ask('GET', `/accounts/password-links/${forgotten}`)).status).toBe(410)
    await school.teacher.ask('PATCH', `/school/staff/${id}`, { left: true })
    expect((await noor.ask('GET', '/school/classes')).status).toBe(401)
    expect(
      (
        await noor.ask('POST', '/accounts/sign-in/password', {
          email: input.email,
          password: PASSWORD,
        })
      ).status,
    ).toBe(401)
    const { body } = await school.teacher.ask<StaffMember[]>('GET', '/school/staff')
    expect(body.find((member) => member.id === id)).toMatchObject({ left: true, classes: [] })
  })

  test('an address is somebody’s once, and somebody always leads', async () => {
    expect(
      (await school.teacher.ask('PUT', `/school/staff/${newId()}`, { ...input, classIds: [] }))
        .body,
    ).toMatchObject({
      type: '/problems/accounts/email-taken',
    })
    const { body } = await school.teacher.ask<StaffMember[]>('GET', '/school/staff')
    const lead = body.find(({ leads }) => leads)!
    expect(
      (await school.teacher.ask('PATCH', `/school/staff/${lead.id}`, { leads: false })).body,
    ).toMatchObject({
      type: '/problems/school/no-lead',
    })
    expect(
      (await school.teacher.ask('PATCH', `/school/staff/${lead.id}`, { left: true })).body,
    ).toMatchObject({
      type: '/problems/school/no-lead',
    })
    expect((await school.teacher.ask('GET', '/school/staff')).status).toBe(200)
  })

  test('an office lead sees every class and no pupil’s work', async () => {
    const officeId = newId()
    await school.teacher.ask('PUT', `/school/staff/${officeId}`, {
      ...input,
      email: 'office@saltmarsh.example',
      role: 'office',
      classIds: [],
    })
    const address = await test_.manager.transaction((manager) =>
      test_.server.capabilities.passwords.makeLink(manager, officeId),
    )
    const office = test_.visitor()
    await office.ask('POST', `/accounts/password-links/${address.split('/').at(-1)!}`, {
      password: PASSWORD,
    })
    expect(
      (await office.ask<unknown[]>('GET', '/school/classes')).body.length,
    ).toBeGreaterThanOrEqual(2)
    expect((await office.ask('GET', `/school/pupils/${school.ids.wren}`)).status).toBe(200)
    const piece = await school.approved()
    for (const address of [
      `/pieces/${piece.id}`,
      `/media/${pictureOf(piece.parts[0])}/320`,
      `/portfolio/${school.ids.wren}`,
      '/review/tray',
    ])
      expect({ address, status: (await office.ask('GET', address)).status }).toEqual({
        address,
        status: 404,
      })
  })
})

describe('the year’s turn', () => {
  test('a class made for somebody else is not taught by whoever makes it', async () => {
    const { body: years } = await school.teacher.ask<SchoolYears>('GET', '/school/years')
    for (const [mine, taught] of [
      [undefined, true],
      [false, false],
    ]) {
      const id = newId()
      await school.teacher.ask('PUT', `/school/classes/${id}`, {
        schoolYearId: years.years[0]!.id,
        name: `Knot ${String(mine)}`,
        yearGroup: 'Year 2',
        mine,
      })
      const made = await classOf(id)
      expect([made.mine, made.young]).toEqual([taught, true])
      await test_.manager.query('delete from class where id = $1', [id])
    }
  })

  test('pupils move up or leave, portfolios and whole-school folders go along, class folders are put away; undone until there is new work', async () => {
    const own = await TestServer.start()
    const small = await SmallSchool.open(own)
    const piece = await small.approved()
    const ask = <T>(method: string, address: string, body?: unknown) =>
      small.teacher.ask<T>(method, address, body)
    const years = (await ask<SchoolYears>('GET', '/school/years')).body.years
    const [fromYearId, toYearId, classId] = [years[0]!.id, newId(), newId()]
    await ask('PUT', `/school/years/${toYearId}`, NEXT)
    await ask('PUT', `/school/classes/${classId}`, {
      schoolYearId: toYearId,
      name: 'heron',
      yearGroup: 'Year 4',
    })
    const plan = (
      await ask<RollOverPlan>(
        'GET',
        `/school/roll-over?fromYearId=${fromYearId}&toYearId=${toYearId}`,
      )
    ).body
    expect(plan).toMatchObject({
      foldersToPutAway: 2,
      piecesWaiting: 0,
      nextClasses: [{ id: classId }],
    })
    const everyone = plan.classes.flatMap(({ pupils }) => pupils)
    expect(everyone.map(({ toClassId }) => toClassId)).toEqual([classId, classId, classId])
    const moves = everyone.map(({ id }) => ({
      pupilId: id,
      toClassId: id === small.ids.aoife ? null : classId,
    }))

    expect(
      (
        await ask<Problem>('POST', '/school/roll-over', {
          fromYearId,
          toYearId,
          moves: moves.slice(1),
        })
      ).body.fields?.moves,
    ).toEqual(['pupil-left-out'])
    expect(
      (await small.otherTeacher.ask('POST', '/school/roll-over', { fromYearId, toYearId, moves }))
        .status,
    ).toBe(404)
    const turn = (
      await ask<LatestRollOver>('POST', '/school/roll-over', { fromYearId, toYearId, moves })
    ).body!
    expect(turn).toMatchObject({ moved: 2, left: 1, undoable: true })
    expect(
      (await ask<Problem>('POST', '/school/roll-over', { fromYearId, toYearId, moves })).body.fields
        ?.moves,
    ).toContain('has been done already')
    expect((await small.aoife.ask('GET', '/pieces')).status).toBe(401)

    await ask('POST', `/school/roll-over/${turn.id}/undo`)
    // Who had been put into next year's class by hand stays there.
    await own.manager.query('insert into enrolment (class_id, person_id) values ($1, $2)', [
      classId,
      small.ids.tomasz,
    ])
    const again = (
      await ask<LatestRollOver>('POST', '/school/roll-over', { fromYearId, toYearId, moves })
    ).body!
    await ask('POST', `/school/roll-over/${again.id}/undo`)
    expect(
      (await ask<ClassDetail>('GET', `/school/classes/${classId}`)).body.pupils.map(({ id }) => id),
    ).toEqual([small.ids.tomasz])
    await own.manager.query('delete from enrolment where class_id = $1 and person_id = $2', [
      classId,
      small.ids.tomasz,
    ])
    expect((await small.aoife.ask('GET', '/pieces')).status).toBe(200)
    expect((await ask<ClassDetail>('GET', `/school/classes/${classId}`)).body.pupils).toEqual([])
    await ask('POST', '/school/roll-over', { fromYearId, toYearId, moves })

    // The new year has begun.
    own.clock.set(new Date('2027-09-06T08:00:00Z'))
    await small.wren.ask('POST', '/accounts/sign-in/card', {
      code: await own.server.capabilities.nameCards.issue(own.manager, small.ids.wren),
    })
    await small.teacher.ask('POST', '/accounts/sign-in/password', {
      email: 'a@saltmarsh.example',
      password: PASSWORD,
    })
    const folders = (await small.wren.ask<{ name: string }[]>('GET', '/folders')).body
    expect(folders.map(({ name }) => name)).toEqual(['Out of class'])
    expect(
      (await small.teacher.ask<{ chapters: unknown }>('GET', `/portfolio/${small.ids.wren}`)).body,
    ).toMatchObject({
      className: 'heron',
    })
    expect(
      JSON.stringify((await small.teacher.ask('GET', `/portfolio/${small.ids.wren}`)).body),
    ).toContain(piece.id)
    const latest = (await ask<LatestRollOver>('GET', '/school/roll-over/latest')).body!
    expect(latest.undoable).toBe(true)
    const fresh = newId()
    expect((await small.wren.ask('PUT', `/pieces/${fresh}`, { taskId: null })).body).toMatchObject({
      className: 'heron',
    })
    expect((await ask<Problem>('POST', `/school/roll-over/${latest.id}/undo`)).body.type).toBe(
      '/problems/school/roll-over-final',
    )
    await own.stop()
  })
})
