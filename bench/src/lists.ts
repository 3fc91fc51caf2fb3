import { startServer } from '@nibquill/server'
import { PersonRow } from '@nibquill/server/school/rows'
import pg from 'pg'
import { from as copyFrom } from 'pg-copy-streams'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { v7 as newId } from 'uuid'
import { line, median, timeMs, type Line } from './measure.ts'
import { benchConfig, makeOwner } from './school.ts'

const ROWS = 3000
const CLASSES = 100
const ROUNDS = 5

/**
 * A whole-school list of 3,000 rows taken in (read, planned, confirmed, pegs hung) against COPY of
 * the same people and enrolments.
 */
export async function benchLists(): Promise<Line[]> {
  const times = { value: [] as number[], floor: [] as number[] }
  let grown = 0
  for (let round = 0; round < ROUNDS; round++) {
    const { value, floor, mb } = await once()
    times.value.push(value)
    times.floor.push(floor)
    grown = Math.max(grown, mb)
  }
  process.stderr.write(
    `class list of ${ROWS} rows: memory grew by at most ${Math.round(grown)} MB\n`,
  )
  return [
    line(
      'class list of 3,000 rows against COPY',
      median(times.value),
      median(times.floor),
      'ms',
      '<=',
      10,
    ),
  ]
}

async function once(): Promise<{ value: number; floor: number; mb: number }> {
  const { config, stop } = await benchConfig('lists')
  const server = await startServer(config)
  const personId = await makeOwner(server)
  const { db } = server.platform
  const { schoolId } = await db.manager.findOneByOrFail(PersonRow, { id: personId })
  const viewer = { sessionId: newId(), personId, role: 'teacher' as const, schoolId, leads: true }
  const yearId = newId()
  const { school, classLists } = server.capabilities
  await school.putYear(viewer, yearId, {
    name: '2026/27',
    startsOn: '2026-01-01',
    endsOn: '2030-12-31',
    terms: [],
    closedDays: [],
  })
  const classIds = Array.from({ length: CLASSES * 2 }, () => newId())
  for (const [n, id] of classIds.entries())
    await school.makeClass(viewer, id, {
      schoolYearId: yearId,
      name: `class ${n}`,
      yearGroup: 'Year 3',
      mine: true,
    })
  const rows = Array.from({ length: ROWS }, (_, n) => [
    `N${n}`,
    `Wren${n}`,
    `Shore${n % 97}`,
    `class ${n % CLASSES}`,
  ])
  const list = Buffer.from(
    ['Number,First name,Last name,Class', ...rows.map((row) => row.join(','))].join('\r\n'),
  )

  const before = process.memoryUsage().rss
  const value = await timeMs(async () => {
    const shown = await classLists.show(viewer, list, null, null)
    await db.query(`update class_list set state = 'running' where id = $1`, [shown.id])
    await classLists.take(shown.id)
  })
  const mb = (process.memoryUsage().rss - before) / 1e6
  const taken = await db.query<{ count: string }[]>(
    `select count(*) from person where role = 'pupil'`,
  )
  if (Number(taken[0]!.count) !== ROWS) throw new Error('not all rows were taken over')

  const client = new pg.Client({ connectionString: config.databaseUrl })
  await client.connect()
  const ids = rows.map(() => newId())
  const people = rows.map(
    ([number, first, last], n) =>
      `${ids[n]}\t${schoolId}\tpupil\t${first}\t${last}\tfish\tsea\tf\tB${number}\t2026-11-23\n`,
  )
  const enrolments = ids.map((id, n) => `${classIds[CLASSES + (n % CLASSES)]}\t${id}\n`)
  const floor = await timeMs(async () => {
    const columns =
      'id, school_id, role, first_name, last_name, peg_symbol, peg_colour, leads, external_id, created_at'
    await pipeline(
      Readable.from(people),
      client.query(copyFrom(`copy person (${columns}) from stdin`)),
    )
    await pipeline(
      Readable.from(enrolments),
      client.query(copyFrom('copy enrolment (class_id, person_id) from stdin')),
    )
  })
  await client.end()
  await server.close()
  await stop()
  return { value, floor, mb }
}
