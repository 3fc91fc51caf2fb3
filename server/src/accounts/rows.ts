import type { DoorSwitch, SecretSymbol } from '@nibquill/core'
import {
  bytes,
  day,
  flag,
  id,
  integer,
  json,
  maybe,
  moment,
  refer,
  row,
  text,
} from '../platform/columns.ts'

/** A name card: of its code only the keyed hash is kept. */
export type NameCardRow = {
  id: string
  pupilId: string
  codeHash: string
  createdAt: Date
  revokedAt: Date | null
}
export const NameCardRow = row<NameCardRow>(
  'name_card',
  {
    id,
    pupilId: refer('person', { cascade: true }),
    codeHash: text,
    createdAt: moment,
    revokedAt: maybe(moment),
  },
  { uniques: [{ columns: ['codeHash'] }], indices: [{ columns: ['pupilId'] }] },
)

/**
 * Name cards asked for by somebody, to be printed: drawn by a job, there for a short while, sealed.
 */
export type CardSheetRow = {
  id: string
  classId: string | null
  pupilId: string | null
  state: 'waiting' | 'drawing' | 'ready' | 'failed'
  cardCount: number
  cardsDone: number
  /** The PDF as `Secrets.sealBytes` hides it: whoever reads the database has no cards. */
  sealed: Buffer | null
  requestedBy: string
  requestedAt: Date
  finishedAt: Date | null
  goneAt: Date | null
}
export const CardSheetRow = row<CardSheetRow>(
  'card_sheet',
  {
    id,
    classId: maybe(refer('class', { cascade: true })),
    pupilId: maybe(refer('person', { cascade: true })),
    state: text,
    cardCount: integer,
    cardsDone: integer,
    sealed: maybe(bytes),
    requestedBy: refer('person', { cascade: true }),
    requestedAt: moment,
    finishedAt: maybe(moment),
    goneAt: maybe(moment),
  },
  { indices: [{ columns: ['requestedBy'] }, { columns: ['classId'] }, { columns: ['pupilId'] }] },
)

/** How somebody came in. */
export type SessionWay = 'card' | 'peg' | 'password' | 'invitation' | 'mail-code'
export type SessionRow = {
  id: string
  tokenHash: string
  personId: string
  way: SessionWay
  /** Keyed hash of the browser's name for itself; null for sessions from before it was kept. */
  browserHash: string | null
  nameCardId: string | null
  invitationId: string | null
  tabletId: string | null
  createdAt: Date
  seenAt: Date
  expiresAt: Date
  /** Then it ends, however busy. */
  endsAt: Date | null
}
export const SessionRow = row<SessionRow>(
  'session',
  {
    id,
    tokenHash: text,
    personId: refer('person', { cascade: true }),
    way: text,
    browserHash: maybe(text),
    nameCardId: maybe(refer('name_card', { cascade: true })),
    invitationId: maybe(refer('invitation', { cascade: true })),
    tabletId: maybe(refer('tablet', { cascade: true })),
    createdAt: moment,
    seenAt: moment,
    expiresAt: moment,
    endsAt: maybe(moment),
  },
  {
    uniques: [{ columns: ['tokenHash'] }],
    indices: [
      { columns: ['personId'] },
      { columns: ['tabletId'] },
      { columns: ['nameCardId'] },
      { columns: ['invitationId'] },
    ],
  },
)

/** How a class's door is set; a class without a row has the first settings. */
export type DoorRow = {
  classId: string
  switch: DoorSwitch
  /** The school day of the last switching by hand. */
  switchedOn: string | null
  /** `HH:mm` on the school's clock. */
  opensAt: string
  closesAt: string
  tabletLimit: number
  asksSecret: boolean
  /** The only network in which pegs open, as `networkOf` names it; null: any. */
  network: string | null
}
export const DoorRow = row<DoorRow>('door', {
  classId: refer('class', { key: true, cascade: true }),
  switch: text,
  switchedOn: maybe(day),
  opensAt: text,
  closesAt: text,
  tabletLimit: integer,
  asksSecret: flag,
  network: maybe(text),
})

