import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { PieceRow } from './rows.ts'

/** The one way in which a piece is changed, whoever changes what about it. */
export class PieceChanges {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /**
   * Locks the piece, lets `decide` say what changes (null: nothing), saves it and tells everyone it
   * concerns.
   */
  async change(
    pieceId: string,
    decide: (piece: PieceRow, manager: EntityManager) => Promise<Partial<PieceRow> | null>,
  ): Promise<void> {
    await this.#platform.db.transaction((manager) => this.changeWithin(manager, pieceId, decide))
  }

  /** As `change`, in the caller's transaction. */
  async changeWithin(
    manager: EntityManager,
    pieceId: string,
    decide: (piece: PieceRow, manager: EntityManager) => Promise<Partial<PieceRow> | null>,
  ): Promise<void> {
    const closed = await this.#holdClassPiece(manager, pieceId)
    const piece = await manager.findOne(PieceRow, {
      where: { id: pieceId },
      lock: { mode: 'pessimistic_write' },
    })
    if (!piece) throw new DomainError('piece/not-found')
    // What the teacher started for everyone and closed stays as it is; sent back, it is open to its
    // maker again.
    if (closed && piece.state !== 'returned') throw new DomainError('piece/closed')
    const before = await everyoneOf(manager, pieceId)
    const change = await decide(piece, manager)
    if (!change) return
    await manager.update(PieceRow, pieceId, { ...change, changedAt: this.#platform.clock.now() })
    // Those who do not make it any more see it go.
    await tell(manager, [...new Set([...before, ...(await everyoneOf(manager, pieceId))])], {
      topic: 'state' in change || 'binnedAt' in change ? 'pieces' : 'work',
      id: pieceId,
    })
  }

  async tellEveryone(manager: EntityManager, pieceId: string): Promise<void> {
    await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
  }

  /** What hangs a file tells everyone that more can be shown of it. */
  async tellPrepared(manager: EntityManager, mediaId: string): Promise<void> {
    const pieces = await manager.query<{ id: string; open: boolean }[]>(
      `select p.id, p.state in ('draft', 'returned') as open from piece p where p.id in (
         select t.piece_id from part t join part_file x on x.part_id = t.id where x.media_id = $1
         union select t.piece_id from part t join version_file x on x.part_id = t.id where x.media_id = $1)`,
      [mediaId],
    )
    for (const { id, open } of pieces)
      await tell(manager, await everyoneOf(manager, id), { topic: open ? 'work' : 'pieces', id })
  }

  /**
   * A piece that is one of many the teacher started is not closed while it is changed, nor changed
   * while it is closed. Always the class's
   * piece first and then the pupil's, or the two would wait for each other.
   * @returns whether it is closed
   */
  async #holdClassPiece(manager: EntityManager, pieceId: string): Promise<boolean> {
    const [row] = await manager.query<{ closed: boolean }[]>(
      `select k.closed_at is not null as closed from class_piece k where k.id = (select class_piece_id from piece where id = $1) for share`,
      [pieceId],
    )
    return row?.closed ?? false
  }
}

/**
 * Those who see a piece move: its makers, those of what was approved, and the teachers of its
 * class.
 */
export async function everyoneOf(manager: EntityManager, pieceId: string): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `select person_id as id from piece_maker where piece_id = $1
     union select m.person_id from piece p join version_maker m on m.version_id = p.approved_version_id where p.id = $1
     union select e.person_id from piece p join enrolment e on e.class_id = p.class_id join person u on u.id = e.person_id and u.role = 'teacher'
       where p.id = $1`,
    [pieceId],
  )
  return rows.map(({ id }) => id)
}
