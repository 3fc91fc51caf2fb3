import type {
  OneTimeCodeState,
  OneTimeSecret,
  PupilSharing,
  Session,
  StaffMember,
} from '@nibquill/contract'
import { createHmac } from 'node:crypto'
import { TOTP, Secret } from 'otpauth'
import { v7 as newId } from 'uuid'
import {
  PASSWORD,
  type Person,
  SmallSchool,
  TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const EMAIL = 'o@saltmarsh.example'
const START = new Date('2026-11-23T10:00:00Z')
const later = (seconds: number) =>
  test_.clock.set(new Date(test_.clock.now().getTime() + seconds * 1000))
beforeEach(async () => {
  test_.clock.set(START)
  await test_.manager.query('delete from sign_in_try')
})

type Refusal = { type: string; status: number; retryAfterSeconds?: number }
const signIn = (person: Person, password: string, oneTimeCode?: string) =>
  person.ask<Session & Refusal>('POST', '/accounts/sign-in/password', {
    email: EMAIL,
    password,
    ...(oneTimeCode ? { oneTimeCode } : {}),
  })
/** The newest letter to somebody. */
const letterTo = async (to: string) => (await test_.lettersTo(to)).at(-1)
const linkIn = (body: string): string => /\/password\/(\S+)/.exec(body)![1]!

describe('a password', () => {
  test('is changed by whoever knows the old one; other browsers are signed out, and letters sent before open nothing', async () => {
    const [here, there] = [test_.visitor(), test_.visitor()]
    await signIn(here, PASSWORD)
    await signIn(there, PASSWORD)
    await there.ask('POST', '/accounts/password-forgotten', { email: EMAIL })
    const mailed = linkIn((await letterTo(EMAIL))!.body)
    const change = (password: string, newPassword: string) =>
      here.ask<Refusal>('POST', '/accounts/password', { password, newPassword })
    expect((await change('not this one', 'a new long one')).body.type).toBe(
      '/problems/accounts/password-wrong',
    )
    expect((await change(PASSWORD, 'short')).status).toBe(400)
    expect((await change(PASSWORD, 'a new long one')).status).toBe(200)
    expect((await here.ask('GET', '/school')).status).toBe(200)
    expect((await there.ask('GET', '/school')).status).toBe(401)
    expect(
      (await there.ask('POST', `/accounts/password-links/${mailed}`, { password: PASSWORD }))
        .status,
    ).toBe(410)
    expect((await signIn(test_.visitor(), PASSWORD)).status).toBe(401)
    expect(
      (
        await here.ask('POST', '/accounts/password', {
          password: 'a new long one',
          newPassword: PASSWORD,
        })
      ).status,
    ).toBe(200)
  })

  test('that was forgotten is chosen anew by a mailed link, once, within the hour', async () => {
    const visitor = test_.visitor()
    const ask = (email: string) => visitor.ask('POST', '/accounts/password-forgotten', { email })
    expect([(await ask(EMAIL)).body, (await ask('nobody@saltmarsh.example')).body]).toEqual([
      { done: true },
      { done: true },
    ])
    expect(await letterTo('nobody@saltmarsh.example')).toBeUndefined()
    const first = linkIn((await letterTo(EMAIL))!.body)
    later(1)
    await ask(EMAIL)
    const token = linkIn((await letterTo(EMAIL))!.body)
    // Somebody else may have asked for the newer one: the older one goes on working until either is
    // used.
    expect((await visitor.ask('GET', `/accounts/password-links/${first}`)).status).toBe(200)
    expect(
      (await visitor.ask('POST', `/accounts/password-links/${token}`, { password: PASSWORD })).body
        .person,
    ).toBeTruthy()
    expect((await visitor.ask('GET', `/accounts/password-links/${first}`)).status).toBe(410)
    expect(
      (await visitor.ask('POST', `/accounts/password-links/${token}`, { password: PASSWORD }))
        .status,
    ).toBe(410)
    later(1)
    await ask(EMAIL)
    const late = linkIn((await letterTo(EMAIL))!.body)
    later(3601)
    expect((await visitor.ask('GET', `/accounts/password-links/${late}`)).status).toBe(410)
  })

  test('strangers fill nobody’s box, keep nobody from a letter, and learn nothing by asking', async () => {
    await test_.manager.query('delete from password_link')
    const before = (await test_.lettersTo(EMAIL)).length
    for (const email of [EMAIL, 'nobody@saltmarsh.example']) {
      const asked = []
      for (let i = 0; i < 6; i++)
        asked.push(
          (await test_.visitor().ask('POST', '/accounts/password-forgotten', { email })).status,
        )
      expect(asked).toEqual([200, 200, 200, 200, 200, 200])
    }
    expect((await test_.lettersTo(EMAIL)).length).toBe(before + 4)
    expect(await letterTo('nobody@saltmarsh.example')).toBeUndefined()
    // When the last of them opens nothing any more, the next one goes.
    later(3601)
    await test_.visitor().ask('POST', '/accounts/password-forgotten', { email: EMAIL })
    expect((await test_.lettersTo(EMAIL)).length).toBe(before + 5)
    // A browser somebody came in with before has its own few.
    const known = test_.visitor()
    expect((await signIn(known, PASSWORD)).status).toBe(200)
    const own = []
    for (let i = 0; i < 5; i++)
      own.push((await known.ask('POST', '/accounts/password-forgotten', { email: EMAIL })).status)
    expect(own).toEqual([200, 200, 200, 200, 429])
    expect((await test_.lettersTo(EMAIL)).length).toBe(before + 9)
  })

  test('asked for by a known or an unknown address is the same work: one job, and nothing else before the answer', async () => {
    const own = await TestServer.start()
    await SmallSchool.open(own)
    await own.server.platform.queue.stop()
    const count = async (what: string) =>
      (await own.manager.query<{ n: number }[]>(`select count(*)::int as n from ${what}`))[0]!.n
    const jobs = () => count("graphile_worker.jobs where task_identifier = 'accounts.mail-way-in'")
    const letters = await count('mail')
    for (const [i, [address, email]] of [
      ['/accounts/password-forgotten', EMAIL],
      ['/accounts/password-forgotten', 'nobody@saltmarsh.example'],
      ['/accounts/mail-codes', 'nobody@saltmarsh.example'],
    ].entries()) {
      await own.visitor().ask('POST', address!, { email })
      expect([await jobs(), await count('mail'), await count('password_link')]).toEqual([
        i + 1,
        letters,
        0,
      ])
    }
    await own.stop()
  })

  test('tried by strangers without end keeps nobody out: a known browser at once, another one after a moment', async () => {
    const known = test_.visitor()
    await signIn(known, PASSWORD)
    const stranger = test_.visitor()
    for (let i = 0; i < 10; i++) expect((await signIn(stranger, 'wrong one')).status).toBe(401)
    const began = Date.now()
    expect((await signIn(known, PASSWORD)).status).toBe(200)
    const atOnce = Date.now() - began
    // The eleventh try of strangers waits two seconds, and is let in when it is right.
    const slow = Date.now()
    expect((await signIn(test_.visitor(), PASSWORD)).status).toBe(200)
    expect(Date.now() - slow).toBeGreaterThan(1900)
    expect(atOnce).toBeLessThan(Date.now() - slow)
    // A known browser's own wrong tries are counted, and shut out that browser alone.
    const tries = []
    for (let i = 0; i < 10; i++) tries.push((await signIn(known, 'wrong one')).status)
    expect(tries).toEqual([...Array<number>(8).fill(401), 429, 429])
  })

  test('asked for in vain is noted', async () => {
    await test_.manager.query('delete from audit')
    await signIn(test_.visitor(), 'wrong one')
    expect(
      await test_.manager.query(
        "select action, details from audit where action = 'sign-in.failed'",
      ),
    ).toEqual([{ action: 'sign-in.failed', details: { way: 'password' } }])
  })
})

describe('one-time codes', () => {
  /** RFC 6238 and RFC 4226 written out once more, apart from the library the server uses. */
  function codeAt(base32: string, at: Date): string {
    const bits = [...base32]
      .map((letter) =>
        'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0'),
      )
      .join('')
    const key = Buffer.from(bits.match(/.{8}/g)!.map((byte) => parseInt(byte, 2)))
    const counter = Buffer.alloc(8)
    counter.writeBigUInt64BE(BigInt(Math.floor(at.getTime() / 30_000)))
    const digest = createHmac('sha1', key).update(counter).digest()
    const offset = digest.at(-1)! & 15
    return String((digest.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0')
  }

  test.each([
    [59, '94287082'],
    [1_111_111_109, '07081804'],
    [1_111_111_111, '14050471'],
    [1_234_567_890, '89005924'],
    [2_000_000_000, '69279037'],
  ])('are those of RFC 6238, appendix B, at %i s', (seconds, expected) => {
    const totp = new TOTP({
      secret: Secret.fromUTF8('12345678901234567890'),
      digits: 8,
      algorithm: 'SHA1',
      period: 30,
    })
    expect(totp.generate({ timestamp: seconds * 1000 })).toBe(expected)
    expect(codeAt('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ', new Date(seconds * 1000))).toBe(
      expected.slice(2),
    )
  })

  let secret: string
  let spare: string[]
  const now = () => codeAt(secret, test_.clock.now())

  test('are switched on with the password and a first right code; the secret lies sealed', async () => {
    const teacher = test_.visitor()
    await signIn(teacher, PASSWORD)
    expect(
      (await teacher.ask('POST', '/accounts/one-time-codes/begin', { password: 'wrong one' }))
        .status,
    ).toBe(401)
    const { body } = await teacher.ask<OneTimeSecret>('POST', '/accounts/one-time-codes/begin', {
      password: PASSWORD,
    })
    secret = body.secret
    expect(body.address).toMatch(/^otpauth:\/\/totp\/.*secret=/)
    // Not yet confirmed, it asks nobody for anything.
    expect((await signIn(test_.visitor(), PASSWORD)).status).toBe(200)
    expect(
      (await teacher.ask<Refusal>('POST', '/accounts/one-time-codes/confirm', { code: '000000' }))
        .body.type,
    ).toBe('/problems/accounts/code-wrong')
    const confirmed = await teacher.ask<{ codes: string[] }>(
      'POST',
      '/accounts/one-time-codes/confirm',
      { code: now() },
    )
    spare = confirmed.body.codes
    expect(new Set(spare).size).toBe(8)
    const [{ dump }] = await test_.manager.query<[{ dump: string }]>(
      'select (select json_agg(o)::text from one_time_secret o) || (select json_agg(c)::text from spare_code c) as dump',
    )
    expect(dump).not.toContain(secret)
    expect(dump).not.toContain(spare[0])
  })

  test('are asked for after a right password, taken once each, and forgive a clock half a minute off', async () => {
    later(60)
    const visitor = test_.visitor()
    expect((await signIn(visitor, PASSWORD)).body.type).toBe('/problems/accounts/code-needed')
    expect((await visitor.ask('GET', '/school')).status).toBe(401)
    expect((await signIn(visitor, 'wrong one', now())).body.type).toBe(
      '/problems/accounts/password-wrong',
    )
    expect((await signIn(visitor, PASSWORD, '123456')).body.type).toBe(
      '/problems/accounts/code-wrong',
    )
    const code = now()
    expect((await signIn(visitor, PASSWORD, code)).status).toBe(200)
    expect((await signIn(test_.visitor(), PASSWORD, code)).body.type).toBe(
      '/problems/accounts/code-wrong',
    )
    const ahead = codeAt(secret, new Date(test_.clock.now().getTime() + 30_000))
    expect((await signIn(test_.visitor(), PASSWORD, ahead)).status).toBe(200)
    const tooFar = codeAt(secret, new Date(test_.clock.now().getTime() + 90_000))
    expect((await signIn(test_.visitor(), PASSWORD, tooFar)).status).toBe(401)
  })

  test('cannot be tried without end, not even with the right password', async () => {
    later(120)
    const statuses = []
    for (let i = 0; i < 10; i++)
      statuses.push((await signIn(test_.visitor(), PASSWORD, String(100_000 + i))).status)
    expect(statuses).toEqual([...Array<number>(8).fill(401), 429, 429])
  })

  test('a spare code opens once', async () => {
    const typed = `${spare[0]!.slice(0, 5).toLowerCase()} ${spare[0]!.slice(5)}`
    expect((await signIn(test_.visitor(), PASSWORD, typed)).status).toBe(200)
    expect((await signIn(test_.visitor(), PASSWORD, spare[0])).status).toBe(401)
  })

  test('a mailed link alone lets nobody in', async () => {
    await test_.visitor().ask('POST', '/accounts/password-forgotten', { email: EMAIL })
    const token = linkIn((await letterTo(EMAIL))!.body)
    const visitor = test_.visitor()
    const { status, body } = await visitor.ask<Session>(
      'POST',
      `/accounts/password-links/${token}`,
      { password: PASSWORD },
    )
    expect([status, body.person]).toEqual([200, null])
    expect((await visitor.ask('GET', '/school')).status).toBe(401)
  })

  test('are switched off by whoever leads the school when a phone is lost, and by nobody else', async () => {
    const { body: staff } = await school.teacher.ask<StaffMember[]>('GET', '/school/staff')
    const { id, oneTimeCodes } = staff.find(({ email }) => email === EMAIL)!
    expect(oneTimeCodes).toBe(true)
    const other = test_.visitor()
    await signIn(other, PASSWORD, spare[1])
    expect((await other.ask('PATCH', `/school/staff/${id}`, { oneTimeCodes: false })).status).toBe(
      404,
    )
    expect((await other.ask<OneTimeCodeState>('GET', '/accounts/one-time-codes')).body).toEqual({
      on: true,
      spareCodesLeft: 6,
    })
    expect(
      (await school.teacher.ask('PATCH', `/school/staff/${id}`, { oneTimeCodes: false })).status,
    ).toBe(200)
    expect((await signIn(test_.visitor(), PASSWORD)).status).toBe(200)
  })
})

describe('a parent', () => {
  const MAIL = 'bryn@home.example'
  let parentId: string
  beforeAll(async () => {
    parentId = newId()
    await school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/parents/${parentId}`, {
      firstName: 'Bryn',
      lastName: 'Archer',
      email: MAIL,
    })
  })
  const ask = (email = MAIL) => test_.visitor().ask('POST', '/accounts/mail-codes', { email })
  const codeIn = (body: string) => /\b\d{4} \d{4}\b/.exec(body)![0].replace(' ', '')
  const codeFor = async () => codeIn((await letterTo(MAIL))!.body)
  const enter = (code: string, person = test_.visitor()) =>
    person.ask<Session & Refusal>('POST', '/accounts/sign-in/mail-code', { email: MAIL, code })

  test('comes in by a code sent to their e-mail, once, within a quarter of an hour', async () => {
    await ask()
    const person = test_.visitor()
    const code = await codeFor()
    expect((await enter(`${code.slice(0, 3)} ${code.slice(3)}`, person)).body.person).toMatchObject(
      { role: 'parent' },
    )
    expect((await person.ask('GET', '/sharing/children')).status).toBe(200)
    expect((await enter(code)).body.type).toBe('/problems/accounts/mail-code-wrong')
    later(1)
    await ask()
    const late = await codeFor()
    later(901)
    expect((await enter(late)).status).toBe(401)
  })

  test('after sixty wrong tries the right code does not help, and no address is told apart', async () => {
    expect((await ask('nobody@home.example')).body).toEqual({ done: true })
    later(2000)
    await ask()
    const code = await codeFor()
    const wrong = code === '11111111' ? '22222222' : '11111111'
    for (let i = 0; i < 5; i++) expect((await enter(wrong)).status).toBe(401)
    await test_.manager.query('update mail_code set tries = 60')
    expect((await enter(code)).status).toBe(401)
    const unknown = await test_
      .visitor()
      .ask<Refusal>('POST', '/accounts/sign-in/mail-code', { email: 'nobody@home.example', code })
    expect(unknown.body.type).toBe('/problems/accounts/mail-code-wrong')
  })

  test('is not kept out by strangers who ask for codes and try them: what was sent stays usable, and a known browser gets more', async () => {
    later(4000)
    const known = test_.visitor()
    await ask()
    expect((await enter(await codeFor(), known)).status).toBe(200)
    later(1000)
    await ask()
    const sent = await codeFor()
    for (let i = 0; i < 6; i++) expect((await ask()).status).toBe(200)
    for (let i = 0; i < 6; i++) await enter('00000000')
    expect((await known.ask('POST', '/accounts/mail-codes', { email: MAIL })).status).toBe(200)
    expect(await codeFor()).not.toBe(sent)
    expect((await enter(sent)).status).toBe(200)
  })

  test('whose invitation has ended by itself still comes in by mail; one that was withdrawn does not, and the session ends', async () => {
    const { body } = await school.teacher.ask<PupilSharing>(
      'GET',
      `/sharing/pupils/${school.ids.wren}`,
    )
    const invitation = body.guardians.find(({ id }) => id === parentId)!.invitation!
    test_.clock.set(new Date('2027-12-01T10:00:00Z'))
    await school.teacher.ask('POST', '/accounts/sign-in/password', {
      email: 'a@saltmarsh.example',
      password: PASSWORD,
    })
    await ask()
    const person = test_.visitor()
    expect((await enter(await codeFor(), person)).status).toBe(200)
    const withdraw = `/sharing/pupils/${school.ids.wren}/invitations/${invitation.id}/withdraw`
    expect((await school.teacher.ask('POST', withdraw)).status).toBe(200)
    expect((await person.ask('GET', '/sharing/children')).status).toBe(401)
    const [{ count: before }] = await test_.manager.query<[{ count: number }]>(
      'select count(*)::int from mail',
    )
    later(4000)
    await ask()
    const [{ count: after }] = await test_.manager.query<[{ count: number }]>(
      'select count(*)::int from mail',
    )
    expect(after).toBe(before)
  })
})
