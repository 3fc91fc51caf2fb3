import type { Part, PieceLine } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import { spokenIn } from '../media/spokenIn.ts'
import { ask, raw, sql, type Sql } from '../platform/sql.ts'
import { readPart, type FlatPart } from './partKinds.ts'

/**
 * Pieces as lists show them, in one query.
 * `working`: words, folder and cover as they are being worked on, for makers and the tray.
 * `approved`: those of the approved version, whatever goes on in a later go: for folders,
 * portfolios and parents.
 */
export type Showing = 'working' | 'approved'

/**
 * @param tail - Which pieces `p`, in which order: what follows `from piece p`.
 */
export async function listPieceLines(
  manager: EntityManager,
  showing: Showing,
  tail: Sql,
): Promise<PieceLine[]> {
  const rows = await ask<FlatLine>(
    manager,
    sql`${raw(COLUMNS[showing])}
      from (select p.*, row_number() over () as place from (select p.* from piece p ${tail}) p) p
      ${raw(JOINS[showing])} order by p.place`,
  )
  return rows.map(pieceLine)
}

/** Of a part `q`: its files by their role. @param which - As they are now, or as a version holds them. */
const filesOf = (
  which: string,
) => `(select json_object_agg(x.role, json_build_object('mediaId', m.id, 'width', m.width, 'height', m.height, 'pages', m.pages,
    'sizeBytes', m.size_bytes, 'sentSha256', m.sent_sha256, 'state', m.state, 'transcript', m.transcript))
  from ${which} join media m on m.id = x.media_id where x.part_id = q.id and x.role <> 'laid') as files`
const NOW = filesOf('part_file x')
const filesOfVersion = (version: string) =>
  filesOf(`(select * from version_file where version_id = ${version}) x`)

/** SQL: parts being worked on, to be followed by conditions. */
export const WORKING_PARTS = `select q.id as part_id, q.kind, q.name, q.content, ${NOW} from part q`
/** SQL: parts of versions, with the names and contents they had then. */
export const HANDED_IN_PARTS = `select w.version_id as "versionId", q.id as part_id, q.kind, w.name, w.content,
  ${filesOfVersion('w.version_id')}
  from version_part w join part q on q.id = w.part_id`

/** Longer than any cover has room for. */
const COVER_LETTERS = 400
/** @see coverOf in core */
const COVER = (source: string, files: string) =>
  `left join lateral (select q.id as part_id, q.kind, q.name, ${files},
       case when q.content ? 'text' then jsonb_set(q.content, '{text}', to_jsonb(left(q.content->>'text', ${COVER_LETTERS}))) else q.content end as content
     ${source} order by q.place limit 1) cover on true`
const OWN_PARTS = `from (select t.*, t.position as place from part t where t.piece_id = p.id and t.removed_at is null) q`
const VERSION_PARTS = `from (select t.id, t.kind, w.name, w.content, w.position as place from version_part w join part t on t.id = w.part_id where w.version_id = p.approved_version_id) q`

const OF_ALL = `p.id, p.goes, p.changed_at as "changedAt", p.submitted_at as "submittedAt", p.nudged_at as "nudgedAt",
  coalesce((select k.closed_at is not null from class_piece k where k.id = p.class_piece_id), false) as closed, u.id as "pupilId", u.first_name as "firstName",
  u.last_name as "lastName", u.peg_symbol as "pegSymbol", u.peg_colour as "pegColour", f.id as "folderId", f.name as "folderName",
  f.symbol as "folderSymbol", f.colour as "folderColour", t.id as "taskId", t.title as "taskTitle", cover.*, d.message, d.voice`
const COLUMNS: Record<Showing, string> = {
  working: `select ${OF_ALL}, p.title, p.state, p.step,
      (select count(*)::int from part c where c.piece_id = p.id and c.removed_at is null) as "partCount"`,
  approved: `select ${OF_ALL}, a.title, 'approved' as state, a.step,
      (select count(*)::int from version_part c where c.version_id = p.approved_version_id) as "partCount"`,
}
const PEOPLE = `join person u on u.id = p.pupil_id left join task t on t.id = p.task_id
  left join lateral (select message, ${spokenIn('d')} as voice from decision d where d.piece_id = p.id order by d.decided_at desc, d.id desc limit 1) d on true`
/**
 * What a line tells besides is fetched for the pieces of the page alone, however many were looked
 * through for it.
 */
const JOINS: Record<Showing, string> = {
  working: `${PEOPLE} left join folder f on f.id = p.folder_id ${COVER(OWN_PARTS, NOW)}`,
  approved: `join piece_version a on a.id = p.approved_version_id ${PEOPLE}
    left join folder f on f.id = p.approved_folder_id ${COVER(VERSION_PARTS, filesOfVersion('p.approved_version_id'))}`,
}

type FlatLine = {
  id: string
  title: string
  state: PieceLine['state']
  step: PieceLine['step']
  goes: number
  changedAt: Date
  submittedAt: Date | null
  pupilId: string
  firstName: string
  lastName: string
  pegSymbol: PieceLine['pupil']['peg']['symbol']
  pegColour: PieceLine['pupil']['peg']['colour']
  folderId: string | null
  folderName: string
  folderSymbol: NonNullable<PieceLine['folder']>['symbol']
  folderColour: NonNullable<PieceLine['folder']>['colour']
  taskId: string | null
  taskTitle: string
  closed: boolean
  nudgedAt: Date | null
  message: string | null
  voice: PieceLine['voice']
  partCount: number
} & (FlatPart | { part_id: null })

/** In a list there is no room for what a teacher typed. */
const asCover = (part: Part): Part => ('typed' in part ? { ...part, typed: '' } : part)

function pieceLine(row: FlatLine): PieceLine {
  return {
    id: row.id,
    title: row.title,
    state: row.state,
    step: row.step,
    goes: row.goes,
    folder: row.folderId
      ? {
          id: row.folderId,
          name: row.folderName,
          symbol: row.folderSymbol,
          colour: row.folderColour,
        }
      : null,
    pupil: {
      id: row.pupilId,
      firstName: row.firstName,
      lastName: row.lastName,
      peg: { symbol: row.pegSymbol, colour: row.pegColour },
    },
    task: row.taskId ? { id: row.taskId, title: row.taskTitle } : null,
    cover: row.part_id === null ? null : asCover(readPart(row)),
    partCount: row.partCount,
    changedAt: row.changedAt.toISOString(),
    submittedAt: row.submittedAt?.toISOString() ?? null,
    closed: row.closed,
    nudgedAt: row.state === 'draft' ? (row.nudgedAt?.toISOString() ?? null) : null,
    message: row.message,
    voice: row.voice,
  }
}
