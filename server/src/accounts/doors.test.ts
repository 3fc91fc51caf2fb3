import { SECRET_SYMBOLS } from '@nibquill/core'
import { type ClassDoor, type PegWall, type PupilSecret, type Session } from '@nibquill/contract'
import { type Person, SmallSchool, TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const MORNING = new Date('2026-11-23T10:00:00Z')
beforeEach(async () => {
  test_.clock.set(MORNING)
  await test_.manager.query(
    `delete from session s using person p where p.id = s.person_id and p.role = 'pupil'`,
  )
  await change({
    switch: 'hours',
    onlyHere: false,
    tabletLimit: 16,
    asksSecret: false,
    opensAt: '08:30',
    closesAt: '15:30',
  })
})

const door = (person = school.teacher, classId = school.ids.heron) =>
  person.ask<ClassDoor>('GET', `/accounts/classes/${classId}/door`)
const change = (body: object) =>
  school.teacher.ask<ClassDoor>('PATCH', `/accounts/classes/${school.ids.heron}/door`, body)
const newCard = () => test_.server.capabilities.doors.issueCard(test_.manager, school.ids.heron)
const show = (person: Person, code: string) =>
  person.ask<Session>('POST', '/accounts/sign-in/card', { code })
/** A tablet that has seen the class's door card. */
async function tablet(code?: string): Promise<Person> {
  const person = test_.visitor()
  const { status } = await show(person, code ?? (await newCard()))
  expect(status).toBe(200)
  return person
}
const tap = (person: Person, pupilId = school.ids.wren, secret: readonly string[] | null = null) =>
  person.ask<Session & { type: string; retryAfterSeconds: number; reason: string }>(
    'POST',
    '/accounts/sign-in/peg',
    {
      pupilId,
      secret,
    },
  )

describe('a door card', () => {
  test('hangs the pegs of its class on a tablet, and a tap on a peg opens that desk', async () => {
    const shared = test_.visitor()
    const shown = await show(shared, await newCard())
    expect(shown.body).toMatchObject({
      person: null,
      door: { className: 'heron', open: true, tabletNumber: 1 },
    })
    const { body: wall } = await shared.ask<PegWall>('GET', '/accounts/pegs')
    expect(wall.pegs.map(({ name }) => name)).toEqual(['tomasz', 'wren'])
    expect((await tap(shared)).body.person).toMatchObject({ firstName: 'wren' })
    expect((await shared.ask('GET', '/pieces')).status).toBe(200)
  })

  test('opens nobody’s desk of another class', async () => {
    expect((await tap(await tablet(), school.ids.aoife)).status).toBe(404)
  })

  test('replaced by a new one stops, with its tablets and the desks opened on them', async () => {
    const code = await newCard()
    const shared = await tablet(code)
    await tap(shared)
    await newCard()
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
    expect((await shared.ask('GET', '/accounts/pegs')).body.type).toBe(
      '/problems/accounts/no-tablet',
    )
    expect((await show(test_.visitor(), code)).status).toBe(401)
  })

  test('signs out whoever was in on the tablet before', async () => {
    const shared = test_.visitor()
    await shared.ask('POST', '/accounts/sign-in/card', {
      code: await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.tomasz),
    })
    expect((await show(shared, await newCard())).body.person).toBeNull()
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
  })

  test('opens no more tablets than the teacher allows; the same tablet twice is one', async () => {
    await change({ tabletLimit: 2 })
    const code = await newCard()
    const first = await tablet(code)
    await tablet(code)
    expect((await show(first, code)).status).toBe(200)
    const third = await show(test_.visitor(), code)
    expect([third.status, third.body]).toMatchObject([
      409,
      { type: '/problems/accounts/too-many-tablets', limit: 2 },
    ])
    const { body } = await door()
    expect(body.tablets.map(({ number }) => number)).toEqual([1, 2])
    await school.teacher.ask(
      'DELETE',
      `/accounts/classes/${school.ids.heron}/tablets/${body.tablets[0]!.id}`,
    )
    expect((await first.ask('GET', '/accounts/pegs')).status).toBe(401)
    const next = await show(test_.visitor(), code)
    expect(next.body.door).toMatchObject({ tabletNumber: 1 })
  })

  test('two tablets at once for the last place: one gets it', async () => {
    await change({ tabletLimit: 1 })
    const code = await newCard()
    const answers = await Promise.all(Array.from({ length: 6 }, () => show(test_.visitor(), code)))
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409, 409, 409])
  })

  test('is only for teachers of the class and whoever leads the school', async () => {
    const pupil = await tablet()
    await tap(pupil)
    for (const person of [pupil, school.parent, school.otherTeacher])
      expect((await door(person)).status).toBe(404)
    expect((await door(test_.visitor())).status).toBe(401)
    expect((await door()).status).toBe(200)
  })
})

