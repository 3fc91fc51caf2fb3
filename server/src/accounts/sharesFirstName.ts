/**
 * SQL: whether a classmate, of this year or an earlier one, has the same first name.
 * @param pupil - Alias of a `person` row
 */
export const sharesFirstName = (pupil: string): string =>
  `exists (select 1 from enrolment mine join enrolment theirs on theirs.class_id = mine.class_id join person other on other.id = theirs.person_id
     where mine.person_id = ${pupil}.id and other.id <> ${pupil}.id and other.role = 'pupil' and other.left_at is null
       and lower(other.first_name) = lower(${pupil}.first_name))`
