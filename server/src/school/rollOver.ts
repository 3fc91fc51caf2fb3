import type { DoRollOver, LatestRollOver, RollOverPlan } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import {
  faultsOfRollOver,
  proposeRollOver,
  type NewClass,
  type OldClass,
} from '@nibquill/core/school/rollOver'
import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { PersonRow } from './rows.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql, type Sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { RollOverRow } from './rows.ts'
import type { School } from './school.ts'

type Pupil = RollOverPlan['classes'][number]['pupils'][number]
type Class = Omit<OldClass, 'pupilIds'> & {
  pupils: (Omit<Pupil, 'toClassId' | 'peg'> & {
    symbol: Pupil['peg']['symbol']
    colour: Pupil['peg']['colour']
  })[]
}

/**
 * The year's turn: pupils go into next year's classes or leave, class folders are put away;
 * portfolios and whole-school folders go along.
 */
export class RollOver {
  readonly #platform: Platform
  readonly #school: School
  constructor(platform: Platform, school: School) {
    this.#platform = platform
    this.#school = school
  }

  async propose(fromYearId: string, toYearId: string): Promise<RollOverPlan> {
    const manager = this.#platform.db.manager
    const old = await this.#classes(manager, fromYearId)
    const nextClasses = await this.#nextClasses(manager, toYearId)
    const moves = new Map(
      proposeRollOver(old.map(withIds), nextClasses).map((move) => [move.pupilId, move.toClassId]),
    )
    const [counts] = await ask<{ folders: number; waiting: number }>(
      manager,
      sql`select (select count(*)::int ${foldersOfYear(fromYearId)}) as folders,
         (select count(*)::int from piece p join class c on c.id = p.class_id where c.school_year_id = ${fromYearId} and p.state = 'submitted' and p.binned_at is null) as waiting`,
    )
    return {
      classes: old.map(({ pupils, ...one }) => ({
        ...one,
        pupils: pupils.map(({ symbol, colour, ...pupil }) => ({
          ...pupil,
          peg: { symbol, colour },
          toClassId: moves.get(pupil.id) ?? null,
        })),
      })),
      nextClasses,
      foldersToPutAway: counts?.folders ?? 0,
      piecesWaiting: counts?.waiting ?? 0,
    }
  }

