import type { SecondLook } from '@nibquill/contract'
import type { PegSymbol, Colour } from '@nibquill/core'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { SecondLookRow } from './rows.ts'

const SHOWN = 500

/** What teachers want to come back to, and why. No pupil and no family ever hears of it. */
export class SecondLooks {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Those of a teacher's classes that are not done, first asked for first. */
  async list(viewer: SignedIn): Promise<SecondLook[]> {
    type Flat = Omit<SecondLook, 'pupil' | 'askedAt'> & {
      askedAt: Date
      pupilId: string
      firstName: string
      lastName: string
      symbol: PegSymbol
      colour: Colour
    }
    const rows = await this.#platform.db.manager.query<Flat[]>(
      `select s.piece_id as "pieceId", s.reason, s.asked_at as "askedAt", trim(a.first_name || ' ' || a.last_name) as "askedBy",
         p.title, c.name as "className", d.name as strand, u.id as "pupilId", u.first_name as "firstName", u.last_name as "lastName",
         u.peg_symbol as symbol, u.peg_colour as colour
       from second_look s join piece p on p.id = s.piece_id join class c on c.id = p.class_id
         join person u on u.id = p.pupil_id join person a on a.id = s.asked_by
         left join task t on t.id = p.task_id left join folder f on f.id = coalesce(p.approved_folder_id, p.folder_id)
         left join strand d on d.id = coalesce(t.strand_id, f.strand_id)
       where s.done_at is null and p.binned_at is null and p.class_id in (select e.class_id from enrolment e where e.person_id = $1)
       order by s.asked_at, s.piece_id limit ${SHOWN}`,
      [viewer.personId],
    )
    return rows.map(({ pupilId: id, firstName, lastName, symbol, colour, askedAt, ...row }) => ({
      ...row,
      askedAt: askedAt.toISOString(),
      pupil: { id, firstName, lastName, peg: { symbol, colour } },
    }))
  }

  /** Marks a piece, or says anew why. */
  async ask(viewer: SignedIn, pieceId: string, reason: string): Promise<SecondLook[]> {
    await this.#platform.db.transaction(async (manager) => {
      const askedAt = this.#platform.clock.now()
      await manager.upsert(
        SecondLookRow,
        { pieceId, reason, askedBy: viewer.personId, askedAt, doneAt: null },
        ['pieceId'],
      )
      await note(manager, askedAt, viewer.personId, 'second-look.ask', pieceId)
      await this.#tellTeachers(manager, pieceId)
    })
    return this.list(viewer)
  }

  /** Ticked, or not after all. */
  async tick(viewer: SignedIn, pieceId: string, options: { done: boolean }): Promise<SecondLook[]> {
    await this.#platform.db.transaction(async (manager) => {
      const now = this.#platform.clock.now()
      await manager.update(SecondLookRow, { pieceId }, { doneAt: options.done ? now : null })
      const action = options.done ? 'second-look.done' : 'second-look.restore'
      await note(manager, now, viewer.personId, action, pieceId)
      await this.#tellTeachers(manager, pieceId)
    })
    return this.list(viewer)
  }

  async #tellTeachers(manager: Parameters<typeof tell>[0], pieceId: string): Promise<void> {
    const teachers = await manager.query<{ id: string }[]>(
      `select e.person_id as id from piece p join enrolment e on e.class_id = p.class_id join person u on u.id = e.person_id
       where p.id = $1 and u.role = 'teacher'`,
      [pieceId],
    )
    await tell(
      manager,
      teachers.map(({ id }) => id),
      { topic: 'review' },
    )
  }
}
