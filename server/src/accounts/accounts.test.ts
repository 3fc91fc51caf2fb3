import { writeCardCode } from '@nibquill/core'
import {
  PASSWORD,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const issue = (pupilId = school.ids.wren) =>
  test_.server.capabilities.nameCards.issue(test_.manager, pupilId)

test('a card opens the desk in lower case and with gaps; the database never holds its code', async () => {
  const code = await issue()
  const pupil = test_.visitor()
  const answer = await pupil.ask<{ person: { firstName: string; role: string } }>(
    'POST',
    '/accounts/sign-in/card',
    {
      code: ` ${writeCardCode(code).toLowerCase()} `,
    },
  )
  expect(answer.body.person).toMatchObject({ firstName: 'wren', role: 'pupil' })
  const [{ dump }] = await test_.manager.query<[{ dump: string }]>(
    'select json_agg(n)::text as dump from name_card n',
  )
  expect(dump).not.toContain(code)
})

test('the cookie is out of reach of scripts and other sites, and only its hash is stored', async () => {
  const response = await test_.visitor().fetch('POST', '/accounts/sign-in/card', {
    body: JSON.stringify({ code: await issue() }),
    headers: { 'Content-Type': 'application/json' },
  })
  const cookie = response.headers.get('set-cookie')!
  expect(cookie).toMatch(/HttpOnly/)
  expect(cookie).toMatch(/SameSite=Lax/)
  expect(cookie).not.toMatch(/Secure/)
  const [{ dump }] = await test_.manager.query<[{ dump: string }]>(
    'select json_agg(s)::text as dump from session s',
  )
  expect(dump).not.toContain(/nibquill=([^;]+)/.exec(cookie)![1])
})

test('a new card stops the old one and ends what it opened', async () => {
  const before = await issue()
  const pupil = test_.visitor()
  await pupil.ask('POST', '/accounts/sign-in/card', { code: before })
  expect((await pupil.ask('GET', '/pieces')).status).toBe(200)
  await issue()
  expect((await pupil.ask('GET', '/pieces')).status).toBe(401)
  expect(
    (await test_.visitor().ask('POST', '/accounts/sign-in/card', { code: before })).status,
  ).toBe(401)
})

test('wrong codes get a kind sentence, and are slowed down by their first group', async () => {
  const guesser = test_.visitor()
  const guess = (tail: string) =>
    guesser.ask<{ title: string; retryAfterSeconds: number }>('POST', '/accounts/sign-in/card', {
      code: `WXYA CDEF GHJK MNP${tail}`,
    })
  for (let i = 0; i < 8; i++)
    expect((await guess('ACDEFGHJ'[i]!)).body).toMatchObject({
      status: 401,
      title: 'We do not know that card. Look at each letter again.',
    })
  const slowed = await guess('T')
  expect(slowed.status).toBe(429)
  expect(Number(slowed.headers.get('retry-after'))).toBeGreaterThan(60)
  // Other cards of the same school still work from the same address.
  expect(
    (await guesser.ask('POST', '/accounts/sign-in/card', { code: await issue() })).status,
  ).toBe(200)
})

test('a teacher’s password: wrong ones are refused alike, whether the address is known or not', async () => {
  const visitor = test_.visitor()
  const [known, unknown] = [
    await visitor.ask('POST', '/accounts/sign-in/password', {
      email: 'a@saltmarsh.example',
      password: 'wrong',
    }),
    await visitor.ask('POST', '/accounts/sign-in/password', {
      email: 'z@saltmarsh.example',
      password: 'wrong',
    }),
  ]
  expect(known.body).toEqual(unknown.body)
  expect(known.status).toBe(401)
})

test('a request from another site changes nothing', async () => {
  const answer = await school.wren.ask(
    'POST',
    '/accounts/sign-out',
    {},
    { Origin: 'http://elsewhere.example' },
  )
  expect(answer.status).toBe(403)
  const response = await fetch(`${school.tomasz.at}/api/accounts/sign-out`, {
    method: 'POST',
    headers: { Cookie: school.tomasz.cookie },
  })
  expect(response.status).toBe(403)
  expect((await school.tomasz.ask('GET', '/pieces')).status).toBe(200)
})

test('an untouched tablet is signed out by the class’s idle time, a little after its own clock', async () => {
  const pupil = test_.visitor()
  await pupil.ask('POST', '/accounts/sign-in/card', { code: await issue(school.ids.aoife) })
  const start = test_.clock.now()
  const after = (minutes: number) => test_.clock.set(new Date(start.getTime() + minutes * 60_000))
  after(9)
  expect((await pupil.ask('GET', '/pieces')).status).toBe(200)
  after(20)
  expect((await pupil.ask('GET', '/pieces')).status).toBe(200)
  after(33)
  expect((await pupil.ask('GET', '/pieces')).status).toBe(401)
  test_.clock.set(start)
})

test('a school is set up once, with every fault of the form named', async () => {
  const again = await test_.visitor().ask('POST', '/accounts/first-run', {
    schoolName: 'Other',
    timeZone: 'Europe/London',
    firstName: 'A',
    lastName: '',
    email: 'x@y.example',
    password: PASSWORD,
  })
  expect(again.body).toMatchObject({ status: 409, type: '/problems/accounts/already-set-up' })
  const faulty = await test_.visitor().ask<{ fields: object }>('POST', '/accounts/first-run', {
    schoolName: '',
    timeZone: 'Europe/London',
    firstName: 'A',
    lastName: '',
    email: 'nonsense',
    password: 'short',
  })
  expect(faulty.status).toBe(400)
  expect(Object.keys(faulty.body.fields).sort()).toEqual(['email', 'password', 'schoolName'])
})

test('pages carry a policy that lets no foreign or inline script run', async () => {
  const policy = (await test_.visitor().fetch('GET', '/health')).headers.get(
    'content-security-policy',
  )!
  expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/)
  expect(policy).toMatch(/frame-ancestors 'none'/)
})
