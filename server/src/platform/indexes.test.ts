import type { Piece } from '@nibquill/contract'
import pg from 'pg'
import { type SmallSchool, type TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const SCHOOLS_WORTH = 20_000
/**
 * Tables that grow with a school's work; one of these read from end to end for one person's page is
 * a query without an index.
 */
/**
 * Filled here as a school fills them: one of these read from end to end for one person's page is a
 * query without an index.
 */
const LARGE = [
  'piece',
  'part',
  'piece_version',
  'version_part',
  'version_file',
  'part_file',
  'version_maker',
  'piece_maker',
  'media',
  'decision',
  'news',
  'name_card',
  'session',
  'mail',
  'enrolment',
  'comment',
]
/** These grow as well, and are empty here: it is asked whether an index could be used at all. */
const LARGE_ELSEWHERE = [
  'task_tick',
  'task_pupil',
  'notice_seen',
  'audit',
  'page_link',
  'nudge',
  'pick',
  'folder_class',
  'guardian',
  'consent',
  'person',
  'private_word',
]

test('no list reads a large table from end to end', async () => {
  const { server } = test_
  const piece = await fill()
  const plans: string[] = []
  // Every question the server asks while the lists are opened is explained as it is asked.
  const asked: { sql: string; parameters: unknown[] }[] = []
  const original = server.platform.db.createQueryRunner.bind(server.platform.db)
  server.platform.db.createQueryRunner = ((mode: 'master') => {
    const made = original(mode)
    const query = made.query.bind(made) as (...words: unknown[]) => Promise<unknown>
    made.query = ((sql: string, parameters: unknown[] = [], ...rest: unknown[]) => {
      if (/^\s*(select|with)/i.test(sql)) asked.push({ sql, parameters })
      return query(sql, parameters, ...rest)
    }) as never
    return made
  }) as never
  const { ids } = school
  const lists: [keyof SmallSchool & ('wren' | 'teacher' | 'parent'), string][] = [
    ['wren', '/pieces'],
    ['wren', '/folders'],
    ['wren', `/folders/${ids.open}`],
    ['wren', '/tasks'],
    ['wren', '/notices'],
    ['wren', '/notices/news'],
    ['wren', `/portfolio/${ids.wren}`],
    ['wren', '/pieces/classmates'],
    ['teacher', '/review/tray'],
    ['teacher', `/review/tray?order=due&classId=${ids.heron}`],
    ['teacher', '/review/drafts'],
    ['teacher', `/review/pupils/${ids.wren}`],
    ['teacher', '/comments/waiting'],
    ['teacher', `/comments/pieces/${piece.id}`],
    ['wren', `/comments/pieces/${piece.id}`],
    ['teacher', '/tasks'],
    ['teacher', '/school/classes'],
    ['teacher', `/school/classes/${ids.heron}`],
    ['teacher', `/portfolio/${ids.wren}`],
    ['teacher', `/book?pupilId=${ids.wren}`],
    ['teacher', `/sharing/pupils/${ids.wren}`],
    ['teacher', '/notices/news'],
    ['teacher', '/pieces/for-everyone'],
    ['teacher', '/mail'],
    ['teacher', `/accounts/classes/${ids.heron}/door`],
    ['teacher', '/accounts/cards'],
    ['parent', '/sharing/children'],
    ['parent', `/sharing/children/${ids.wren}`],
    ['parent', '/sharing/requests'],
  ]
  for (const [who, address] of lists)
    expect([address, (await school[who].ask('GET', address)).status]).toEqual([address, 200])
  server.platform.db.createQueryRunner = original as never
  expect(asked.length).toBeGreaterThan(60)
  for (const [tables, setting] of [
    [LARGE, 'on'],
    [LARGE_ELSEWHERE, 'off'],
  ] as const) {
    const client = new pg.Client({ connectionString: test_.config.databaseUrl })
    await client.connect()
    await client.query(`set enable_seqscan = ${setting}`)
    for (const { sql, parameters } of asked) {
      const { rows } = await client.query<{ 'QUERY PLAN': string }>(`explain ${sql}`, parameters)
      const plan = rows.map((row) => row['QUERY PLAN']).join('\n')
      for (const [, table] of plan.matchAll(/Seq Scan on (\w+)/g))
        if ((tables as readonly string[]).includes(table!))
          plans.push(`${table}: ${sql.replaceAll(/\s+/g, ' ').slice(0, 200)}`)
    }
    await client.end()
  }
  expect(plans).toEqual([])
})

test('a foreign key that rows are looked up by has an index that begins with it', async () => {
  const bare = await test_.manager.query<{ key: string }[]>(
    `select c.conrelid::regclass || '.' || a.attname as key from pg_constraint c join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
     where c.contype = 'f' and not exists (select 1 from pg_index i where i.indrelid = c.conrelid and i.indkey[0] = c.conkey[1]) order by 1`,
  )
  // What is only ever read from its own side, and whose other side never goes: who did something,
  // the one school, settings.
  const WITHOUT =
    /\.(school_id|strand_id|said_by|created_by|decided_by|picked_by|nudged_by|requested_by|done_by|asked_by|by_id|submitted_by|owner_id|from_year_id|to_year_id|folder_id|class_id|media_id)$/
  expect(bare.map(({ key }) => key).filter((key) => !WITHOUT.test(key))).toEqual([])
  const keys = bare.map(({ key }) => key)
  for (const used of [
    'name_card.pupil_id',
    'door_card.class_id',
    'password_link.person_id',
    'piece.folder_id',
    'media.owner_id',
  ])
    expect(keys).not.toContain(used)
})

/**
 * Other people's work beside that of the small school: many pupils, each with some of everything.
 */
async function fill(): Promise<Piece> {
  const { ids } = school
  const piece = await school.approved()
  // Takes longer than a page may.
  const client = new pg.Client({ connectionString: test_.config.databaseUrl })
  await client.connect()
  const run = (sql: string, parameters: unknown[] = []) => client.query(sql, parameters)
  await run(
    `insert into person (id, school_id, role, first_name, last_name, peg_symbol, peg_colour, leads, created_at)
     select gen_random_uuid(), $1, 'pupil', 'P' || n, '', 'owl', 'sea', false, now() from generate_series(1, 2000) n`,
    [ids.school],
  )
  await run(
    `insert into class (id, school_year_id, name, year_group, idle_minutes, version, pupils_propose, young, sounds)
    select gen_random_uuid(), school_year_id, 'Teal ' || n, 'Year 5', 10, 1, false, false, false from class c, generate_series(1, 80) n where c.id = $1`,
    [ids.heron],
  )
  await run(`with k as (select array_agg(id) as ids from class where name like 'Teal%')
    insert into enrolment (class_id, person_id) select k.ids[1 + (row_number() over ()) % 80], p.id from person p, k where p.first_name like 'P%'`)
  await run(
    `with u as (select array_agg(id) as ids from person where first_name like 'P%'), p as (
       insert into piece (id, pupil_id, class_id, folder_id, term_id, title, reflection, step, state, version, goes, created_at, changed_at, approved_folder_id, approved_at)
       select gen_random_uuid(), u.ids[1 + n % 2000], k.ids[1 + n % 80], $1, $2, 't', '', 'finished', 'approved', 2, 1, now(), now(), $1, now()
       from generate_series(1, ${SCHOOLS_WORTH}) n, u, (select array_agg(id) as ids from class where name like 'Teal%') k
       returning id, pupil_id)
     insert into piece_maker select id, pupil_id from p`,
    [ids.whole, ids.term],
  )
  await run(`insert into piece_version (id, piece_id, number, title, reflection, step, folder_id, submitted_by, submitted_at)
    select gen_random_uuid(), p.id, 1, 't', '', 'finished', p.folder_id, p.pupil_id, now() from piece p where p.title = 't'`)
  await run(
    `update piece p set approved_version_id = v.id from piece_version v where v.piece_id = p.id and p.approved_version_id is null and p.title = 't'`,
  )
  await run(
    `insert into version_maker select v.id, v.submitted_by from piece_version v where v.title = 't'`,
  )
  await run(`insert into media (id, owner_id, name, kind, type, size_bytes, width, height, transcript, made_percent, sent_sha256, kept_sha256, state, arrived_at)
    select p.id, p.pupil_id, '', 'picture', 'image/jpeg', 1, 1, 1, '', 0, p.id::text, p.id::text, 'ready', now() from piece p where p.title = 't'`)
  await run(
    `insert into comment (id, piece_id, by_id, words, state, thoughts, hidden_why, said_at)
     select gen_random_uuid(), p.id, p.pupil_id, 'w', 'shown', false, '', now() from piece p where p.title = 't'`,
  )
  await run(
    `with t as (insert into part (id, piece_id, kind, name, position, content)
       select gen_random_uuid(), p.id, 'photo', '', 0, '{}' from piece p where p.title = 't' returning id, piece_id)
     insert into part_file select id, 'picture', piece_id from t`,
  )
  await run(
    `insert into version_part (version_id, part_id, position, name, content) select v.id, t.id, 0, '', '{}' from piece_version v join part t on t.piece_id = v.piece_id where v.title = 't'`,
  )
  await run(
    `insert into version_file select w.version_id, w.part_id, x.role, x.media_id from version_part w join part_file x on x.part_id = w.part_id
       on conflict do nothing`,
  )
  await run(`insert into decision (id, piece_id, version_id, move, message, folder_id, filed_because, decided_by, decided_at)
    select gen_random_uuid(), v.piece_id, v.id, 'approve', '', v.folder_id, '', v.submitted_by, now() from piece_version v where v.title = 't'`)
  await run(`insert into news (id, person_id, kind, decision_id, happened_at) select gen_random_uuid(), v.submitted_by, 'approved', d.id, now()
    from decision d join piece_version v on v.id = d.version_id where v.title = 't'`)
  await run(
    `insert into name_card (id, pupil_id, code_hash, created_at, revoked_at) select gen_random_uuid(), id, id::text, now(), now() from person where first_name like 'P%'`,
  )
  await run(
    `insert into session (id, token_hash, person_id, way, created_at, seen_at, expires_at) select gen_random_uuid(), id::text, id, 'card', now(), now(), now() from person where first_name like 'P%'`,
  )
  await run(
    `insert into mail (id, recipient, subject, body, state, created_at) select gen_random_uuid(), 'x', 'y', '', 'sent', now() from generate_series(1, 5000)`,
  )
  await run('analyze')
  await client.end()
  return piece
}
