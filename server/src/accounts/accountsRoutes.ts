import {
  CardCode,
  CardSheet,
  CardSheets,
  CardSignIn,
  ChangeDoor,
  ChangePassword,
  ChoosePassword,
  ClassDoor,
  ConfirmOneTimeCode,
  Done,
  DONE,
  FirstRun,
  GivePassword,
  IdParams,
  InvitationLook,
  InvitationSignIn,
  LinkParams,
  MailCodeSignIn,
  MailMe,
  OneTimeCodeState,
  OneTimeSecret,
  PartOfClassParams,
  PasswordLink,
  PasswordSignIn,
  PegSignIn,
  PegWall,
  PrintCards,
  PupilSecrets,
  Session,
  SpareCodes,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type RequestHandler, type Request, type Response } from 'express'
import type { Guard } from '../access/guard.ts'
import type { Platform } from '../platform/platform.ts'
import { answer, read, rememberViewer, signedIn, staff } from '../platform/routes.ts'
import type { Accounts } from './accounts.ts'
import type { CardSheets as Sheets } from './cardSheets.ts'
import {
  addressOf,
  browserOf,
  callerOf,
  clearCookie,
  cookieOf,
  SESSION_COOKIE,
  setCookie,
  TABLET_COOKIE,
} from './cookies.ts'
import type { Doors } from './doors.ts'
import { drawDoorCard } from './drawDoorCard.ts'
import type { KnownBrowsers } from './knownBrowsers.ts'
import type { NameCards } from './nameCards.ts'
import type { OneTimeCodes } from './oneTimeCodes.ts'
import type { ParentDoor } from './parentDoor.ts'
import type { Passwords } from './passwords.ts'
import type { PictureSecrets } from './pictureSecrets.ts'
import type { Sessions } from './sessions.ts'

/** What the routes of this folder are made of. */
export type AccountServices = {
  guard: Guard
  accounts: Accounts
  sessions: Sessions
  knownBrowsers: KnownBrowsers
  nameCards: NameCards
  cardSheets: Sheets
  doors: Doors
  pictureSecrets: PictureSecrets
  passwords: Passwords
  oneTimeCodes: OneTimeCodes
  parentDoor: ParentDoor
}

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE'])

/** Finds out who asks. */
export function sessionMiddleware(sessions: Sessions): RequestHandler {
  return async (request, _response, next) => {
    const token = cookieOf(request, SESSION_COOKIE)
    const viewer = token ? await sessions.find(token, browserOf(request)) : null
    if (viewer) rememberViewer(request, viewer)
    next()
  }
}

/**
 * A request that changes something must come from Nibquill's own pages.
 * @see OWASP CSRF Prevention, "Verifying Origin"
 */
export function originMiddleware(platform: Platform): RequestHandler {
  return (request, _response, next) => {
    if (!CHANGES.has(request.method)) return next()
    const { origin, host } = request.headers
    const own = [platform.config.publicUrl, `http://${host}`, `https://${host}`]
    next(origin && own.includes(origin) ? undefined : new DomainError('accounts/origin-refused'))
  }
}

export function accountsRoutes(services: AccountServices): Router {
  const router = Router()
  router.use(
    arrivingRoutes(services),
    doorRoutes(services),
    cardRoutes(services),
    passwordRoutes(services),
  )
  return router
}

/** What every way in ends with: the browser is known, and whoever was here before has left. */
function comingIn({ accounts, sessions, knownBrowsers, doors }: AccountServices) {
  const tabletOf = async (request: Request) => {
    const token = cookieOf(request, TABLET_COOKIE)
    return token ? doors.findTablet(token, browserOf(request)) : null
  }
  const letIn = async (request: Request, response: Response, token: string) => {
    // Whoever was here before is not here any more.
    const before = signedIn(request)
    if (before) await sessions.end(before, 'signed-in-again')
    setCookie(request, response, SESSION_COOKIE, token)
    knownBrowsers.remember(request, response)
    answer(
      response,
      Session,
      await accounts.describe(
        await sessions.find(token, browserOf(request)),
        await tabletOf(request),
      ),
    )
  }
  return { countedBy: (request: Request) => knownBrowsers.countedBy(request), tabletOf, letIn }
}

/** Coming in, being in, going out. */
function arrivingRoutes(services: AccountServices): Router {
  const { accounts, sessions } = services
  const { tabletOf, letIn } = comingIn(services)
  const router = Router()
  router.get('/session', async (request, response) => {
    response.set('Cache-Control', 'no-store')
    answer(response, Session, await accounts.describe(signedIn(request), await tabletOf(request)))
  })
  router.use(signInRoutes(services), passwordLinkRoutes(services))
  router.post('/sign-out', async (request, response) => {
    const viewer = signedIn(request)
    if (viewer) await sessions.end(viewer)
    clearCookie(request, response, SESSION_COOKIE)
    answer(response, Done, DONE)
  })
  router.post('/first-run', async (request, response) => {
    await letIn(
      request,
      response,
      await accounts.setUp(read(FirstRun, request.body), browserOf(request)),
    )
  })
  return router
}