  async #classes(manager: EntityManager, yearId: string): Promise<Class[]> {
    return manager.query(
      `select c.id, c.name, c.year_group as "yearGroup", coalesce((select json_agg(json_build_object('id', p.id, 'firstName', p.first_name,
           'lastName', p.last_name, 'symbol', p.peg_symbol, 'colour', p.peg_colour) order by p.first_name, p.last_name, p.id)
         from enrolment e join person p on p.id = e.person_id where e.class_id = c.id and p.role = 'pupil' and p.left_at is null), '[]') as pupils
       from class c where c.school_year_id = $1 order by c.name`,
      [yearId],
    )
  }

  async #nextClasses(manager: EntityManager, yearId: string): Promise<NewClass[]> {
    return manager.query(
      `select id, name, year_group as "yearGroup" from class where school_year_id = $1 order by name`,
      [yearId],
    )
  }

  /**
   * Does it in one step, or not at all.
   * @throws DomainError `school/roll-over-refused` with what is wrong
   */
  async turn(
    viewer: SignedIn,
    { fromYearId, toYearId, moves }: DoRollOver,
  ): Promise<LatestRollOver> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.query('lock table roll_over in exclusive mode')
      const old = (await this.#classes(manager, fromYearId)).map(withIds)
      const next = await this.#nextClasses(manager, toYearId)
      const faults = faultsOfRollOver(moves, old, next)
      const [order] = await manager.query<{ rising: boolean; turned: boolean }[]>(
        `select (select ends_on from school_year where id = $1) < (select starts_on from school_year where id = $2) as rising,
           exists (select 1 from roll_over where from_year_id = $1 and undone_at is null) as turned`,
        [fromYearId, toYearId],
      )
      if (!order?.rising) faults.push('goes into a year that is not later')
      if (order?.turned) faults.push('has been done already')
      if (faults.length > 0)
        throw new DomainError('school/roll-over-refused', { fields: { moves: faults } })
      const now = this.#platform.clock.now()
      const putAway = await ask<{ id: string }>(
        manager,
        sql`select f.id ${foldersOfYear(fromYearId)}`,
      )
      const enrolled: string[] = []
      for (const to of next) {
        const pupilIds = moves
          .filter(({ toClassId }) => toClassId === to.id)
          .map(({ pupilId }) => pupilId)
        const added = await manager.query<{ id: string }[]>(
          'insert into enrolment (class_id, person_id) select $1, unnest($2::uuid[]) on conflict do nothing returning person_id as id',
          [to.id, pupilIds],
        )
        enrolled.push(...added.map(({ id }) => id))
        await this.#school.hangPegs(manager, to.id, pupilIds)
      }
      const leaving = moves
        .filter(({ toClassId }) => toClassId === null)
        .map(({ pupilId }) => pupilId)
      await manager.query('update person set left_at = $2 where id = any($1)', [leaving, now])
      await manager.query(
        'update folder set put_away_at = $2, version = version + 1 where id = any($1)',
        [putAway.map(({ id }) => id), now],
      )
      const id = newId()
      await manager.insert(RollOverRow, {
        id,
        fromYearId,
        toYearId,
        changes: { moves, enrolled, putAway: putAway.map((folder) => folder.id) },
        doneBy: viewer.personId,
        doneAt: now,
        undoneAt: null,
      })
      await note(manager, now, viewer.personId, 'roll-over.do', id)
    })
    return this.latest()
  }

  async latest(): Promise<LatestRollOver> {
    const [row] = await this.#platform.db.manager.query<
      (RollOverRow & { fromYearName: string; toYearName: string; undoable: boolean })[]
    >(
      `select r.id, r.changes, r.done_at as "doneAt", f.name as "fromYearName", t.name as "toYearName", not ${WORK_SINCE} as undoable
       from roll_over r join school_year f on f.id = r.from_year_id join school_year t on t.id = r.to_year_id
       where r.undone_at is null order by r.done_at desc limit 1`,
    )
    if (!row) return null
    const { moves } = row.changes
    const left = moves.filter(({ toClassId }) => toClassId === null).length
    return {
      id: row.id,
      fromYearName: row.fromYearName,
      toYearName: row.toYearName,
      doneAt: row.doneAt.toISOString(),
      moved: moves.length - left,
      left,
      undoable: row.undoable,
    }
  }

  /**
   * Takes the turn back.
   * @throws DomainError `school/roll-over-final` once a piece was made in a class of the new year
   */
  async undo(viewer: SignedIn, id: string): Promise<void> {
    await this.#platform.db.transaction(async (manager) => {
      // No piece may begin in between.
      await manager.query('lock table piece in share row exclusive mode')
      const row = await manager.findOneBy(RollOverRow, { id })
      if (!row || row.undoneAt) throw new DomainError('request/not-found')
      const [found] = await manager.query<{ work: boolean }[]>(
        `select ${WORK_SINCE} as work from roll_over r where r.id = $1`,
        [id],
      )
      if (found?.work) throw new DomainError('school/roll-over-final')
      const now = this.#platform.clock.now()
      const { moves, enrolled, putAway } = row.changes
      await manager.query(
        'delete from enrolment e using class c where c.id = e.class_id and c.school_year_id = $1 and e.person_id = any($2)',
        [row.toYearId, enrolled],
      )
      for (const { pupilId } of moves.filter(({ toClassId }) => toClassId === null))
        await manager.update(PersonRow, pupilId, { leftAt: null })
      await manager.query(
        'update folder set put_away_at = null, version = version + 1 where id = any($1)',
        [putAway],
      )
      await manager.update(RollOverRow, id, { undoneAt: now })
      await note(manager, now, viewer.personId, 'roll-over.undo', id)
    })
  }
}

const withIds = ({ pupils, ...one }: Class): OldClass => ({
  ...one,
  pupilIds: pupils.map(({ id }) => id),
})

/**
 * SQL: folders `f` that are for classes of one year alone; those of the whole school, and those
 * already for a later class, go on.
 */
const foldersOfYear = (
  yearId: string,
): Sql => sql`from folder f where not f.whole_school and f.put_away_at is null
  and exists (select 1 from folder_class h join class c on c.id = h.class_id where h.folder_id = f.id and c.school_year_id = ${yearId})
  and not exists (select 1 from folder_class h join class c on c.id = h.class_id where h.folder_id = f.id and c.school_year_id <> ${yearId})`

const WORK_SINCE = `exists (select 1 from piece p join class c on c.id = p.class_id where c.school_year_id = r.to_year_id)`
