/** Letters that carry no mark to be taken off, as others type them. */
const PLAIN: Record<string, string> = {
  ...{ ł: 'l', ø: 'o', đ: 'd', ð: 'd', þ: 'th', ß: 'ss', æ: 'ae', œ: 'oe', ı: 'i', ħ: 'h' },
  '’': "'",
}

/**
 * A name as it is looked for: without accents, capitals and doubled spaces, so that `nandu` finds
 * `Ñandú`.
 * @see Unicode Standard Annex 15, canonical decomposition
 */
export const foldName = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()
    .replace(/[łøđðþßæœıħ’]/g, (letter) => PLAIN[letter]!)
    .replace(/\s+/g, ' ')
    .trim()
