import type { PupilSharing } from '@nibquill/contract'
import { v7 as newId } from 'uuid'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
  pictureOf,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const names = [
  'visitor',
  'tomasz',
  'aoife',
  'teacher',
  'otherTeacher',
  'parent',
  'otherParent',
] as const
const person = (name: (typeof names)[number]): Person =>
  name === 'visitor' ? test_.visitor() : school[name]

describe('a draft of Wren’s', () => {
  test.each([
    { who: 'visitor', status: 401 },
    { who: 'tomasz', status: 404 },
    { who: 'aoife', status: 404 },
    { who: 'teacher', status: 200 },
    { who: 'otherTeacher', status: 404 },
    { who: 'parent', status: 404 },
    { who: 'otherParent', status: 404 },
  ] as const)('$who reads it: $status', async ({ who, status }) => {
    const piece = await school.draft()
    const answer = await person(who).ask('GET', `/pieces/${piece.id}`)
    expect(answer.status).toBe(status)
    if (status === 404)
      expect(answer.body).toEqual((await person(who).ask('GET', `/pieces/${newId()}`)).body)
  })

  test.each(names.filter((name) => name !== 'teacher'))(
    '%s changes nothing of it and reads none of its photos',
    async (who) => {
      const piece = await school.draft()
      const refused = who === 'visitor' ? 401 : 404
      for (const [method, address, body] of [
        ['PATCH', '', { seenVersion: piece.version, title: 'mine' }],
        ['POST', '/hand-in', { seenVersion: piece.version }],
        ['POST', '/withdraw', { seenVersion: piece.version }],
        ['POST', '/another-go', { seenVersion: piece.version }],
        ['DELETE', '', undefined],
        ['DELETE', `/parts/${piece.parts[0]!.id}`, undefined],
        ['PATCH', `/parts/${piece.parts[0]!.id}`, { name: 'mine' }],
        ['PUT', '/order', { partIds: [] }],
        ['PUT', '/makers', { makerIds: [] }],
        [
          'PUT',
          `/parts/${newId()}`,
          { kind: 'photo', files: { picture: pictureOf(piece.parts[0]) }, name: '' },
        ],
      ] as const) {
        expect((await person(who).ask(method, `/pieces/${piece.id}${address}`, body)).status).toBe(
          refused,
        )
      }
      for (const size of ['320', 'full'])
        expect(
          (await person(who).ask('GET', `/media/${pictureOf(piece.parts[0])}/${size}`)).status,
        ).toBe(refused)
    },
  )
})

test('a pupil starting a piece under somebody else’s id is told that there is nothing', async () => {
  const piece = await school.draft()
  expect((await school.tomasz.ask('PUT', `/pieces/${piece.id}`, { taskId: null })).status).toBe(404)
  expect(
    (await school.aoife.ask('PUT', `/pieces/${newId()}`, { taskId: school.ids.task })).status,
  ).toBe(404)
})

test('only the class’s teacher judges', async () => {
  const piece = await school.submitted()
  const decision = { move: 'approve', message: '', seenVersion: piece.version }
  for (const who of names.filter((name) => name !== 'teacher')) {
    expect((await person(who).ask('POST', `/review/pieces/${piece.id}`, decision)).status).toBe(
      who === 'visitor' ? 401 : 404,
    )
    expect((await person(who).ask('GET', `/review/pieces/${piece.id}/earlier`)).status).toBe(
      who === 'visitor' ? 401 : 404,
    )
  }
  expect((await school.teacher.ask('POST', `/review/pieces/${piece.id}`, decision)).status).toBe(
    200,
  )
  const tray = await school.otherTeacher.ask<{ pieces: unknown[] }>('GET', '/review/tray')
  expect(tray.body.pieces).toEqual([])
})

