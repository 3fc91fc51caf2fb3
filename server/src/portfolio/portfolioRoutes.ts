import { IdParams, PickParams, Portfolio as PortfolioAnswer, PutPick } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, type SignedIn } from '../platform/routes.ts'
import type { Portfolio } from './portfolio.ts'

export function portfolioRoutes(guard: Guard, portfolio: Portfolio): Router {
  const router = Router()
  /** Pupil or teacher: what parents see comes through sharing. */
  const allow = async (request: Request, pupilId: string): Promise<SignedIn> => {
    const viewer = signedIn(request)
    if (viewer?.role === 'parent') throw new DomainError('request/not-found')
    await guard.pupil(viewer, 'portfolio.read', pupilId)
    if (!viewer) throw new DomainError('accounts/signed-out')
    return viewer
  }
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await allow(request, id)
    answer(response, PortfolioAnswer, await portfolio.describe(id))
  })
  router.put('/:id/picks/:pieceId', async (request, response) => {
    const { id, pieceId } = read(PickParams, request.params)
    const viewer = await allow(request, id)
    await guard.piece(viewer, 'portfolio.pick', pieceId)
    answer(
      response,
      PortfolioAnswer,
      await portfolio.putPick(viewer, id, pieceId, read(PutPick, request.body)),
    )
  })
  router.delete('/:id/picks/:pieceId', async (request, response) => {
    const { id, pieceId } = read(PickParams, request.params)
    const viewer = await allow(request, id)
    await guard.piece(viewer, 'portfolio.pick', pieceId)
    answer(response, PortfolioAnswer, await portfolio.removePick(viewer, id, pieceId))
  })
  return router
}
