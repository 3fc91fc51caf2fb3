import pg from 'pg'
import { startServer } from '@nibquill/server'
import { raw, sql as tagged } from '@nibquill/server/platform/sql'
import { TRAY_PAGE, trayTail } from '@nibquill/server/review/trayLists'
import { v7 as newId } from 'uuid'
import { benchConfig, makeOwner } from './school.ts'
import { inTurn, line, median, timeMs, type Line } from './measure.ts'

const ROUNDS = 61

/**
 * The tray page over HTTP at 90,000 pieces against the bare SQL of the same page, and against
 * itself at 9,000.
 */
export async function benchTray(): Promise<Line[]> {
  const small = await measure(9_000)
  const large = await measure(90_000)
  return [
    line('tray page at 90,000 pieces against its SQL', large.page, large.sql, 'ms', '<=', 2),
    line('tray page, 90,000 pieces against 9,000', large.page, small.page, 'ms', '<=', 1.3),
  ]
}

/** SQL that reads what the page shows, with nothing around it. */
const BARE = `select p.id, p.title, p.state, p.goes, p.changed_at, p.submitted_at, u.first_name, u.last_name, u.peg_symbol, u.peg_colour, f.name, t.title as task,
    c.media_id, c.width, c.height, (select count(*) from part n where n.piece_id = p.id and n.removed_at is null) as parts,
    (select message from decision d where d.piece_id = p.id order by d.decided_at desc limit 1) as message
  from piece p join person u on u.id = p.pupil_id left join folder f on f.id = p.folder_id left join task t on t.id = p.task_id
    left join lateral (select m.id as media_id, m.width, m.height from part q join part_file x on x.part_id = q.id join media m on m.id = x.media_id
      where q.piece_id = p.id and q.removed_at is null order by q.position limit 1) c on true`
const BARE_COUNTS = `select count(*) filter (where p.state = 'submitted'), count(*) filter (where p.state = 'draft') from piece p
  where p.class_id in (select e.class_id from enrolment e where e.person_id = $1) and p.state in ('submitted', 'draft') and p.binned_at is null`

async function measure(pieces: number): Promise<{ page: number; sql: number }> {
  const { config, stop } = await benchConfig('tray')
  const server = await startServer(config)
  const teacherId = await makeOwner(server)
  const { db } = server.platform
  // As patient as it takes: the server's own connections serve pages, which do not wait.
  const filler = new pg.Client({ connectionString: config.databaseUrl })
  await filler.connect()
  await fill((sql, parameters) => filler.query(sql, parameters), teacherId, pieces)
  await filler.end()
  const signIn = await fetch(`${server.url}/api/accounts/sign-in/password`, {
    method: 'POST',
    body: JSON.stringify({ email: 'a@saltmarsh.example', password: 'a long enough password' }),
    headers: { 'Content-Type': 'application/json', Origin: server.url },
  })
  const headers = { Cookie: signIn.headers.getSetCookie()[0]!.split(';')[0]! }
  const page = async () => {
    const response = await fetch(`${server.url}/api/review/tray`, { headers })
    if (((await response.json()) as { pieces: unknown[] }).pieces.length !== TRAY_PAGE)
      throw new Error('not a full page')
  }
  const bare = tagged`${raw(BARE)} ${trayTail({ teacherId, after: null })}`
  const sql = () =>
    Promise.all([db.query(bare.text, bare.values), db.query(BARE_COUNTS, [teacherId])])
  for (let i = 0; i < 20; i++) await Promise.all([timeMs(page), timeMs(sql)])
  const times = await inTurn(ROUNDS, page, sql)
  await server.close()
  await stop()
  return { page: median([times.value]), sql: median([times.floor]) }
}

type Query = (sql: string, parameters?: unknown[]) => Promise<unknown>

/**
 * A school with 60 classes.
 * @param waiting - So many wait in the teacher's tray whatever the size; 300 as they would after a
 *   full week.
 */
export async function fill(
  query: Query,
  teacherId: string,
  pieces: number,
  waiting = 300,
): Promise<void> {
  const [year, folder, media] = [newId(), newId(), newId()]
  await query(
    `insert into school_year select $1, id, '2026/27', '2026-09-01', '2027-08-31' from school`,
    [year],
  )
  await query(
    `insert into class select gen_random_uuid(), $1, 'class ' || n, 'Year 3', 10, 1, false, null, false, false from generate_series(1, 60) n`,
    [year],
  )
  await query(`insert into person (id, school_id, role, first_name, last_name, peg_symbol, peg_colour, leads, created_at)
    select gen_random_uuid(), s.id, 'pupil', 'pupil ' || n, 'A.', 'fish', 'sea', false, now() from school s, generate_series(1, 1500) n`)
  await query(`insert into enrolment select c.id, p.id from (select id, row_number() over () as n from person where role = 'pupil') p
    join (select id, row_number() over (order by name) as n from class) c on c.n = p.n % 60 + 1`)
  await query(`insert into enrolment select id, $1 from class where name = 'class 1'`, [teacherId])
  await query(
    `insert into folder (id, school_id, whole_school, name, symbol, colour, parents_see, pupils_file, position, version)
    select $1, id, true, 'Rock pools', 'waves', 'sea', true, true, 0, 1 from school`,
    [folder],
  )
  await query(
    `insert into media (id, owner_id, name, kind, type, size_bytes, width, height, transcript, made_percent, sent_sha256, kept_sha256, state, arrived_at)
     values ($1, $2, 'photo', 'picture', 'image/jpeg', 1000, 4000, 3000, '', 0, 'a', 'a', 'ready', now())`,
    [media, teacherId],
  )
  await query(
    `insert into piece (id, pupil_id, class_id, folder_id, title, reflection, step, state, version, goes, created_at, changed_at, submitted_at)
     select gen_random_uuid(), e.person_id, e.class_id, $1, 'Rock pool crab ' || n, 'It walks sideways.', 'finished',
       case when n <= $3::int then 'submitted' when n % 20 = 0 then 'draft' else 'approved' end, 3, 1, now(), now(), now() - n * interval '1 minute'
     from generate_series(1, $2::int) n join (select e.*, row_number() over (order by (c.name = 'class 1') desc, e.person_id) as k from enrolment e
       join class c on c.id = e.class_id join person p on p.id = e.person_id and p.role = 'pupil') e
       on e.k = case when n <= $3::int then n % 25 + 1 else n % 1500 + 1 end`,
    [folder, pieces, waiting],
  )
  await query(`insert into piece_maker select id, pupil_id from piece`)
  await query(
    `with t as (insert into part (id, piece_id, kind, name, position, content)
       select gen_random_uuid(), id, 'photo', 'photo', 0, '{}' from piece returning id)
     insert into part_file select id, 'picture', $1::uuid from t`,
    [media],
  )
  await query('analyze')
}
