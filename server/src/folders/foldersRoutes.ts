import {
  ChangeFolder,
  Folder,
  FolderDetail,
  Folders as FoldersAnswer,
  FoldersQuery,
  IdParams,
  KeepIn,
  KeptIn,
  MakeFolder,
  OrderFolders,
  FolderQuery,
  ProposeFolder,
  ReadySet,
  Strands,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff, type SignedIn } from '../platform/routes.ts'
import type { Folders } from './folders.ts'
import type { KeptFolders } from './keptFolders.ts'

export function foldersRoutes(guard: Guard, folders: Folders, kept: KeptFolders): Router {
  const router = Router()
  /** A folder of the whole school is the lead's to make; one for classes that of their teachers. */
  const allowHome = async (
    request: Request,
    home: { wholeSchool: boolean; classIds: string[] },
  ) => {
    if (home.wholeSchool) guard.school(signedIn(request), 'folder.make')
    else
      for (const classId of home.classIds)
        await guard.schoolClass(signedIn(request), 'folder.make', classId)
  }

  router.get('/', async (request, response) => {
    const { away } = read(FoldersQuery, request.query)
    answer(
      response,
      FoldersAnswer,
      await folders.list(atSchool(request), { away: away !== undefined }),
    )
  })
  addStrands(router, guard, folders)
  router.post('/order', async (request, response) => {
    answer(
      response,
      FoldersAnswer,
      await folders.order(staff(request), read(OrderFolders, request.body).ids),
    )
  })
  router.post('/ready-set', async (request, response) => {
    const { classId } = read(ReadySet, request.body)
    await guard.schoolClass(signedIn(request), 'folder.make', classId)
    answer(response, FoldersAnswer, await folders.makeReadySet(staff(request), classId))
  })
  addProposals(router, guard, folders)
  addKept(router, guard, kept)
  for (const move of ['put-away', 'take-out'] as const)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.folder(signedIn(request), 'folder.change', id)
      answer(
        response,
        Folder,
        await folders.putAway(staff(request), id, { back: move === 'take-out' }),
      )
    })
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.folder(signedIn(request), 'folder.read', id)
    answer(
      response,
      FolderDetail,
      await folders.describe(atSchool(request), id, read(FolderQuery, request.query)),
    )
  })
  router.put('/:id', async (request, response) => {
    const input = read(MakeFolder, request.body)
    await allowHome(request, input)
    answer(
      response,
      Folder,
      await folders.make(staff(request), read(IdParams, request.params).id, input),
    )
  })
  router.patch('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const change = read(ChangeFolder, request.body)
    await guard.folder(signedIn(request), 'folder.change', id)
    answer(
      response,
      Folder,
      await folders.change(staff(request), id, change, (home) => allowHome(request, home)),
    )
  })
  return router
}

function addStrands(router: Router, guard: Guard, folders: Folders): void {
  router.get('/strands', async (request, response) => {
    staff(request)
    answer(response, Strands, await folders.listStrands())
  })
  router.put('/strands', async (request, response) => {
    const viewer = guard.school(signedIn(request), 'school.change')
    answer(response, Strands, await folders.putStrands(viewer, read(Strands, request.body)))
  })
}

/** Folders that pupils wish for. */
function addProposals(router: Router, guard: Guard, folders: Folders): void {
  router.put('/proposals/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const viewer = guard.own(signedIn(request), 'pupil')
    const classId = await folders.classOf(viewer.personId)
    if (!classId) throw new DomainError('request/not-found')
    await guard.schoolClass(viewer, 'folder.propose', classId)
    answer(response, Folder, await folders.propose(viewer, id, read(ProposeFolder, request.body)))
  })
  for (const move of ['agree', 'decline'] as const)
    router.post(`/:id/${move}`, async (request, response) => {
      const { id } = read(IdParams, request.params)
      await guard.folder(signedIn(request), 'folder.change', id)
      answer(
        response,
        FoldersAnswer,
        await folders.answerProposal(staff(request), id, move === 'agree'),
      )
    })
}

/** Folders are the school's own order; parents see chapters. */
function atSchool(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role === 'parent') throw new DomainError('request/not-found')
  return viewer
}

/** Where a pupil keeps what they made with others. */
function addKept(router: Router, guard: Guard, kept: KeptFolders): void {
  router.get('/kept/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.keep', id)
    answer(response, KeptIn, await kept.describe(atSchool(request), id))
  })
  router.put('/kept/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.piece(signedIn(request), 'piece.keep', id)
    const { folderId } = read(KeepIn, request.body)
    answer(response, KeptIn, await kept.keep(atSchool(request), id, folderId))
  })
}
