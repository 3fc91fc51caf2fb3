import {
  BinHandedIn,
  Decide,
  Done,
  DONE,
  Drafts,
  DraftsQuery,
  Earlier,
  FileElsewhere,
  IdParams,
  MarkUpParams,
  MarkUps as MarkUpsAnswer,
  NudgeDrafts,
  Nudged,
  PartParams,
  Piece,
  PupilDesk,
  SecondLooks as SecondLooksAnswer,
  AskSecondLook,
  Sentences,
  TakeBack,
  Transcribe,
  Tray,
  TrayQuery,
} from '@nibquill/contract'
import { PutMarkUp } from '@nibquill/contract/ink'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import type { Pieces } from '../pieces/pieces.ts'
import type { MarkUps } from './markUps.ts'
import type { Review } from './review.ts'
import type { SecondLooks } from './secondLooks.ts'
import type { TakeFiles } from './takeFiles.ts'
import type { SentenceStock } from './sentenceStock.ts'

type Reviewing = {
  pieces: Pieces
  review: Review
  secondLooks: SecondLooks
  markUps: MarkUps
  sentenceStock: SentenceStock
  takeFiles: TakeFiles
}

export function reviewRoutes(
  guard: Guard,
  { pieces, review, secondLooks, markUps, sentenceStock, takeFiles }: Reviewing,
): Router {
  const router = Router()
  addTakingAway(router, guard, takeFiles)
  addBin(router, guard, pieces)
  router.get('/sentences', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(response, Sentences, await sentenceStock.list(viewer))
  })
  router.put('/sentences', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(response, Sentences, await sentenceStock.put(viewer, read(Sentences, request.body)))
  })
  addSecondLooks(router, guard, secondLooks)
  addMarkUps(router, guard, markUps)
  router.get('/tray', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(response, Tray, await review.listTray(viewer, read(TrayQuery, request.query)))
  })
  router.get('/drafts', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(response, Drafts, await review.listDrafts(viewer, read(DraftsQuery, request.query)))
  })
  router.get('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = guard.own(signedIn(request), 'teacher')
    await guard.pupil(viewer, 'portfolio.read', id)
    answer(response, PupilDesk, await review.describePupil(id))
  })
  router.post('/drafts/nudge', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    const { pieceIds } = read(NudgeDrafts, request.body)
    for (const id of pieceIds) await guard.piece(viewer, 'piece.judge', id)
    answer(response, Nudged, { asked: await review.nudge(viewer, pieceIds) })
  })
  router.get('/pieces/:id/earlier', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    answer(response, Earlier, await review.listEarlier(id))
  })
  router.post('/pieces/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    answer(
      response,
      Piece,
      await review.decide(guard.own(signedIn(request), 'teacher'), id, read(Decide, request.body)),
    )
  })
  router.post('/pieces/:id/take-back', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    const { seenVersion } = read(TakeBack, request.body)
    answer(response, Piece, await review.takeBack(viewer, id, seenVersion))
  })
  router.put('/pieces/:id/parts/:partId/transcript', async (request, response) => {
    const { id, partId } = read(PartParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    const words = read(Transcribe, request.body)
    answer(response, Piece, await review.transcribe(viewer, id, partId, words))
  })
  router.post('/pieces/:id/file', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(
      response,
      Piece,
      await review.fileElsewhere(viewer, id, read(FileElsewhere, request.body)),
    )
  })
  return router
}

/** What was handed in by mistake. */
function addBin(router: Router, guard: Guard, pieces: Pieces): void {
  router.post('/pieces/:id/bin', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    const handedIn = read(BinHandedIn, request.body)
    await pieces.bin(viewer, id, { restore: false, handedIn })
    answer(response, Done, DONE)
  })
  router.post('/pieces/:id/restore', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.bin', id)
    await pieces.bin(guard.own(signedIn(request), 'teacher'), id, { restore: true })
    answer(response, Done, DONE)
  })
}

/** GET /api/review/pieces/:id/files: what was handed in, as a bundle (ZIP) of its files and words. */
function addTakingAway(router: Router, guard: Guard, takeFiles: TakeFiles): void {
  router.get('/pieces/:id/files', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const entries = await takeFiles.list(guard.own(signedIn(request), 'teacher'), id)
    response.set({
      'Content-Type': 'application/zip',
      'Content-Disposition': 'attachment; filename="piece.zip"',
    })
    await takeFiles.bundle(entries, response)
  })
}

/** What teachers write on copies of what was handed in. */
function addMarkUps(router: Router, guard: Guard, markUps: MarkUps): void {
  router.get('/pieces/:id/mark-ups', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = signedIn(request)
    await guard.piece(viewer, 'piece.read', id)
    answer(response, MarkUpsAnswer, await markUps.list(id, viewer?.role === 'teacher'))
  })
  router.put('/pieces/:id/mark-ups/:versionId/:partId', async (request, response) => {
    const { id, versionId, partId } = read(MarkUpParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    const viewer = guard.own(signedIn(request), 'teacher')
    const on = { pieceId: id, versionId, partId }
    await markUps.put(viewer, on, read(PutMarkUp, request.body))
    answer(response, MarkUpsAnswer, await markUps.list(id, true))
  })
}

/** What teachers want to come back to. */
function addSecondLooks(router: Router, guard: Guard, secondLooks: SecondLooks): void {
  const teacherOf = async (request: Request) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.judge', id)
    return { id, viewer: guard.own(signedIn(request), 'teacher') }
  }
  router.get('/second-looks', async (request, response) =>
    answer(
      response,
      SecondLooksAnswer,
      await secondLooks.list(guard.own(signedIn(request), 'teacher')),
    ),
  )
  router.put('/pieces/:id/second-look', async (request, response) => {
    const { id, viewer } = await teacherOf(request)
    const { reason } = read(AskSecondLook, request.body)
    answer(response, SecondLooksAnswer, await secondLooks.ask(viewer, id, reason))
  })
  for (const [move, done] of [
    ['done', true],
    ['restore', false],
  ] as const)
    router.post(`/pieces/:id/second-look/${move}`, async (request, response) => {
      const { id, viewer } = await teacherOf(request)
      answer(response, SecondLooksAnswer, await secondLooks.tick(viewer, id, { done }))
    })
}