describe('a parent', () => {
  type Work = { newest: { id: string } | null; chapters: { pieces: { id: string }[] }[] }
  const seen = async (parent = school.parent) => {
    const { body } = await parent.ask<Work>('GET', `/sharing/children/${school.ids.wren}`)
    return body.chapters?.flatMap(({ pieces }) => pieces.map(({ id }) => id)) ?? []
  }

  test('sees approved work in folders parents may see, and nothing else', async () => {
    const [open, closed, waiting, draft] = [
      await school.approved(),
      await school.approved({ folderId: school.ids.closed }),
      await school.submitted(),
      await school.draft(),
    ]
    const ids = await seen()
    expect(ids).toContain(open.id)
    for (const hidden of [closed, waiting, draft]) {
      expect(ids).not.toContain(hidden.id)
      expect(
        (await school.parent.ask('GET', `/media/${pictureOf(hidden.parts[0])}/320`)).status,
      ).toBe(404)
    }
    expect(
      (await school.parent.fetch('GET', `/media/${pictureOf(open.parts[0])}/320`)).status,
    ).toBe(200)
    expect(
      (await school.otherParent.ask('GET', `/media/${pictureOf(open.parts[0])}/320`)).status,
    ).toBe(404)
    expect(
      (await school.otherParent.ask('GET', `/sharing/children/${school.ids.wren}`)).status,
    ).toBe(404)
    expect((await school.parent.ask('GET', `/portfolio/${school.ids.wren}`)).status).toBe(404)
    expect((await school.parent.ask('GET', '/folders')).status).toBe(404)
  })

  test('goes on seeing the approved version while another go is on the desk', async () => {
    const piece = await school.approved()
    const again = (
      await school.wren.ask('POST', `/pieces/${piece.id}/another-go`, {
        seenVersion: piece.version,
      })
    ).body
    await school.wren.ask('PATCH', `/pieces/${piece.id}`, {
      seenVersion: again.version,
      title: 'Secret second go',
    })
    const { body } = await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)
    expect(JSON.stringify(body)).toContain(piece.id)
    expect(JSON.stringify(body)).not.toContain('Secret second go')
  })

  test('sees nothing without consent, and nothing while another child in the piece has none', async () => {
    const together = await school.approved()
    await test_.manager.query(
      'insert into version_maker (version_id, person_id) select approved_version_id, $2 from piece where id = $1',
      [together.id, school.ids.tomasz],
    )
    expect(await seen()).toContain(together.id)
    await test_.manager.query(
      "update consent set granted = false where pupil_id = $1 and kind = 'sharing'",
      [school.ids.tomasz],
    )
    expect(await seen()).not.toContain(together.id)
    expect(
      (await school.parent.ask('GET', `/media/${pictureOf(together.parts[0])}/320`)).status,
    ).toBe(404)
    await test_.manager.query(
      "update consent set granted = false where pupil_id = $1 and kind = 'sharing'",
      [school.ids.wren],
    )
    expect((await school.parent.ask('GET', `/sharing/children/${school.ids.wren}`)).status).toBe(
      404,
    )
    await test_.manager.query('update consent set granted = true')
  })

  test('is out at once when the invitation is withdrawn or has ended by itself', async () => {
    const guest = test_.visitor()
    const [invitation] = (
      await school.teacher.ask<PupilSharing>('GET', `/sharing/pupils/${school.ids.wren}`)
    ).body.guardians.map((guardian) => guardian.invitation!)
    const { invitations } = test_.server.capabilities
    const letter = await invitations.invite(
      test_.manager,
      school.ids.wren,
      school.ids.wrensParent,
      { keepEarlier: true },
    )
    const token = letter.address.split('/').at(-1)!
    expect((await guest.ask('POST', '/accounts/sign-in/invitation', { token })).status).toBe(200)
    expect((await guest.ask('GET', '/sharing/children')).status).toBe(200)
    expect(
      (
        await school.otherTeacher.ask(
          'POST',
          `/sharing/pupils/${school.ids.wren}/invitations/${invitation!.id}/withdraw`,
        )
      ).status,
    ).toBe(404)
    expect(
      (
        await school.teacher.ask(
          'POST',
          `/sharing/pupils/${school.ids.wren}/invitations/${invitation!.id}/withdraw`,
        )
      ).status,
    ).toBe(200)
    expect((await guest.ask('GET', '/sharing/children')).status).toBe(401)
    expect((await guest.ask('POST', '/accounts/sign-in/invitation', { token })).status).toBe(410)
    const renewed = await invitations.invite(test_.manager, school.ids.wren, school.ids.wrensParent)
    const fresh = renewed.address.split('/').at(-1)!
    expect(
      (await school.parent.ask('POST', '/accounts/sign-in/invitation', { token: fresh })).status,
    ).toBe(200)
    const now = test_.clock.now()
    test_.clock.set(new Date(now.getTime() + 366 * 24 * 3600 * 1000))
    expect((await guest.ask('POST', '/accounts/sign-in/invitation', { token: fresh })).status).toBe(
      410,
    )
    test_.clock.set(now)
  })
})

