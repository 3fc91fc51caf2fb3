import * as v from 'valibot'
import { Id, PupilName, Term } from './common.ts'
import { SharedPiece } from './portfolio.ts'

/** GET /api/sharing/children: a parent's children. `shared` is false while the sharing consent does not stand. */
export const Child = v.object({ ...PupilName.entries, className: v.nullable(v.string()), shared: v.boolean() })
export const Children = v.array(Child)
export type Child = v.InferOutput<typeof Child>

/** GET /api/sharing/children/:id: one child's shared work by term, newest first. */
export const ChildWork = v.object({
  child: Child,
  newest: v.nullable(SharedPiece),
  chapters: v.array(v.object({ term: Term, pieces: v.array(SharedPiece) })),
})
export type ChildWork = v.InferOutput<typeof ChildWork>

/** GET /api/sharing/pupils/:id/invitations */
export const Invitation = v.object({
  id: Id,
  parentName: v.string(),
  state: v.picklist(['open', 'withdrawn', 'ended']),
  createdAt: v.string(),
  expiresAt: v.string(),
  lastUsedAt: v.nullable(v.string()),
  /** Where the parent goes; the address works as long as `state` is open. */
  address: v.nullable(v.string()),
})
export const PupilSharing = v.object({ consent: v.boolean(), invitations: v.array(Invitation) })
export type PupilSharing = v.InferOutput<typeof PupilSharing>

/** GET /api/sharing/links/:token: the piece behind a printed page's QR code. */
export const LinkParams = v.object({ token: v.pipe(v.string(), v.minLength(10), v.maxLength(100)) })
export const LinkedPiece = v.object({ piece: SharedPiece, schoolName: v.string(), expiresAt: v.string() })
export type LinkedPiece = v.InferOutput<typeof LinkedPiece>