/** The class's card: of its code only the keyed hash is kept. */
export type DoorCardRow = {
  id: string
  classId: string
  codeHash: string
  createdAt: Date
  revokedAt: Date | null
}
export const DoorCardRow = row<DoorCardRow>(
  'door_card',
  {
    id,
    classId: refer('class', { cascade: true }),
    codeHash: text,
    createdAt: moment,
    revokedAt: maybe(moment),
  },
  { uniques: [{ columns: ['codeHash'] }], indices: [{ columns: ['classId'] }] },
)

/** A tablet that shows the pegs of a class. `number` is what the teacher calls it. */
export type TabletRow = {
  id: string
  classId: string
  number: number
  tokenHash: string
  browserHash: string
  openedAt: Date
  seenAt: Date
  endedAt: Date | null
}
export const TabletRow = row<TabletRow>(
  'tablet',
  {
    id,
    classId: refer('class', { cascade: true }),
    number: integer,
    tokenHash: text,
    browserHash: text,
    openedAt: moment,
    seenAt: moment,
    endedAt: maybe(moment),
  },
  { uniques: [{ columns: ['tokenHash'] }], indices: [{ columns: ['classId'] }] },
)

/**
 * Three symbols in order, readable for the teacher; wrong tries in a row and how long the peg waits
 * for it.
 */
export type PictureSecretRow = {
  pupilId: string
  symbols: SecretSymbol[]
  wrongTries: number
  waitUntil: Date | null
}
export const PictureSecretRow = row<PictureSecretRow>('picture_secret', {
  pupilId: refer('person', { key: true, cascade: true }),
  symbols: json,
  wrongTries: integer,
  waitUntil: maybe(moment),
})

/**
 * What an authenticator's codes are made of, sealed; counts from the first right code on.
 * `lastStep` is the time step last accepted.
 */
export type OneTimeSecretRow = {
  personId: string
  sealed: string
  confirmedAt: Date | null
  lastStep: number
}
export const OneTimeSecretRow = row<OneTimeSecretRow>('one_time_secret', {
  personId: refer('person', { key: true, cascade: true }),
  sealed: text,
  confirmedAt: maybe(moment),
  lastStep: integer,
})

/** For the day the phone is lost; each works once. */
export type SpareCodeRow = { id: string; personId: string; codeHash: string }
export const SpareCodeRow = row<SpareCodeRow>(
  'spare_code',
  { id, personId: refer('person', { cascade: true }), codeHash: text },
  { uniques: [{ columns: ['codeHash'] }], indices: [{ columns: ['personId'] }] },
)

/** A code mailed to a parent. */
export type MailCodeRow = {
  id: string
  personId: string
  codeHash: string
  tries: number
  createdAt: Date
  expiresAt: Date
}
export const MailCodeRow = row<MailCodeRow>(
  'mail_code',
  {
    id,
    personId: refer('person', { cascade: true }),
    codeHash: text,
    tries: integer,
    createdAt: moment,
    expiresAt: moment,
  },
  { indices: [{ columns: ['personId'] }] },
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
  { uniques: [{ columns: ['tokenHash'] }], indices: [{ columns: ['personId'] }] },
)

/** What lets a parent in until it ends or is withdrawn. */
export type InvitationRow = {
  id: string
  parentId: string
  tokenHash: string
  createdBy: string
  createdAt: Date
  expiresAt: Date
  withdrawnAt: Date | null
  lastUsedAt: Date | null
}
export const InvitationRow = row<InvitationRow>(
  'invitation',
  {
    id,
    parentId: refer('person', { cascade: true }),
    tokenHash: text,
    createdBy: refer('person'),
    createdAt: moment,
    expiresAt: moment,
    withdrawnAt: maybe(moment),
    lastUsedAt: maybe(moment),
  },
  { uniques: [{ columns: ['tokenHash'] }], indices: [{ columns: ['parentId'] }] },
)
