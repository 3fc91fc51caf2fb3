/**
 * The name of the lock that whoever copies the school's files holds: nothing goes away meanwhile.
 */
export const KEEPING = 'keeping'
