import { DomainError } from '../domainError.ts'

/**
 * `draft` on my desk, `submitted` in the tray, `approved` in the folder, `returned` for another go.
 */
export const PIECE_STATES = ['draft', 'submitted', 'approved', 'returned'] as const
export type PieceState = (typeof PIECE_STATES)[number]

export const PIECE_STEPS = ['plan', 'trying-out', 'finished'] as const
export type PieceStep = (typeof PIECE_STEPS)[number]

export const MOVES = [
  'hand-in',
  'withdraw',
  'approve',
  'send-back',
  'take-back',
  'file-elsewhere',
  'another-go',
  'bin',
  'bin-handed-in',
  'restore',
] as const
export type Move = (typeof MOVES)[number]

/** Who may make each move, standing to the piece as they do. @see may, which decides who that is */
export const WHO_MOVES: Record<Move, readonly ('maker' | 'class-teacher')[]> = {
  'hand-in': ['maker'],
  withdraw: ['maker'],
  'another-go': ['maker'],
  bin: ['maker'],
  approve: ['class-teacher'],
  'send-back': ['class-teacher'],
  'take-back': ['class-teacher'],
  'file-elsewhere': ['class-teacher'],
  'bin-handed-in': ['class-teacher'],
  restore: ['maker', 'class-teacher'],
}

/**
 * Which state each move leads to, from each state that allows it. What is not written here is
 * refused.
 */
const LEADS_TO: Record<Move, Partial<Record<PieceState, PieceState>>> = {
  'hand-in': { draft: 'submitted', returned: 'submitted' },
  withdraw: { submitted: 'draft' },
  approve: { submitted: 'approved' },
  // What is approved stays in its folder while its pupil has another go.
  'send-back': { submitted: 'returned', approved: 'returned' },
  // A decision just made, taken back by whoever made it.
  'take-back': { approved: 'submitted', returned: 'submitted' },
  'file-elsewhere': { approved: 'approved' },
  'another-go': { approved: 'draft' },
  // Where it lies is no state: it comes back as it was.
  bin: { draft: 'draft' },
  // The wrong photo, the same piece twice.
  'bin-handed-in': { submitted: 'submitted', returned: 'returned' },
  restore: { draft: 'draft', submitted: 'submitted', returned: 'returned' },
}

/**
 * `version` counts changes to the stored piece from 1; it is not the number of the handed-in
 * version.
 */
export type StoredState = { state: PieceState; version: number }
/** With what else decides on its next move: whether it lies in the bin, and a version of it in a folder. */
export type Life = StoredState & { binnedAt: Date | null; approvedVersionId: string | null }

/**
 * Moves a piece one step along its life.
 * A move that no longer fits (the pupil withdrew while the teacher approved) is refused with the
 * state as it is,
 * so that the one who came second can be told what happened.
 * @param piece - As stored.
 * @param seenVersion - The version the person was looking at.
 * @returns The new state and `version + 1`.
 * @throws DomainError `piece/stale` with `state` and `version`, when someone else moved it first
 * @throws DomainError `piece/move-refused` with `state` and `move`
 * @throws DomainError `piece/not-found` for everything but bringing it back, while it lies in the bin
 * @throws DomainError `piece/in-folder` for throwing away what hangs in a folder
 */
export function movePiece(piece: Life, move: Move, seenVersion: number): StoredState {
  if (piece.version !== seenVersion)
    throw new DomainError('piece/stale', { state: piece.state, version: piece.version })
  if (piece.binnedAt && move !== 'restore') throw new DomainError('piece/not-found')
  if ((move === 'bin' || move === 'bin-handed-in') && piece.approvedVersionId)
    throw new DomainError('piece/in-folder')
  const next = move === 'restore' && !piece.binnedAt ? undefined : LEADS_TO[move][piece.state]
  if (!next) throw new DomainError('piece/move-refused', { state: piece.state, move })
  return { state: next, version: piece.version + 1 }
}

/**
 * Whether the pupil may still change words and parts: not while it lies in the tray, nor once it is
 * in the folder.
 */
export const isOpen = (state: PieceState): boolean => state === 'draft' || state === 'returned'

/**
 * How long a teacher can take a decision back: the screen offers it for ten seconds, and a slow
 * network needs its own.
 */
export const DECISION_OPEN_MS = 60_000

/** How long what was thrown away can be taken back; then it is gone everywhere. */
export const BIN_DAYS = 30

export const MAX_TITLE_LENGTH = 120
export const MAX_REFLECTION_LENGTH = 2000
export const MAX_MESSAGE_LENGTH = 2000
/** Sentences a teacher keeps to say them again. */
export const MAX_SENTENCES = 60
export const MAX_SENTENCE_LENGTH = 300
/** Why a teacher filed a piece elsewhere than its pupil thought. */
export const MAX_FILED_BECAUSE_LENGTH = 300
/** Why a teacher wants to come back to a piece. */
export const MAX_SECOND_LOOK_LENGTH = 300
