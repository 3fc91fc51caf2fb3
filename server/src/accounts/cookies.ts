import { parse as parseCookie, serialize as writeCookie } from 'cookie'
import type { Request, Response } from 'express'
import type { Caller } from './doors.ts'

/** Who is signed in on this browser. */
export const SESSION_COOKIE = 'nibquill'
/** Which class's pegs hang on this tablet. */
export const TABLET_COOKIE = 'nibquill-tablet'
const YEAR_SECONDS = 365 * 24 * 3600

export const cookieOf = (request: Request, name: string): string | undefined =>
  parseCookie(request.headers.cookie ?? '')[name]
/**
 * What the browser calls itself. Versions are left out, so that a browser's update signs nobody
 * out.
 */
export const browserOf = (request: Request): string =>
  (request.headers['user-agent'] ?? '').replaceAll(/[\d._]+/g, '')
export const addressOf = (request: Request): string => request.ip ?? 'unknown'

export const callerOf = (request: Request): Caller => ({
  browser: browserOf(request),
  address: addressOf(request),
})

/** Out of reach of scripts, and of other sites. */
export function setCookie(
  request: Request,
  response: Response,
  name: string,
  value: string,
  maxAge = YEAR_SECONDS,
): void {
  response.append(
    'Set-Cookie',
    writeCookie(name, value, {
      httpOnly: true,
      sameSite: 'lax',
      secure: request.secure,
      path: '/',
      maxAge,
    }),
  )
}
export const clearCookie = (request: Request, response: Response, name: string): void =>
  setCookie(request, response, name, '', 0)
