import type { Decide, Piece, PieceLine, Tray } from '@nibquill/contract'
import { DomainError, movePiece } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Guard } from '../access/guard.ts'
import { FolderRow } from '../folders/rows.ts'
import { NewsRow } from '../notices/rows.ts'
import { note } from '../platform/audit.ts'
import { readCursor, writeCursor } from '../platform/cursor.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listPieceLines } from '../pieces/pieceLines.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import type { Pieces } from '../pieces/pieces.ts'
import { PieceRow, PieceVersionRow, VersionMakerRow } from '../pieces/rows.ts'
import { DecisionRow } from './rows.ts'

export const TRAY_PAGE = 50
const EARLIER = 6

/** The tray, and the teacher's verdicts. */
export class Review {
  readonly #platform: Platform
  readonly #guard: Guard
  readonly #pieces: Pieces
  constructor(platform: Platform, guard: Guard, pieces: Pieces) {
    this.#platform = platform
    this.#guard = guard
    this.#pieces = pieces
  }

  async listTray(viewer: SignedIn, after?: string): Promise<Tray> {
    const manager = this.#platform.db.manager
    const cursor = readCursor(after)
    const [counts, pieces] = await Promise.all([
      manager.query<{ waiting: number; drafts: number }[]>(TRAY_COUNTS, [viewer.personId]),
      listPieceLines(manager, 'working', TRAY_TAIL, [
        viewer.personId,
        cursor?.at ?? null,
        cursor?.id ?? null,
        TRAY_PAGE + 1,
      ]),
    ])
    const last = pieces.length > TRAY_PAGE ? pieces[TRAY_PAGE - 1] : undefined
    const next = last?.submittedAt ? writeCursor({ at: last.submittedAt, id: last.id }) : null
    return {
      waiting: counts[0]?.waiting ?? 0,
      drafts: counts[0]?.drafts ?? 0,
      pieces: pieces.slice(0, TRAY_PAGE),
      next,
    }
  }

  /**
   * Judges the version in the tray: decision, news and state commit together.
   * @throws DomainError `piece/stale` when the pupil took it out or another teacher was first;
   *   `folder/not-found`
   */
  async decide(viewer: SignedIn, pieceId: string, decision: Decide): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      const piece = await manager.findOne(PieceRow, {
        where: { id: pieceId },
        lock: { mode: 'pessimistic_write' },
      })
      if (!piece) throw new DomainError('piece/not-found')
      const moved = movePiece(piece, decision.move, decision.seenVersion)
      const version = await manager.findOneOrFail(PieceVersionRow, {
        where: { pieceId },
        order: { number: 'DESC' },
      })
      const folderId = decision.folderId ?? version.folderId
      if (folderId !== version.folderId)
        await this.#guard.folder(viewer, 'folder.file-into', folderId, manager)
      const now = this.#platform.clock.now()
      const approved = decision.move === 'approve'
      if (approved) await this.#refusePutAway(manager, folderId)
      const decisionId = newId()
      await manager.insert(DecisionRow, {
        id: decisionId,
        pieceId,
        versionId: version.id,
        move: decision.move,
        message: decision.message,
        folderId: approved ? folderId : null,
        decidedBy: viewer.personId,
        decidedAt: now,
      })
      await manager.update(PieceRow, pieceId, {
        ...moved,
        changedAt: now,
        ...(approved
          ? { folderId, approvedVersionId: version.id, approvedFolderId: folderId, approvedAt: now }
          : {}),
      })
      const makers = await manager.findBy(VersionMakerRow, { versionId: version.id })
      const kind = approved ? 'approved' : 'returned'
      await manager.insert(
        NewsRow,
        makers.map(({ personId }) => ({
          id: newId(),
          personId,
          kind,
          decisionId,
          happenedAt: now,
          seenAt: null,
        })),
      )
      await note(manager, now, viewer.personId, `piece.${decision.move}`, pieceId)
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
      if (approved) await this.#tellParents(manager, [version.id, piece.approvedVersionId])
    })
    return this.#pieces.describe(pieceId)
  }

  async #refusePutAway(manager: EntityManager, folderId: string): Promise<void> {
    const folder = await manager.findOneByOrFail(FolderRow, { id: folderId })
    if (folder.putAwayAt) throw new DomainError('folder/put-away')
  }

  /** Also those whose child made the version before and not this one: they see it go. */
  async #tellParents(
    manager: EntityManager,
    versionIds: readonly (string | null)[],
  ): Promise<void> {
    const parents = await manager.query<{ id: string }[]>(
      'select g.parent_id as id from version_maker m join guardian g on g.pupil_id = m.person_id where m.version_id = any($1::uuid[])',
      [versionIds.filter((id) => id !== null)],
    )
    await tell(
      manager,
      parents.map(({ id }) => id),
      { topic: 'sharing' },
    )
  }

  /** What the pupil has in the same folder already, newest first. */
  async listEarlier(pieceId: string): Promise<PieceLine[]> {
    return listPieceLines(
      this.#platform.db.manager,
      'approved',
      `join piece this on this.id = $1 where p.approved_folder_id = this.folder_id and p.pupil_id = this.pupil_id and p.id <> this.id
         and p.binned_at is null order by p.approved_at desc limit ${EARLIER}`,
      [pieceId],
    )
  }
}

/**
 * SQL tail: what waits for teacher $1, first handed in first, after cursor ($2, $3), at most $4.
 */
export const TRAY_TAIL = `where p.class_id in (select e.class_id from enrolment e where e.person_id = $1) and p.state = 'submitted' and p.binned_at is null
    and ($2::timestamptz is null or (p.submitted_at, p.id) > ($2, $3::uuid))
  order by p.submitted_at, p.id limit $4`

const TRAY_COUNTS = `select count(*) filter (where p.state = 'submitted')::int as waiting, count(*) filter (where p.state = 'draft')::int as drafts
  from piece p where p.class_id in (select e.class_id from enrolment e where e.person_id = $1) and p.state in ('submitted', 'draft') and p.binned_at is null`
