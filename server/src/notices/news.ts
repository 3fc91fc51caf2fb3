import type { NewsItem, StaffNews, WorkNews } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { spokenIn } from '../media/spokenIn.ts'
import { tell } from '../platform/live.ts'
import { NewsRow } from './rows.ts'

const SHOWN = 20

/**
 * Something staff did that other staff should know of. `subjectId`: the pupil or parent it is
 * about; `classId`: the whole class it is about.
 */
export type StaffDeed = {
  kind: 'name-card' | 'letter-opened'
  byId: string
  subjectId: string | null
  classId: string | null
  happenedAt: Date
}

/** Tells staff, in the caller's transaction; whoever did it knows. */
export async function tellStaff(
  manager: EntityManager,
  personIds: readonly string[],
  deed: StaffDeed,
): Promise<void> {
  const people = [...new Set(personIds)].filter((id) => id !== deed.byId)
  if (people.length === 0) return
  await manager.insert(
    NewsRow,
    people.map((personId) => ({ id: newId(), personId, decisionId: null, seenAt: null, ...deed })),
  )
  await tell(manager, people, { topic: 'notices' })
}

/**
 * The teachers of pupils' classes: of every year the pupil was here, so that nobody who still looks
 * after them is left out.
 */
export async function teachersOf(
  manager: EntityManager,
  pupilIds: readonly string[],
): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `select distinct u.id from enrolment e join enrolment t on t.class_id = e.class_id join person u on u.id = t.person_id and u.role = 'teacher'
       and u.left_at is null where e.person_id = any($1::uuid[])`,
    [pupilIds],
  )
  return rows.map(({ id }) => id)
}

/** What somebody should know of, newest first. About work in the bin nothing is told. */
export async function listNews(manager: EntityManager, personId: string): Promise<NewsItem[]> {
  type Flat = Omit<WorkNews, 'kind' | 'happenedAt'> &
    Omit<StaffNews, 'kind' | 'happenedAt'> & { kind: NewsItem['kind']; happenedAt: Date }
  const rows = await manager.query<Flat[]>(
    `select n.id, n.kind, n.happened_at as "happenedAt", n.seen_at is not null as seen,
       d.piece_id as "pieceId", w.title as "pieceTitle", f.name as "folderName", d.message, ${spokenIn('d')} as voice,
       trim(u.first_name || ' ' || u.last_name) as "teacherName",
       trim(b.first_name || ' ' || b.last_name) as by, trim(s.first_name || ' ' || s.last_name) as about, c.name as "className"
     from news n left join decision d on d.id = n.decision_id left join piece_version w on w.id = d.version_id
       left join piece p on p.id = d.piece_id left join person u on u.id = d.decided_by left join folder f on f.id = d.folder_id
       left join person b on b.id = n.by_id left join person s on s.id = n.subject_id left join class c on c.id = n.class_id
     where n.person_id = $1 and p.binned_at is null order by n.happened_at desc, n.id desc limit ${SHOWN}`,
    [personId],
  )
  return rows.map(({ kind, id, seen, ...row }) => {
    const happened = { id, seen, happenedAt: row.happenedAt.toISOString() }
    if (kind === 'name-card' || kind === 'letter-opened')
      return { ...happened, kind, by: row.by, about: row.about, className: row.className }
    const { pieceId, pieceTitle, folderName, teacherName, message, voice } = row
    return { ...happened, kind, pieceId, pieceTitle, folderName, teacherName, message, voice }
  })
}
