/**
 * Letters of a name card's code: no I, L, O, Q, U, V, Z, so that none can be taken for a digit or
 * for another letter,
 * and no S or B, which a child's hand turns into 5 and 8.
 */
export const CARD_LETTERS = 'ACDEFGHJKMNPRTWXY'
export const CARD_CODE_LENGTH = 16
export const CARD_GROUP_LENGTH = 4

/**
 * Makes a card code from random bytes.
 * Bytes past the largest multiple of the alphabet's size are skipped, so every letter is equally
 * likely.
 * @param randomByte - Gives one byte (0..255) a call, from a cryptographic source.
 * @returns 16 letters without gaps; about 65 bits.
 */
export function makeCardCode(randomByte: () => number): string {
  const fair = 256 - (256 % CARD_LETTERS.length)
  let code = ''
  while (code.length < CARD_CODE_LENGTH) {
    const byte = randomByte()
    if (byte < fair) code += CARD_LETTERS.charAt(byte % CARD_LETTERS.length)
  }
  return code
}

/**
 * Reads what somebody typed as a card code: case, gaps, dashes and dots are forgiven.
 * @returns The 16 letters, or `null` when it cannot be a card code (wrong length or a letter no
 *   card has).
 */
export function readCardCode(typed: string): string | null {
  const letters = typed
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[\s\-–—._·]/g, '')
  if (letters.length !== CARD_CODE_LENGTH) return null
  return [...letters].every((letter) => CARD_LETTERS.includes(letter)) ? letters : null
}

/**
 * Writes a code the way it stands on the card: four groups of four letters. Works on a code being
 * typed, too.
 */
export function writeCardCode(code: string): string {
  const groups = code.match(new RegExp(`.{1,${CARD_GROUP_LENGTH}}`, 'gu')) ?? []
  return groups.join(' ')
}

/**
 * The first group, by which wrong tries are counted: it tells a card apart from its neighbours, not
 * what it opens.
 */
export function cardCodePrefix(code: string): string {
  return code.slice(0, CARD_GROUP_LENGTH)
}
