import {
  AddPart,
  ChangePiece,
  ClassPieces as ClassPiecesAnswer,
  Done,
  DONE,
  IdParams,
  MoveRequest,
  MyPieces,
  PartParams,
  Piece,
  StartForEveryone,
  StartPiece,
} from '@nibquill/contract'
import { Router } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { ClassPieces } from './classPieces.ts'
import type { Pieces } from './pieces.ts'

export function piecesRoutes(guard: Guard, pieces: Pieces, classPieces: ClassPieces): Router {
  const router = Router()
  router.use('/for-everyone', classPieceRoutes(guard, classPieces))
  router.get('/', async (request, response) =>
    answer(response, MyPieces, await pieces.listMine(guard.own(signedIn(request), 'pupil'))),
  )
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.read', id)
    answer(response, Piece, await pieces.describe(id))
  })
  router.put('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const body = read(StartPiece, request.body)
    answer(response, Piece, await pieces.start(guard.own(signedIn(request), 'pupil'), id, body))
  })
  router.patch('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    answer(response, Piece, await pieces.change(guard.own(signedIn(request), 'pupil'), id, read(ChangePiece, request.body)))
  })
  router.delete('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.bin', id)
    await pieces.bin(guard.own(signedIn(request), 'pupil'), id, { restore: false })
    answer(response, Done, DONE)
  })
  router.post('/:id/restore', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.bin', id)
    await pieces.bin(guard.own(signedIn(request), 'pupil'), id, { restore: true })
    answer(response, Done, DONE)
  })
  router.put('/:id/parts/:partId', async (request, response) => {
    const { id, partId } = read(PartParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    answer(response, Piece, await pieces.addPart(guard.own(signedIn(request), 'pupil'), id, partId, read(AddPart, request.body)))
  })
  router.delete('/:id/parts/:partId', async (request, response) => {
    const { id, partId } = read(PartParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    answer(response, Piece, await pieces.removePart(id, partId, { restore: false }))
  })
  router.post('/:id/parts/:partId/restore', async (request, response) => {
    const { id, partId } = read(PartParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    answer(response, Piece, await pieces.removePart(id, partId, { restore: true }))
  })
  const moves = {
    'hand-in': { action: 'piece.hand-in', move: pieces.handIn.bind(pieces) },
    withdraw: { action: 'piece.withdraw', move: pieces.withdraw.bind(pieces) },
    'another-go': { action: 'piece.change', move: pieces.anotherGo.bind(pieces) },
  } as const
  for (const [name, { action, move }] of Object.entries(moves)) {
    router.post(`/:id/${name}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.piece(signedIn(request), action, id)
      const { seenVersion } = read(MoveRequest, request.body)
      answer(response, Piece, await move(guard.own(signedIn(request), 'pupil'), id, seenVersion))
    })
  }
  return router
}

function classPieceRoutes(guard: Guard, classPieces: ClassPieces): Router {
  const router = Router()
  router.get('/', async (request, response) => answer(response, ClassPiecesAnswer, await classPieces.list(staff(request))))
  router.put('/:id', async (request, response) => {
    const input = read(StartForEveryone, request.body)
    await guard.schoolClass(signedIn(request), 'piece.start-for-everyone', input.classId)
    answer(response, ClassPiecesAnswer, await classPieces.start(staff(request), read(IdParams, request.params).id, input))
  })
  for (const move of ['close', 'reopen'] as const)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      const viewer = staff(request)
      await guard.schoolClass(viewer, 'piece.start-for-everyone', await classPieces.classOf(id))
      answer(response, ClassPiecesAnswer, await classPieces[move](viewer, id))
    })
  return router
}
