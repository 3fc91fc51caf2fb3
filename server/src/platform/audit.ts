import type { EntityManager } from 'typeorm'
import { v7 as newId } from 'uuid'
import { id, json, maybe, moment, row, text } from './columns.ts'

/**
 * Who did what to what, for a school that has to answer for it. Ids and settings only, never names
 * or words of children; `details` says what was and what is, and why private words were opened.
 */
export type AuditRow = {
  id: string
  happenedAt: Date
  personId: string | null
  action: string
  subjectId: string | null
  details: Record<string, unknown> | null
}
export const AuditRow = row<AuditRow>(
  'audit',
  {
    id,
    happenedAt: moment,
    personId: maybe({ type: 'uuid' }),
    action: text,
    subjectId: maybe({ type: 'uuid' }),
    details: maybe(json),
  },
  { indices: [{ columns: ['happenedAt'] }, { columns: ['subjectId'] }] },
)

/** Notes in the school's audit trail, in the caller's transaction. */
export async function note(
  manager: EntityManager,
  happenedAt: Date,
  personId: string | null,
  action: string,
  subjectId: string | null,
  details: Record<string, unknown> | null = null,
): Promise<void> {
  // As text: TypeORM would take an object for one of its own expressions.
  await manager.query(
    'insert into audit (id, happened_at, person_id, action, subject_id, details) values ($1, $2, $3, $4, $5, $6)',
    [newId(), happenedAt, personId, action, subjectId, details && JSON.stringify(details)],
  )
}
