/**
 * SQL: the school day of a moment, by the school's own clock, whatever the database's.
 * @param moment - A parameter or column.
 */
export const schoolDayOf = (moment: string): string =>
  `(${moment}::timestamptz at time zone (select time_zone from school limit 1))::date`
