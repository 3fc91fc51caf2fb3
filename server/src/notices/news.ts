import type { StaffNewsItem } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
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

/** What a member of staff has not put away yet, newest first. */
export async function listStaffNews(
  manager: EntityManager,
  personId: string,
): Promise<StaffNewsItem[]> {
  const rows = await manager.query<(Omit<StaffNewsItem, 'happenedAt'> & { happenedAt: Date })[]>(
    `select n.id, n.kind, trim(b.first_name || ' ' || b.last_name) as by, trim(s.first_name || ' ' || s.last_name) as about, c.name as "className",
       n.happened_at as "happenedAt"
     from news n join person b on b.id = n.by_id left join person s on s.id = n.subject_id left join class c on c.id = n.class_id
     where n.person_id = $1 and n.decision_id is null and n.seen_at is null order by n.happened_at desc, n.id desc limit ${SHOWN}`,
    [personId],
  )
  return rows.map((row) => ({ ...row, happenedAt: row.happenedAt.toISOString() }))
}
