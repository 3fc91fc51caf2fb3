import { DOMAIN_ERRORS, DomainError, type DomainErrorCode, type Tidying } from '@nibquill/core'
import { planTidying } from '@nibquill/core/tidy/planTidying'
import { readdirSync, readFileSync } from 'node:fs'
import { v7 as newId } from 'uuid'
import {
  type Answer,
  picture,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'
import { begin } from '../testing/uploadSteps.ts'
import { problemOf } from './problem.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

type Case = {
  code: DomainErrorCode
  status: number
  ask: () => Promise<Answer<{ type: string; status: number; title: string }>>
}
const sql = (text: string, parameters: unknown[] = []) =>
  test_.manager.query<{ id: string }[]>(text, parameters)
const visitor = () => test_.visitor()

/** The refusals that other tests reach without naming them, each by the shortest way there. */
const CASES: Case[] = [
  {
    code: 'accounts/card-unknown',
    status: 401,
    ask: () => visitor().ask('POST', '/accounts/sign-in/card', { code: 'ACDE FGHJ KMNP RTWX' }),
  },
  {
    code: 'accounts/too-many-tries',
    status: 429,
    ask: async () => {
      const known = test_.visitor()
      const tried = (password: string) =>
        known.ask<never>('POST', '/accounts/sign-in/password', {
          email: 'o@saltmarsh.example',
          password,
        })
      await tried('a long enough password')
      for (let i = 0; i < 8; i++) await tried('wrong')
      return tried('wrong')
    },
  },
  {
    code: 'accounts/invitation-over',
    status: 410,
    ask: () =>
      visitor().ask('POST', '/accounts/sign-in/invitation', { token: 'nothing-behind-this' }),
  },
  {
    code: 'accounts/password-link-over',
    status: 410,
    ask: () => visitor().ask('GET', '/accounts/password-links/nothing-behind-this'),
  },
  {
    code: 'accounts/cards-not-ready',
    status: 409,
    ask: async () => {
      const id = newId()
      await sql(
        `insert into card_sheet (id, pupil_id, state, card_count, cards_done, requested_by, requested_at)
         select $1, $2, 'waiting', 1, 0, id, now() from person where email = 'a@saltmarsh.example'`,
        [id, school.ids.wren],
      )
      return school.teacher.ask('GET', `/accounts/cards/${id}/file`)
    },
  },
  {
    code: 'accounts/no-secret-yet',
    status: 409,
    ask: async () => {
      const door = `/accounts/classes/${school.ids.plover}/door`
      await school.otherTeacher.ask('PATCH', door, { switch: 'open', asksSecret: true })
      const code = await test_.server.capabilities.doors.issueCard(test_.manager, school.ids.plover)
      const tablet = visitor()
      await tablet.ask('POST', '/accounts/sign-in/card', { code })
      await sql('delete from picture_secret where pupil_id = $1', [school.ids.aoife])
      return tablet.ask('POST', '/accounts/sign-in/peg', {
        pupilId: school.ids.aoife,
        secret: ['cat', 'boat', 'apple'],
      })
    },
  },
  {
    code: 'accounts/codes-already-on',
    status: 409,
    ask: async () => {
      await sql(
        "insert into one_time_secret (person_id, sealed, confirmed_at, last_step) select id, 'x', now(), 0 from person where email = 'a@saltmarsh.example'",
      )
      const answer = await school.teacher.ask<never>('POST', '/accounts/one-time-codes/begin', {
        password: 'a long enough password',
      })
      await sql('delete from one_time_secret')
      return answer
    },
  },
  {
    code: 'accounts/origin-refused',
    status: 403,
    ask: () =>
      school.wren.ask('POST', '/accounts/sign-out', {}, { Origin: 'http://elsewhere.example' }),
  },
  {
    code: 'request/too-large',
    status: 413,
    ask: () => school.wren.ask('PUT', `/pieces/${newId()}`, { taskId: 'x'.repeat(300_000) }),
  },
  { code: 'request/not-found', status: 404, ask: () => school.wren.ask('GET', '/nowhere') },
  {
    code: 'school/pegs-full',
    status: 409,
    ask: async () => {
      const { school: School } = test_.server.capabilities
      const many = Array.from({ length: 800 }, (_, i) => ({
        firstName: `P${i}`,
        lastName: '',
        externalId: null,
      }))
      const refused = await School.addPupils(
        test_.manager,
        school.ids.school,
        school.ids.plover,
        many,
      ).catch((error: unknown) => error)
      return {
        status: problemOf(refused).status,
        body: problemOf(refused) as never,
        headers: new Headers(),
      }
    },
  },
  {
    code: 'school/roll-over-refused',
    status: 409,
    ask: async () => {
      const [year] = await sql('select id from school_year limit 1')
      return school.teacher.ask('POST', '/school/roll-over', {
        fromYearId: year!.id,
        toYearId: year!.id,
        moves: [],
      })
    },
  },
  {
    code: 'task/not-found',
    status: 404,
    ask: () => school.aoife.ask('GET', `/tasks/${school.ids.task}`),
  },
  {
    code: 'media/not-for-pieces',
    status: 415,
    ask: async () => {
      const { mediaId } = await school.wren.upload(await picture())
      await sql("update media set kind = 'paper' where id = $1", [mediaId])
      const piece = await school.draft()
      return school.wren.ask('PUT', `/pieces/${piece.id}/parts/${newId()}`, {
        kind: 'photo',
        files: { picture: mediaId },
        name: '',
      })
    },
  },
  {
    code: 'piece/part-changed',
    status: 409,
    ask: async () => {
      const piece = await school.draft()
      const part = `/pieces/${piece.id}/parts/${newId()}`
      await school.wren.ask('PUT', part, { kind: 'writing', name: '', text: 'The wind.' })
      return school.wren.ask('PUT', `${part}/text`, { text: 'The sea.', seenText: 'The rain.' })
    },
  },
  {
    code: 'media/id-taken',
    status: 409,
    ask: async () => {
      const piece = await school.draft()
      const { mediaId } = await school.wren.upload(await picture(320, 200, '#010203'))
      return school.wren.ask('PUT', `/pieces/${piece.id}/parts/${piece.parts[0]!.id}`, {
        kind: 'photo',
        files: { picture: mediaId },
        name: '',
      })
    },
  },
  {
    code: 'portfolio/no-term',
    status: 409,
    ask: async () => {
      const piece = await school.approved()
      await sql('update piece set term_id = null where id = $1', [piece.id])
      return school.wren.ask('PUT', `/portfolio/${school.ids.wren}/picks/${piece.id}`, {
        reason: '',
      })
    },
  },
  {
    code: 'book/not-ready',
    status: 409,
    ask: async () => {
      await school.approved()
      const { body } = await school.teacher.ask<{ id: string }>('POST', '/book', {
        pupilId: school.ids.wren,
        termId: school.ids.term,
        madeFor: 'school',
      })
      await until(async () => (await sql("select id from book where state = 'ready'")).length > 0)
      await sql("update book set state = 'making' where id = $1", [body.id])
      return school.teacher.ask('GET', `/book/${body.id}/file`)
    },
  },
  {
    code: 'sharing/no-address',
    status: 409,
    ask: async () => {
      await sql(
        'insert into guardian (parent_id, pupil_id) values ($1, $2) on conflict do nothing',
        [school.ids.wrensParent, school.ids.aoife],
      )
      const [invitation] = await sql('select id from invitation where parent_id = $1 limit 1', [
        school.ids.wrensParent,
      ])
      return school.teacher.ask(
        'POST',
        `/sharing/pupils/${school.ids.wren}/invitations/${invitation!.id}/renew`,
      )
    },
  },
  {
    code: 'sharing/link-over',
    status: 410,
    ask: () => visitor().ask('GET', '/sharing/links/nothing-behind-this'),
  },
]

test.each(CASES)(
  '$code is answered with $status and its sentence',
  async ({ code, status, ask }) => {
    const answer = await ask()
    expect(answer.status).toBe(status)
    expect(answer.body).toMatchObject({
      type: `/problems/${code}`,
      status,
      title: DOMAIN_ERRORS[code],
    })
  },
)

test('media/too-large: more than a file may hold is refused before it is sent', async () => {
  const answer = await begin(school.wren, 401 * 1024 * 1024)
  expect(answer.status).toBe(413)
  expect(problemOf(new DomainError('media/too-large')).status).toBe(413)
})

test('tidy/corners-cross: four corners that do not go round a page', () => {
  const corners: Tidying['corners'] = [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ]
  const tidying: Tidying = {
    corners,
    quarters: 0,
    degrees: 0,
    trim: { left: 0, top: 0, right: 1, bottom: 1 },
    brighten: null,
  }
  let refused: unknown
  try {
    planTidying({ width: 400, height: 300 }, tidying)
  } catch (error) {
    refused = error
  }
  expect(problemOf(refused)).toMatchObject({ type: '/problems/tidy/corners-cross', status: 422 })
})

test('every refusal there is has a test that names it', () => {
  const root = new URL('../../../', import.meta.url).pathname
  const tests = ['core', 'contract', 'server', 'client', 'e2e'].flatMap((folder) =>
    readdirSync(`${root}${folder}`, { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.(test|spec)\.tsx?$/.test(name) && !name.includes('node_modules'))
      .map((name) => readFileSync(`${root}${folder}/${name}`, 'utf8')),
  )
  const unnamed = (Object.keys(DOMAIN_ERRORS) as DomainErrorCode[]).filter(
    (code) => !tests.some((text) => text.includes(code)),
  )
  expect(unnamed).toEqual([])
})
