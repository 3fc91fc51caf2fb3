import type { ClassPiece, StartForEveryone } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, raw, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import type { Pieces } from './pieces.ts'
import { ClassPieceRow, PieceMakerRow, PieceRow } from './rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

/**
 * Pieces the teacher starts for everyone: an outing, a number talk. Each pupil adds to their own
 * until it is closed.
 */
export class ClassPieces {
  readonly #platform: Platform
  readonly #pieces: Pieces
  constructor(platform: Platform, pieces: Pieces) {
    this.#platform = platform
    this.#pieces = pieces
  }

  async list(viewer: SignedIn): Promise<ClassPiece[]> {
    const rows = await ask<FlatClassPiece>(
      this.#platform.db.manager,
      sql`select k.id, k.title, k.instructions, c.name as "className", k.created_at as "createdAt", k.closed_at is not null as closed,
         f.id as "folderId", f.name as "folderName", f.symbol, f.colour,
         (select count(*)::int from piece p where p.class_piece_id = k.id and p.binned_at is null) as pupils,
         (select count(*)::int from piece p where p.class_piece_id = k.id and p.binned_at is null and ${raw(HAS_PARTS)}) as begun
       from class_piece k join class c on c.id = k.class_id join folder f on f.id = k.folder_id join school_year y on y.id = c.school_year_id
       where y.ends_on >= ${schoolDayOf(this.#platform.clock.now())} and exists (select 1 from enrolment e where e.class_id = c.id and e.person_id = ${viewer.personId})
       order by k.closed_at is not null, k.created_at desc`,
    )
    return rows.map(({ folderId, folderName, symbol, colour, createdAt, ...row }) => ({
      ...row,
      createdAt: createdAt.toISOString(),
      folder: { id: folderId, name: folderName, symbol, colour },
    }))
  }

  async classOf(id: string): Promise<string> {
    const row = await this.#platform.db.manager.findOneBy(ClassPieceRow, { id })
    // As the guard answers for a class one has nothing to do with.
    if (!row) throw new DomainError('request/not-found')
    return row.classId
  }

  /** Again with the same id it answers with what is there. */
  async start(viewer: SignedIn, id: string, input: StartForEveryone): Promise<ClassPiece[]> {
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, ClassPieceRow, id, {
        found: ({ classId }) => {
          if (classId !== input.classId) throw new DomainError('piece/not-found')
        },
        make: () => this.#insert(manager, viewer, id, input),
      })
    })
    return this.list(viewer)
  }

  async #insert(
    manager: EntityManager,
    viewer: SignedIn,
    id: string,
    input: StartForEveryone,
  ): Promise<void> {
    const now = this.#platform.clock.now()
    const [fits] = await manager.query<unknown[]>(
      `select 1 from folder f where f.id = $2 and f.put_away_at is null and (f.whole_school
           or exists (select 1 from folder_class h where h.folder_id = f.id and h.class_id = $1))`,
      [input.classId, input.folderId],
    )
    if (!fits) throw new DomainError('folder/not-found')
    await manager.insert(ClassPieceRow, {
      id,
      ...input,
      createdBy: viewer.personId,
      createdAt: now,
      closedAt: null,
    })
    await this.#startMissing(manager, id, input)
    await note(manager, now, viewer.personId, 'piece.start-for-everyone', id)
  }

  /** A piece for each pupil of the class who has none yet. */
  async #startMissing(
    manager: EntityManager,
    id: string,
    { classId, folderId, title }: Pick<StartForEveryone, 'classId' | 'folderId' | 'title'>,
  ): Promise<void> {
    const now = this.#platform.clock.now()
    const pupils = await manager.query<{ id: string }[]>(
      `select p.id from enrolment e join person p on p.id = e.person_id where e.class_id = $1 and p.role = 'pupil' and p.left_at is null
         and not exists (select 1 from piece x where x.class_piece_id = $2 and x.pupil_id = p.id)`,
      [classId, id],
    )
    const pieces = pupils.map(({ id: pupilId }) => ({
      id: newId(),
      pupilId,
      classId,
      taskId: null,
      classPieceId: id,
      folderId,
      title,
      reflection: '',
      step: 'finished' as const,
      state: 'draft' as const,
      version: 1,
      goes: 0,
      createdAt: now,
      changedAt: now,
    }))
    if (pieces.length === 0) return
    await manager.insert(PieceRow, pieces)
    await manager.insert(
      PieceMakerRow,
      pieces.map((piece) => ({ pieceId: piece.id, personId: piece.pupilId })),
    )
    await tell(
      manager,
      pupils.map((pupil) => pupil.id),
      { topic: 'pieces' },
    )
  }

  /**
   * Closes it, all in one step: what has something in it goes into the tray, as if handed in, and
   * nothing can be added any more.
   * @throws DomainError `folder/put-away` when that is where it goes; then nothing has happened
   */
  async close(viewer: SignedIn, id: string): Promise<ClassPiece[]> {
    await this.#platform.db.transaction(async (manager) => {
      // Whoever is adding a photo at this moment was first; whoever comes after finds it closed.
      await manager.query('select 1 from class_piece where id = $1 for update', [id])
      const drafts = await manager.query<{ id: string; pupilId: string; version: number }[]>(
        `select p.id, p.pupil_id as "pupilId", p.version from piece p where p.class_piece_id = $1 and p.state in ('draft', 'returned')
           and p.binned_at is null and ${HAS_PARTS} order by p.id for update`,
        [id],
      )
      for (const { id: pieceId, pupilId, version } of drafts)
        await this.#pieces.handInWithin(manager, { ...viewer, personId: pupilId }, pieceId, version)
      await this.#setClosed(manager, viewer, id, this.#platform.clock.now())
    })
    return this.list(viewer)
  }

  /** Opens it again, also for pupils who have come since. */
  async reopen(viewer: SignedIn, id: string): Promise<ClassPiece[]> {
    await this.#platform.db.transaction(async (manager) => {
      await this.#setClosed(manager, viewer, id, null)
      await this.#startMissing(manager, id, await manager.findOneByOrFail(ClassPieceRow, { id }))
    })
    return this.list(viewer)
  }

  async #setClosed(
    manager: EntityManager,
    viewer: SignedIn,
    id: string,
    closedAt: Date | null,
  ): Promise<void> {
    await manager.update(ClassPieceRow, id, { closedAt })
    const makers = await manager.query<{ id: string }[]>(
      'select m.person_id as id from piece p join piece_maker m on m.piece_id = p.id where p.class_piece_id = $1',
      [id],
    )
    await tell(
      manager,
      makers.map((maker) => maker.id),
      { topic: 'pieces' },
    )
    await note(
      manager,
      this.#platform.clock.now(),
      viewer.personId,
      closedAt ? 'class-piece.close' : 'class-piece.open',
      id,
    )
  }
}

const HAS_PARTS = 'exists (select 1 from part t where t.piece_id = p.id and t.removed_at is null)'

type FlatClassPiece = Omit<ClassPiece, 'folder' | 'createdAt'> & {
  createdAt: Date
  folderId: string
  folderName: string
  symbol: ClassPiece['folder']['symbol']
  colour: ClassPiece['folder']['colour']
}
