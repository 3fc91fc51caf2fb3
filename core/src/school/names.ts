/** A first or a last name; in letters. */
export const MAX_NAME_LENGTH = 60
