import { CARD_CODE_LENGTH } from '@nibquill/core'
import * as v from 'valibot'
import { Email, Id, Peg, text, words } from './common.ts'

/** Length is what makes a password hard to guess. @see NIST SP 800-63B, section 5.1.1.2 */
export const MIN_PASSWORD_LENGTH = 10
const NewPassword = v.pipe(
  v.string(),
  v.minLength(MIN_PASSWORD_LENGTH, `is shorter than ${MIN_PASSWORD_LENGTH} characters`),
  v.maxLength(200),
)

/** POST /api/accounts/sign-in/card */
export const CardSignIn = v.strictObject({ code: v.pipe(v.string(), v.maxLength(CARD_CODE_LENGTH * 4)) })
export type CardSignIn = v.InferOutput<typeof CardSignIn>

/** POST /api/accounts/sign-in/password */
export const PasswordSignIn = v.strictObject({
  email: Email,
  password: v.pipe(v.string(), v.minLength(1, 'is empty'), v.maxLength(200)),
})
export type PasswordSignIn = v.InferOutput<typeof PasswordSignIn>

/** POST /api/accounts/sign-in/invitation */
export const InvitationSignIn = v.strictObject({ token: v.pipe(v.string(), v.minLength(10), v.maxLength(100)) })
export type InvitationSignIn = v.InferOutput<typeof InvitationSignIn>

/** GET /api/accounts/session: who is signed in on this device; `person` is null for nobody. */
export const Session = v.object({
  /** True while no school has been set up here. */
  firstRun: v.boolean(),
  school: v.nullable(v.object({ name: v.string(), timeZone: v.string() })),
  person: v.nullable(
    v.object({
      id: Id,
      role: v.picklist(['pupil', 'teacher', 'parent', 'office']),
      firstName: v.string(),
      lastName: v.string(),
      peg: v.nullable(Peg),
      /** Sets up and oversees the whole school. */
      leads: v.boolean(),
      className: v.nullable(v.string()),
      /** A pupil may wish for folders of their own. */
      mayPropose: v.boolean(),
      /** After this many minutes without a touch a shared tablet signs the pupil out; null: it does not. */
      idleMinutes: v.nullable(v.number()),
    }),
  ),
})
export type Session = v.InferOutput<typeof Session>
export type SignedInPerson = NonNullable<Session['person']>

/** POST /api/accounts/first-run: makes the school and its first teacher; refused once a school is there. */
export const FirstRun = v.strictObject({
  schoolName: words(120),
  timeZone: words(60),
  firstName: words(60),
  lastName: text(60),
  email: Email,
  password: NewPassword,
})
export type FirstRun = v.InferOutput<typeof FirstRun>

/** GET /api/accounts/password-links/:token: who may choose a password here. POST chooses it and signs in. */
export const PasswordLink = v.object({ firstName: v.string(), email: v.string(), schoolName: v.string() })
export const ChoosePassword = v.strictObject({ password: NewPassword })
export type ChoosePassword = v.InferOutput<typeof ChoosePassword>

/** POST /api/accounts/pupils/:id/card: a new name card; the old one stops. The code is answered this once and kept nowhere. */
export const CardCode = v.object({ code: v.string() })

/** POST /api/accounts/cards: new name cards as a PDF, for a class or for one pupil; the old ones stop at once. */
export const PrintCards = v.union([v.strictObject({ classId: Id }), v.strictObject({ pupilId: Id })])
export type PrintCards = v.InferOutput<typeof PrintCards>
