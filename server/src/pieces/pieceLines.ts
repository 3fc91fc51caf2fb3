import type { Part, PieceLine } from '@nibquill/contract'
import type { PartKind, Tidying } from '@nibquill/core'
import type { EntityManager } from 'typeorm'

/**
 * Pieces as lists show them, in one query.
 * `working`: words, folder and cover as they are being worked on, for makers and the tray.
 * `approved`: those of the approved version, whatever goes on in a later go: for folders,
 * portfolios and parents.
 */
export type Showing = 'working' | 'approved'

export async function listPieceLines(
  manager: EntityManager,
  showing: Showing,
  tail: string,
  parameters: unknown[],
): Promise<PieceLine[]> {
  const rows = await manager.query<FlatLine[]>(`${SELECT[showing]} ${tail}`, parameters)
  return rows.map(pieceLine)
}

/** Of a part `q` and its media `m`. */
const PART_FIELDS = `q.id as part_id, q.kind, q.original_media_id, q.tidying, m.id as media_id, m.width, m.height, m.size_bytes,
  m.sent_sha256, m.state as media_state`

/** SQL: parts being worked on, to be followed by conditions. */
export const WORKING_PARTS = `select ${PART_FIELDS}, q.name from part q join media m on m.id = q.media_id`
/** SQL: parts of versions, under the names they had then. */
export const HANDED_IN_PARTS = `select w.version_id as "versionId", ${PART_FIELDS}, w.name from version_part w
  join part q on q.id = w.part_id join media m on m.id = q.media_id`

const COVER = (source: string) =>
  `left join lateral (select ${PART_FIELDS}, q.name
     ${source} join media m on m.id = q.media_id order by q.place limit 1) cover on true`
const OWN_PARTS = `from (select t.*, t.position as place from part t where t.piece_id = p.id and t.removed_at is null) q`
const VERSION_PARTS = `from (select t.*, w.position as place from version_part w join part t on t.id = w.part_id where w.version_id = p.approved_version_id) q`

const COLUMNS = `p.id, p.goes, p.changed_at as "changedAt", p.submitted_at as "submittedAt", u.id as "pupilId", u.first_name as "firstName",
  u.last_name as "lastName", u.peg_symbol as "pegSymbol", u.peg_colour as "pegColour", f.id as "folderId", f.name as "folderName",
  f.symbol as "folderSymbol", f.colour as "folderColour", t.title as "taskTitle", cover.*, d.message`
const PEOPLE = `join person u on u.id = p.pupil_id left join task t on t.id = p.task_id
  left join lateral (select message from decision d where d.piece_id = p.id order by d.decided_at desc, d.id desc limit 1) d on true`

const SELECT: Record<Showing, string> = {
  working: `select ${COLUMNS}, p.title, p.state,
      (select count(*)::int from part c where c.piece_id = p.id and c.removed_at is null) as "partCount"
    from piece p ${PEOPLE} left join folder f on f.id = p.folder_id ${COVER(OWN_PARTS)}`,
  approved: `select ${COLUMNS}, a.title, 'approved' as state,
      (select count(*)::int from version_part c where c.version_id = p.approved_version_id) as "partCount"
    from piece p join piece_version a on a.id = p.approved_version_id ${PEOPLE}
      left join folder f on f.id = p.approved_folder_id ${COVER(VERSION_PARTS)}`,
}

type FlatLine = {
  id: string
  title: string
  state: PieceLine['state']
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
  taskTitle: string | null
  message: string | null
  partCount: number
} & (FlatPart | { part_id: null })

export type FlatPart = {
  part_id: string
  kind: PartKind
  name: string
  original_media_id: string | null
  tidying: Tidying | null
  media_id: string
  width: number
  height: number
  size_bytes: number
  sent_sha256: string
  media_state: Part['state']
}

export const part = (row: FlatPart): Part => ({
  id: row.part_id,
  kind: row.kind,
  name: row.name,
  mediaId: row.media_id,
  width: row.width,
  height: row.height,
  sizeBytes: row.size_bytes,
  sentSha256: row.sent_sha256,
  state: row.media_state,
  tidied:
    row.original_media_id && row.tidying
      ? { originalMediaId: row.original_media_id, tidying: row.tidying }
      : null,
})

function pieceLine(row: FlatLine): PieceLine {
  return {
    id: row.id,
    title: row.title,
    state: row.state,
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
    taskTitle: row.taskTitle,
    cover: row.part_id === null ? null : part(row),
    partCount: row.partCount,
    changedAt: row.changedAt.toISOString(),
    submittedAt: row.submittedAt?.toISOString() ?? null,
    message: row.message,
  }
}
