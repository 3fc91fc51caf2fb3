import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { DataSource } from 'typeorm'
import { v7 as newId } from 'uuid'
import { migrate } from './platform/database.ts'
import { SCHEMA } from './schema.ts'
import { testConfig } from './testing/testServer.ts'

/** A database as it was after some of the migrations, with what a school had after the first. */
async function asOf(
  count: number,
  fill: (client: pg.Client) => Promise<void> = async () => undefined,
): Promise<{ url: string; client: pg.Client }> {
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const main = new pg.Client({ connectionString: process.env.NIBQUILL_TEST_CLUSTER })
  await main.connect()
  await main.query(`create database ${name}`)
  await main.end()
  const { databaseUrl: url } = testConfig(name, '')
  await runUpTo(url, 1)
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  await fill(client)
  await runUpTo(url, count)
  return { url, client }
}

async function runUpTo(url: string, count: number): Promise<void> {
  const db = new DataSource({
    type: 'postgres',
    url,
    migrations: SCHEMA.migrations.slice(0, count),
    migrationsTableName: 'migration',
  })
  await db.initialize()
  await db.runMigrations({ transaction: 'each' })
  await db.destroy()
}

const ids = Object.fromEntries(
  [
    'school',
    'year',
    'term',
    'class',
    'teacher',
    'wren',
    'tomasz',
    'parent',
    'folder',
    'task',
    'media',
    'taken',
    'piece',
    'part',
    'version',
    'decision',
    'news',
    'book',
    'mail',
    'code',
    'invitation',
  ].map((name) => [name, newId()]),
)
const AT = '2026-11-01T10:00:00Z'

/** The first road: a piece that two pupils made, approved, told and printed. */
async function fillFirstRoad(client: pg.Client): Promise<void> {
  const put = (table: string, row: Record<string, unknown>) =>
    client.query(
      `insert into ${table} (${Object.keys(row).join(', ')}) values (${Object.keys(row)
        .map((_, i) => `$${i + 1}`)
        .join(', ')})`,
      Object.values(row),
    )
  await put('school', {
    id: ids.school,
    name: 'Saltmarsh',
    time_zone: 'Europe/London',
    created_at: AT,
  })
  await put('school_year', {
    id: ids.year,
    school_id: ids.school,
    name: '2026/27',
    starts_on: '2026-09-01',
    ends_on: '2027-08-31',
  })
  await put('term', {
    id: ids.term,
    school_year_id: ids.year,
    name: 'Autumn',
    starts_on: '2026-09-01',
    ends_on: '2026-12-31',
  })
  await put('class', {
    id: ids.class,
    school_year_id: ids.year,
    name: 'Heron',
    year_group: 'Year 3',
    idle_minutes: 10,
    version: 1,
  })
  for (const [name, role] of [
    ['teacher', 'teacher'],
    ['wren', 'pupil'],
    ['tomasz', 'pupil'],
    ['parent', 'parent'],
  ] as const)
    await put('person', {
      id: ids[name],
      school_id: ids.school,
      role,
      first_name: name,
      last_name: '',
      email: role === 'parent' ? 'p@x.example' : null,
      created_at: AT,
    })
  await put('folder', {
    id: ids.folder,
    school_id: ids.school,
    class_id: ids.class,
    name: 'Rocks',
    symbol: 'waves',
    colour: 'sea',
    parents_see: true,
    pupils_file: true,
    position: 0,
  })
  await put('task', {
    id: ids.task,
    class_id: ids.class,
    folder_id: ids.folder,
    title: 'Sums',
    instructions: '',
    folder_changeable: true,
    created_at: AT,
  })
  await put('media', {
    id: ids.media,
    owner_id: ids.wren,
    name: 'a.jpg',
    type: 'image/jpeg',
    size_bytes: 1,
    width: 1,
    height: 1,
    sent_sha256: 'a',
    kept_sha256: 'a',
    state: 'ready',
    arrived_at: AT,
  })
  await put('piece', {
    id: ids.piece,
    pupil_id: ids.wren,
    class_id: ids.class,
    task_id: ids.task,
    folder_id: ids.folder,
    term_id: ids.term,
    title: 'Crab',
    reflection: '',
    step: 'finished',
    state: 'approved',
    version: 3,
    goes: 1,
    created_at: AT,
    changed_at: AT,
    approved_folder_id: ids.folder,
    approved_at: AT,
  })
  for (const person of ['wren', 'tomasz'])
    await put('piece_maker', { piece_id: ids.piece, person_id: ids[person] })
  await put('part', {
    id: ids.part,
    piece_id: ids.piece,
    kind: 'photo',
    name: 'claw',
    position: 0,
    media_id: ids.media,
  })
  await put('piece_version', {
    id: ids.version,
    piece_id: ids.piece,
    number: 1,
    title: 'Crab',
    reflection: '',
    step: 'finished',
    folder_id: ids.folder,
    submitted_by: ids.wren,
    submitted_at: AT,
  })
  await put('version_part', { version_id: ids.version, part_id: ids.part, position: 0 })
  await client.query('update piece set approved_version_id = $1', [ids.version])
  await put('decision', {
    id: ids.decision,
    piece_id: ids.piece,
    version_id: ids.version,
    move: 'approve',
    message: '',
    folder_id: ids.folder,
    decided_by: ids.teacher,
    decided_at: AT,
  })
  await put('news', {
    id: ids.news,
    person_id: ids.wren,
    decision_id: ids.decision,
    happened_at: AT,
  })
  await put('book', {
    id: ids.book,
    pupil_id: ids.wren,
    term_id: ids.term,
    fingerprint: 'f',
    content: '[]',
    state: 'ready',
    page_count: 3,
    pages_done: 3,
    requested_by: ids.teacher,
    requested_at: AT,
  })
  await put('invitation', {
    id: ids.invitation,
    parent_id: ids.parent,
    token_hash: 'h',
    created_by: ids.teacher,
    created_at: AT,
    expires_at: AT,
  })
  await put('session', {
    id: newId(),
    token_hash: 's',
    person_id: ids.parent,
    invitation_id: ids.invitation,
    created_at: AT,
    seen_at: AT,
    expires_at: AT,
  })
  await put('audit', {
    id: newId(),
    happened_at: AT,
    person_id: ids.teacher,
    action: 'piece.approve',
    subject_id: ids.piece,
  })
}

