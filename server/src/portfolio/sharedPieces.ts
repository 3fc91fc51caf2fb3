import type { SharedPiece } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import { consents } from '../access/facts.ts'
import { spokenIn } from '../media/spokenIn.ts'
import { readPart, type FlatPart } from '../pieces/partKinds.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import { HANDED_IN_PARTS } from '../pieces/pieceLines.ts'

export type SharedPieceRow = SharedPiece & {
  termId: string | null
  versionId: string
  taskTitle: string | null
  goes: number
  step: string
  /**
   * What families see of it hangs on these: whether the folder is open to them, and the first names
   * of makers whose parents did not say yes.
   */
  parentsSee: boolean
  withoutConsent: string[]
}

/**
 * Approved versions as parents, page links and the book show them: never what is being worked on.
 * @param pupilId - Whose reasons for their picks are shown, null for those of each piece's pupil.
 * @param tail - What follows `from piece p …`.
 */
export async function listSharedPieces(
  manager: EntityManager,
  pupilId: string | null,
  tail: Sql,
): Promise<SharedPieceRow[]> {
  const rows = await ask<Omit<SharedPieceRow, 'parts' | 'approvedAt'> & { approvedAt: Date }>(
    manager,
    sql`select p.id, a.title, u.first_name as "pupilFirstName", f.name as "folderName", t.name as "termName", p.term_id as "termId",
       p.approved_at as "approvedAt", a.reflection, k.reason, k.voice as "reasonVoice", a.id as "versionId", s.title as "taskTitle", a.number as goes, a.step,
       f.parents_see as "parentsSee", coalesce((select json_agg(o.first_name order by o.first_name, o.id) from version_maker m join person o on o.id = m.person_id
         where m.version_id = a.id and not ${consents('m.person_id')}), '[]') as "withoutConsent"
     from piece p join piece_version a on a.id = p.approved_version_id join person u on u.id = p.pupil_id
       join folder f on f.id = p.approved_folder_id left join term t on t.id = p.term_id left join task s on s.id = p.task_id
       left join lateral (select k.reason, ${raw(spokenIn('k'))} as voice from pick k join chapter c on c.id = k.chapter_id
         where k.piece_id = p.id and c.pupil_id = coalesce(${pupilId}::uuid, p.pupil_id) limit 1) k on true ${tail}`,
  )
  const parts = await manager.query<(FlatPart & { versionId: string })[]>(
    `${HANDED_IN_PARTS} where w.version_id = any($1::uuid[]) order by w.position`,
    [rows.map(({ versionId }) => versionId)],
  )
  const byVersion = new Map<string, FlatPart[]>(rows.map(({ versionId }) => [versionId, []]))
  for (const found of parts) byVersion.get(found.versionId)?.push(found)
  return rows.map((row) => ({
    ...row,
    approvedAt: row.approvedAt.toISOString(),
    parts: (byVersion.get(row.versionId) ?? []).map(readPart),
  }))
}

/** Leaves only what the contract promises to people outside the school. */
export const sharedPiece = ({
  termId: _t,
  versionId: _v,
  taskTitle: _s,
  goes: _g,
  step: _p,
  parentsSee: _f,
  withoutConsent: _c,
  ...piece
}: SharedPieceRow): SharedPiece => piece
