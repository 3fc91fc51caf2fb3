import { Health } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import compression from 'compression'
import expressStaticGzip from 'express-static-gzip'
import express, { type Express } from 'express'
import helmet from 'helmet'
import path from 'node:path'
import { accountsRoutes, originMiddleware, sessionMiddleware } from './accounts/accountsRoutes.ts'
import { bookRoutes } from './book/bookRoutes.ts'
import type { Capabilities } from './capabilities.ts'
import { commentsRoutes } from './comments/commentsRoutes.ts'
import { foldersRoutes } from './folders/foldersRoutes.ts'
import { mailRoutes } from './mail/mailRoutes.ts'
import { mediaRoutes } from './media/mediaRoutes.ts'
import { UPLOADS_PATH, type Uploads } from './media/uploads.ts'
import { noticesRoutes } from './notices/noticesRoutes.ts'
import { checkHealth } from './platform/health.ts'
import { routeOf } from './platform/log.ts'
import type { Platform } from './platform/platform.ts'
import { problemHandler } from './platform/problem.ts'
import { answer, signedIn } from './platform/routes.ts'
import { piecesRoutes } from './pieces/piecesRoutes.ts'
import { portfolioRoutes } from './portfolio/portfolioRoutes.ts'
import { reviewRoutes } from './review/reviewRoutes.ts'
import { schoolRoutes } from './school/schoolRoutes.ts'
import { staffRoutes } from './staff/staffRoutes.ts'
import { sharingRoutes } from './sharing/sharingRoutes.ts'
import { tasksRoutes } from './tasks/tasksRoutes.ts'

/** Everything that answers HTTP, in the order a request passes it. */
export function openApp(platform: Platform, capabilities: Capabilities, uploads: Uploads): Express {
  const {
    guard,
    folders,
    keptFolders,
    tasks,
    units,
    pieces,
    parts,
    makers,
    classPieces,
    fileGuard,
    pages,
    talkFilms,
    media,
    review,
    secondLooks,
    markUps,
    sentenceStock,
    takeFiles,
    printPiece,
    comments,
    privateWords,
    notices,
    portfolio,
    sharing,
    book,
    mail,
  } = capabilities
  const app = express()
  app.set('trust proxy', platform.config.trustProxy)
  app.disable('x-powered-by')
  app.use(securityHeaders())
  app.use(logRequests(platform))

  app.get('/api/health', async (_request, response) => {
    const health = await checkHealth(platform)
    answer(response, Health, health, health.status === 'ok' ? 200 : 503)
  })
  app.use('/api', originMiddleware(platform), sessionMiddleware(capabilities.sessions))
  app.get('/api/live', (request, response) => {
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    platform.live.connect(viewer, response)
  })
  // No body parser before this: uploads are streams.
  app.all(`${UPLOADS_PATH}{/*rest}`, (request, response) => uploads.handle(request, response))
  app.use('/api/pieces/:id/parts/:partId/ink', express.json({ limit: '2mb' }))
  app.use('/api/pieces/:id/parts/:partId/talk', express.json({ limit: '6mb' }))
  app.use('/api/tasks/:id/sheet', express.json({ limit: '6mb' }))
  app.use('/api/review/pieces/:id/mark-ups', express.json({ limit: '6mb' }))
  app.use('/api', compression(), express.json({ limit: '200kb' }), noStore)
  app.use('/api/accounts', accountsRoutes(capabilities))
  app.use('/api/school/staff', staffRoutes(capabilities))
  app.use('/api/school', schoolRoutes(capabilities))
  app.use('/api/folders', foldersRoutes(guard, folders, keptFolders))
  app.use('/api/tasks', tasksRoutes(guard, tasks, units))
  app.use('/api/pieces', piecesRoutes(guard, { pieces, parts, makers, classPieces }))
  app.use('/api/media', mediaRoutes(platform, fileGuard, media, uploads, pages, talkFilms))
  app.use(
    '/api/review',
    reviewRoutes(guard, { pieces, review, secondLooks, markUps, sentenceStock, takeFiles }),
  )
  app.use('/api/comments', commentsRoutes(guard, comments, privateWords))
  app.use('/api/notices', noticesRoutes(guard, notices))
  app.use('/api/portfolio', portfolioRoutes(guard, portfolio))
  app.use('/api/sharing', sharingRoutes(capabilities))
  app.use('/api/mail', mailRoutes(guard, mail))
  app.use('/api/book', bookRoutes(platform, guard, { book, printPiece, sharing }))
  app.use('/api', () => {
    throw new DomainError('request/not-found')
  })
  if (platform.config.clientFolder) serveClient(app, platform.config.clientFolder)
  app.use(problemHandler(platform.log))
  return app
}

const noStore: express.RequestHandler = (_request, response, next) => {
  response.set('Cache-Control', 'private, no-store')
  next()
}

function securityHeaders(): express.RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        workerSrc: ["'self'"],
        // React Native for the web writes its styles into the page.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'", 'blob:', 'data:'],
        fontSrc: ["'self'", 'data:'],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Set by whoever ends TLS in front of us; on plain HTTP in a school's network it would lock
    // people out.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
    referrerPolicy: { policy: 'no-referrer' },
  })
}

/** Method, route, status and duration: paths carry ids and tokens, so only their shape is kept. */
function logRequests(platform: Platform): express.RequestHandler {
  return (request, response, next) => {
    const started = performance.now()
    response.on('finish', () => {
      platform.log.debug(
        {
          method: request.method,
          route: routeOf(request),
          status: response.statusCode,
          ms: Math.round(performance.now() - started),
        },
        'request',
      )
    })
    next()
  }
}

/**
 * Files as the build wrote them, in the smallest form that it left beside them and the browser
 * reads.
 */
const filesOf = (
  folder: string,
  serveStatic: expressStaticGzip.ExpressStaticGzipOptions['serveStatic'],
): express.RequestHandler =>
  expressStaticGzip(folder, {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    index: false,
    serveStatic,
  })

function serveClient(app: Express, folder: string): void {
  app.use(
    '/_expo',
    filesOf(path.join(folder, '_expo'), { immutable: true, maxAge: '1y', fallthrough: false }),
  )
  // Asked for anew each time: a new version must not wait for an old copy of it.
  app.get('/sw.js', (_request, response) =>
    response.set('Cache-Control', 'no-cache').sendFile(path.join(folder, 'sw.js')),
  )
  app.use(filesOf(folder, { maxAge: '1h' }))
  app.get('/{*path}', (request, response, next) => {
    // A missing file is missing; every other address is a page of the client's.
    if (path.extname(request.path)) return next(new DomainError('request/not-found'))
    response.set('Cache-Control', 'no-cache').sendFile(path.join(folder, 'index.html'))
  })
}
