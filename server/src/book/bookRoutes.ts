import {
  Book as BookAnswer,
  BookForecast,
  BookPlanQuery,
  Books,
  Done,
  DONE,
  Id,
  IdParams,
  MakeBook,
  PrintedPieceQuery,
  TakeHome,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router } from 'express'
import * as v from 'valibot'
import type { Guard } from '../access/guard.ts'
import type { Platform } from '../platform/platform.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import { serveStored } from '../platform/serveStored.ts'
import type { Sharing } from '../sharing/sharing.ts'
import type { Book } from './book.ts'
import type { PrintPiece } from './printPiece.ts'

const PupilQuery = v.object({ pupilId: Id })

type Printing = { book: Book; printPiece: PrintPiece; sharing: Sharing }

export function bookRoutes(
  platform: Platform,
  guard: Guard,
  { book, printPiece, sharing }: Printing,
): Router {
  const router = Router()
  addPrintedPiece(router, guard, printPiece)
  const allow = async (
    request: Parameters<typeof signedIn>[0],
    action: 'book.read' | 'link.withdraw',
    bookId: string,
  ) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    const found = await book.describe(bookId)
    await guard.pupil(viewer, action, found.pupilId)
    return viewer
  }
  /** A teacher reads each book of their pupils, a family those for home. */
  const mayRead = async (request: Parameters<typeof signedIn>[0], bookId: string) => {
    if (signedIn(request)?.role !== 'parent') return allow(request, 'book.read', bookId)
    const viewer = guard.own(signedIn(request), 'parent')
    const found = await book.describe(bookId)
    if (found.madeFor !== 'home') throw new DomainError('request/not-found')
    await guard.pupil(viewer, 'book.take-home', found.pupilId)
    return viewer
  }
  router.get('/', async (request, response) => {
    const { pupilId } = read(PupilQuery, request.query)
    await guard.pupil(signedIn(request), 'book.read', pupilId)
    answer(response, Books, await book.listOf(pupilId))
  })
  router.post('/', async (request, response) => {
    const order = read(MakeBook, request.body)
    await guard.pupil(signedIn(request), 'book.make', order.pupilId)
    answer(
      response,
      BookAnswer,
      await book.ask(guard.own(signedIn(request), 'teacher'), order),
      202,
    )
  })
  router.post('/take-home', async (request, response) => {
    const order = read(TakeHome, request.body)
    const parent = guard.own(signedIn(request), 'parent')
    await guard.pupil(parent, 'book.take-home', order.pupilId)
    answer(response, BookAnswer, await book.takeHome(parent, order), 202)
  })
  router.get('/plan', async (request, response) => {
    const order = read(BookPlanQuery, request.query)
    await guard.pupil(signedIn(request), 'book.make', order.pupilId)
    answer(response, BookForecast, await book.forecast(order))
  })
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await mayRead(request, id)
    answer(response, BookAnswer, await book.describe(id))
  })
  router.get('/:id/file', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const { key, filename } = await book.fetch(await mayRead(request, id), id)
    response.set({
      'Content-Type': 'application/pdf',
      'Cache-Control': 'private, no-store',
      'Content-Disposition': `attachment; filename="book.pdf"; filename*=UTF-8''${encodeURIComponent(filename)}`,
    })
    await serveStored(platform.storage, key, request, response)
  })
  router.post('/:id/links/withdraw', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = await allow(request, 'link.withdraw', id)
    await sharing.withdrawPageLinks(viewer, id)
    answer(response, Done, DONE)
  })
  return router
}

/** A piece on paper, for its teachers. */
function addPrintedPiece(router: Router, guard: Guard, printPiece: PrintPiece): void {
  router.get('/pieces/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const { marked } = read(PrintedPieceQuery, request.query)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    const page = await printPiece.print(viewer, id, marked === 'true')
    response.set({
      'Content-Type': 'application/pdf',
      'Cache-Control': 'private, no-store',
      'Content-Disposition': 'attachment; filename="piece.pdf"',
    })
    response.send(page)
  })
}
