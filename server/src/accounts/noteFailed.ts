import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'

/**
 * Notes that somebody tried to come in and did not.
 * @param personId - Whose way in it was, where that is known.
 */
export const noteFailed = (
  { db, clock }: Platform,
  personId: string | null,
  way: 'card' | 'peg' | 'password' | 'one-time-code' | 'invitation' | 'mail-code',
): Promise<void> => note(db.manager, clock.now(), null, 'sign-in.failed', personId, { way })
