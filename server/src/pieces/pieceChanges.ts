import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import { ClassPieceRow, PieceRow } from './rows.ts'

/** The one way in which a piece is changed, whoever changes what about it. */
export class PieceChanges {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Locks the piece, lets `decide` say what changes (null: nothing), saves it and tells everyone it concerns. */
  async change(
    pieceId: string,
    decide: (piece: PieceRow, manager: EntityManager) => Promise<Partial<PieceRow> | null>,
  ): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      const piece = await manager.findOne(PieceRow, { where: { id: pieceId }, lock: { mode: 'pessimistic_write' } })
      if (!piece) throw new DomainError('piece/not-found')
      await this.#refuseClosed(piece, manager)
      const before = await everyoneOf(manager, pieceId)
      const change = await decide(piece, manager)
      if (!change) return
      await manager.update(PieceRow, pieceId, { ...change, changedAt: this.#platform.clock.now() })
      // Those who do not make it any more see it go.
      await tell(manager, [...new Set([...before, ...(await everyoneOf(manager, pieceId))])], { topic: 'pieces', id: pieceId })
    })
  }

  async tellEveryone(manager: EntityManager, pieceId: string): Promise<void> {
    await tell(manager, await everyoneOf(manager, pieceId), { topic: 'pieces', id: pieceId })
  }

  /** What the teacher started for everyone and closed stays as it is; sent back, it is open to its maker again. */
  async #refuseClosed(piece: PieceRow, manager: EntityManager): Promise<void> {
    if (!piece.classPieceId || piece.state === 'returned') return
    const { closedAt } = await manager.findOneByOrFail(ClassPieceRow, { id: piece.classPieceId })
    if (closedAt) throw new DomainError('piece/closed')
  }
}

/** Those who see a piece move: its makers and the teachers of its class. */
export async function everyoneOf(manager: EntityManager, pieceId: string): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `select person_id as id from piece_maker where piece_id = $1
     union select e.person_id from piece p join enrolment e on e.class_id = p.class_id join person u on u.id = e.person_id and u.role = 'teacher'
       where p.id = $1`,
    [pieceId],
  )
  return rows.map(({ id }) => id)
}
