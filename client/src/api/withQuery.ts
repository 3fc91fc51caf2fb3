/** An address that asks for more: words that are empty are left out. */
export function withQuery(address: string, words: Record<string, string>): string {
  // Written out: tablets of three years ago do not know how many words a query has.
  const query = String(new URLSearchParams(Object.entries(words).filter(([, word]) => word !== '')))
  return query === '' ? address : `${address}?${query}`
}
