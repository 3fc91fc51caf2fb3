import type { Folder, FolderDetail } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { readCursor, writeCursor } from '../platform/cursor.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listPieceLines } from '../pieces/pieceLines.ts'

const PAGE = 60

/** Folders and what has been approved into them. */
export class Folders {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** A pupil's folders count their own pieces; a teacher's those of their classes. */
  async list(viewer: SignedIn): Promise<Folder[]> {
    return this.#platform.db.manager.query(
      `${COLUMNS(viewer)} where f.school_id = $2 and f.put_away_at is null and (f.class_id is null or exists
         (select 1 from enrolment e where e.class_id = f.class_id and e.person_id = $1)) order by f.position, f.name, c.name`,
      [viewer.personId, viewer.schoolId],
    )
  }

  async describe(viewer: SignedIn, folderId: string, after?: string): Promise<FolderDetail> {
    const manager = this.#platform.db.manager
    const [folder] = await manager.query<Folder[]>(`${COLUMNS(viewer)} where f.school_id = $2 and f.id = $3`, [
      viewer.personId,
      viewer.schoolId,
      folderId,
    ])
    if (!folder) throw new DomainError('folder/not-found')
    const cursor = readCursor(after)
    const pieces = await listPieceLines(
      manager,
      'approved',
      `where p.approved_folder_id = $2 and p.binned_at is null and ${MINE[roleOf(viewer)]}
         and ($3::timestamptz is null or (p.approved_at, p.id) < ($3, $4::uuid))
       order by p.approved_at desc, p.id desc limit ${PAGE + 1}`,
      [viewer.personId, folderId, cursor?.at ?? null, cursor?.id ?? null],
    )
    return { ...folder, ...(await this.#page(pieces)) }
  }

  async #page(pieces: FolderDetail['pieces']): Promise<Pick<FolderDetail, 'pieces' | 'next'>> {
    const last = pieces.length > PAGE ? pieces[PAGE - 1] : undefined
    if (!last) return { pieces, next: null }
    const [row] = await this.#platform.db.manager.query<{ at: Date }[]>('select approved_at as at from piece where id = $1', [
      last.id,
    ])
    return { pieces: pieces.slice(0, PAGE), next: row ? writeCursor({ at: row.at.toISOString(), id: last.id }) : null }
  }
}

const roleOf = (viewer: SignedIn) => (viewer.role === 'pupil' ? 'pupil' : 'staff')
/** SQL: the pieces a viewer ($1) has in a folder: their own, or those of classes they teach. */
const MINE = {
  pupil: 'exists (select 1 from piece_maker m where m.piece_id = p.id and m.person_id = $1)',
  staff: 'exists (select 1 from enrolment e where e.class_id = p.class_id and e.person_id = $1)',
} as const

const COLUMNS = (
  viewer: SignedIn,
) => `select f.id, f.name, f.symbol, f.colour, s.name as strand, f.parents_see as "parentsSee", f.pupils_file as "pupilsFile",
    c.name as "className",
    (select count(*)::int from piece p where p.approved_folder_id = f.id and p.binned_at is null and ${MINE[roleOf(viewer)]}) as "pieceCount"
  from folder f left join strand s on s.id = f.strand_id left join class c on c.id = f.class_id`
