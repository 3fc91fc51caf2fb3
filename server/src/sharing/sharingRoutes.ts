import {
  AddParent, Children, ChildWork, ConsentParams, Id, IdParams, LettersQuery, LinkedPiece, LinkParams, ParentParams, PupilSharing, PutConsent,
} from '@nibquill/contract' // prettier-ignore
import { DomainError } from '@nibquill/core'
import { Router } from 'express'
import * as v from 'valibot'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { School } from '../school/school.ts'
import { drawLetters } from './drawLetters.ts'
import type { Sharing } from './sharing.ts'

const InvitationParams = v.object({ id: Id, invitationId: Id })

export function sharingRoutes(guard: Guard, sharing: Sharing, school: School): Router {
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
  router.get('/letters', async (request, response) => {
    const { classId, pupilId } = read(LettersQuery, request.query)
    if (pupilId) await guard.pupil(signedIn(request), 'invitation.make', pupilId)
    if (classId) await guard.schoolClass(signedIn(request), 'class.enrol', classId)
    staff(request)
    if (!classId && !pupilId) throw new DomainError('request/not-found')
    const letters = await sharing.writeLetters({ classId, pupilId })
    if (letters.length === 0) throw new DomainError('sharing/no-letters')
    response.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': 'attachment; filename="letters.pdf"' })
    await drawLetters(letters, (await school.describe()).name, response)
  })
  router.get('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.pupil(signedIn(request), 'parent.read', id)
    answer(response, PupilSharing, await sharing.describePupil(id))
  })
  router.put('/pupils/:id/consents/:kind', async (request, response) => {
    const { id, kind } = read(ConsentParams, request.params)
    await guard.pupil(signedIn(request), 'consent.change', id)
    answer(response, PupilSharing, await sharing.putConsent(staff(request), id, kind, read(PutConsent, request.body).granted))
  })
  router.put('/pupils/:id/parents/:parentId', async (request, response) => {
    const { id, parentId } = read(ParentParams, request.params)
    await guard.pupil(signedIn(request), 'invitation.make', id)
    answer(response, PupilSharing, await sharing.inviteParent(staff(request), id, parentId, read(AddParent, request.body)))
  })
  router.delete('/pupils/:id/parents/:parentId', async (request, response) => {
    const { id, parentId } = read(ParentParams, request.params)
    await guard.pupil(signedIn(request), 'invitation.withdraw', id)
    answer(response, PupilSharing, await sharing.removeParent(staff(request), id, parentId))
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
