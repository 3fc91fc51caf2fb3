import { Children, ChildWork, IdParams, LinkedPiece, LinkParams, PupilSharing, Id } from '@nibquill/contract'
import { Router } from 'express'
import * as v from 'valibot'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn } from '../platform/routes.ts'
import type { Sharing } from './sharing.ts'

const InvitationParams = v.object({ id: Id, invitationId: Id })

export function sharingRoutes(guard: Guard, sharing: Sharing): Router {
  const router = Router()
  router.get('/children', async (request, response) =>
    answer(response, Children, await sharing.listChildren(guard.own(signedIn(request), 'parent'))),
  )
  router.get('/children/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    const parent = guard.own(signedIn(request), 'parent')
    await guard.pupil(parent, 'pupil.read', id)
    answer(response, ChildWork, await sharing.describeChild(id))
  })
  router.get('/links/:token', async (request, response) => {
    response.set('Cache-Control', 'no-store')
    answer(response, LinkedPiece, await sharing.openLink(read(LinkParams, request.params).token))
  })
  router.get('/pupils/:id/invitations', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.pupil(signedIn(request), 'invitation.make', id)
    answer(response, PupilSharing, await sharing.describePupil(id))
  })
  for (const change of ['withdraw', 'renew'] as const) {
    router.post(`/pupils/:id/invitations/:invitationId/${change}`, async (request, response) => {
      const { id, invitationId } = read(InvitationParams, request.params)
      const viewer = signedIn(request)
      await guard.pupil(viewer, change === 'renew' ? 'invitation.make' : 'invitation.withdraw', id)
      answer(response, PupilSharing, await sharing.changeInvitation(viewer!, id, invitationId, change))
    })
  }
  return router
}
