import { CARD_CODE_LENGTH, DOOR_SWITCHES, SECRET_SYMBOLS, fault } from '@nibquill/core'
import * as v from 'valibot'
import { Email, Id, Peg, PupilName, Time, text, words } from './common.ts'

/** Length is what makes a password hard to guess. @see NIST SP 800-63B, section 5.1.1.2 */
export const MIN_PASSWORD_LENGTH = 10
const NewPassword = v.pipe(
  v.string(),
  v.minLength(MIN_PASSWORD_LENGTH, fault('too-short', MIN_PASSWORD_LENGTH)),
  v.maxLength(200),
)

/**
 * POST /api/accounts/sign-in/card: a name card opens a desk; a door card hangs the pegs of its
 * class on this tablet. Answered with `Session`.
 */
export const CardSignIn = v.strictObject({
  code: v.pipe(v.string(), v.maxLength(CARD_CODE_LENGTH * 4)),
})
export type CardSignIn = v.InferOutput<typeof CardSignIn>

const GivenPassword = v.pipe(v.string(), v.minLength(1, fault('empty')), v.maxLength(200))
/** Six digits of an authenticator, or a spare code. */
const OneTimeCode = v.pipe(v.string(), v.trim(), v.minLength(1, fault('empty')), v.maxLength(40))

/**
 * POST /api/accounts/sign-in/password: refused with `accounts/code-needed` where one-time codes are
 * on and none was sent.
 */
export const PasswordSignIn = v.strictObject({
  email: Email,
  password: GivenPassword,
  oneTimeCode: v.optional(OneTimeCode),
})
export type PasswordSignIn = v.InferOutput<typeof PasswordSignIn>

/** POST /api/accounts/sign-in/invitation */
export const InvitationSignIn = v.strictObject({
  token: v.pipe(v.string(), v.minLength(10), v.maxLength(100)),
})
export type InvitationSignIn = v.InferOutput<typeof InvitationSignIn>

/**
 * POST /api/accounts/invitation: whose work an invitation opens, by first name, before it is used.
 * Body as for signing in by it.
 */
export const InvitationLook = v.object({ childNames: v.array(v.string()) })
export type InvitationLook = v.InferOutput<typeof InvitationLook>

/** How a class's door stands, and why; `until` is when it shuts by itself. */
const DoorStanding = {
  open: v.boolean(),
  until: v.nullable(v.string()),
  reason: v.picklist(['hours', 'by-hand', 'no-lessons', 'too-early', 'too-late']),
}
const DoorAtTablet = v.object({ className: v.string(), tabletNumber: v.number(), ...DoorStanding })

/** GET /api/accounts/session: who is signed in on this device; `person` is null for nobody. */
export const Session = v.object({
  /** True while no school has been set up here. */
  firstRun: v.boolean(),
  /**
   * `address` is what stands on cards and letters. `mails`: letters leave by a mail server; without
   * one they are kept in the post box.
   */
  school: v.nullable(
    v.object({
      name: v.string(),
      timeZone: v.string(),
      address: v.string(),
      mails: v.boolean(),
    }),
  ),
  /** On a tablet that shows a class's pegs: how its door stands. */
  door: v.nullable(DoorAtTablet),
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
      /** A pupil whose class taps pictures instead of typing. */
      young: v.boolean(),
      /** It is heard when a piece goes into the tray. */
      sounds: v.boolean(),
      /**
       * After this many minutes without a touch a shared tablet signs the pupil out; null: it does
       * not.
       */
      idleMinutes: v.nullable(v.number()),
    }),
  ),
})
export type Session = v.InferOutput<typeof Session>
export type SignedInPerson = NonNullable<Session['person']>

/**
 * POST /api/accounts/first-run: makes the school and its first teacher; refused once a school is
 * there.
 */
export const FirstRun = v.strictObject({
  schoolName: words(120),
  timeZone: words(60),
  firstName: words(60),
  lastName: text(60),
  email: Email,
  password: NewPassword,
})
export type FirstRun = v.InferOutput<typeof FirstRun>

/**
 * GET /api/accounts/pegs: the pegs of the class this tablet belongs to, by name; none while the
 * door is shut.
 */
export const PegWall = v.object({
  ...DoorAtTablet.entries,
  /** When the door opens on a school day, `HH:mm`. */
  opensAt: v.string(),
  /** A tap is followed by the three pictures of the pupil's secret. */
  asksSecret: v.boolean(),
  pegs: v.array(v.object({ pupilId: Id, name: v.string(), peg: Peg })),
})
export type PegWall = v.InferOutput<typeof PegWall>

/** POST /api/accounts/sign-in/peg: a tap on one's own peg; `secret` where the class asks for it. */
export const PegSignIn = v.strictObject({
  pupilId: Id,
  secret: v.nullable(v.pipe(v.array(v.picklist(SECRET_SYMBOLS)), v.maxLength(3))),
})
export type PegSignIn = v.InferOutput<typeof PegSignIn>

/** A pupil's desk that is open somewhere. `tabletNumber` for those opened by a peg. */
export const OpenSession = v.object({
  id: Id,
  way: v.picklist(['card', 'peg']),
  tabletNumber: v.nullable(v.number()),
  pupil: PupilName,
  openedAt: v.string(),
  seenAt: v.string(),
})
export type OpenSession = v.InferOutput<typeof OpenSession>
export const SharedTablet = v.object({
  id: Id,
  number: v.number(),
  openedAt: v.string(),
  seenAt: v.string(),
})
export type SharedTablet = v.InferOutput<typeof SharedTablet>

