import type { Fact } from '@nibquill/core'
import { raw, sql, type Sql } from '../platform/sql.ts'

/** SQL: whether a parent said yes to sharing for this person. @param person - A column. */
export const consents = (person: string): Sql =>
  sql`exists (select 1 from consent c where c.pupil_id = ${raw(person)} and c.kind = 'sharing' and c.granted)`

/**
 * SQL: the makers `m` of the approved version of a piece, to be followed by `and …`.
 * @param piece - Alias of `piece`.
 */
export const approvedMakers = (piece: string): Sql =>
  sql`select 1 from version_maker m where m.version_id = ${raw(piece)}.approved_version_id`

/**
 * SQL: whether somebody made what was approved, whoever works at the piece now.
 * @param piece - Alias of `piece`.
 */
export const madeApproved = (piece: string, personId: string): Sql =>
  sql`exists (${approvedMakers(piece)} and m.person_id = ${personId})`

/**
 * SQL: whether somebody made what was approved together with others.
 * @param piece - Alias of `piece`.
 */
export const madeTogether = (piece: string, personId: string): Sql =>
  sql`(${madeApproved(piece, personId)} and exists (${approvedMakers(piece)} and m.person_id <> ${personId}))`

/**
 * SQL: whether every maker of what was approved may be shared: another child in the picture counts
 * as well.
 * @param piece - Alias of `piece`.
 */
export const allConsent = (piece: string): Sql =>
  // Counted, since PostgreSQL may answer a `not exists` here by reading everybody's makers first.
  sql`(select count(*) from version_maker m where m.version_id = ${raw(piece)}.approved_version_id and not ${consents('m.person_id')}) = 0`

/**
 * SQL: whether families may see a piece `p` at this moment, `f` being the folder it was approved
 * into.
 * @see SHARED_WITH_PARENTS in core
 */
export const SHOWN_AT_HOME = sql`p.binned_at is null and f.parents_see and ${allConsent('p')}`

/**
 * SQL: whether a teacher teaches a pupil in a class of a school year that has not ended.
 * @param pupil - A column.
 * @param teacherId - Their id, or a column.
 * @param today - Day of the school, or SQL for it.
 */
export const taughtNow = (pupil: string, teacherId: string | Sql, today: string | Sql): Sql =>
  sql`exists (select 1 from enrolment e join enrolment t on t.class_id = e.class_id join class c on c.id = e.class_id
     join school_year y on y.id = c.school_year_id and y.ends_on >= ${today}::date
     where e.person_id = ${raw(pupil)} and t.person_id = ${teacherId})`

/**
 * SQL: whether a teacher teaches a piece: its class, or somebody who makes it, or made what was
 * approved of it.
 * @param piece - Alias of `piece`.
 * @param today - As for `taughtNow`.
 */
export const teachesPiece = (piece: string, teacherId: string, today: string | Sql): Sql =>
  sql`(exists (select 1 from enrolment t where t.class_id = ${raw(piece)}.class_id and t.person_id = ${teacherId})
     or exists (select 1 from piece_maker m where m.piece_id = ${raw(piece)}.id and ${taughtNow('m.person_id', teacherId, today)})
     or exists (${approvedMakers(piece)} and ${taughtNow('m.person_id', teacherId, today)}))`

/**
 * SQL: whether what a teacher wrote on a version is shown to somebody who may read the piece: to
 * teachers at once, to its makers once the version is decided.
 * @param version - A column.
 * @param isTeacher - A parameter.
 */
export const markUpIsShown = (version: string, isTeacher: string): string =>
  `(${isTeacher} or exists (select 1 from decision d where d.version_id = ${version}))`

/**
 * SQL: whether a task `t` is open to a pupil at a moment: published, and for them.
 * @param pupil - Their id, or a column.
 */
export const shownTo = (pupil: string | Sql, now: Date): Sql =>
  sql`((t.opens_at is null or t.opens_at <= ${now}) and (t.for_all or exists
     (select 1 from task_pupil o where o.task_id = t.id and o.person_id = ${pupil})))`

/** Facts of a piece `p`, as one query answers them. */
export type PieceFacts = {
  approved: boolean
  consent: boolean
  parentsSee: boolean
  binned: boolean
}
export const PIECE_FACTS = sql`p.approved_version_id is not null as approved, p.binned_at is not null as binned, ${allConsent('p')} as consent,
  coalesce((select f.parents_see from folder f where f.id = p.approved_folder_id), false) as "parentsSee"`

/** The same in the words `may` decides by. */
export function factsOf(row: PieceFacts): Fact[] {
  const facts: Fact[] = []
  if (row.approved) facts.push('approved')
  if (row.consent) facts.push('sharing-consent')
  if (row.parentsSee) facts.push('parents-see')
  if (!row.binned) facts.push('not-binned')
  return facts
}
