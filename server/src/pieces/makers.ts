import type { PupilName } from '@nibquill/contract'
import { DomainError, isOpen } from '@nibquill/core'
import { classOfPerson } from '../school/classOfPerson.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import type { PieceChanges } from './pieceChanges.ts'
import { PieceMakerRow } from './rows.ts'

/** Pieces made by several together. All of them see it, and each may change it. */
export class Makers {
  readonly #platform: Platform
  readonly #changes: PieceChanges
  constructor(platform: Platform, changes: PieceChanges) {
    this.#platform = platform
    this.#changes = changes
  }

  /** The others of one's class, by first name; what the pegs on a class's wall tell as well. */
  async listClassmates(viewer: SignedIn): Promise<PupilName[]> {
    const rows = await ask<{ id: string; firstName: string; symbol: never; colour: never }>(
      this.#platform.db.manager,
      sql`select u.id, u.first_name as "firstName", u.peg_symbol as symbol, u.peg_colour as colour
       from enrolment f join person u on u.id = f.person_id and u.role = 'pupil' and u.peg_symbol is not null
       where f.class_id = (select c.id ${classOfPerson(viewer.personId, this.#platform.clock.now())}) and u.id <> ${viewer.personId} order by u.first_name, u.id`,
    )
    return rows.map(({ symbol, colour, ...pupil }) => ({
      ...pupil,
      lastName: '',
      peg: { symbol, colour },
    }))
  }

  /**
   * Says who makes a piece beside the one who began it; those left out no longer see it. What was
   * handed in keeps its makers.
   * @throws DomainError `piece/not-open`, `piece/not-a-classmate`
   */
  async set(viewer: SignedIn, pieceId: string, makerIds: readonly string[]): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      if (!isOpen(piece.state)) throw new DomainError('piece/not-open', { state: piece.state })
      const now = (await manager.findBy(PieceMakerRow, { pieceId })).map(({ personId }) => personId)
      const wanted = new Set([piece.pupilId, ...makerIds])
      const added = [...wanted].filter((id) => !now.includes(id))
      const classmates = await manager.query<{ id: string }[]>(
        `select u.id from enrolment e join person u on u.id = e.person_id and u.role = 'pupil' where e.class_id = $1 and u.id = any($2::uuid[])`,
        [piece.classId, added],
      )
      if (classmates.length < added.length) throw new DomainError('piece/not-a-classmate')
      const gone = now.filter((id) => !wanted.has(id))
      if (added.length + gone.length === 0) return null
      for (const personId of gone) await manager.delete(PieceMakerRow, { pieceId, personId })
      await manager.insert(
        PieceMakerRow,
        added.map((personId) => ({ pieceId, personId })),
      )
      await note(manager, this.#platform.clock.now(), viewer.personId, 'piece.makers', pieceId, {
        before: now,
        after: [...wanted],
      })
      return { version: piece.version + 1 }
    })
  }
}
