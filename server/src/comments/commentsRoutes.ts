import {
  Comments as CommentsAnswer,
  DecideComment,
  Done,
  DONE,
  HeldWords,
  IdParams,
  OpenedPrivateWords,
  OpenPrivateWords,
  SayComment,
  SayPrivately,
  WaitingComments,
} from '@nibquill/contract'
import { COMMENT_MOVES, DomainError } from '@nibquill/core'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import type { Comments } from './comments.ts'
import type { PrivateWords } from './privateWords.ts'

export function commentsRoutes(
  guard: Guard,
  comments: Comments,
  privateWords: PrivateWords,
): Router {
  const router = Router()
  router.get('/waiting', async (request, response) => {
    const viewer = guard.own(signedIn(request), 'teacher')
    answer(response, WaitingComments, await comments.listWaiting(viewer))
  })
  router.get('/held-words', async (request, response) => {
    guard.school(signedIn(request), 'held-words.change')
    answer(response, HeldWords, await comments.listHeldWords())
  })
  router.put('/held-words', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'held-words.change')
    answer(response, HeldWords, await comments.putHeldWords(viewer, read(HeldWords, request.body)))
  })
  router.get('/pieces/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = signedIn(request)
    await guard.piece(viewer, 'comment.read', id)
    if (!viewer) throw new DomainError('accounts/signed-out')
    const talks = await guard.allowsPiece(viewer, 'private-word.say', id)
    answer(response, CommentsAnswer, {
      comments: await comments.list(viewer, id),
      privateWords: talks ? await privateWords.list(viewer, id) : [],
      with: talks ? await privateWords.listWith(viewer, id) : [],
    })
  })
  router.post('/private/open', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'private-words.open')
    const asked = read(OpenPrivateWords, request.body)
    await guard.pupil(viewer, 'pupil.read', asked.pupilId)
    answer(response, OpenedPrivateWords, await privateWords.open(viewer, asked))
  })
  router.put('/private/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    const said = read(SayPrivately, request.body)
    await guard.piece(viewer, 'private-word.say', said.pieceId)
    await privateWords.say(viewer, id, said)
    answer(response, Done, DONE)
  })
  router.put('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = signedIn(request)
    if (!viewer) throw new DomainError('accounts/signed-out')
    const said = read(SayComment, request.body)
    await guard.piece(viewer, 'comment.say', said.pieceId)
    await comments.say(viewer, id, said)
    answer(response, Done, DONE)
  })
  for (const move of COMMENT_MOVES)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await comments.demandDecide(signedIn(request), id)
      const viewer = guard.own(signedIn(request), 'teacher')
      await comments.decide(viewer, id, move, read(DecideComment, request.body))
      answer(response, Done, DONE)
    })
  return router
}
