import { v7 as newId } from 'uuid'
import type { InvitedParent } from '@nibquill/contract'
import { addressOf, listRoutes, type ListedRoute } from '../testing/listRoutes.ts'
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
let routes: ListedRoute[]
useSmallSchool((opened) => ({ test: test_, school } = opened))

/**
 * Ids of things that belong to Heron, its pupils and its teacher, and that nobody else is shown.
 */
let herons: Record<string, string>
const ids = async (sql: string): Promise<string> =>
  (await test_.manager.query<{ id: string }[]>(sql))[0]!.id
beforeAll(async () => {
  routes = listRoutes(test_.server.app)
  const [approved, draft] = [await school.approved(), await school.draft()]
  const [noticeId, classPieceId, unitId, sheet] = [
    newId(),
    newId(),
    newId(),
    { classId: school.ids.heron },
  ]
  await school.teacher.ask('PUT', `/notices/${noticeId}`, {
    classId: school.ids.heron,
    audience: 'class',
    words: 'Bring a shell.',
    mediaIds: [],
  })
  await school.teacher.ask('PUT', `/pieces/for-everyone/${classPieceId}`, {
    ...sheet,
    folderId: school.ids.open,
    title: 'Walk',
    instructions: '',
  })
  await school.teacher.ask('PUT', `/tasks/units/${unitId}`, { ...sheet, title: 'Bridges' })
  const cards = await school.teacher.ask<{ id: string }>('POST', '/accounts/cards', sheet)
  // New cards end what the old ones opened.
  await until(
    async () =>
      (await school.teacher.ask<{ state: string }>('GET', `/accounts/cards/${cards.body.id}`)).body
        .state === 'ready',
  )
  for (const name of ['wren', 'tomasz'] as const) {
    const code = await test_.server.capabilities.nameCards.issue(test_.manager, school.ids[name])
    await school[name].ask('POST', '/accounts/sign-in/card', { code })
  }
  const book = await school.teacher.ask<{ id: string }>('POST', '/book', {
    pupilId: school.ids.wren,
    termId: school.ids.term,
    madeFor: 'school',
  })
  const parent = await school.teacher.ask<InvitedParent>(
    'PUT',
    `/sharing/pupils/${school.ids.wren}/parents/${newId()}`,
    { firstName: 'X', lastName: '', email: 'x@saltmarsh.example' },
  )
  const commentId = newId()
  await school.wren.ask('PUT', `/comments/${commentId}`, { pieceId: approved.id, words: 'Mine' })
  herons = {
    approved: approved.id,
    draft: draft.id,
    version: approved.versions[0]!.id,
    part: draft.parts[0]!.id,
    media: pictureOf(draft.parts[0]),
    wren: school.ids.wren,
    tomasz: school.ids.tomasz,
    heron: school.ids.heron,
    folder: school.ids.closed,
    task: school.ids.task,
    notice: noticeId,
    classPiece: classPieceId,
    unit: unitId,
    sheet: cards.body.id,
    book: book.body.id,
    invitation: parent.body.guardians.at(-1)!.invitation!.id,
    letter: await ids('select id from mail limit 1'),
    comment: commentId,
  }
})

/**
 * What could be asked for at an address that begins like this; the rest of an address says a form
 * or a kind.
 */
const FITTING: Record<string, string[]> = {
  pieces: ['approved', 'draft', 'part', 'classPiece', 'version'],
  review: ['approved', 'draft', 'version', 'part', 'wren'],
  media: ['media', 'approved'],
  folders: ['folder'],
  tasks: ['task', 'unit'],
  notices: ['notice'],
  portfolio: ['wren', 'approved'],
  sharing: ['wren', 'tomasz', 'invitation'],
  book: ['book', 'wren'],
  mail: ['letter'],
  school: ['heron', 'wren', 'sheet'],
  accounts: ['heron', 'wren', 'sheet', 'letter'],
  comments: ['approved', 'draft', 'comment'],
}
const fillWith = (id: string) => (name: string) =>
  name === 'form' ? '320' : name === 'kind' ? 'sharing' : id

