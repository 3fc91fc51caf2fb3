import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'

/** SQL: a `media m` as it hangs on a task or a notice. */
export const ATTACHMENT_JSON = `'mediaId', m.id, 'name', m.name, 'width', m.width, 'height', m.height, 'sizeBytes', m.size_bytes, 'state', m.state,
  'kind', m.kind`

/**
 * Only what one sent oneself, or what hangs there already, can be hung somewhere.
 * @throws DomainError `media/not-found`
 */
export async function refuseForeign(
  manager: EntityManager,
  ownerId: string,
  mediaIds: readonly string[],
  hanging: readonly string[] = [],
): Promise<void> {
  const fresh = mediaIds.filter((id) => !hanging.includes(id))
  const own = await manager.query<{ id: string }[]>(
    'select id from media where id = any($1) and owner_id = $2',
    [fresh, ownerId],
  )
  if (own.length < new Set(fresh).size) throw new DomainError('media/not-found')
}
