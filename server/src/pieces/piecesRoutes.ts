import {
  AddPart,
  ChangePiece,
  ChoosePoster,
  Classmates,
  ClassPieces as ClassPiecesAnswer,
  Done,
  DONE,
  IdParams,
  MakePieceTogether,
  MoveRequest,
  MyPieces,
  NamePart,
  OrderParts,
  PartParams,
  Piece,
  StartForEveryone,
  StartPiece,
  WritePart,
} from '@nibquill/contract'
import { AddTalk, DrawOn } from '@nibquill/contract/ink'
import { Router, type Request, type Response } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { ClassPieces } from './classPieces.ts'
import type { Makers } from './makers.ts'
import type { Parts } from './parts.ts'
import type { Pieces } from './pieces.ts'

type Services = { pieces: Pieces; parts: Parts; makers: Makers; classPieces: ClassPieces }

export function piecesRoutes(
  guard: Guard,
  { pieces, parts, makers, classPieces }: Services,
): Router {
  const router = Router()
  router.use('/for-everyone', classPieceRoutes(guard, classPieces))
  router.get('/', async (request, response) =>
    answer(response, MyPieces, await pieces.listMine(guard.own(signedIn(request), 'pupil'))),
  )
  router.get('/classmates', async (request, response) =>
    answer(
      response,
      Classmates,
      await makers.listClassmates(guard.own(signedIn(request), 'pupil')),
    ),
  )
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = signedIn(request)
    if (await guard.allowsPiece(viewer, 'piece.read', id))
      return answer(response, Piece, await pieces.describe(id))
    // Who made what is in the folder, and not what is being made of it now, sees the former.
    // Parents see pieces through sharing alone.
    await guard.piece(viewer, viewer?.role === 'pupil' ? 'piece.read-approved' : 'piece.read', id)
    answer(response, Piece, await pieces.describeApproved(id))
  })
  router.put('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const body = read(StartPiece, request.body)
    answer(response, Piece, await pieces.start(guard.own(signedIn(request), 'pupil'), id, body))
  })
  router.patch('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    answer(
      response,
      Piece,
      await pieces.change(
        guard.own(signedIn(request), 'pupil'),
        id,
        read(ChangePiece, request.body),
      ),
    )
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
  router.use(partRoutes(guard, { pieces, parts, makers }), moveRoutes(guard, pieces))
  return router
}

const partIn = (request: Request): string => read(PartParams, request.params).partId

/** What is done to a piece's parts, their order and its makers; each answers with the piece. */
function partRoutes(
  guard: Guard,
  { pieces, parts, makers }: Omit<Services, 'classPieces'>,
): Router {
  const router = Router()
  const pupil = (request: Request) => guard.own(signedIn(request), 'pupil')
  const changed = async (
    request: Request,
    response: Response,
    change: (pieceId: string) => Promise<void>,
  ) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.change', id)
    await change(id)
    answer(response, Piece, await pieces.describe(id))
  }
  router.put('/:id/order', (request, response) =>
    changed(request, response, (id) =>
      parts.order(pupil(request), id, read(OrderParts, request.body).partIds),
    ),
  )
  router.put('/:id/makers', (request, response) =>
    changed(request, response, (id) =>
      makers.set(pupil(request), id, read(MakePieceTogether, request.body).makerIds),
    ),
  )
  router.put('/:id/parts/:partId', (request, response) =>
    changed(request, response, (id) =>
      parts.add(
        guard.own(signedIn(request), 'pupil'),
        id,
        partIn(request),
        read(AddPart, request.body),
      ),
    ),
  )
  router.put('/:id/parts/:partId/text', (request, response) =>
    changed(request, response, (id) =>
      parts.write(id, partIn(request), read(WritePart, request.body)),
    ),
  )
  router.put('/:id/parts/:partId/poster', (request, response) =>
    changed(request, response, (id) =>
      parts.choosePoster(
        pupil(request),
        id,
        partIn(request),
        read(ChoosePoster, request.body).mediaId,
      ),
    ),
  )
  router.put('/:id/parts/:partId/talk', (request, response) =>
    changed(request, response, (id) =>
      parts.addTalk(pupil(request), id, partIn(request), read(AddTalk, request.body)),
    ),
  )
  router.post('/:id/parts/:partId/ink', (request, response) =>
    changed(request, response, (id) =>
      parts.draw(pupil(request), id, partIn(request), read(DrawOn, request.body)),
    ),
  )
  router.patch('/:id/parts/:partId', (request, response) =>
    changed(request, response, (id) =>
      parts.name(pupil(request), id, partIn(request), read(NamePart, request.body).name),
    ),
  )
  router.delete('/:id/parts/:partId', (request, response) =>
    changed(request, response, (id) =>
      parts.remove(pupil(request), id, partIn(request), { restore: false }),
    ),
  )
  router.post('/:id/parts/:partId/restore', (request, response) =>
    changed(request, response, (id) =>
      parts.remove(pupil(request), id, partIn(request), { restore: true }),
    ),
  )
  return router
}

/** Into the tray, out of it, and another go: each on the version somebody saw. */
function moveRoutes(guard: Guard, pieces: Pieces): Router {
  const router = Router()
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
  router.get('/', async (request, response) =>
    answer(response, ClassPiecesAnswer, await classPieces.list(staff(request))),
  )
  router.put('/:id', async (request, response) => {
    const input = read(StartForEveryone, request.body)
    await guard.schoolClass(signedIn(request), 'piece.start-for-everyone', input.classId)
    answer(
      response,
      ClassPiecesAnswer,
      await classPieces.start(staff(request), read(IdParams, request.params).id, input),
    )
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