/** Where an id that exists is answered otherwise than one that does not. */
async function tellingRoutes(person: Person): Promise<string[]> {
  const told: string[] = []
  for (const route of routes.filter(
    ({ params, path }) => params.length > 0 && !path.endsWith('/sign-out'),
  )) {
    const nothing = await askedOf(person, route, addressOf(route, fillWith(newId())))
    for (const name of FITTING[route.path.split('/')[2]!] ?? []) {
      const something = await askedOf(person, route, addressOf(route, fillWith(herons[name]!)))
      if (something.status !== nothing.status || something.text !== nothing.text)
        told.push(`${route.method} ${route.path} of ${name}: ${something.status} ${nothing.status}`)
    }
  }
  return told
}

const people = () => ({
  visitor: test_.visitor(),
  wren: school.wren,
  aoife: school.aoife,
  teacher: school.teacher,
  otherTeacher: school.otherTeacher,
  parent: school.parent,
  otherParent: school.otherParent,
})

/** The answer, read as far as it says who may see what; a stream is left at once. */
async function askedOf(
  person: Person,
  route: ListedRoute,
  address: string,
  body?: unknown,
): Promise<{ status: number; text: string }> {
  const leave = new AbortController()
  const response = await person.fetch(route.method, address, {
    signal: leave.signal,
    ...(route.method === 'GET'
      ? {}
      : { body: JSON.stringify(body ?? {}), headers: { 'Content-Type': 'application/json' } }),
  })
  const text = route.path === '/api/live' && response.ok ? '' : await response.text()
  leave.abort()
  return { status: response.status, text }
}

test('every capability’s routes are found', () => {
  expect(routes.length).toBeGreaterThan(110)
  const capabilities = new Set(routes.map(({ path }) => path.split('/')[2]))
  for (const name of [
    'accounts',
    'school',
    'folders',
    'tasks',
    'pieces',
    'media',
    'review',
    'notices',
    'portfolio',
    'sharing',
    'book',
    'mail',
    'live',
    'comments',
  ])
    expect(capabilities).toContain(name)
})

test('signed out, an id that exists is answered as one that does not, on every route', async () => {
  for (const { path } of routes)
    if (/:id/.test(path)) expect(FITTING).toHaveProperty(path.split('/')[2]!)
  expect(await tellingRoutes(test_.visitor())).toEqual([])
})

test.each(['aoife', 'otherTeacher', 'otherParent'] as const)(
  'to %s of another class, an id of Heron’s is answered as one that does not exist, on every route',
  async (who) => {
    expect(await tellingRoutes(people()[who])).toEqual([])
  },
  60_000,
)

