import type { TakenList } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ClassListRow, type ListChanges } from './rows.ts'
import type { School } from './school.ts'

const SHOWN = 20

/** Lists that were taken over, and taking one back whole. */
export class TakenLists {
  readonly #platform: Platform
  readonly #school: School
  constructor(platform: Platform, school: School) {
    this.#platform = platform
    this.#school = school
  }

  /** The latest: those one asked for oneself; whoever leads sees everybody's. */
  async list(viewer: SignedIn): Promise<TakenList[]> {
    const rows = await this.#platform.db.manager.query<
      (Omit<TakenList, 'takenAt'> & { takenAt: Date })[]
    >(
      `select l.id, l.state, l.created_at as "takenAt", trim(p.first_name || ' ' || p.last_name) as by,
         coalesce(jsonb_array_length(l.changes->'added'), 0) as added, coalesce(jsonb_array_length(l.changes->'changed'), 0) as changed,
         l.state in ('done', 'failed') and l.changes is not null as "mayTakeBack"
       from class_list l join person p on p.id = l.asked_by
       where l.state <> 'shown' and l.school_id = $1 and ($3 or l.asked_by = $2) order by l.created_at desc, l.id desc limit ${SHOWN}`,
      [viewer.schoolId, viewer.personId, viewer.leads || viewer.role === 'office'],
    )
    return rows.map((row) => ({ ...row, takenAt: row.takenAt.toISOString() }))
  }

  /** Whom one must be allowed to enrol to take a list back. @throws DomainError `request/not-found` */
  async reachOf(
    viewer: SignedIn,
    id: string,
  ): Promise<{ classIds: string[]; newClasses: boolean }> {
    const row = await this.#platform.db.manager.findOneBy(ClassListRow, {
      id,
      schoolId: viewer.schoolId,
    })
    if (!row) throw new DomainError('request/not-found')
    const fresh = new Set(row.plan.newClasses.map((one) => one.id))
    const all = row.plan.steps.map(({ classId }) => classId)
    const before = (row.changes?.changed ?? []).flatMap((one) => one.before.classId ?? [])
    return {
      classIds: [...new Set([...all, ...before])].filter((classId) => !fresh.has(classId)),
      newClasses: fresh.size > 0,
    }
  }

  /**
   * Takes a list back: whom it added goes, whom it changed is as before unless changed since, the
   * classes it made go where nothing is in them.
   * @throws DomainError `request/not-found`; `school/list-used` unless it was taken over;
   *   `school/list-lived` with how many have been at their desks or have a family
   */
  async takeBack(viewer: SignedIn, id: string): Promise<TakenList[]> {
    await this.#platform.db.transaction(async (manager) => {
      const row = await manager.findOne(ClassListRow, {
        where: { id, schoolId: viewer.schoolId },
        lock: { mode: 'pessimistic_write' },
      })
      const own = row?.askedBy === viewer.personId
      if (!row || !(own || viewer.leads || viewer.role === 'office'))
        throw new DomainError('request/not-found')
      if ((row.state !== 'done' && row.state !== 'failed') || !row.changes)
        throw new DomainError('school/list-used')
      await this.#removeAdded(manager, row.changes.added)
      for (const change of row.changes.changed) await this.#restore(manager, change)
      await manager.query(
        `delete from class c where c.id = any($1::uuid[]) and not exists (select 1 from enrolment e where e.class_id = c.id)
           and not exists (select 1 from task t where t.class_id = c.id) and not exists (select 1 from piece p where p.class_id = c.id)
           and not exists (select 1 from folder_class f where f.class_id = c.id)`,
        [row.plan.newClasses.map((one) => one.id)],
      )
      await manager.update(ClassListRow, id, { state: 'taken-back' })
      await note(manager, this.#platform.clock.now(), viewer.personId, 'class.take-back-list', id)
      await tell(manager, [row.askedBy, viewer.personId], { topic: 'school' })
    })
    return this.list(viewer)
  }

  async #removeAdded(manager: EntityManager, added: readonly string[]): Promise<void> {
    const [lived] = await manager.query<{ count: number }[]>(
      `select count(*)::int as count from person p where p.id = any($1::uuid[]) and (p.last_seen_at is not null
         or exists (select 1 from guardian g where g.pupil_id = p.id) or exists (select 1 from guardian_request g where g.pupil_id = p.id)
         or exists (select 1 from piece_maker m where m.person_id = p.id) or exists (select 1 from version_maker m where m.person_id = p.id)
         or exists (select 1 from folder f where f.owner_id = p.id) or exists (select 1 from media m where m.owner_id = p.id))`,
      [added],
    )
    if (lived?.count) throw new DomainError('school/list-lived', { count: lived.count })
    await manager.query('delete from person where id = any($1::uuid[])', [added])
  }

  async #restore(
    manager: EntityManager,
    { id, before, after }: ListChanges['changed'][number],
  ): Promise<void> {
    await manager.query(
      `update person set first_name = $2, last_name = $3, external_id = $4
       where id = $1 and first_name = $5 and last_name = $6 and external_id is not distinct from $7`,
      [
        id,
        ...[before.firstName, before.lastName, before.externalId],
        ...[after.firstName, after.lastName, after.externalId],
      ],
    )
    const moved = before.classId !== after.classId
    const isStillThere = await manager.query<unknown[]>(
      'select 1 from enrolment where person_id = $1 and class_id = $2',
      [id, after.classId],
    )
    if (!moved || isStillThere.length === 0) return
    if (before.classId) await this.#school.movePupil(manager, id, before.classId)
    else
      await manager.query('delete from enrolment where person_id = $1 and class_id = $2', [
        id,
        after.classId,
      ])
  }
}