describe('while the door is shut', () => {
  test('no tablet shows names, no peg opens, and the own name card still does', async () => {
    const code = await newCard()
    const shared = await tablet(code)
    test_.clock.set(new Date('2026-11-23T15:31:00Z'))
    const { body: wall } = await shared.ask<PegWall>('GET', '/accounts/pegs')
    expect(wall).toMatchObject({ open: false, reason: 'too-late', pegs: [] })
    const refused = await tap(shared)
    expect([refused.status, refused.body.type]).toEqual([403, '/problems/accounts/door-shut'])
    expect((await show(test_.visitor(), code)).status).toBe(403)
    const card = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.wren)
    expect((await show(test_.visitor(), card)).status).toBe(200)
  })

  test('whoever is in may finish for ten minutes, and no longer', async () => {
    const shared = await tablet()
    test_.clock.set(new Date('2026-11-23T15:25:00Z'))
    await tap(shared)
    test_.clock.set(new Date('2026-11-23T15:33:00Z'))
    expect((await shared.ask('GET', '/pieces')).status).toBe(200)
    test_.clock.set(new Date('2026-11-23T15:41:00Z'))
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
  })

  test('the teacher’s switch opens and shuts it by hand for the rest of the day', async () => {
    const shared = await tablet()
    expect((await change({ switch: 'shut' })).body).toMatchObject({
      open: false,
      reason: 'by-hand',
      switch: 'shut',
    })
    expect((await tap(shared)).status).toBe(403)
    test_.clock.set(new Date('2026-11-23T19:00:00Z'))
    expect((await change({ switch: 'open' })).body).toMatchObject({ open: true, reason: 'by-hand' })
    expect((await tap(shared)).status).toBe(200)
    test_.clock.set(new Date('2026-11-24T09:00:00Z'))
    expect((await door()).body).toMatchObject({ open: true, reason: 'hours', switch: 'hours' })
  })

  test('closing earlier ends desks earlier', async () => {
    const shared = await tablet()
    await tap(shared)
    await change({ closesAt: '10:01' })
    test_.clock.set(new Date('2026-11-23T10:09:00Z'))
    expect((await shared.ask('GET', '/pieces')).status).toBe(200)
    test_.clock.set(new Date('2026-11-23T10:11:30Z'))
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
  })

  test('times that make no sense are refused with the field', async () => {
    expect((await change({ opensAt: '15:00', closesAt: '09:00' })).body).toMatchObject({
      fields: { closesAt: ['shuts-before-it-opens'] },
    })
    expect((await change({ opensAt: '25:00' })).status).toBe(400)
    expect((await change({ tabletLimit: 0 })).status).toBe(400)
  })
})

