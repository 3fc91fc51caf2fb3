import { BIN_DAYS } from '@nibquill/core'
import { bookKey } from '../book/bookKey.ts'
import { fullKey } from '../media/keys.ts'
import type { MediaRow } from '../media/rows.ts'
import type { Uploads } from '../media/uploads.ts'
import { note } from '../platform/audit.ts'
import { holdName } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { letGoOfOriginals } from './filmOriginals.ts'
import { HASH_LETTERS, isNamed } from './isNamed.ts'
import { KEEPING } from './keeping.ts'

const DAY_MS = 24 * 3600 * 1000

/**
 * How long each thing stays. `days` after the moment named in `after` the nightly job takes it away
 * for good.
 * docs/retention.md says the same to a school, and a test holds the two together.
 */
export const RETENTION = {
  'binned pieces': { days: BIN_DAYS, after: 'thrown away' },
  'removed parts': {
    days: BIN_DAYS,
    after: 'taken out of a piece, when no handed-in version holds it',
  },
  'files nobody refers to': { days: 30, after: 'arrived' },
  'films as they were sent': {
    days: 0,
    after: 'the term ended, where the school keeps them so long',
  },
  'stray files': { days: 2, after: 'stored, when no row names them' },
  'half-arrived uploads': { days: 7, after: 'begun' },
  'ended sessions': { days: 1, after: 'ended' },
  'password links': { days: 1, after: 'used or ended' },
  'mailed codes': { days: 1, after: 'ended' },
  'withdrawn invitations': { days: 30, after: 'withdrawn' },
  'page links': { days: 30, after: 'withdrawn or ended' },
  'replaced cards': { days: 30, after: 'replaced' },
  'tablets taken away': { days: 30, after: 'taken away, or a year after they were last seen' },
  'card sheets': { days: 1, after: 'asked for' },
  letters: { days: 30, after: 'written' },
  'class lists read': { days: 30, after: 'read' },
  'books of pupils who left': { days: 365, after: 'left' },
  'books with removed pieces': { days: 0, after: 'a piece in them went' },
  news: { days: 365, after: 'told' },
  'audit notes': { days: 3 * 365, after: 'noted' },
} as const satisfies Record<string, { days: number; after: string }>
export type Retained = keyof typeof RETENTION
export type Removed = Record<Retained, number>

/** Rows that go by themselves: $1 is the moment before which they are over. */
const ROWS_OVER: Partial<Record<Retained, string>> = {
  'binned pieces': 'delete from piece where binned_at < $1',
  'removed parts': `delete from part t where t.removed_at < $1 and not exists (select 1 from version_part w where w.part_id = t.id)`,
  'ended sessions': `delete from session s where least(s.expires_at, coalesce(s.ends_at, s.expires_at)) < $1
    or exists (select 1 from name_card n where n.id = s.name_card_id and n.revoked_at < $1)
    or exists (select 1 from tablet t where t.id = s.tablet_id and t.ended_at < $1)
    or exists (select 1 from invitation i where i.id = s.invitation_id and i.withdrawn_at < $1)`,
  'password links':
    'delete from password_link where least(expires_at, coalesce(used_at, expires_at)) < $1',
  'mailed codes': 'delete from mail_code where expires_at < $1',
  'withdrawn invitations': 'delete from invitation where withdrawn_at < $1',
  'page links':
    'delete from page_link where least(expires_at, coalesce(withdrawn_at, expires_at)) < $1',
  'replaced cards': `with doors as (delete from door_card where revoked_at < $1 returning 1), names as (delete from name_card where revoked_at < $1 returning 1)
    select 1 from doors union all select 1 from names`,
  'tablets taken away': `delete from tablet where ended_at < $1 or seen_at < $1::timestamptz - interval '335 days'`,
  'card sheets': 'delete from card_sheet where requested_at < $1',
  letters: 'delete from mail where created_at < $1',
  'class lists read': `delete from class_list where created_at < $1 and state <> 'running'`,
  news: 'delete from news where happened_at < $1',
  'audit notes': 'delete from audit where happened_at < $1',
}

/** Media that hang nowhere: in no part, whatever their role in it, nor on a task or a notice. */
const UNREFERRED = `not exists (select 1 from part_file x where x.media_id = m.id) and not exists (select 1 from version_file v where v.media_id = m.id)
  and not exists (select 1 from task_sheet k where k.media_id = m.id) and not exists (select 1 from task_media t where t.media_id = m.id) and not exists (select 1 from notice_media n where n.media_id = m.id)
  and not exists (select 1 from decision d where d.voice_media_id = m.id) and not exists (select 1 from pick k where k.voice_media_id = m.id)
  and not exists (select 1 from mark_up u where u.ink_media_id = m.id) and not exists (select 1 from mark_up_picture u where u.media_id = m.id)
  and not exists (select 1 from comment c where c.voice_media_id = m.id) and not exists (select 1 from private_word w where w.voice_media_id = m.id)`

/**
 * Takes away what is over, each night. Every step can be repeated: rows first, and a file when the
 * last row that named it is gone.
 */
export class Retention {
  readonly #platform: Platform
  readonly #uploads: Uploads
  constructor(platform: Platform, uploads: Uploads) {
    this.#platform = platform
    this.#uploads = uploads
  }

