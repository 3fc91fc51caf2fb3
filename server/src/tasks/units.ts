import type { PutUnit, Unit } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { note } from '../platform/audit.ts'
import { makeOrFind } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { ask, sql } from '../platform/sql.ts'
import type { SignedIn } from '../platform/routes.ts'
import { TaskRow, UnitRow } from './rows.ts'
import { schoolDayOf } from '../school/schoolDayOf.ts'

/** Runs of tasks taught together. */
export class Units {
  readonly #platform: Platform
  constructor(platform: Platform) {
    this.#platform = platform
  }

  /** Of the classes a teacher teaches or taught, newest year first; all for whoever leads. */
  async list(viewer: SignedIn): Promise<Unit[]> {
    return ask(
      this.#platform.db.manager,
      sql`select u.id, u.title, u.class_id as "classId", c.name as "className", y.name as "yearName",
         y.ends_on >= ${schoolDayOf(this.#platform.clock.now())} as running, (select count(*)::int from task t where t.unit_id = u.id) as "taskCount"
       from unit u join class c on c.id = u.class_id join school_year y on y.id = c.school_year_id
       where y.school_id = ${viewer.schoolId} and (${viewer.leads} or exists (select 1 from enrolment e where e.class_id = c.id and e.person_id = ${viewer.personId}))
       order by y.starts_on desc, u.created_at desc`,
    )
  }

  async classOf(unitId: string): Promise<string> {
    const unit = await this.#platform.db.manager.findOneBy(UnitRow, { id: unitId })
    // As the guard answers for a class one has nothing to do with.
    if (!unit) throw new DomainError('request/not-found')
    return unit.classId
  }

  /** Makes or renames. */
  async put(viewer: SignedIn, unitId: string, { classId, title }: PutUnit): Promise<Unit[]> {
    const now = this.#platform.clock.now()
    await this.#platform.db.transaction(async (manager) => {
      await makeOrFind(manager, UnitRow, unitId, {
        found: async (there) => {
          if (there.classId !== classId) throw new DomainError('task/not-found')
          await manager.update(UnitRow, unitId, { title })
        },
        make: async () => {
          await manager.insert(UnitRow, { id: unitId, classId, title, createdAt: now })
        },
      })
      await note(manager, now, viewer.personId, 'unit.put', unitId)
    })
    return this.list(viewer)
  }

  /** Dissolves a unit: its tasks stay, on their own. */
  async dissolve(viewer: SignedIn, unitId: string): Promise<Unit[]> {
    await this.#platform.db.transaction(async (manager) => {
      await manager.update(TaskRow, { unitId }, { unitId: null })
      await manager.delete(UnitRow, unitId)
      await note(manager, this.#platform.clock.now(), viewer.personId, 'unit.dissolve', unitId)
    })
    return this.list(viewer)
  }
}