const one = async (client: pg.Client, sql: string): Promise<unknown> =>
  (await client.query(sql)).rows[0]

test('a school of the first version is brought up to today with everything it had', async () => {
  const { url, client } = await asOf(1, fillFirstRoad)
  await migrate(SCHEMA, url)
  expect(await one(client, 'select leads from person where role = $$teacher$$')).toEqual({
    leads: true,
  })
  expect(await one(client, 'select count(*)::int as leaders from person where leads')).toEqual({
    leaders: 1,
  })
  expect(
    await one(
      client,
      'select f.whole_school, h.class_id from folder f join folder_class h on h.folder_id = f.id',
    ),
  ).toEqual({
    whole_school: false,
    class_id: ids.class,
  })
  expect(await one(client, 'select steps, asks, for_all, version from task')).toEqual({
    steps: ['finished'],
    asks: [],
    for_all: true,
    version: 1,
  })
  expect(await one(client, 'select way from session')).toEqual({ way: 'invitation' })
  expect(await one(client, 'select name, content from version_part')).toEqual({
    name: 'claw',
    content: {},
  })
  expect(await one(client, 'select kind from media')).toEqual({ kind: 'picture' })
  expect(await one(client, 'select part_id, role, media_id from part_file')).toEqual({
    part_id: ids.part,
    role: 'picture',
    media_id: ids.media,
  })
  const { rows: forms } = await client.query('select form, key from media_form order by form')
  expect(forms).toEqual([
    { form: '2048', key: 'a-2048.jpg' },
    { form: '320', key: 'a-320.jpg' },
    { form: '960', key: 'a-960.jpg' },
  ])
  const { rows: makers } = await client.query<{ id: string }>(
    'select person_id as id from version_maker where version_id = $1',
    [ids.version],
  )
  expect(makers.map(({ id }) => id).sort()).toEqual([ids.wren, ids.tomasz].sort())
  expect(await one(client, 'select kind, subject_id from news')).toEqual({
    kind: 'approved',
    subject_id: null,
  })
  // Nobody knew of two kinds: it is held to the stricter rule.
  expect(await one(client, 'select made_for from book')).toEqual({ made_for: 'home' })
  expect(await one(client, 'select action, details from audit')).toEqual({
    action: 'piece.approve',
    details: null,
  })
  await client.end()
})

test('letters of the version before are known by whom they let in, and by what', async () => {
  const { url, client } = await asOf(5)
  await client.query(
    'insert into school (id, name, time_zone, created_at) values ($1, $2, $3, $4)',
    [ids.school, 'S', 'Europe/London', AT],
  )
  await client.query(
    `insert into person (id, school_id, role, first_name, last_name, email, leads, created_at) values ($1, $2, 'parent', 'P', '', 'p@x.example', false, $3)`,
    [ids.parent, ids.school, AT],
  )
  const write = (id: string, body: string) =>
    client.query(
      `insert into mail (id, recipient, subject, body, state, created_at) values ($1, 'p@x.example', 's', $2, 'kept', $3)`,
      [id, body, AT],
    )
  await write(
    ids.mail!,
    'Dear P,\n\nOpen this page:\n\nhttp://nibquill.example/invitation/abc-DEF_1\n\nDo not pass it on.',
  )
  await write(ids.code!, 'Dear P,\n\ntype this code:\n\n123456\n\nIt works once.')
  await migrate(SCHEMA, url)
  const { rows } = await client.query('select id, person_id, secret from mail order by id')
  expect(rows).toEqual(
    expect.arrayContaining([
      {
        id: ids.mail,
        person_id: ids.parent,
        secret: 'http://nibquill.example/invitation/abc-DEF_1',
      },
      { id: ids.code, person_id: ids.parent, secret: '123456' },
    ]),
  )
  await client.end()
})

test('a tidied photo of the version before keeps what was taken, and how it became this', async () => {
  const { url, client } = await asOf(6, fillFirstRoad)
  await client.query(
    `insert into media select $1, owner_id, name, type, size_bytes, width, height, 'b', 'b', state, arrived_at from media where id = $2`,
    [ids.taken, ids.media],
  )
  await client.query(`update part set original_media_id = $1, tidying = '{"quarters": 1}'`, [
    ids.taken,
  ])
  await migrate(SCHEMA, url)
  expect(await one(client, 'select content from part')).toEqual({
    content: { tidying: { quarters: 1 } },
  })
  expect(await one(client, "select media_id from part_file where role = 'taken'")).toEqual({
    media_id: ids.taken,
  })
  await client.end()
})

test('brought up to date twice, nothing happens the second time', async () => {
  const { url, client } = await asOf(2)
  await Promise.all([migrate(SCHEMA, url), migrate(SCHEMA, url), migrate(SCHEMA, url)])
  expect(await one(client, 'select count(*)::int as n from migration')).toEqual({
    n: SCHEMA.migrations.length,
  })
  await client.end()
})