  /**
   * The nightly chore `retention`. Put off to the next night while a copy of the school is made.
   * @returns how much went of each
   */
  async run(): Promise<Removed | null> {
    const holder = this.#platform.db.createQueryRunner()
    try {
      const [{ free } = { free: false }] = (await holder.query(
        'select pg_try_advisory_lock(hashtextextended($1, 0)) as free',
        [KEEPING],
      )) as {
        free: boolean
      }[]
      if (!free) return null
      try {
        return await this.#removeAll()
      } finally {
        await holder.query('select pg_advisory_unlock(hashtextextended($1, 0))', [KEEPING])
      }
    } finally {
      await holder.release()
    }
  }

  async #removeAll(): Promise<Removed> {
    const removed = Object.fromEntries(Object.keys(RETENTION).map((name) => [name, 0])) as Removed
    for (const [name, sql] of Object.entries(ROWS_OVER) as [Retained, string][])
      removed[name] = await this.#removeRows(name, sql)
    removed['half-arrived uploads'] = await this.#uploads.cleanUp(
      this.#before('half-arrived uploads'),
    )
    removed['books of pupils who left'] = await this.#removeBooks(
      'b.pupil_id in (select id from person where left_at < $1)',
      this.#before('books of pupils who left'),
    )
    removed['books with removed pieces'] = await this.#removeBooks(
      `b.requested_at < $1 and exists (select 1 from jsonb_to_recordset(b.content) as c("pieceId" uuid)
         where not exists (select 1 from piece p where p.id = c."pieceId"))`,
      this.#platform.clock.now(),
    )
    removed['files nobody refers to'] = await this.#removeMedia()
    removed['films as they were sent'] = await letGoOfOriginals(this.#platform)
    removed['stray files'] = await this.#removeStrays()
    await this.#platform.db.query('delete from sign_in_try where expire < $1', [
      this.#platform.clock.now().getTime(),
    ])
    await note(
      this.#platform.db.manager,
      this.#platform.clock.now(),
      null,
      'retention',
      null,
      onlySome(removed),
    )
    this.#platform.log.info({ removed: onlySome(removed) }, 'retention')
    return removed
  }

  #before(name: Retained): Date {
    return new Date(this.#platform.clock.now().getTime() - RETENTION[name].days * DAY_MS)
  }

  async #removeRows(name: Retained, sql: string): Promise<number> {
    const found = await this.#platform.db.query<[unknown[], number] | unknown[]>(sql, [
      this.#before(name),
    ])
    return sql.startsWith('delete') ? (found as [unknown[], number])[1] : found.length
  }

  async #removeBooks(where: string, before: Date): Promise<number> {
    const books = await this.#platform.db.query<{ id: string }[]>(
      `select b.id from book b where ${where}`,
      [before],
    )
    for (const { id } of books) {
      await this.#platform.db.query('delete from book where id = $1', [id])
      await this.#platform.storage.remove(bookKey(id))
    }
    return books.length
  }

  async #removeMedia(): Promise<number> {
    const media = await this.#platform.db.query<Pick<MediaRow, 'id' | 'keptSha256' | 'type'>[]>(
      `select m.id, m.kept_sha256 as "keptSha256", m.type from media m where m.arrived_at < $1 and ${UNREFERRED}`,
      [this.#before('files nobody refers to')],
    )
    let count = 0
    for (const row of media) count += await this.#removeOneMedia(row)
    return count
  }

  /** The job `media.let-go`: what nobody needs a moment later, as ink that was drawn on. */
  async letGo(mediaId: string): Promise<void> {
    const [row] = await this.#platform.db.query<Pick<MediaRow, 'id' | 'keptSha256' | 'type'>[]>(
      `select m.id, m.kept_sha256 as "keptSha256", m.type from media m where m.id = $1 and ${UNREFERRED}`,
      [mediaId],
    )
    if (row) await this.#removeOneMedia(row)
  }

  /**
   * Held by the file's name, so that the same photo arriving again meanwhile finds it or stores it
   * anew, and never loses it.
   */
  async #removeOneMedia(row: Pick<MediaRow, 'id' | 'keptSha256' | 'type'>): Promise<number> {
    return this.#platform.db.transaction(async (manager) => {
      await holdName(manager, `file:${row.keptSha256}`)
      const forms = await manager.query<{ key: string }[]>(
        'select key from media_form where media_id = $1',
        [row.id],
      )
      const [, gone] = await manager.query<[unknown, number]>(
        `delete from media m where m.id = $1 and ${UNREFERRED}`,
        [row.id],
      )
      // Before the row is gone for good: a stop in between leaves a row without a file for one
      // night, and nothing without a row.
      for (const key of gone > 0 ? [fullKey(row), ...forms.map((form) => form.key)] : [])
        if (!(await isNamed(manager, key))) await this.#platform.storage.remove(key)
      return gone
    })
  }

  /**
   * Files whose row never came, or went without them: a process was stopped at the wrong moment.
   */
  async #removeStrays(): Promise<number> {
    const before = this.#before('stray files')
    let count = 0
    for await (const { key, storedAt } of this.#platform.storage.list()) {
      if (storedAt >= before || (await isNamed(this.#platform.db.manager, key))) continue
      const gone = await this.#platform.db.transaction(async (manager) => {
        // Held as when a file arrives: one that comes again at this moment is not taken away from
        // its new row.
        await holdName(manager, `file:${key.slice(0, HASH_LETTERS)}`)
        if (await isNamed(manager, key)) return false
        await this.#platform.storage.remove(key)
        return true
      })
      if (gone) count += 1
    }
    return count
  }
}

const onlySome = (removed: Removed): Record<string, number> =>
  Object.fromEntries(Object.entries(removed).filter(([, count]) => count > 0))