test('a door kept to the school’s network opens no peg from elsewhere, and the own name card still does', async () => {
  const proxied = await TestServer.start({ trustProxy: 'loopback' })
  try {
    const own = await SmallSchool.open(proxied)
    const from = (address: string) => ({ 'X-Forwarded-For': address })
    const [inSchool, atHome] = [from('203.0.113.7'), from('198.51.100.9')]
    const doorPath = `/accounts/classes/${own.ids.heron}/door`
    const { body } = await own.teacher.ask<ClassDoor>(
      'PATCH',
      doorPath,
      { onlyHere: true },
      inSchool,
    )
    expect(body.onlyHere).toBe(true)
    const code = await proxied.server.capabilities.doors.issueCard(proxied.manager, own.ids.heron)
    const shared = proxied.visitor()
    expect((await shared.ask('POST', '/accounts/sign-in/card', { code }, atHome)).body.type).toBe(
      '/problems/accounts/door-elsewhere',
    )
    expect((await shared.ask('POST', '/accounts/sign-in/card', { code }, inSchool)).status).toBe(
      200,
    )
    const peg = { pupilId: own.ids.wren, secret: null }
    expect((await shared.ask('POST', '/accounts/sign-in/peg', peg, atHome)).status).toBe(403)
    expect((await shared.ask('GET', '/accounts/pegs', undefined, atHome)).status).toBe(403)
    expect((await shared.ask('POST', '/accounts/sign-in/peg', peg, inSchool)).status).toBe(200)
    const card = await proxied.server.capabilities.nameCards.issue(proxied.manager, own.ids.wren)
    expect(
      (await proxied.visitor().ask('POST', '/accounts/sign-in/card', { code: card }, atHome))
        .status,
    ).toBe(200)
  } finally {
    await proxied.stop()
  }
})

test('a right card held up to a shut door again and again is no wrong try', async () => {
  const code = await newCard()
  await change({ switch: 'shut' })
  for (let i = 0; i < 12; i++) expect((await show(test_.visitor(), code)).status).toBe(403)
  await change({ switch: 'open' })
  expect((await show(test_.visitor(), code)).status).toBe(200)
})

describe('three secret pictures', () => {
  const secrets = () =>
    school.teacher.ask<PupilSecret[]>('GET', `/accounts/classes/${school.ids.heron}/secrets`)
  const secretOf = async (pupilId: string) =>
    (await secrets()).body.find(({ pupil }) => pupil.id === pupilId)!.symbols
  const wrongFor = (symbols: readonly string[]) => [
    ...symbols.slice(0, 2),
    SECRET_SYMBOLS.find((one) => one !== symbols[2])!,
  ]
  const renew = (pupilId: string) =>
    school.teacher.ask('POST', `/accounts/classes/${school.ids.heron}/secrets/${pupilId}`)

  test('are given to everyone when switched on, and only they open the peg, in their order', async () => {
    expect((await change({ asksSecret: true })).body.asksSecret).toBe(true)
    const shared = await tablet()
    expect((await tap(shared)).body.type).toBe('/problems/accounts/secret-wrong')
    const symbols = await secretOf(school.ids.wren)
    expect(symbols).toHaveLength(3)
    if (symbols[0] !== symbols[2])
      expect((await tap(shared, school.ids.wren, [...symbols].reverse())).status).toBe(401)
    expect((await tap(shared, school.ids.wren, symbols)).status).toBe(200)
  })

  test('after three wrong tries the peg waits, longer each time; a right one or new pictures begin anew', async () => {
    await change({ asksSecret: true })
    await renew(school.ids.tomasz)
    const shared = await tablet()
    const symbols = await secretOf(school.ids.tomasz)
    const wrong = () => tap(shared, school.ids.tomasz, wrongFor(symbols))
    for (const wait of [0, 0, 30]) expect((await wrong()).body.retryAfterSeconds).toBe(wait)
    // While it waits, the right one does not help either, and a try costs nothing.
    const early = await tap(shared, school.ids.tomasz, symbols)
    expect([early.status, early.body.retryAfterSeconds]).toEqual([429, 30])
    test_.clock.set(new Date(MORNING.getTime() + 30_000))
    expect((await wrong()).body.retryAfterSeconds).toBe(60)
    await renew(school.ids.tomasz)
    expect((await tap(shared, school.ids.tomasz, await secretOf(school.ids.tomasz))).status).toBe(
      200,
    )
  })

  test('are seen by the class’s teacher and by nobody else', async () => {
    const pupil = test_.visitor()
    await show(
      pupil,
      await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.wren),
    )
    for (const person of [pupil, school.otherTeacher, school.parent])
      expect(
        (await person.ask('GET', `/accounts/classes/${school.ids.heron}/secrets`)).status,
      ).toBe(404)
    expect(
      (
        await school.otherTeacher.ask(
          'POST',
          `/accounts/classes/${school.ids.plover}/secrets/${school.ids.wren}`,
        )
      ).status,
    ).toBe(404)
  })
})

