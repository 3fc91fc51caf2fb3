import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { AuditRow } from '../accounts/rows.ts'

/** Notes in the school's audit trail, in the caller's transaction. */
export async function note(
  manager: EntityManager,
  happenedAt: Date,
  personId: string | null,
  action: string,
  subjectId: string | null,
): Promise<void> {
  await manager.insert(AuditRow, { id: newId(), happenedAt, personId, action, subjectId })
}
