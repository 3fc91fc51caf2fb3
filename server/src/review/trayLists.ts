import type { Drafts, PieceLine, Tray, TrayQuery } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import { listPieceLines } from '../pieces/pieceLines.ts'
import { readCursor, writeCursor, type Cursor } from '../platform/cursor.ts'
import { empty, raw, sql, type Sql } from '../platform/sql.ts'

export const TRAY_PAGE = 50

type Which = { teacherId: string; classId?: string | undefined; after: Cursor | null }

/** What waits for a teacher, a page of it, with how much there is. */
export async function listTray(
  manager: EntityManager,
  teacherId: string,
  { after, classId, order = 'oldest' }: TrayQuery,
): Promise<Tray> {
  const which = { teacherId, classId, after: readCursor(after) }
  const tail = order === 'due' ? dueTail(which) : trayTail(which)
  const [counts, pieces] = await Promise.all([
    manager.query<{ waiting: number; drafts: number }[]>(COUNTS, [teacherId, classId ?? null]),
    listPieceLines(manager, 'working', tail),
  ])
  const due = await dueMoments(manager, pieces)
  const shown = pieces.slice(0, TRAY_PAGE).map((piece) => ({
    ...piece,
    late: piece.submittedAt !== null && piece.submittedAt > (due.get(piece.id) ?? NEVER),
  }))
  const last = pieces.length > TRAY_PAGE ? pieces[TRAY_PAGE - 1] : undefined
  const at = last && (order === 'due' ? (due.get(last.id) ?? NEVER) : last.submittedAt)
  return {
    waiting: counts[0]?.waiting ?? 0,
    drafts: counts[0]?.drafts ?? 0,
    pieces: shown,
    next: last && at ? writeCursor({ at, id: last.id }) : null,
  }
}

/** What has something in it and was not handed in, last changed first. */
export async function listDrafts(
  manager: EntityManager,
  teacherId: string,
  { after, classId }: Pick<TrayQuery, 'after' | 'classId'>,
): Promise<Drafts> {
  const cursor = readCursor(after)
  const pieces = await listPieceLines(
    manager,
    'working',
    sql`where ${ofTeacher(teacherId, classId)} and p.state = 'draft' and p.binned_at is null and ${raw(WITH_WORK)}
      ${cursor ? sql`and (p.changed_at, p.id) < (${cursor.at}, ${cursor.id})` : empty}
    order by p.changed_at desc, p.id desc limit ${TRAY_PAGE + 1}`,
  )
  const last = pieces.length > TRAY_PAGE ? pieces[TRAY_PAGE - 1] : undefined
  return {
    pieces: pieces.slice(0, TRAY_PAGE),
    next: last ? writeCursor({ at: last.changedAt, id: last.id }) : null,
  }
}

/** Where a task has no day on which it is due. */
const NEVER = '9999-12-31T00:00:00.000Z'

/** When the tasks of pieces are due, by the ids of the pieces. */
async function dueMoments(
  manager: EntityManager,
  pieces: readonly PieceLine[],
): Promise<Map<string, string>> {
  const rows = await manager.query<{ id: string; dueAt: Date }[]>(
    'select p.id, t.due_at as "dueAt" from piece p join task t on t.id = p.task_id where p.id = any($1) and t.due_at is not null',
    [pieces.map(({ id }) => id)],
  )
  return new Map(rows.map(({ id, dueAt }) => [id, dueAt.toISOString()]))
}

/** SQL: a piece `p` of a teacher's classes, or of one of them. */
const ofTeacher = (teacherId: string, classId: string | undefined): Sql =>
  sql`p.class_id in (select e.class_id from enrolment e where e.person_id = ${teacherId}) ${classId ? sql`and p.class_id = ${classId}` : empty}`

/** SQL: a piece `p` that is more than begun. */
export const WITH_WORK =
  'exists (select 1 from part w where w.piece_id = p.id and w.removed_at is null)'

/** SQL: what waits for a teacher, first handed in first, from after a cursor; one page and one more. */
export const trayTail = ({ teacherId, classId, after }: Which): Sql =>
  sql`where ${ofTeacher(teacherId, classId)} and p.state = 'submitted' and p.binned_at is null
    ${after ? sql`and (p.submitted_at, p.id) > (${after.at}, ${after.id})` : empty}
  order by p.submitted_at, p.id limit ${TRAY_PAGE + 1}`

/** The same, what is due first first; of one moment, what was begun first. */
const dueTail = ({ teacherId, classId, after }: Which): Sql =>
  sql`left join task due on due.id = p.task_id
  where ${ofTeacher(teacherId, classId)} and p.state = 'submitted' and p.binned_at is null
    ${after ? sql`and (coalesce(due.due_at, ${NEVER}), p.id) > (${after.at}, ${after.id})` : empty}
  order by coalesce(due.due_at, ${NEVER}), p.id limit ${TRAY_PAGE + 1}`

const COUNTS = `select count(*) filter (where p.state = 'submitted')::int as waiting,
    count(*) filter (where p.state = 'draft' and ${WITH_WORK})::int as drafts
  from piece p where p.class_id in (select e.class_id from enrolment e where e.person_id = $1) and ($2::uuid is null or p.class_id = $2)
    and p.state in ('submitted', 'draft') and p.binned_at is null`