/**
 * GET /api/accounts/classes/:id/door: the class's door as its teacher sees it. PATCH changes it
 * (what is left out stays).
 * POST …/door/card answers a new door card as a PDF; tablets opened by the old one stop.
 * DELETE …/sessions ends every open desk, …/sessions/:part one; DELETE …/tablets/:part takes a
 * tablet away.
 */
export const ClassDoor = v.object({
  /** As switched today; `hours` again from tomorrow on. */
  switch: v.picklist(DOOR_SWITCHES),
  ...DoorStanding,
  opensAt: v.string(),
  closesAt: v.string(),
  tabletLimit: v.number(),
  asksSecret: v.boolean(),
  /** Pegs open only in the network from which this was switched on. */
  onlyHere: v.boolean(),
  cardMadeAt: v.nullable(v.string()),
  tablets: v.array(SharedTablet),
  sessions: v.array(OpenSession),
})
export type ClassDoor = v.InferOutput<typeof ClassDoor>
export const MAX_TABLETS = 40
export const ChangeDoor = v.strictObject({
  switch: v.optional(v.picklist(DOOR_SWITCHES)),
  opensAt: v.optional(Time),
  closesAt: v.optional(Time),
  tabletLimit: v.optional(
    v.pipe(
      v.number(),
      v.integer(),
      v.minValue(1, fault('too-few', 1)),
      v.maxValue(MAX_TABLETS, fault('too-many', MAX_TABLETS)),
    ),
  ),
  asksSecret: v.optional(v.boolean()),
  /** `true` takes the network this request comes from. */
  onlyHere: v.optional(v.boolean()),
})
export type ChangeDoor = v.InferOutput<typeof ChangeDoor>
export const PartOfClassParams = v.object({ id: Id, part: Id })

/**
 * GET /api/accounts/classes/:id/secrets: every pupil's three pictures, for the teacher. POST
 * …/secrets/:part gives one pupil new ones.
 */
export const PupilSecret = v.object({
  pupil: PupilName,
  symbols: v.array(v.picklist(SECRET_SYMBOLS)),
})
export type PupilSecret = v.InferOutput<typeof PupilSecret>
export const PupilSecrets = v.array(PupilSecret)

/** POST /api/accounts/password: changes one's own; all other browsers are signed out. */
export const ChangePassword = v.strictObject({ password: GivenPassword, newPassword: NewPassword })
export type ChangePassword = v.InferOutput<typeof ChangePassword>
/**
 * POST /api/accounts/password-forgotten mails a link, POST /api/accounts/mail-codes mails a parent
 * a code. Always answered alike.
 */
export const MailMe = v.strictObject({ email: Email })
/** POST /api/accounts/sign-in/mail-code */
export const MailCodeSignIn = v.strictObject({
  email: Email,
  code: v.pipe(v.string(), v.trim(), v.minLength(1, fault('empty')), v.maxLength(20)),
})
export type MailCodeSignIn = v.InferOutput<typeof MailCodeSignIn>

/**
 * GET /api/accounts/one-time-codes. POST …/begin answers a secret, POST …/confirm switches on, POST
 * …/off switches off.
 * @see RFC 6238
 */
export const OneTimeCodeState = v.object({ on: v.boolean(), spareCodesLeft: v.number() })
export type OneTimeCodeState = v.InferOutput<typeof OneTimeCodeState>
/** `secret` in base 32 (RFC 4648), for typing; `address` for the QR code. */
export const OneTimeSecret = v.object({ secret: v.string(), address: v.string() })
export type OneTimeSecret = v.InferOutput<typeof OneTimeSecret>
export const ConfirmOneTimeCode = v.strictObject({ code: OneTimeCode })
/** Shown this once; each works once. */
export const SpareCodes = v.object({ codes: v.array(v.string()) })
export const GivePassword = v.strictObject({ password: GivenPassword })

/**
 * GET /api/accounts/password-links/:token: who may choose a password here. POST chooses it and
 * signs in.
 */
export const PasswordLink = v.object({
  firstName: v.string(),
  email: v.string(),
  schoolName: v.string(),
})
export type PasswordLink = v.InferOutput<typeof PasswordLink>
export const ChoosePassword = v.strictObject({ password: NewPassword })
export type ChoosePassword = v.InferOutput<typeof ChoosePassword>

/**
 * POST /api/accounts/pupils/:id/card: a new name card; the old one stops. The code is answered this
 * once and kept nowhere.
 */
export const CardCode = v.object({ code: v.string() })

/**
 * POST /api/accounts/cards: asks for new name cards of a class or of one pupil. A job draws them;
 * answered 202 with `CardSheet`.
 * The old cards, and what they opened, stop when the sheet is ready, not before.
 */
export const PrintCards = v.union([
  v.strictObject({ classId: Id }),
  v.strictObject({ pupilId: Id }),
])
export type PrintCards = v.InferOutput<typeof PrintCards>

/**
 * GET /api/accounts/cards/:id; its PDF is at …/:id/file. Only who asked for it can see it, and only
 * for a short while.
 */
export const CardSheet = v.object({
  id: Id,
  /** One of the two says what was asked for. */
  classId: v.nullable(Id),
  pupilId: v.nullable(Id),
  state: v.picklist(['waiting', 'drawing', 'ready', 'failed']),
  cardCount: v.number(),
  cardsDone: v.number(),
  /** Null until it is ready; `goneAt` is when nobody can fetch it any more. */
  finishedAt: v.nullable(v.string()),
  goneAt: v.nullable(v.string()),
})
export type CardSheet = v.InferOutput<typeof CardSheet>
/** GET /api/accounts/cards: one's own sheets that are still there, newest first. */
export const CardSheets = v.array(CardSheet)
