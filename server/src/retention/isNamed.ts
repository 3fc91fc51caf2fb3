import type { EntityManager } from 'typeorm'

export const HASH_LETTERS = 64

/**
 * Whether a row speaks of a stored file. What we have not named is not ours to take away; drafts of
 * files are nobody's.
 */
export async function isNamed(manager: EntityManager, key: string): Promise<boolean> {
  const [name = '', ...endings] = key.split('.')
  if (endings.length > 1) return false
  const isHash = /^[0-9a-f]{64}(-[\w-]+)?$/.test(name)
  if (!isHash && !/^[0-9a-f-]{36}$/.test(name)) return true
  const [found] = isHash
    ? await manager.query<unknown[]>(
        `select 1 from media where kept_sha256 = $1 union all select 1 from media_form where key = $2 limit 1`,
        [name.slice(0, HASH_LETTERS), key],
      )
    : await manager.query<unknown[]>('select 1 from book where id = $1', [name])
  return found !== undefined
}
