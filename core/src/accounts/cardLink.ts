import { readCardCode } from './cardCode.ts'

/**
 * What a camera read: a card of this school with its 16 letters, a card of another school, or
 * something else altogether.
 */
export type ScannedCard = { kind: 'card'; code: string } | { kind: 'elsewhere' } | { kind: 'other' }

const SIGN_IN_PATH = '/sign-in'

/**
 * What the QR code of a card says. The part after `#` never reaches a server or its log.
 * @param site - Address of this Nibquill without a slash at its end.
 */
export const writeCardLink = (site: string, code: string): string =>
  `${site}${SIGN_IN_PATH}#${code}`

/**
 * Reads what a QR code said.
 * A card of another school is told by its address, and its code goes no further: it is that
 * school's secret.
 * @param sites - Addresses under which this Nibquill is known.
 */
export function readCardLink(text: string, sites: readonly string[]): ScannedCard {
  const bare = readCardCode(text)
  if (bare) return { kind: 'card', code: bare }
  const url = urlOf(text)
  if (!url) return { kind: 'other' }
  if (url.protocol !== 'https:' && url.protocol !== 'http:') return { kind: 'other' }
  const code = readCardCode(fragmentOf(url))
  if (!code || !url.pathname.endsWith(SIGN_IN_PATH)) return { kind: 'other' }
  const site = url.origin + url.pathname.slice(0, -SIGN_IN_PATH.length)
  return sites.some((own) => own.replace(/\/$/, '') === site)
    ? { kind: 'card', code }
    : { kind: 'elsewhere' }
}

/** `URL.canParse` is not known to tablets of three years ago. */
function urlOf(text: string): URL | null {
  try {
    return new URL(text)
  } catch {
    return null
  }
}

function fragmentOf(url: URL): string {
  try {
    return decodeURIComponent(url.hash.slice(1))
  } catch {
    return ''
  }
}