describe('open desks', () => {
  test('are listed with how they were opened, and ended one by one or all at once', async () => {
    const shared = await tablet()
    await tap(shared)
    const other = test_.visitor()
    await show(
      other,
      await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.tomasz),
    )
    const { body } = await door()
    expect(
      body.sessions
        .map(({ pupil, way, tabletNumber }) => [pupil.firstName, way, tabletNumber])
        .sort(),
    ).toEqual([
      ['tomasz', 'card', null],
      ['wren', 'peg', 1],
    ])
    const wrens = body.sessions.find(({ way }) => way === 'peg')!
    await school.teacher.ask('DELETE', `/accounts/classes/${school.ids.heron}/sessions/${wrens.id}`)
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
    expect((await other.ask('GET', '/pieces')).status).toBe(200)
    // A desk of another class cannot be ended through this one.
    const elsewhere = test_.visitor()
    await show(
      elsewhere,
      await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.aoife),
    )
    const plovers = await door(school.otherTeacher, school.ids.plover)
    const ended = await school.teacher.ask(
      'DELETE',
      `/accounts/classes/${school.ids.heron}/sessions/${plovers.body.sessions[0]!.id}`,
    )
    expect(ended.status).toBe(404)
    const all = await school.teacher.ask<ClassDoor>(
      'DELETE',
      `/accounts/classes/${school.ids.heron}/sessions`,
    )
    expect(all.body.sessions).toEqual([])
    expect((await other.ask('GET', '/pieces')).status).toBe(401)
    expect((await elsewhere.ask('GET', '/pieces')).status).toBe(200)
  })

  test('one card on two devices opens both; a third closes the one untouched longest', async () => {
    const code = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.wren)
    const devices = [test_.visitor(), test_.visitor(), test_.visitor()]
    for (const device of devices) {
      await show(device, code)
      test_.clock.set(new Date(test_.clock.now().getTime() + 1000))
    }
    const open = await Promise.all(
      devices.map(async (device) => (await device.ask('GET', '/pieces')).status),
    )
    expect(open).toEqual([401, 200, 200])
  })

  test('a pupil has one desk on the class’s tablets: going to another closes the first', async () => {
    const code = await newCard()
    const [first, second] = [await tablet(code), await tablet(code)]
    await tap(first)
    await tap(second)
    expect((await first.ask('GET', '/pieces')).status).toBe(401)
    expect((await second.ask('GET', '/pieces')).status).toBe(200)
  })

  test('cookies copied into another browser open nothing, and end the desk they were taken from', async () => {
    const shared = await tablet()
    await tap(shared)
    const thief = shared.copiedInto('Another browser')
    expect((await thief.ask('GET', '/pieces')).status).toBe(401)
    expect((await thief.ask('GET', '/accounts/pegs')).status).toBe(401)
    expect((await shared.ask('GET', '/pieces')).status).toBe(401)
    expect((await shared.ask('GET', '/accounts/pegs')).status).toBe(200)
    // An update of the browser is the same browser.
    await tap(shared)
    const updated = shared.copiedInto(shared.browser.replace('12.0', '13.1'))
    expect((await updated.ask('GET', '/pieces')).status).toBe(200)
  })
})