test('a page link opens its piece and no other, until it is withdrawn, ends, or consent is taken back', async () => {
  const piece = await school.approved({ person: school.tomasz })
  const other = await school.approved({ person: school.tomasz })
  const made = await school.teacher.ask<{ id: string }>('POST', '/book', {
    pupilId: school.ids.tomasz,
    termId: school.ids.term,
    madeFor: 'home',
  })
  const bookId = made.body.id
  await until(
    async () =>
      (await school.teacher.ask<{ state: string }>('GET', `/book/${bookId}`)).body.state ===
      'ready',
  )
  const token = test_.server.platform.secrets.tokenFor('page-link', `${bookId}/${piece.id}`)
  const stranger = test_.visitor()
  const open = () => stranger.ask<{ piece: { id: string } }>('GET', `/sharing/links/${token}`)
  expect((await open()).body.piece.id).toBe(piece.id)
  expect(
    (await stranger.fetch('GET', `/media/${pictureOf(piece.parts[0])}/320?link=${token}`)).status,
  ).toBe(200)
  expect(
    (await stranger.ask('GET', `/media/${pictureOf(other.parts[0])}/320?link=${token}`)).status,
  ).toBe(404)
  expect((await stranger.ask('GET', `/media/${pictureOf(piece.parts[0])}/320`)).status).toBe(401)
  expect((await stranger.ask('GET', `/pieces/${piece.id}`)).status).toBe(401)

  await test_.manager.query(
    "update consent set granted = false where pupil_id = $1 and kind = 'sharing'",
    [school.ids.tomasz],
  )
  expect((await open()).status).toBe(410)
  await test_.manager.query('update consent set granted = true')
  const now = test_.clock.now()
  test_.clock.set(new Date(now.getTime() + 401 * 24 * 3600 * 1000))
  expect((await open()).status).toBe(410)
  test_.clock.set(now)
  for (const who of ['tomasz', 'otherTeacher', 'parent'] as const) {
    expect((await school[who].ask('GET', `/book/${bookId}/file`)).status).toBe(404)
    expect((await school[who].ask('POST', `/book/${bookId}/links/withdraw`)).status).toBe(404)
  }
  expect((await school.teacher.ask('POST', `/book/${bookId}/links/withdraw`)).status).toBe(200)
  expect((await open()).status).toBe(410)
})

test('everything else of a class, a pupil and a portfolio is for its own people only', async () => {
  for (const [address, allowed] of [
    [`/school/classes/${school.ids.heron}`, ['teacher']],
    [`/school/pupils/${school.ids.wren}`, ['teacher']],
    [`/portfolio/${school.ids.wren}`, ['teacher']],
    [`/folders/${school.ids.open}`, ['teacher', 'tomasz']],
    [`/book?pupilId=${school.ids.wren}`, ['teacher']],
    [`/sharing/pupils/${school.ids.wren}`, ['teacher']],
  ] as const) {
    for (const who of names) {
      const expected = (allowed as readonly string[]).includes(who)
        ? 200
        : who === 'visitor'
          ? 401
          : 404
      expect({ address, who, status: (await person(who).ask('GET', address)).status }).toEqual({
        address,
        who,
        status: expected,
      })
    }
  }
})
