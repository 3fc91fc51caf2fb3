import sql, { empty, raw, type Sql } from 'sql-template-tag'
import type { EntityManager } from 'typeorm'

/**
 * SQL whose fragments carry their own values: put together in any order, they number themselves.
 * What is written between `${` and `}` is sent as a value, unless it is `sql` or `raw` itself.
 */
export { empty, raw, sql, type Sql }

/**
 * Asks for rows.
 * @param statement - A whole query.
 */
export function ask<Row>(manager: EntityManager, statement: Sql): Promise<Row[]> {
  return manager.query<Row[]>(statement.text, statement.values)
}
