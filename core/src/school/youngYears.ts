/** The first years at school, as schools write them: "Reception", "Year 1", "Y2", "1". */
const YOUNG =
  /^\s*(nursery|reception|pre-?school|kindergarten|(year|y|grade|class)?\s*[012])(?![0-9])/i

/**
 * Whether the pupils of a year group mostly do not write yet: their class begins with pictures to
 * tap instead of words to type, until its teacher says otherwise.
 */
export const isYoungYearGroup = (yearGroup: string): boolean => YOUNG.test(yearGroup)
