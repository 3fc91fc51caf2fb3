import { sql, type Sql } from '../platform/sql.ts'

/** SQL: the school day of a moment, by the school's own clock, whatever the database's. */
export const schoolDayOf = (moment: Date): Sql =>
  sql`(${moment}::timestamptz at time zone (select time_zone from school limit 1))::date`
