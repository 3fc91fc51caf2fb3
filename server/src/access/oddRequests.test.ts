import fc from 'fast-check'
import { v7 as newId } from 'uuid'
import type { Piece } from '@nibquill/contract'
import { addressOf, listRoutes, type ListedRoute } from '../testing/listRoutes.ts'
import {
  type SmallSchool,
  type TestServer,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

test.each(['toString', 'constructor', '__proto__', 'hasOwnProperty'])(
  'a field called %s is one fault among others',
  async (field) => {
    const draft = await school.draft()
    const answer = await school.wren.fetch('PATCH', `/pieces/${draft.id}`, {
      body: `{"${field}":1,"seenVersion":1}`,
      headers: { 'Content-Type': 'application/json' },
    })
    expect(answer.status === 400 || field === '__proto__').toBe(true)
    expect(answer.headers.get('content-type')).toMatch(/json/)
    expect(await answer.text()).not.toMatch(/node_modules|at \w+ \(/)
  },
)

test.each([
  {
    what: 'a title',
    method: 'PATCH',
    address: (draft: Piece) => `/pieces/${draft.id}`,
    body: { seenVersion: 1, title: 'a\u0000b' },
  },
  {
    what: 'a name',
    method: 'PATCH',
    address: (draft: Piece) => `/pieces/${draft.id}/parts/${draft.parts[0]!.id}`,
    body: { name: '\u0000' },
  },
  {
    what: 'a link',
    method: 'POST',
    address: () => '/accounts/sign-in/invitation',
    body: { token: `abcdefghijk\u0000lmnop` },
  },
  {
    what: 'a card',
    method: 'POST',
    address: () => '/accounts/sign-in/card',
    body: { code: 'ACDE\u0000FGH' },
  },
])('NUL in $what is refused with a sentence', async ({ method, address, body: sent }) => {
  const answer = await school.wren.ask(method, address(await school.draft()), sent)
  expect([answer.status, answer.body.type]).toEqual([400, '/problems/request/invalid'])
  expect(JSON.stringify(answer.body)).toMatch(/"unkeepable"/)
})

test('NUL in the name of a file is refused before anything of it is sent', async () => {
  const { status, body: said } = await school.wren.upload(Buffer.from('x'), {
    filename: 'a\u0000.jpg',
  })
  expect([status, said]).toEqual([400, expect.stringMatching(/"unkeepable"/)])
})

test.each([
  'nonsense',
  'WyIyMDI2Il0',
  Buffer.from('["2026-11-23T10:00:00.000Z","x"]').toString('base64url'),
  Buffer.from('["1","2"]').toString('base64url'),
])('a damaged cursor is said to be one: %s', async (after) => {
  for (const list of ['/review/tray', `/folders/${school.ids.open}`]) {
    const answer = await school.teacher.ask('GET', `${list}?after=${after}`)
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([
      400,
      expect.stringMatching(/damaged/),
    ])
  }
})

const odd = fc.oneof(
  fc.constantFrom(
    '',
    '\u0000',
    'a\u0000b',
    '__proto__',
    'constructor',
    'toString',
    '\ud800',
    "'; drop table piece; --",
    '${7*7}',
    '../../etc/passwd',
  ),
  fc.string({ maxLength: 40 }),
  fc.constant('x'.repeat(5000)),
  fc.integer(),
  fc.double(),
  fc.boolean(),
  fc.constant(null),
  fc.constant([]),
  fc.constant({}),
  fc.uuid(),
  fc.constantFrom('2026-11-23', '24:61', '2026-02-30', '1e309', '-1'),
)
const fields = [
  'title',
  'reflection',
  'seenVersion',
  'folderId',
  'classIds',
  'wholeSchool',
  'parentsSee',
  'name',
  'kind',
  'mediaId',
  'code',
  'email',
  'password',
  'token',
  'words',
  'mediaIds',
  'audience',
  'classId',
  'firstName',
  'lastName',
  'role',
  'leads',
  'due',
  'opens',
  'media',
  'pupilIds',
  'move',
  'message',
  'termId',
  'pupilId',
  'reason',
  'place',
  'ids',
  'moves',
  'symbol',
  'colour',
  'peg',
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
]
const body = fc.oneof(
  odd,
  fc.dictionary(
    fc.oneof(fc.constantFrom(...fields), fc.string({ maxLength: 8 })),
    fc.oneof(odd, fc.array(odd, { maxLength: 3 })),
    { maxKeys: 8 },
  ),
  // A key that an object takes for its own prototype only when it is written as text.
  fc.constantFrom(
    '{"__proto__":{"a":1}}',
    '{"constructor":{"prototype":{}}}',
    '{"toString":1}',
    '{"title":"\\u0000"}',
    '[[[',
    '"',
  ),
)

// Last: it changes whatever it happens to.
test('no route breaks, and none tells of its inside', async () => {
  const routes: ListedRoute[] = listRoutes(test_.server.app)
  const { wren, aoife, teacher, otherTeacher, parent, otherParent } = school
  const everybody = Object.entries({
    visitor: test_.visitor(),
    wren,
    aoife,
    teacher,
    otherTeacher,
    parent,
    otherParent,
  })
  const piece = await school.draft()
  const known = [
    piece.id,
    piece.parts[0]!.id,
    pictureOf(piece.parts[0]),
    ...Object.values(school.ids),
    newId(),
  ]
  const request = fc.record({
    route: fc.nat(),
    who: fc.nat(),
    params: fc.array(
      fc.oneof(
        fc.constantFrom(...known),
        fc.uuid(),
        fc.constantFrom('%00', 'toString', '__proto__', '%ff', 'null', '320', 'full', 'sharing'),
      ),
      { minLength: 3, maxLength: 3 },
    ),
    query: fc.dictionary(
      fc.constantFrom(
        'after',
        'classId',
        'pupilId',
        'termId',
        'link',
        'save',
        'format',
        'away',
        'closed',
        'day',
        'time',
        'madeFor',
      ),
      fc.constantFrom(
        '',
        '%00',
        'x',
        '2026-11-23',
        '[]',
        'bm8',
        encodeURIComponent('\u0000'),
        known[0]!,
      ),
      { maxKeys: 3 },
    ),
    body,
  })
  const broken: string[] = []
  let count = 0
  for (const { route: at, who, params, query, body: sent } of fc.sample(request, {
    numRuns: 1000,
    seed: 20_261_125,
  })) {
    // Each route in its turn, so that none is left out by chance.
    const route = routes[(count++ + (at % 3)) % routes.length]!
    const [name, person] = everybody[who % everybody.length]!
    // The people of this test are to stay signed in.
    const safe = /sign-out|\/sessions|\/tablets|\/card|password|first-run/.test(route.path)
      ? test_.visitor()
      : person
    const left = [...params]
    const address = `${addressOf(route, () => left.shift() ?? 'x')}?${Object.entries(query)
      .map(([key, value]) => `${key}=${value}`)
      .join('&')}`
    const leave = new AbortController()
    const response = await safe.fetch(route.method, address, {
      signal: leave.signal,
      ...(route.method === 'GET'
        ? {}
        : {
            body: typeof sent === 'string' ? sent : (JSON.stringify(sent) ?? ''),
            headers: { 'Content-Type': 'application/json' },
          }),
    })
    const binary =
      !/json|text|html/.test(response.headers.get('content-type') ?? '') ||
      route.path === '/api/live'
    const text = binary ? '' : await response.text()
    leave.abort()
    if (
      response.status >= 500 ||
      /node_modules|\.ts:\d|\bat \w+ \(|\bselect\b.*\bfrom\b|relation "|syntax error/i.test(text)
    )
      broken.push(
        `${name}: ${route.method} ${address} ${JSON.stringify(sent)}: ${response.status} ${text.slice(0, 200)}`,
      )
  }
  expect(broken).toEqual([])
  expect(count).toBe(1000)
  // Nobody lost their session on the way, or the half of it would have asked nothing.
  for (const person of [wren, teacher, parent])
    expect((await person.ask('GET', '/notices')).status).toBe(200)
}, 180_000)
