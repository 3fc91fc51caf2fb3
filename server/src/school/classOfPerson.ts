import { schoolDayOf } from './schoolDayOf.ts'

/**
 * SQL: a person's class of the newest school year that has begun, else of the first to come.
 * @param now - A moment, `$2` unless named.
 */
export const classOfPerson = (person = '$1', now = '$2') =>
  `from enrolment e join class c on c.id = e.class_id join school_year y on y.id = c.school_year_id where e.person_id = ${person}
   order by (y.starts_on <= ${schoolDayOf(now)}) desc, case when y.starts_on <= ${schoolDayOf(now)} then y.starts_on end desc, y.starts_on, c.name limit 1`