function signInRoutes(services: AccountServices): Router {
  const { accounts, sessions, knownBrowsers, doors, passwords, parentDoor } = services
  const { countedBy, tabletOf, letIn } = comingIn(services)
  const router = Router()
  router.post('/sign-in/card', async (request, response) => {
    const browser = browserOf(request)
    const card = read(CardSignIn, request.body)
    const opened = await accounts.useCard(
      card,
      callerOf(request),
      countedBy(request),
      cookieOf(request, TABLET_COOKIE),
    )
    if ('session' in opened) return letIn(request, response, opened.session)
    // Whoever was here before is not here any more: the tablet belongs to the class now.
    const viewer = signedIn(request)
    if (viewer) await sessions.end(viewer, 'signed-in-again')
    clearCookie(request, response, SESSION_COOKIE)
    setCookie(request, response, TABLET_COOKIE, opened.tablet)
    knownBrowsers.remember(request, response)
    answer(
      response,
      Session,
      await accounts.describe(null, await doors.findTablet(opened.tablet, browser)),
    )
  })
  router.get('/pegs', async (request, response) => {
    const tablet = await tabletOf(request)
    if (!tablet) throw new DomainError('accounts/no-tablet')
    answer(response, PegWall, await doors.listPegs(tablet, addressOf(request)))
  })
  router.post('/sign-in/peg', async (request, response) => {
    const { pupilId, secret } = read(PegSignIn, request.body)
    const tablet = await tabletOf(request)
    if (!tablet) throw new DomainError('accounts/no-tablet')
    await letIn(
      request,
      response,
      await doors.signInByPeg(tablet, pupilId, secret, callerOf(request)),
    )
  })
  router.post('/sign-in/password', async (request, response) => {
    const input = read(PasswordSignIn, request.body)
    await letIn(
      request,
      response,
      await passwords.signIn(input, countedBy(request), browserOf(request)),
    )
  })
  router.post('/sign-in/invitation', async (request, response) => {
    const { token } = read(InvitationSignIn, request.body)
    await letIn(
      request,
      response,
      await parentDoor.signInByInvitation(token, countedBy(request), browserOf(request)),
    )
  })
  router.post('/invitation', async (request, response) => {
    const { token } = read(InvitationSignIn, request.body)
    answer(response, InvitationLook, await parentDoor.lookAtInvitation(token, countedBy(request)))
  })
  router.post('/mail-codes', async (request, response) => {
    await parentDoor.sendCode(read(MailMe, request.body).email, countedBy(request))
    answer(response, Done, DONE)
  })
  router.post('/sign-in/mail-code', async (request, response) => {
    const { email, code } = read(MailCodeSignIn, request.body)
    await letIn(
      request,
      response,
      await parentDoor.signInByCode(email, code, countedBy(request), browserOf(request)),
    )
  })
  return router
}

function passwordLinkRoutes(services: AccountServices): Router {
  const { accounts, passwords } = services
  const { countedBy, tabletOf, letIn } = comingIn(services)
  const router = Router()
  router.get('/password-links/:token', async (request, response) => {
    const { token } = read(LinkParams, request.params)
    answer(response, PasswordLink, await passwords.describeLink(token, countedBy(request)))
  })
  router.post('/password-links/:token', async (request, response) => {
    const { token } = read(LinkParams, request.params)
    const chosen = read(ChoosePassword, request.body)
    const session = await passwords.choose(token, chosen, countedBy(request), browserOf(request))
    if (session) return letIn(request, response, session)
    clearCookie(request, response, SESSION_COOKIE)
    answer(response, Session, await accounts.describe(null, await tabletOf(request)))
  })
  return router
}

