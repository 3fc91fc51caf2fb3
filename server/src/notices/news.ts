import type { BinnedNews, NewsItem, SaidNews, StaffNews, WorkNews } from '@nibquill/contract'
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

/** Tells the makers of a piece that a teacher put it into the bin, in the caller's transaction. */
export async function tellBinned(
  manager: EntityManager,
  { pieceId, byId, happenedAt }: { pieceId: string; byId: string; happenedAt: Date },
): Promise<void> {
  const makers = await manager.query<{ id: string }[]>(
    'select person_id as id from piece_maker where piece_id = $1',
    [pieceId],
  )
  const people = makers.map(({ id }) => id)
  await manager.insert(
    NewsRow,
    people.map((personId) => ({
      ...{ id: newId(), personId, kind: 'binned' },
      pieceId,
      byId,
      happenedAt,
    })),
  )
  await tell(manager, people, { topic: 'notices' })
}

/** It lies there no more. */
export async function forgetBinned(manager: EntityManager, pieceId: string): Promise<void> {
  await manager.delete(NewsRow, { pieceId, kind: 'binned' })
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

/**
 * SQL: news `n` of what was said (`c` under a piece, `w` in private) that its reader may still read:
 * shown, and to somebody who makes the piece; of parents, to their own child. A teacher who was talked
 * to in private is told that they were.
 */
const STILL_READ = `(c.id is null or (c.state = 'shown' and exists (select 1 from piece_maker m where m.piece_id = c.piece_id and m.person_id = n.person_id)
    and (cb.role <> 'parent' or exists (select 1 from guardian g where g.parent_id = cb.id and g.pupil_id = n.person_id))))
  and (w.id is null or w.teacher_id = n.person_id or exists (select 1 from piece_maker m where m.piece_id = w.piece_id and m.person_id = n.person_id))`

/** What somebody should know of, newest first. About work in the bin nothing is told but that it is there. */
export async function listNews(manager: EntityManager, personId: string): Promise<NewsItem[]> {
  type Flat = Omit<WorkNews, 'kind' | 'happenedAt'> &
    Omit<SaidNews, 'kind' | 'happenedAt'> &
    Omit<BinnedNews, 'kind' | 'happenedAt'> &
    Omit<StaffNews, 'kind' | 'happenedAt'> & { kind: NewsItem['kind']; happenedAt: Date }
  const rows = await manager.query<Flat[]>(
    `select n.id, n.kind, n.happened_at as "happenedAt", n.seen_at is not null as seen,
       p.id as "pieceId", coalesce(v.title, p.title) as "pieceTitle", f.name as "folderName", d.message,
       case when d.id is not null then ${spokenIn('d')} when c.id is not null then ${spokenIn('c')} when w.pupil_id = n.person_id then ${spokenIn('w')} end as voice,
       coalesce(c.words, case when w.pupil_id = n.person_id then w.words end, '') as words,
       case when coalesce(cb.role, wb.role) = 'pupil' then coalesce(cb.first_name, wb.first_name)
         else trim(coalesce(cb.first_name, wb.first_name) || ' ' || coalesce(cb.last_name, wb.last_name)) end as "from",
       trim(u.first_name || ' ' || u.last_name) as "teacherName",
       trim(b.first_name || ' ' || b.last_name) as by, trim(s.first_name || ' ' || s.last_name) as about, k.name as "className"
     from news n left join decision d on d.id = n.decision_id left join piece_version v on v.id = d.version_id
       left join comment c on c.id = n.comment_id left join person cb on cb.id = c.by_id
       left join private_word w on w.id = n.private_word_id left join person wb on wb.id = w.by_id
       left join piece p on p.id = coalesce(d.piece_id, c.piece_id, w.piece_id, n.piece_id) left join person u on u.id = d.decided_by left join folder f on f.id = d.folder_id
       left join person b on b.id = n.by_id left join person s on s.id = n.subject_id left join class k on k.id = n.class_id
     where n.person_id = $1 and (p.binned_at is null or n.kind = 'binned') and ${STILL_READ} order by n.happened_at desc, n.id desc limit ${SHOWN}`,
    [personId],
  )
  return rows.map(({ kind, id, seen, ...row }) => {
    const happened = { id, seen, happenedAt: row.happenedAt.toISOString() }
    const { pieceId, pieceTitle, folderName, teacherName, message, voice, from, words } = row
    switch (kind) {
      case 'name-card':
      case 'letter-opened':
        return { ...happened, kind, by: row.by, about: row.about, className: row.className }
      case 'binned':
        return { ...happened, kind, pieceId, pieceTitle, by: row.by }
      case 'commented':
      case 'private-word':
        return { ...happened, kind, pieceId, pieceTitle, from, words, voice }
      default:
        return { ...happened, kind, pieceId, pieceTitle, folderName, teacherName, message, voice }
    }
  })
}
