/** As the URL standard writes it out: a printed code holds no more. @see ISO/IEC 18004, level M */
export const MAX_ADDRESS_LENGTH = 2000

export type AddressFault = 'empty' | 'not-web' | 'credentials' | 'no-host' | 'too-long'
/** `host`: as it is shown, without what every address begins with. */
export type LinkAddress = { address: string; host: string }

/**
 * Reads the address of a page in the web as somebody typed it: without http(s) it is taken as https.
 * @returns the address as the URL standard writes it; or why it is none: another scheme, a name and
 *   password in it, or no host a browser would find in the web, or too long
 * @see url.spec.whatwg.org
 */
export function readAddress(typed: string): LinkAddress | AddressFault {
  const text = typed.trim()
  if (text === '') return 'empty'
  if (/\s/.test(text)) return 'not-web'
  const scheme = /^([a-z][a-z0-9+.-]*):(?!\d)/i.exec(text)?.[1]?.toLowerCase()
  if (scheme !== undefined && scheme !== 'http' && scheme !== 'https') return 'not-web'
  const url = parse(scheme === undefined ? `https://${text}` : text)
  if (!url) return 'not-web'
  if (url.username !== '' || url.password !== '') return 'credentials'
  if (url.href.length > MAX_ADDRESS_LENGTH) return 'too-long'
  if (!/^[^.]+(\.[^.]+)+$/.test(url.hostname) || /^[\d.]+$/.test(url.hostname)) return 'no-host'
  return { address: url.href, host: url.hostname.replace(/^www\./, '') }
}

function parse(text: string): URL | null {
  try {
    return new URL(text)
  } catch {
    return null
  }
}

/** The host of an address that was read before. */
export const hostOf = (address: string): string => {
  const read = readAddress(address)
  return typeof read === 'string' ? address : read.host
}
