import type { Colour, PegSymbol } from '@nibquill/core'
import { flag, id, maybe, moment, refer, row, text } from '../platform/columns.ts'

export type RoleName = 'pupil' | 'teacher' | 'parent' | 'office'
export type PersonRow = {
  id: string
  schoolId: string
  role: RoleName
  firstName: string
  lastName: string
  email: string | null
  passwordHash: string | null
  pegSymbol: PegSymbol | null
  pegColour: Colour | null
  /** Sets up and oversees the whole school: the office lead, and whoever opened the school. */
  leads: boolean
  /** The register's own id. */
  externalId: string | null
  leftAt: Date | null
  createdAt: Date
  lastSeenAt: Date | null
}
export const PersonRow = row<PersonRow>(
  'person',
  {
    id, schoolId: refer('school'), role: text, firstName: text, lastName: text, email: maybe(text), passwordHash: maybe(text),
    pegSymbol: maybe(text), pegColour: maybe(text), leads: flag, externalId: maybe(text), leftAt: maybe(moment), createdAt: moment, lastSeenAt: maybe(moment),
  }, // prettier-ignore
  { uniques: [{ columns: ['email'] }], indices: [{ columns: ['schoolId', 'role'] }] },
)

/** A name card: of its code only the keyed hash is kept. */
export type NameCardRow = { id: string; pupilId: string; codeHash: string; createdAt: Date; revokedAt: Date | null }
export const NameCardRow = row<NameCardRow>(
  'name_card',
  { id, pupilId: refer('person', { cascade: true }), codeHash: text, createdAt: moment, revokedAt: maybe(moment) },
  { uniques: [{ columns: ['codeHash'] }] },
)

export type SessionRow = {
  id: string
  tokenHash: string
  personId: string
  nameCardId: string | null
  invitationId: string | null
  createdAt: Date
  seenAt: Date
  expiresAt: Date
}
export const SessionRow = row<SessionRow>(
  'session',
  {
    id, tokenHash: text, personId: refer('person', { cascade: true }), nameCardId: maybe(refer('name_card', { cascade: true })),
    invitationId: maybe(refer('invitation', { cascade: true })), createdAt: moment, seenAt: moment, expiresAt: moment,
  }, // prettier-ignore
  { uniques: [{ columns: ['tokenHash'] }], indices: [{ columns: ['personId'] }] },
)

/** Who did what to what, for a school that has to answer for it. Ids only. */
export type AuditRow = { id: string; happenedAt: Date; personId: string | null; action: string; subjectId: string | null }
export const AuditRow = row<AuditRow>(
  'audit',
  { id, happenedAt: moment, personId: maybe({ type: 'uuid' }), action: text, subjectId: maybe({ type: 'uuid' }) },
  { indices: [{ columns: ['happenedAt'] }] },
)

/** Lets one member of staff choose a password, once. */
export type PasswordLinkRow = {
  id: string
  personId: string
  tokenHash: string
  createdAt: Date
  expiresAt: Date
  usedAt: Date | null
}
export const PasswordLinkRow = row<PasswordLinkRow>(
  'password_link',
  {
    id,
    personId: refer('person', { cascade: true }),
    tokenHash: text,
    createdAt: moment,
    expiresAt: moment,
    usedAt: maybe(moment),
  },
  { uniques: [{ columns: ['tokenHash'] }] },
)
