import type {
  Decide,
  Drafts,
  DraftsQuery,
  FileElsewhere,
  Piece,
  PieceLine,
  PupilDesk,
  Transcribe,
  Tray,
  TrayQuery,
} from '@nibquill/contract'
import { DomainError, movePiece, DECISION_OPEN_MS } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import type { Guard } from '../access/guard.ts'
import { FolderClassRow, FolderRow } from '../folders/rows.ts'
import { NewsRow } from '../notices/rows.ts'
import { MediaRow } from '../media/rows.ts'
import { refuseForeignVoice } from '../media/spokenIn.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listPieceLines } from '../pieces/pieceLines.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import type { Pieces } from '../pieces/pieces.ts'
import { PieceRow, PieceVersionRow, VersionMakerRow } from '../pieces/rows.ts'
import { describePupil } from './pupilDesk.ts'
import { DecisionRow } from './rows.ts'
import { listDrafts, listTray } from './trayLists.ts'

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

  listTray(viewer: SignedIn, query: TrayQuery): Promise<Tray> {
    return listTray(this.#platform.db.manager, viewer.personId, query)
  }

  describePupil(pupilId: string): Promise<PupilDesk> {
    return describePupil(this.#platform.db.manager, pupilId, this.#platform.clock.now())
  }

  listDrafts(viewer: SignedIn, query: DraftsQuery): Promise<Drafts> {
    return listDrafts(this.#platform.db.manager, viewer.personId, query)
  }

  /**
   * Asks for drafts, on the desks of their makers; what was handed in meanwhile is passed over.
   * @returns how many were asked for
   */
  async nudge(viewer: SignedIn, pieceIds: readonly string[]): Promise<number> {
    return this.#platform.db.transaction(async (manager) => {
      const now = this.#platform.clock.now()
      const [asked] = await manager.query<[{ id: string }[], number]>(
        `update piece set nudged_at = $2 where id = any($1) and state = 'draft' and binned_at is null returning id`,
        [pieceIds, now],
      )
      for (const { id } of asked) {
        await note(manager, now, viewer.personId, 'piece.nudge', id)
        await tell(manager, await everyoneOf(manager, id), { topic: 'pieces', id })
      }
      return asked.length
    })
  }

  /**
   * Judges the version in the tray: decision, news and state commit together.
   * @throws DomainError `piece/stale` when the pupil took it out or another teacher was first;
   *   `folder/not-found`, `media/not-found`
   */
  async decide(viewer: SignedIn, pieceId: string, decision: Decide): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      const piece = await this.#held(manager, pieceId)
      const moved = movePiece(piece, decision.move, decision.seenVersion)
      const version = await manager.findOneOrFail(PieceVersionRow, {
        where: { pieceId },
        order: { number: 'DESC' },
      })
      const folderId = decision.folderId ?? version.folderId
      if (folderId !== version.folderId) await this.#refuseUnfit(manager, viewer, piece, folderId)
      const now = this.#platform.clock.now()
      const approved = decision.move === 'approve'
      const voiceMediaId = decision.voiceId ?? null
      if (voiceMediaId) await refuseForeignVoice(manager, viewer, voiceMediaId)
      if (approved) await this.#refusePutAway(manager, folderId)
      const decisionId = newId()
      await manager.insert(DecisionRow, {
        id: decisionId,
        pieceId,
        versionId: version.id,
        move: decision.move,
        message: decision.message,
        voiceMediaId,
        folderId: approved ? folderId : null,
        filedBecause: approved && folderId !== version.folderId ? (decision.because ?? '') : '',
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

  /**
   * Takes back a decision just made by the same teacher: the piece lies in the tray as it was handed
   * in, its news goes, and what was approved before stands again.
   * @throws DomainError `piece/stale` when anything happened to it since; `piece/move-refused` when
   *   it was not decided; `piece/decided-earlier` when somebody else decided it, or a while ago
   */
  async takeBack(viewer: SignedIn, pieceId: string, seenVersion: number): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      const piece = await this.#held(manager, pieceId)
      const moved = movePiece(piece, 'take-back', seenVersion)
      const [last, ...before] = await manager.find(DecisionRow, {
        where: { pieceId },
        order: { decidedAt: 'DESC', id: 'DESC' },
      })
      const now = this.#platform.clock.now()
      if (
        last?.decidedBy !== viewer.personId ||
        now.getTime() - last.decidedAt.getTime() > DECISION_OPEN_MS
      )
        throw new DomainError('piece/decided-earlier')
      const version = await manager.findOneByOrFail(PieceVersionRow, { id: last.versionId })
      const approved = before.find(({ move }) => move === 'approve')
      // Sent back after it was approved, it is approved again.
      const stood = approved?.versionId === last.versionId
      await manager.update(PieceRow, pieceId, {
        ...moved,
        ...(stood ? { state: 'approved' as const } : {}),
        changedAt: now,
        folderId: stood ? approved.folderId : version.folderId,
        approvedVersionId: approved?.versionId ?? null,
        approvedFolderId: approved?.folderId ?? null,
        approvedAt: approved?.decidedAt ?? null,
      })
      // Its news goes with it.
      await manager.delete(DecisionRow, last.id)
      await note(manager, now, viewer.personId, 'piece.take-back', pieceId)
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
      if (last.move === 'approve')
        await this.#tellParents(manager, [last.versionId, approved?.versionId ?? null])
    })
    return this.#pieces.describe(pieceId)
  }

  /**
   * Puts what is approved into another folder. Who may see it follows the folder it lies in.
   * @throws DomainError `piece/stale`; `piece/move-refused` unless it is approved;
   *   `folder/not-found`, `folder/put-away`
   */
  async fileElsewhere(
    viewer: SignedIn,
    pieceId: string,
    { folderId, because = '', seenVersion }: FileElsewhere,
  ): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      const piece = await this.#held(manager, pieceId)
      const moved = movePiece(piece, 'file-elsewhere', seenVersion)
      await this.#refuseUnfit(manager, viewer, piece, folderId)
      await this.#refusePutAway(manager, folderId)
      const now = this.#platform.clock.now()
      const before = piece.approvedFolderId
      await manager.update(PieceRow, pieceId, {
        ...moved,
        changedAt: now,
        folderId,
        approvedFolderId: folderId,
      })
      // The approval says where it lies, also where it is taken back to later, and is news once more.
      await manager.query(
        `with approval as (update decision set folder_id = $2, filed_because = $3 where id = (select id from decision where piece_id = $1 and move = 'approve'
           order by decided_at desc, id desc limit 1) returning id)
         update news set happened_at = $4, seen_at = null where decision_id = (select id from approval)`,
        [pieceId, folderId, because, now],
      )
      await note(manager, now, viewer.personId, 'piece.file', pieceId, {
        before: { folderId: before },
        after: { folderId },
      })
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
      await this.#tellParents(manager, [piece.approvedVersionId])
    })
    return this.#pieces.describe(pieceId)
  }

  /**
   * What is said in a recording, typed by a teacher; nothing of the piece itself changes.
   * @throws DomainError `piece/part-gone` for what nobody says anything in; `piece/part-changed` with
   *   `text` where something else stands there than they began from
   */
  async transcribe(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    { text, seenText }: Transcribe,
  ): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      const [found] = await manager.query<{ id: string; transcript: string }[]>(
        `select m.id, m.transcript from part t join part_file f on f.part_id = t.id join media m on m.id = f.media_id
         where t.id = $1 and t.piece_id = $2 and f.role in ('sound', 'film') for update of m`,
        [partId, pieceId],
      )
      if (!found) throw new DomainError('piece/part-gone')
      if (found.transcript === text) return
      if (found.transcript !== seenText)
        throw new DomainError('piece/part-changed', { text: found.transcript })
      await manager.update(MediaRow, found.id, { transcript: text })
      await note(manager, this.#platform.clock.now(), viewer.personId, 'part.transcript', pieceId, {
        partId,
      })
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
    })
    return this.#pieces.describe(pieceId)
  }

  async #held(manager: EntityManager, pieceId: string): Promise<PieceRow> {
    const piece = await manager.findOne(PieceRow, {
      where: { id: pieceId },
      lock: { mode: 'pessimistic_write' },
    })
    if (!piece) throw new DomainError('piece/not-found')
    return piece
  }

  /** A folder of another class, or another pupil's own, takes nothing of this pupil's. */
  async #refuseUnfit(
    manager: EntityManager,
    viewer: SignedIn,
    { classId, pupilId }: PieceRow,
    folderId: string,
  ): Promise<void> {
    await this.#guard.folder(viewer, 'folder.file-into', folderId, manager)
    const folder = await manager.findOneByOrFail(FolderRow, { id: folderId })
    const ofClass =
      folder.wholeSchool || (await manager.existsBy(FolderClassRow, { folderId, classId }))
    if (!ofClass || (folder.ownerId !== null && folder.ownerId !== pupilId))
      throw new DomainError('folder/not-found')
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
      sql`join piece this on this.id = ${pieceId} where p.approved_folder_id = this.folder_id and p.pupil_id = this.pupil_id and p.id <> this.id
         and p.binned_at is null order by p.approved_at desc limit ${EARLIER}`,
    )
  }
}