test('every list shows what the guard allows, and nothing else', async () => {
  const { guard } = test_.server.capabilities
  const { manager } = test_
  const all = async (table: string, where = 'true') =>
    (await manager.query<{ id: string }[]>(`select id from ${table} where ${where}`)).map(
      ({ id }) => id,
    )
  const viewerOf = async (personId: string) => {
    const [row] = await manager.query<never[]>(
      `select id as "personId", role, school_id as "schoolId", leads from person where id = $1`,
      [personId],
    )
    return {
      sessionId: newId(),
      ...(row as unknown as {
        personId: string
        role: 'pupil' | 'teacher' | 'parent'
        schoolId: string
        leads: boolean
      }),
    }
  }
  const filter = async (list: string[], allows: (id: string) => Promise<unknown>) => {
    const kept: string[] = []
    for (const id of list)
      if (
        await allows(id).then(
          () => true,
          () => false,
        )
      )
        kept.push(id)
    return kept.sort()
  }
  const listed = async (
    person: Person,
    address: string,
    idsOf: (body: never) => { id: string }[],
  ) =>
    idsOf((await person.ask<never>('GET', address)).body)
      .map(({ id }) => id)
      .sort()
  const itself = (body: { id: string }[]) => body
  const otherTeacherId = await ids("select id from person where email = 'o@saltmarsh.example'")
  const everybody = [
    [school.wren, school.ids.wren],
    [school.tomasz, school.ids.tomasz],
    [school.aoife, school.ids.aoife],
    [school.otherTeacher, otherTeacherId],
  ] as const
  for (const [person, personId] of everybody) {
    const viewer = await viewerOf(personId)
    const folders = await all('folder', 'put_away_at is null')
    expect(await listed(person, '/folders', itself)).toEqual(
      await filter(folders, (id) => guard.folder(viewer, 'folder.read', id)),
    )
    expect(await listed(person, '/tasks', itself)).toEqual(
      await filter(await all('task', 'closed_at is null'), (id) =>
        guard.task(viewer, 'task.read', id),
      ),
    )
    const notices = await all('notice', 'withdrawn_at is null')
    expect(await listed(person, '/notices', itself)).toEqual(
      await filter(notices, (id) => guard.notice(viewer, 'notice.read', id)),
    )
    if (viewer.role === 'pupil') {
      const open = await all('piece', "state <> 'approved' and binned_at is null")
      expect(
        await listed(person, '/pieces', ({ pieces }: { pieces: { id: string }[] }) => pieces),
      ).toEqual(await filter(open, (id) => guard.piece(viewer, 'piece.change', id)))
      const approved = await all('piece', 'approved_version_id is not null and binned_at is null')
      const portfolio = await listed(
        person,
        `/portfolio/${personId}`,
        ({ chapters }: { chapters: { others: { id: string }[] }[] }) =>
          chapters.flatMap(({ others }) => others),
      )
      expect(portfolio).toEqual(
        await filter(approved, (id) => guard.piece(viewer, 'piece.read-approved', id)),
      )
    } else {
      const waiting = await all('piece', "state = 'submitted' and binned_at is null")
      expect(
        await listed(person, '/review/tray', ({ pieces }: { pieces: { id: string }[] }) => pieces),
      ).toEqual(await filter(waiting, (id) => guard.piece(viewer, 'piece.judge', id)))
      const drafts = await all(
        'piece',
        "state = 'draft' and binned_at is null and exists (select 1 from part w where w.piece_id = piece.id and w.removed_at is null)",
      )
      expect(
        await listed(
          person,
          '/review/drafts',
          ({ pieces }: { pieces: { id: string }[] }) => pieces,
        ),
      ).toEqual(await filter(drafts, (id) => guard.piece(viewer, 'piece.judge', id)))
      const marked = await all('piece', 'id in (select piece_id from second_look)')
      expect(
        await listed(person, '/review/second-looks', (looks: { pieceId: string }[]) =>
          looks.map(({ pieceId: id }) => ({ id })),
        ),
      ).toEqual(await filter(marked, (id) => guard.piece(viewer, 'piece.judge', id)))
      const said = await all('comment', "state = 'waiting'")
      const pieceOf = async (id: string) =>
        (
          await manager.query<{ id: string }[]>(
            'select piece_id as id from comment where id = $1',
            [id],
          )
        )[0]!.id
      expect(await listed(person, '/comments/waiting', itself)).toEqual(
        await filter(said, async (id) => guard.piece(viewer, 'comment.decide', await pieceOf(id))),
      )
      expect(await listed(person, '/school/classes', itself)).toEqual(
        await filter(await all('class'), (id) => guard.schoolClass(viewer, 'class.read', id)),
      )
      const classPieces = await all('class_piece')
      const classOf = async (id: string) =>
        (
          await manager.query<{ id: string }[]>(
            'select class_id as id from class_piece where id = $1',
            [id],
          )
        )[0]!.id
      expect(await listed(person, '/pieces/for-everyone', itself)).toEqual(
        await filter(classPieces, async (id) =>
          guard.schoolClass(viewer, 'piece.start-for-everyone', await classOf(id)),
        ),
      )
    }
  }
  for (const [person, personId, child] of [
    [school.parent, school.ids.wrensParent, school.ids.wren],
    [school.otherParent, school.ids.aoifesParent, school.ids.aoife],
  ] as const) {
    const viewer = await viewerOf(personId)
    expect(await listed(person, '/sharing/children', itself)).toEqual(
      await filter(await all('person', "role = 'pupil'"), (id) =>
        guard.pupil(viewer, 'pupil.read', id),
      ),
    )
    const shown = await listed(
      person,
      `/sharing/children/${child}`,
      ({ chapters }: { chapters: { pieces: { id: string }[] }[] }) =>
        chapters.flatMap(({ pieces }) => pieces),
    )
    expect(shown).toEqual(
      await filter(await all('piece'), (id) => guard.piece(viewer, 'piece.read-approved', id)),
    )
    expect(await listed(person, '/notices', itself)).toEqual(
      await filter(await all('notice'), (id) => guard.notice(viewer, 'notice.read', id)),
    )
  }
})
