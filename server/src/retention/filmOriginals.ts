import type { EntityManager } from 'typeorm'
import { fullKey } from '../media/keys.ts'
import type { MediaRow } from '../media/rows.ts'
import { hashFile } from '../platform/hashFile.ts'
import { holdName } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { isNamed } from './isNamed.ts'

type Original = Pick<MediaRow, 'keptSha256' | 'type'> & { playableKey: string; sizeBytes: number }
const PLAYABLE = 'video/mp4'

/**
 * Films of terms that ended, where the school keeps what was sent only so long: what every browser
 * plays takes its place, where it is smaller. One that is still being made ready waits.
 */
const OVER = `with ended as (
    select max((t.ends_on + 1)::timestamp at time zone s.time_zone) as at from school s cross join term t
    where s.film_originals = 'until-term-end' and (t.ends_on + 1)::timestamp at time zone s.time_zone <= $1)
  select distinct m.kept_sha256 as "keptSha256", m.type, f.key as "playableKey", f.size_bytes as "sizeBytes"
  from ended cross join media m join media_form f on f.media_id = m.id and f.form = 'playable'
  where ended.at is not null and m.kind = 'film' and f.size_bytes < m.size_bytes
    and not exists (select 1 from media o where o.kept_sha256 = m.kept_sha256 and (o.state <> 'ready' or o.arrived_at >= ended.at))`

/**
 * Lets go of films as they were sent. Can be repeated: rows first, and what nobody names any more
 * after them.
 * @returns how many went
 */
export async function letGoOfOriginals({ db, clock, storage }: Platform): Promise<number> {
  const over = await db.query<Original[]>(OVER, [clock.now()])
  for (const original of over) {
    await storage.withFile(original.playableKey, async (file) => {
      const keptSha256 = await hashFile(file)
      await db.transaction(async (manager) => {
        for (const hash of [original.keptSha256, keptSha256].sort())
          await holdName(manager, `file:${hash}`)
        const key = fullKey({ keptSha256, type: PLAYABLE })
        if (!(await storage.about(key))) await storage.put(key, { file })
        await putInPlace(manager, original, { keptSha256, key })
      })
    })
    for (const key of [fullKey(original), original.playableKey])
      await db.transaction(async (manager) => {
        // The same film may arrive again at this moment.
        await holdName(manager, `file:${original.keptSha256}`)
        if (!(await isNamed(manager, key))) await storage.remove(key)
      })
  }
  return over.length
}

async function putInPlace(
  manager: EntityManager,
  { keptSha256: before, sizeBytes }: Original,
  { keptSha256, key }: { keptSha256: string; key: string },
): Promise<void> {
  await manager.query(
    `update media_form f set key = $2 from media m where m.id = f.media_id and m.kept_sha256 = $1 and f.form = 'playable'`,
    [before, key],
  )
  // Saved, it goes by the ending of what it is now.
  await manager.query(
    `update media set kept_sha256 = $2, type = $3, size_bytes = $4, name = regexp_replace(name, '\\.(mov|m4v|webm)$', '.mp4', 'i')
     where kept_sha256 = $1`,
    [before, keptSha256, PLAYABLE, sizeBytes],
  )
}
