import type { ChangePiece, MyPieces, Piece, Spoken, StartPiece, Version } from '@nibquill/contract'
import { BIN_DAYS, DomainError, isOpen, movePiece, suggestTitle, type Move } from '@nibquill/core'
import { IsNull, type EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { classOfPerson } from '../school/classOfPerson.ts'
import type { Guard } from '../access/guard.ts'
import { FolderRow } from '../folders/rows.ts'
import { forgetBinned, tellBinned } from '../notices/news.ts'
import { note } from '../platform/audit.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import { spokenIn } from '../media/spokenIn.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { listTerms, type School } from '../school/school.ts'
import { TaskRow } from '../tasks/rows.ts'
import { listMakers, listVersionMakers } from './makerNames.ts'
import type { PieceChanges } from './pieceChanges.ts'
import { isBlank, readPart, type FlatPart } from './partKinds.ts'
import { HANDED_IN_PARTS, listPieceLines, WORKING_PARTS } from './pieceLines.ts'
import { ClassPieceRow, PartRow, PieceMakerRow, PieceRow, PieceVersionRow } from './rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

const DAY_MS = 24 * 3600 * 1000

/** A pupil's pieces from the first photo to the tray. */
export class Pieces {
  readonly #platform: Platform
  readonly #guard: Guard
  readonly #school: School
  readonly #changes: PieceChanges
  constructor(platform: Platform, guard: Guard, school: School, changes: PieceChanges) {
    this.#platform = platform
    this.#guard = guard
    this.#school = school
    this.#changes = changes
  }

  /**
   * Starts a piece under the client's id; again with the same id, answers with the one that is
   * there.
   */
  async start(viewer: SignedIn, pieceId: string, { taskId }: StartPiece): Promise<Piece> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, PieceRow, pieceId, {
        found: () => this.#guard.piece(viewer, 'piece.change', pieceId, manager),
        make: () => this.#insert(manager, viewer, pieceId, taskId),
      })
    })
    return this.describe(pieceId)
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    pieceId: string,
    taskId: string | null,
  ): Promise<void> {
    const now = this.#platform.clock.now()
    if (taskId) await this.#guard.task(viewer, 'task.read', taskId, manager)
    const task = taskId ? await manager.findOneByOrFail(TaskRow, { id: taskId }) : null
    const [home] = await ask<{ id: string }>(
      manager,
      sql`select c.id ${classOfPerson(viewer.personId, now)}`,
    )
    const classId = task?.classId ?? home?.id
    if (!classId) throw new DomainError('request/not-found')
    await manager.insert(PieceRow, {
      id: pieceId,
      pupilId: viewer.personId,
      classId,
      taskId,
      folderId: task?.folderId ?? null,
      title: '',
      reflection: '',
      step: 'finished',
      state: 'draft',
      version: 1,
      goes: 0,
      createdAt: now,
      changedAt: now,
    })
    await manager.insert(PieceMakerRow, { pieceId, personId: viewer.personId })
    await this.#changes.tellEveryone(manager, pieceId)
  }

  /** @throws DomainError `piece/stale`, `piece/not-open`, `folder/fixed`, `folder/not-found` */
  async change(
    viewer: SignedIn,
    pieceId: string,
    { seenVersion, ...change }: ChangePiece,
  ): Promise<Piece> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      if (piece.version !== seenVersion)
        throw new DomainError('piece/stale', { state: piece.state, version: piece.version })
      if (!isOpen(piece.state)) throw new DomainError('piece/not-open', { state: piece.state })
      if (change.folderId && change.folderId !== piece.folderId) {
        await this.#guard.folder(viewer, 'folder.file-into', change.folderId, manager)
        const task = piece.taskId
          ? await manager.findOneByOrFail(TaskRow, { id: piece.taskId })
          : null
        if (task && !task.folderChangeable && change.folderId !== task.folderId)
          throw new DomainError('folder/fixed')
      }
      return { ...change, version: piece.version + 1 }
    })
    return this.describe(pieceId)
  }

  /**
   * Puts what is there into the tray as a version that never changes.
   * @throws DomainError `piece/empty`, `folder/not-found` without a folder
   */
  async handIn(viewer: SignedIn, pieceId: string, seenVersion: number): Promise<Piece> {
    await this.#platform.db.transaction((manager) =>
      this.handInWithin(manager, viewer, pieceId, seenVersion),
    )
    return this.describe(pieceId)
  }

  /** As `handIn`, in the caller's transaction. */
  async handInWithin(
    within: EntityManager,
    viewer: SignedIn,
    pieceId: string,
    seenVersion: number,
  ): Promise<void> {
    const running = await this.#school.runningTerm(within)
    await this.#changes.changeWithin(within, pieceId, async (piece, manager) => {
      const moved = movePiece(piece, 'hand-in', seenVersion)
      if (!piece.folderId) throw new DomainError('folder/not-found')
      const folder = await manager.findOneByOrFail(FolderRow, { id: piece.folderId })
      if (folder.putAwayAt) throw new DomainError('folder/put-away')
      const parts = await manager.find(PartRow, {
        where: { pieceId, removedAt: IsNull() },
        order: { position: 'ASC' },
      })
      if (parts.every(isBlank)) throw new DomainError('piece/empty')
      const now = this.#platform.clock.now()
      const versionId = newId()
      const title = piece.title || (await this.#suggestTitle(manager, piece))
      await manager.insert(PieceVersionRow, {
        id: versionId,
        pieceId,
        number: (await manager.countBy(PieceVersionRow, { pieceId })) + 1,
        title,
        reflection: piece.reflection,
        step: piece.step,
        folderId: piece.folderId,
        submittedBy: viewer.personId,
        submittedAt: now,
      })
      await manager.query(
        `insert into version_part (version_id, part_id, position, name, content)
         select $1, t.id, (row_number() over (order by t.position, t.id)) - 1, t.name, t.content from part t where t.piece_id = $2 and t.removed_at is null`,
        [versionId, pieceId],
      )
      await manager.query(
        `insert into version_file select w.version_id, w.part_id, x.role, x.media_id
         from version_part w join part_file x on x.part_id = w.part_id where w.version_id = $1`,
        [versionId],
      )
      await manager.query(
        'insert into version_maker select $1, m.person_id from piece_maker m where m.piece_id = $2',
        [versionId, pieceId],
      )
      await note(manager, now, viewer.personId, 'piece.hand-in', pieceId)
      const classId = await this.#currentClass(manager, piece)
      return {
        ...moved,
        title,
        classId,
        goes: piece.goes + 1,
        submittedAt: now,
        nudgedAt: null,
        termId: piece.termId ?? running?.term.id ?? null,
      }
    })
  }

  /** Takes it out of the tray again, before it was judged. */
  async withdraw(viewer: SignedIn, pieceId: string, seenVersion: number): Promise<Piece> {
    return this.#move(viewer, pieceId, 'withdraw', seenVersion, async (piece, manager) => {
      const now = this.#platform.clock.now()
      await manager.query(
        'update piece_version set withdrawn_at = $2 where piece_id = $1 and number = (select max(number) from piece_version where piece_id = $1)',
        [pieceId, now],
      )
      return { submittedAt: null, goes: piece.goes - 1 }
    })
  }

  /** Opens an approved piece for another go; the approved version stays in its folder meanwhile. */
  async anotherGo(viewer: SignedIn, pieceId: string, seenVersion: number): Promise<Piece> {
    return this.#move(viewer, pieceId, 'another-go', seenVersion, async () => ({
      submittedAt: null,
    }))
  }

  async #move(
    viewer: SignedIn,
    pieceId: string,
    move: Move,
    seenVersion: number,
    also: (piece: PieceRow, manager: EntityManager) => Promise<Partial<PieceRow>>,
  ): Promise<Piece> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      const moved = movePiece(piece, move, seenVersion)
      await note(manager, this.#platform.clock.now(), viewer.personId, `piece.${move}`, pieceId)
      return { ...moved, ...(await also(piece, manager)) }
    })
    return this.describe(pieceId)
  }

  /**
   * To the bin, restorable for 30 days; or back from it.
   * @param options.handedIn - By a teacher, as they saw it.
   * @throws DomainError `piece/in-folder` while an approved version of it stands, whatever goes on
   *   in a later go; `piece/not-found` for what
   * lay in the bin for too long, whether the nightly job was there yet or not
   */
  async bin(
    viewer: SignedIn,
    pieceId: string,
    options: { restore: boolean; handedIn?: { seenVersion: number } },
  ): Promise<void> {
    const now = this.#platform.clock.now()
    await this.#changes.change(pieceId, async (piece, manager) => {
      if (piece.binnedAt && now.getTime() - piece.binnedAt.getTime() > BIN_DAYS * DAY_MS)
        throw new DomainError('piece/not-found')
      // Done already, by the same request sent twice.
      if ((piece.binnedAt === null) === options.restore) return null
      const away = options.handedIn ? 'bin-handed-in' : 'bin'
      const seen = options.handedIn?.seenVersion ?? piece.version
      const moved = movePiece(piece, options.restore ? 'restore' : away, seen)
      const act = options.restore ? 'piece.restore' : 'piece.bin'
      await note(manager, now, viewer.personId, act, pieceId)
      if (options.restore) await forgetBinned(manager, pieceId)
      if (options.handedIn)
        await tellBinned(manager, { pieceId, byId: viewer.personId, happenedAt: now })
      return { ...moved, binnedAt: options.restore ? null : now }
    })
  }

  /** Work goes to the teachers a pupil has now, also when it was begun in a year that is over. */
  async #currentClass(manager: EntityManager, piece: PieceRow): Promise<string> {
    const now = this.#platform.clock.now()
    const [row] = await ask<{ id: string }>(
      manager,
      sql`select case when y.ends_on >= ${schoolDayOf(now)} then c.id else coalesce((select c.id ${classOfPerson(piece.pupilId, now)}), c.id) end as id
       from class c join school_year y on y.id = c.school_year_id where c.id = ${piece.classId}`,
    )
    return row?.id ?? piece.classId
  }

  async listMine(viewer: SignedIn): Promise<MyPieces> {
    const manager = this.#platform.db.manager
    const pieces = await listPieceLines(
      manager,
      'working',
      sql`join piece_maker mine on mine.piece_id = p.id and mine.person_id = ${viewer.personId}
       where p.binned_at is null and p.state <> 'approved' order by p.changed_at desc, p.id limit 300`,
    )
    const [counts] = await manager.query<{ approved: number }[]>(
      `select count(*)::int as approved from piece p join version_maker m on m.version_id = p.approved_version_id
       where m.person_id = $1 and p.binned_at is null`,
      [viewer.personId],
    )
    return {
      pieces,
      trayCount: pieces.filter((piece) => piece.state === 'submitted').length,
      approvedCount: counts?.approved ?? 0,
    }
  }

  /**
   * The approved version as if nothing else were there: for somebody who made it and was left out
   * of the next go.
   * @throws DomainError `piece/not-found`
   */
  async describeApproved(pieceId: string): Promise<Piece> {
    const manager = this.#platform.db.manager
    const [line] = await listPieceLines(manager, 'approved', sql`where p.id = ${pieceId}`)
    const piece = await this.describe(pieceId)
    const row = await manager.findOneByOrFail(PieceRow, { id: pieceId })
    const version = piece.versions.find(({ id }) => id === row.approvedVersionId)
    if (!line || !version) throw new DomainError('piece/not-found')
    const { reflection, step, parts, makers } = version
    return {
      ...piece,
      ...line,
      task: piece.task,
      reflection,
      step,
      parts,
      makers,
      versions: [version],
      mayChange: false,
    }
  }

  async describe(pieceId: string): Promise<Piece> {
    const manager = this.#platform.db.manager
    const [line] = await listPieceLines(manager, 'working', sql`where p.id = ${pieceId}`)
    const piece = await manager.findOneBy(PieceRow, { id: pieceId })
    if (!line || !piece) throw new DomainError('piece/not-found')
    const task = piece.taskId ? await manager.findOneBy(TaskRow, { id: piece.taskId }) : null
    const started = piece.classPieceId
      ? await manager.findOneBy(ClassPieceRow, { id: piece.classPieceId })
      : null
    const [{ className } = { className: '' }] = await manager.query<{ className: string }[]>(
      'select name as "className" from class where id = $1',
      [piece.classId],
    )
    const parts = await manager.query<FlatPart[]>(
      `${WORKING_PARTS} where q.piece_id = $1 and q.removed_at is null order by q.position, q.id`,
      [pieceId],
    )
    const terms = await listTerms(manager)
    const term = terms.find(({ id }) => id === piece.termId)
    const [pick] = await manager.query<NonNullable<Piece['pick']>[]>(
      `select t.id as "termId", t.name as "termName", k.reason, ${spokenIn('k')} as voice from pick k join chapter c on c.id = k.chapter_id join term t on t.id = c.term_id
       where k.piece_id = $1`,
      [pieceId],
    )
    return {
      ...line,
      version: piece.version,
      reflection: piece.reflection,
      step: piece.step,
      task: task && {
        id: task.id,
        title: task.title,
        folderChangeable: task.folderChangeable,
        asksThoughts: task.asksThoughts,
        asks: task.asks,
      },
      classPiece: started && {
        id: started.id,
        title: started.title,
        instructions: started.instructions,
        closed: started.closedAt !== null,
      },
      makers: await listMakers(manager, pieceId),
      mayChange: true,
      suggestedTitle: await this.#suggestTitle(manager, piece),
      parts: parts.map(readPart),
      versions: await this.#versions(manager, pieceId),
      term: term
        ? { id: term.id, name: term.name, startsOn: term.startsOn, endsOn: term.endsOn }
        : null,
      classId: piece.classId,
      className,
      approved: piece.approvedVersionId !== null,
      pick: pick ?? null,
    }
  }

  async #versions(manager: EntityManager, pieceId: string): Promise<Version[]> {
    type Flat = Omit<Version, 'parts' | 'makers' | 'decision' | 'submittedAt' | 'withdrawnAt'> & {
      submittedAt: Date
      withdrawnAt: Date | null
      move: 'approve' | 'send-back' | null
      message: string
      voice: Spoken | null
      decidedAt: Date
      decidedBy: string
      filed: NonNullable<Version['decision']>['filed']
    }
    const versions = await manager.query<Flat[]>(
      `select w.id, w.number, w.title, w.reflection, w.step, w.submitted_at as "submittedAt", w.withdrawn_at as "withdrawnAt",
         d.move, d.message, ${spokenIn('d')} as voice, d.decided_at as "decidedAt", trim(u.first_name || ' ' || u.last_name) as "decidedBy",
         case when d.folder_id <> w.folder_id then json_build_object('from', thought.name, 'into', filed.name, 'because', d.filed_because) end as filed
       from piece_version w left join folder thought on thought.id = w.folder_id
         left join lateral (select * from decision x where x.version_id = w.id order by x.decided_at desc, x.id desc limit 1) d on true
         left join person u on u.id = d.decided_by left join folder filed on filed.id = d.folder_id
       where w.piece_id = $1 order by w.number desc`,
      [pieceId],
    )
    const parts = await manager.query<(FlatPart & { versionId: string })[]>(
      `${HANDED_IN_PARTS} where q.piece_id = $1 order by w.position`,
      [pieceId],
    )
    const makers = await listVersionMakers(manager, pieceId)
    return versions.map(
      ({
        move,
        message,
        voice,
        decidedAt,
        decidedBy,
        filed,
        submittedAt,
        withdrawnAt,
        ...version
      }) => ({
        ...version,
        submittedAt: submittedAt.toISOString(),
        withdrawnAt: withdrawnAt?.toISOString() ?? null,
        parts: parts.filter(({ versionId }) => versionId === version.id).map(readPart),
        makers: makers.get(version.id) ?? [],
        decision: move && {
          move,
          message,
          voice,
          decidedAt: decidedAt.toISOString(),
          decidedBy,
          filed,
        },
      }),
    )
  }

  async #suggestTitle(manager: EntityManager, piece: PieceRow): Promise<string> {
    const [names] = await manager.query<
      { task: string | null; folder: string | null; earlier: number }[]
    >(
      `select (select title from task where id = $1) as task, (select name from folder where id = $2) as folder,
         (select count(*)::int from piece where task_id = $1 and pupil_id = $3 and created_at < $4 and binned_at is null) as earlier`,
      [piece.taskId, piece.folderId, piece.pupilId, piece.createdAt],
    )
    const running = await this.#school.runningTerm(manager)
    return suggestTitle({
      task: names?.task ?? undefined,
      folder: names?.folder ?? undefined,
      week: running?.week,
      earlier: names?.earlier ?? 0,
    })
  }
}
