/** Lengths are whole hundredths of a millimetre on paper: a centimetre stays one, on paper too. */
export const UNITS_PER_MM = 100

/** What a new sheet measures: about a tablet, and no wider than a page of the book, where it prints in its size. */
export const SHEET_SIZE = { width: 160 * UNITS_PER_MM, height: 120 * UNITS_PER_MM } as const
