import { sql, type Sql } from '../platform/sql.ts'
import { schoolDayOf } from './schoolDayOf.ts'

/**
 * SQL: a person's class `c` of the newest school year that has begun, else of the first to come.
 * @param person - Their id, or a column.
 */
export const classOfPerson = (person: string | Sql, now: Date): Sql =>
  sql`from enrolment e join class c on c.id = e.class_id join school_year y on y.id = c.school_year_id where e.person_id = ${person}
   order by (y.starts_on <= ${schoolDayOf(now)}) desc, case when y.starts_on <= ${schoolDayOf(now)} then y.starts_on end desc, y.starts_on, c.name limit 1`
