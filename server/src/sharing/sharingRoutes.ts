import {
  AddParent,
  Children,
  ChildWork,
  ConsentParams,
  GuardianRequests,
  Id,
  IdParams,
  InvitedParent,
  LettersOrder,
  LinkedPiece,
  LinkParams,
  ParentParams,
  PupilSharing,
  PutConsent,
} from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import { Router } from 'express'
import * as v from 'valibot'
import type { Guard } from '../access/guard.ts'
import { answer, read, signedIn, staff } from '../platform/routes.ts'
import type { School } from '../school/school.ts'
import { drawLetters } from './drawLetters.ts'
import type { Guardians } from './guardians.ts'
import type { Invitations } from './invitations.ts'
import type { Sharing } from './sharing.ts'

const InvitationParams = v.object({ id: Id, invitationId: Id })

type Services = {
  guard: Guard
  sharing: Sharing
  guardians: Guardians
  invitations: Invitations
  school: School
}

export function sharingRoutes(services: Services): Router {
  const router = Router()
  router.use(familyRoutes(services), parentRoutes(services))
  return router
}

/** What people outside the school see. */
function familyRoutes({ guard, sharing, guardians }: Services): Router {
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
    answer(
      response,
      LinkedPiece,
      await sharing.openLink(signedIn(request), read(LinkParams, request.params).token),
    )
  })
  router.get('/requests', async (request, response) =>
    answer(
      response,
      GuardianRequests,
      await guardians.listRequests(guard.own(signedIn(request), 'parent')),
    ),
  )
  for (const word of ['accept', 'decline'] as const)
    router.post(`/requests/:id/${word}`, async (request, response) => {
      const parent = guard.own(signedIn(request), 'parent')
      const { id } = read(IdParams, request.params)
      answer(
        response,
        GuardianRequests,
        await guardians.answerRequest(parent, id, word === 'accept'),
      )
    })
  return router
}

/** A pupil's parents, as the school keeps them. */
function parentRoutes({ guard, guardians, invitations, school }: Services): Router {
  const router = Router()
  // Printing makes a way in for each letter.
  router.post('/letters', async (request, response) => {
    const { classId, pupilId } = read(LettersOrder, request.body)
    if (pupilId) await guard.pupil(signedIn(request), 'invitation.make', pupilId)
    if (classId) await guard.schoolClass(signedIn(request), 'class.enrol', classId)
    const viewer = staff(request)
    if (!classId && !pupilId) throw new DomainError('request/not-found')
    const letters = await invitations.writeLetters(viewer, { classId, pupilId })
    if (letters.length === 0) throw new DomainError('sharing/no-letters')
    response.set({
      'Content-Type': 'application/pdf',
      'Content-Disposition': 'attachment; filename="letters.pdf"',
      'Cache-Control': 'private, no-store',
    })
    await drawLetters(letters, (await school.describe()).name, response)
  })
  router.get('/pupils/:id', async (request, response) => {
    const { id } = read(IdParams, request.params)
    await guard.pupil(signedIn(request), 'parent.read', id)
    answer(response, PupilSharing, await guardians.describePupil(id))
  })
  router.put('/pupils/:id/consents/:kind', async (request, response) => {
    const { id, kind } = read(ConsentParams, request.params)
    await guard.pupil(signedIn(request), 'consent.change', id)
    answer(
      response,
      PupilSharing,
      await guardians.putConsent(staff(request), id, kind, read(PutConsent, request.body).granted),
    )
  })
  router.put('/pupils/:id/parents/:parentId', async (request, response) => {
    const { id, parentId } = read(ParentParams, request.params)
    await guard.pupil(signedIn(request), 'invitation.make', id)
    answer(
      response,
      InvitedParent,
      await guardians.inviteParent(staff(request), id, parentId, read(AddParent, request.body)),
    )
  })
  router.delete('/pupils/:id/parents/:parentId', async (request, response) => {
    const { id, parentId } = read(ParentParams, request.params)
    await guard.pupil(signedIn(request), 'invitation.withdraw', id)
    answer(response, PupilSharing, await guardians.removeParent(staff(request), id, parentId))
  })
  for (const change of ['withdraw', 'renew'] as const) {
    router.post(`/pupils/:id/invitations/:invitationId/${change}`, async (request, response) => {
      const { id, invitationId } = read(InvitationParams, request.params)
      const viewer = signedIn(request)
      await guard.pupil(viewer, change === 'renew' ? 'invitation.make' : 'invitation.withdraw', id)
      answer(
        response,
        InvitedParent,
        await guardians.changeInvitation(viewer!, id, invitationId, change),
      )
    })
  }
  return router
}
