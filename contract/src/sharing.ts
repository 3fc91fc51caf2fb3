import * as v from 'valibot'
import { Email, Id, PupilName, Term, text, words } from './common.ts'
import { SharedPiece } from './portfolio.ts'

/**
 * GET /api/sharing/children: a parent's children. `shared` is false while the sharing consent does
 * not stand.
 */
export const Child = v.object({
  ...PupilName.entries,
  classId: v.nullable(Id),
  className: v.nullable(v.string()),
  shared: v.boolean(),
})
export const Children = v.array(Child)
export type Child = v.InferOutput<typeof Child>

/** GET /api/sharing/children/:id: one child's shared work by term, newest first. */
export const ChildWork = v.object({
  child: Child,
  newest: v.nullable(SharedPiece),
  chapters: v.array(v.object({ term: Term, pieces: v.array(SharedPiece) })),
})
export type ChildWork = v.InferOutput<typeof ChildWork>

/** What lets a parent in. */
export const Invitation = v.object({
  id: Id,
  /**
   * `asked`: they are here for another child already, and have not said yet whether this one is
   * theirs.
   */
  state: v.picklist(['asked', 'open', 'withdrawn', 'ended']),
  createdAt: v.string(),
  /** Null while asked. */
  expiresAt: v.nullable(v.string()),
  lastUsedAt: v.nullable(v.string()),
})
export const Guardian = v.object({
  id: Id,
  firstName: v.string(),
  lastName: v.string(),
  email: v.nullable(v.string()),
  /** The newest. */
  invitation: v.nullable(Invitation),
})
export type Guardian = v.InferOutput<typeof Guardian>

export const CONSENTS = ['photos', 'voice', 'sharing'] as const
/** `granted` null: nobody has said yet. */
export const Consent = v.object({
  kind: v.picklist(CONSENTS),
  granted: v.nullable(v.boolean()),
  saidBy: v.nullable(v.string()),
  saidAt: v.nullable(v.string()),
})
export type Consent = v.InferOutput<typeof Consent>

/**
 * GET /api/sharing/pupils/:id: who outside the school sees this pupil's work, and what their
 * parents agreed to.
 */
export const PupilSharing = v.object({ consents: v.array(Consent), guardians: v.array(Guardian) })
export type PupilSharing = v.InferOutput<typeof PupilSharing>

/**
 * Answers whoever invites or renews. `address` is where the parent goes: told this once, and only
 * where it shows no other child and
 * nothing was mailed.
 */
export const InvitedParent = v.object({ ...PupilSharing.entries, address: v.nullable(v.string()) })
export type InvitedParent = v.InferOutput<typeof InvitedParent>

/**
 * GET /api/sharing/requests: what a parent is asked, whether a child is theirs. POST
 * …/:id/{accept,decline} answers with what is left.
 */
export const GuardianRequest = v.object({
  id: Id,
  childName: v.string(),
  className: v.nullable(v.string()),
  askedBy: v.string(),
})
export const GuardianRequests = v.array(GuardianRequest)
export type GuardianRequest = v.InferOutput<typeof GuardianRequest>

/**
 * PUT /api/sharing/pupils/:id/parents/:parentId: invites a parent; somebody with this e-mail
 * address who is here already is asked first.
 */
export const AddParent = v.strictObject({
  firstName: words(60),
  lastName: text(60),
  email: v.nullable(Email),
})
export type AddParent = v.InferOutput<typeof AddParent>
export const ParentParams = v.object({ id: Id, parentId: Id })

/** PUT /api/sharing/pupils/:id/consents/:kind */
export const PutConsent = v.strictObject({ granted: v.boolean() })
export const ConsentParams = v.object({ id: Id, kind: v.picklist(CONSENTS) })

/**
 * POST /api/sharing/letters: a printed letter with a QR code for each parent who is invited and has
 * not come yet; answers with a PDF.
 */
export const LettersOrder = v.strictObject({ classId: v.optional(Id), pupilId: v.optional(Id) })

/** GET /api/sharing/links/:token: the piece behind a printed page's QR code. */
export const LinkParams = v.object({ token: v.pipe(v.string(), v.minLength(10), v.maxLength(100)) })
export const LinkedPiece = v.object({
  piece: SharedPiece,
  schoolName: v.string(),
  expiresAt: v.string(),
})
export type LinkedPiece = v.InferOutput<typeof LinkedPiece>
