import type { Consent, Guardian, PupilSharing } from '@nibquill/contract'
import { CONSENTS } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'
import type { InvitationRow } from '../accounts/rows.ts'
import type { Platform } from '../platform/platform.ts'

/** Who a pupil's parents are, what they agreed to, and who was asked. */
export async function describePupil(
  { db, clock }: Platform,
  pupilId: string,
): Promise<PupilSharing> {
  const { manager } = db
  const said = await manager.query<
    { kind: Consent['kind']; granted: boolean; saidBy: string; saidAt: Date }[]
  >(
    `select c.kind, c.granted, trim(p.first_name || ' ' || p.last_name) as "saidBy", c.said_at as "saidAt"
       from consent c join person p on p.id = c.said_by where c.pupil_id = $1`,
    [pupilId],
  )
  return {
    consents: CONSENTS.map((kind) => {
      const word = said.find((one) => one.kind === kind)
      return {
        kind,
        granted: word?.granted ?? null,
        saidBy: word?.saidBy ?? null,
        saidAt: word?.saidAt.toISOString() ?? null,
      }
    }),
    guardians: [
      ...(await listGuardians(manager, pupilId, clock.now())),
      ...(await listAsked(manager, pupilId)),
    ],
  }
}

async function listGuardians(
  manager: EntityManager,
  pupilId: string,
  now: Date,
): Promise<Guardian[]> {
  type Flat = Omit<Guardian, 'invitation'> & {
    invitation: InvitationRow | null
    lastUsedAt: Date | null
  }
  const rows = await manager.query<Flat[]>(
    `select p.id, p.first_name as "firstName", p.last_name as "lastName", p.email,
         (select max(i.last_used_at) from invitation i where i.parent_id = p.id) as "lastUsedAt",
         (select json_build_object('id', i.id, 'createdAt', i.created_at, 'expiresAt', i.expires_at, 'withdrawnAt', i.withdrawn_at)
           from invitation i where i.parent_id = p.id order by i.created_at desc, i.id desc limit 1) as invitation
       from guardian g join person p on p.id = g.parent_id where g.pupil_id = $1 order by p.created_at, p.id`,
    [pupilId],
  )
  return rows.map(({ invitation, lastUsedAt, ...guardian }) => ({
    ...guardian,
    invitation: invitation && {
      id: invitation.id,
      state: invitation.withdrawnAt
        ? 'withdrawn'
        : new Date(invitation.expiresAt) <= now
          ? 'ended'
          : 'open',
      createdAt: new Date(invitation.createdAt).toISOString(),
      expiresAt: new Date(invitation.expiresAt).toISOString(),
      lastUsedAt: lastUsedAt?.toISOString() ?? null,
    },
  }))
}

/**
 * Those who were asked and have not answered, under the names they were asked by: what else the
 * school knows of them is not told.
 */
async function listAsked(manager: EntityManager, pupilId: string): Promise<Guardian[]> {
  const rows = await manager.query<(Omit<Guardian, 'invitation'> & { askedAt: Date })[]>(
    `select r.id, r.first_name as "firstName", r.last_name as "lastName", p.email, r.asked_at as "askedAt"
       from guardian_request r join person p on p.id = r.parent_id where r.pupil_id = $1 order by r.asked_at, r.id`,
    [pupilId],
  )
  return rows.map(({ askedAt, ...guardian }) => ({
    ...guardian,
    invitation: {
      id: guardian.id,
      state: 'asked',
      createdAt: askedAt.toISOString(),
      expiresAt: null,
      lastUsedAt: null,
    },
  }))
}
