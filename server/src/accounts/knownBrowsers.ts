import type { Request, Response } from 'express'
import { timingSafeEqual } from 'node:crypto'
import type { Secrets } from '../platform/secrets.ts'
import { addressOf, cookieOf, setCookie } from './cookies.ts'

/** That somebody came in with this browser before; says not who. */
const KNOWN_COOKIE = 'nibquill-known'
const ID_LETTERS = 22

/**
 * Browsers somebody came in with before count their wrong tries apart. A whole school shares one
 * address: whoever tries codes
 * without end there keeps out strangers, but none of its tablets.
 * @see OWASP, Slow Down Online Guessing Attacks with Device Cookies
 */
export class KnownBrowsers {
  readonly #secrets: Secrets
  constructor(secrets: Secrets) {
    this.#secrets = secrets
  }

  /** What a request's wrong tries are counted by, as `SignInLimits` takes it. */
  countedBy(request: Request): string {
    const id = this.#idOf(request)
    return id ? `browser:${id}` : `address:${addressOf(request)}`
  }

  /** Somebody came in: from now on this browser is known. */
  remember(request: Request, response: Response): void {
    if (this.#idOf(request)) return
    const id = this.#secrets.token().slice(0, ID_LETTERS)
    setCookie(
      request,
      response,
      KNOWN_COOKIE,
      `${id}.${this.#secrets.tokenFor('known-browser', id)}`,
    )
  }

  /** Null for a cookie nobody here has signed. */
  #idOf(request: Request): string | null {
    const [id, signature] = (cookieOf(request, KNOWN_COOKIE) ?? '').split('.')
    if (id?.length !== ID_LETTERS || !signature) return null
    const [given, right] = [
      Buffer.from(signature),
      Buffer.from(this.#secrets.tokenFor('known-browser', id)),
    ]
    return given.length === right.length && timingSafeEqual(given, right) ? id : null
  }
}
