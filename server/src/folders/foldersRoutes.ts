import { Folders as FoldersAnswer, FolderDetail, IdParams, PageQuery } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router, type Request } from 'express'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, type SignedIn } from '../platform/routes.ts'
import type { Folders } from './folders.ts'

export function foldersRoutes(guard: Guard, folders: Folders): Router {
  const router = Router()
  router.get('/', async (request, response) => answer(response, FoldersAnswer, await folders.list(atSchool(request))))
  router.get('/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.folder(signedIn(request), 'folder.read', id)
    answer(response, FolderDetail, await folders.describe(atSchool(request), id, read(PageQuery, request.query).after))
  })
  return router
}

/** Folders are the school's own order; parents see chapters. */
function atSchool(request: Request): SignedIn {
  const viewer = signedIn(request)
  if (!viewer) throw new DomainError('accounts/signed-out')
  if (viewer.role === 'parent') throw new DomainError('request/not-found')
  return viewer
}
