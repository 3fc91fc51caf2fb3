import type { PupilDesk } from '@nibquill/contract'
import { BIN_DAYS } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { listPieceLines } from '../pieces/pieceLines.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'
import { WITH_WORK } from './trayLists.ts'

const DAY_MS = 24 * 3600 * 1000
const MOST_NOW = 100
const MOST_A_YEAR = 500

/** A pupil's work as their teacher looks at it. @see PupilDesk in the contract */
export async function describePupil(
  manager: EntityManager,
  pupilId: string,
  now: Date,
): Promise<PupilDesk> {
  const own = sql`p.id in (select m.piece_id from piece_maker m where m.person_id = ${pupilId})`
  const made = sql`${own} and p.binned_at is null`
  const withSomething = sql`(p.state <> 'draft' or ${raw(WITH_WORK)})`
  const [open, year, binned] = await Promise.all([
    listPieceLines(
      manager,
      'working',
      sql`where ${made} and p.state <> 'approved' and ${withSomething}
       order by array_position(array['submitted', 'returned', 'draft'], p.state), p.changed_at desc, p.id desc limit ${MOST_NOW}`,
    ),
    listPieceLines(
      manager,
      'approved',
      sql`where p.approved_version_id in (select m.version_id from version_maker m where m.person_id = ${pupilId}) and p.binned_at is null
         and p.approved_at >= (select max(y.starts_on) from school_year y where y.starts_on <= ${schoolDayOf(now)})
       order by p.approved_at desc, p.id desc limit ${MOST_A_YEAR}`,
    ),
    listPieceLines(
      manager,
      'working',
      sql`where ${own} and p.binned_at > ${new Date(now.getTime() - BIN_DAYS * DAY_MS)} and ${withSomething}
       order by p.binned_at desc, p.id desc limit ${MOST_NOW}`,
    ),
  ])
  const about = await ask<{ id: string; strand: string | null; approvedAt: Date }>(
    manager,
    sql`select p.id, d.name as strand, p.approved_at as "approvedAt"
     from piece p left join task t on t.id = p.task_id left join folder f on f.id = p.approved_folder_id
       left join strand d on d.id = coalesce(t.strand_id, f.strand_id)
     where p.id = any(${year.map(({ id }) => id)}::uuid[])`,
  )
  const known = new Map(about.map((row) => [row.id, row]))
  return {
    now: open,
    binned,
    year: year.map((piece) => {
      const { strand, approvedAt } = known.get(piece.id)!
      return { ...piece, strand, approvedAt: approvedAt.toISOString() }
    }),
  }
}
