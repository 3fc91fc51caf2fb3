/** Where a finished book is stored. */
export const bookKey = (bookId: string): string => `${bookId}.pdf`