/** A class's door as its teacher keeps it. */
function doorRoutes({ guard, accounts, sessions, doors, pictureSecrets }: AccountServices): Router {
  const router = Router()
  const ofClass = async (request: Request) => {
    const { id } = read(IdParams, request.params)
    await guard.schoolClass(signedIn(request), 'class.door', id)
    return id
  }
  router.get('/classes/:id/door', async (request, response) =>
    answer(response, ClassDoor, await doors.describe(await ofClass(request))),
  )
  router.patch('/classes/:id/door', async (request, response) => {
    const id = await ofClass(request)
    answer(
      response,
      ClassDoor,
      await doors.change(staff(request), id, read(ChangeDoor, request.body), addressOf(request)),
    )
  })
  router.post('/classes/:id/door/card', async (request, response) => {
    const id = await ofClass(request)
    const { code, address } = await doors.renewCard(staff(request), id)
    const { school } = await accounts.describe(null, null)
    sendPdf(response, 'door-card.pdf')
    await drawDoorCard(
      { className: await doors.nameOf(id), schoolName: school?.name ?? '', code, address },
      response,
    )
  })
  router.delete('/classes/:id/sessions', async (request, response) => {
    const id = await ofClass(request)
    await sessions.endOfClass(staff(request), id, null)
    answer(response, ClassDoor, await doors.describe(id))
  })
  router.delete('/classes/:id/sessions/:part', async (request, response) => {
    const id = await ofClass(request)
    await sessions.endOfClass(staff(request), id, read(PartOfClassParams, request.params).part)
    answer(response, ClassDoor, await doors.describe(id))
  })
  router.delete('/classes/:id/tablets/:part', async (request, response) => {
    const id = await ofClass(request)
    await doors.endTablet(staff(request), id, read(PartOfClassParams, request.params).part)
    answer(response, ClassDoor, await doors.describe(id))
  })
  router.get('/classes/:id/secrets', async (request, response) =>
    answer(response, PupilSecrets, await pictureSecrets.list(await ofClass(request))),
  )
  router.post('/classes/:id/secrets/:part', async (request, response) => {
    const id = await ofClass(request)
    const { part } = read(PartOfClassParams, request.params)
    await guard.pupil(signedIn(request), 'pupil.change', part)
    await pictureSecrets.renew(staff(request), part)
    answer(response, PupilSecrets, await pictureSecrets.list(id))
  })
  return router
}

function cardRoutes({ guard, nameCards, cardSheets }: AccountServices): Router {
  const router = Router()
  const demandRight = async (
    request: Request,
    { classId, pupilId }: { classId?: string | null; pupilId?: string | null },
  ) => {
    if (classId) await guard.schoolClass(signedIn(request), 'class.enrol', classId)
    else await guard.pupil(signedIn(request), 'pupil.change', pupilId!)
  }
  router.post('/cards', async (request, response) => {
    const order = read(PrintCards, request.body)
    await demandRight(request, order)
    answer(response, CardSheet, await cardSheets.ask(staff(request), order), 202)
  })
  router.get('/cards', async (request, response) =>
    answer(response, CardSheets, await cardSheets.listOf(staff(request))),
  )
  router.get('/cards/:id', async (request, response) => {
    answer(
      response,
      CardSheet,
      await cardSheets.describe(staff(request), read(IdParams, request.params).id),
    )
  })
  router.get('/cards/:id/file', async (request, response) => {
    const { id } = read(IdParams, request.params)
    // Whoever asked for it may have left the class since.
    await demandRight(request, await cardSheets.describe(staff(request), id))
    const pdf = await cardSheets.read(staff(request), id)
    sendPdf(response, 'name-cards.pdf')
    response.send(pdf)
  })
  router.post('/pupils/:id/card', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.pupil(signedIn(request), 'pupil.change', id)
    answer(response, CardCode, { code: await nameCards.renew(staff(request), id) })
  })
  return router
}

/** One's own way in, for staff. */
function passwordRoutes({ knownBrowsers, passwords, oneTimeCodes }: AccountServices): Router {
  const router = Router()
  const countedBy = (request: Request) => knownBrowsers.countedBy(request)
  router.post('/password-forgotten', async (request, response) => {
    await passwords.forgotten(read(MailMe, request.body).email, countedBy(request))
    answer(response, Done, DONE)
  })
  router.post('/password', async (request, response) => {
    await passwords.change(staff(request), read(ChangePassword, request.body), countedBy(request))
    answer(response, Done, DONE)
  })
  router.get('/one-time-codes', async (request, response) =>
    answer(response, OneTimeCodeState, await oneTimeCodes.describe(staff(request))),
  )
  router.post('/one-time-codes/begin', async (request, response) => {
    await passwords.confirm(
      staff(request),
      read(GivePassword, request.body).password,
      countedBy(request),
    )
    answer(response, OneTimeSecret, await oneTimeCodes.begin(staff(request)))
  })
  router.post('/one-time-codes/confirm', async (request, response) => {
    const { code } = read(ConfirmOneTimeCode, request.body)
    answer(response, SpareCodes, { codes: await oneTimeCodes.confirm(staff(request), code) })
  })
  router.post('/one-time-codes/off', async (request, response) => {
    const viewer = staff(request)
    await passwords.confirm(viewer, read(GivePassword, request.body).password, countedBy(request))
    await oneTimeCodes.switchOff(viewer, viewer.personId)
    answer(response, OneTimeCodeState, await oneTimeCodes.describe(viewer))
  })
  return router
}

function sendPdf(response: Response, filename: string): void {
  response.set({
    'Content-Type': 'application/pdf',
    'Content-Disposition': `attachment; filename="${filename}"`,
    // Cards carry secrets.
    'Cache-Control': 'private, no-store',
  })
}
