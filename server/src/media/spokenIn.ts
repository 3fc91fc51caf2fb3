import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import type { SignedIn } from '../platform/routes.ts'
import { MediaRow } from './rows.ts'

/** SQL: what was said with a decision or a pick; null where nothing was. */
export const spokenIn = (row: string): string =>
  `(select json_build_object('mediaId', v.id, 'state', v.state) from media v where v.id = ${row}.voice_media_id)`

/** @throws DomainError `media/not-found` for what is no recording of one's own */
export async function refuseForeignVoice(
  manager: EntityManager,
  viewer: SignedIn,
  mediaId: string,
): Promise<void> {
  const own = { id: mediaId, ownerId: viewer.personId, kind: 'sound' } as const
  if (!(await manager.existsBy(MediaRow, own))) throw new DomainError('media/not-found')
}
