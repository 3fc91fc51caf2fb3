import {
  CardCode,
  CardSignIn,
  ChoosePassword,
  Done,
  DONE,
  FirstRun,
  IdParams,
  InvitationSignIn,
  LinkParams,
  PasswordLink,
  PasswordSignIn,
  PrintCards,
  Session,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { parse as parseCookie, serialize as writeCookie } from 'cookie'
import { Router, type RequestHandler, type Request, type Response } from 'express'
import type { Guard } from '../access/guard.ts'
import type { Platform } from '../platform/platform.ts'
import { answer, read, rememberViewer, signedIn, staff } from '../platform/routes.ts'
import type { Accounts } from './accounts.ts'
import { drawCards } from './drawCards.ts'
import { strings } from './strings.ts'

const COOKIE = 'nibquill'
const YEAR_SECONDS = 365 * 24 * 3600
const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/** Finds out who asks. */
export function sessionMiddleware(accounts: Accounts): RequestHandler {
  return async (request, _response, next) => {
    const token = parseCookie(request.headers.cookie ?? '')[COOKIE]
    const viewer = token ? await accounts.findSession(token) : null
    if (viewer) rememberViewer(request, viewer)
    next()
  }
}

/** A request that changes something must come from Nibquill's own pages. @see OWASP CSRF Prevention, "Verifying Origin" */
export function originMiddleware(platform: Platform): RequestHandler {
  return (request, _response, next) => {
    if (!CHANGES.has(request.method)) return next()
    const { origin, host } = request.headers
    const own = [platform.config.publicUrl, `http://${host}`, `https://${host}`]
    next(origin && own.includes(origin) ? undefined : new DomainError('accounts/origin-refused'))
  }
}

export function accountsRoutes(guard: Guard, accounts: Accounts): Router {
  const router = Router()
  const addressOf = (request: Request) => request.ip ?? 'unknown'
  const setCookie = (request: Request, response: Response, value: string, maxAge: number) =>
    response.append(
      'Set-Cookie',
      writeCookie(COOKIE, value, { httpOnly: true, sameSite: 'lax', secure: request.secure, path: '/', maxAge }),
    )
  const letIn = async (request: Request, response: Response, token: string) => {
    setCookie(request, response, token, YEAR_SECONDS)
    answer(response, Session, await accounts.describe(await accounts.findSession(token)))
  }

  router.get('/session', async (request, response) => {
    response.set('Cache-Control', 'no-store')
    answer(response, Session, await accounts.describe(signedIn(request)))
  })
  router.post('/sign-in/card', async (request, response) => {
    await letIn(request, response, await accounts.signInByCard(read(CardSignIn, request.body), addressOf(request)))
  })
  router.post('/sign-in/password', async (request, response) => {
    await letIn(request, response, await accounts.signInByPassword(read(PasswordSignIn, request.body), addressOf(request)))
  })
  router.post('/sign-in/invitation', async (request, response) => {
    const { token } = read(InvitationSignIn, request.body)
    await letIn(request, response, await accounts.signInByInvitation(token, addressOf(request)))
  })
  router.get('/password-links/:token', async (request, response) => {
    const { token } = read(LinkParams, request.params)
    answer(response, PasswordLink, await accounts.describePasswordLink(token, addressOf(request)))
  })
  router.post('/password-links/:token', async (request, response) => {
    const { token } = read(LinkParams, request.params)
    await letIn(request, response, await accounts.choosePassword(token, read(ChoosePassword, request.body), addressOf(request)))
  })
  router.post('/sign-out', async (request, response) => {
    const viewer = signedIn(request)
    if (viewer) await accounts.signOut(viewer)
    setCookie(request, response, '', 0)
    answer(response, Done, DONE)
  })
  router.post('/cards', async (request, response) => {
    const order = read(PrintCards, request.body)
    if ('classId' in order) await guard.schoolClass(signedIn(request), 'class.enrol', order.classId)
    else await guard.pupil(signedIn(request), 'pupil.change', order.pupilId)
    const cards = await accounts.renewNameCards(staff(request), order)
    if (cards.length === 0) throw new DomainError('accounts/no-cards')
    response.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': 'attachment; filename="name-cards.pdf"' })
    const { school } = await accounts.describe(signedIn(request))
    await drawCards(cards, strings.cards(school?.name ?? ''), school?.name ?? '', response)
  })
  router.post('/pupils/:id/card', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.pupil(signedIn(request), 'pupil.change', id)
    answer(response, CardCode, { code: await accounts.renewNameCard(staff(request), id) })
  })
  router.post('/first-run', async (request, response) => {
    await letIn(request, response, await accounts.setUp(read(FirstRun, request.body)))
  })
  return router
}
