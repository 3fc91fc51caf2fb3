import type { MarkUp } from '@nibquill/contract'
import { DomainError, type PartKind } from '@nibquill/core'
import type { InkDocument } from '@nibquill/core/ink/document'
import { canBeMarked } from '@nibquill/core/ink/markUp'
import { picturesAmong } from '@nibquill/core/ink/picturesAmong'
import type { EntityManager } from 'typeorm'
import { markUpIsShown } from '../access/facts.ts'
import { refuseForeign } from '../media/attachments.ts'
import type { Media } from '../media/media.ts'
import { everyoneOf } from '../pieces/pieceChanges.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import { holdName } from '../platform/makeOrFind.ts'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { MarkUpPictureRow, MarkUpRow } from './rows.ts'

/** @see PutMarkUp in the contract */
export type NewMarkUp = { ink: InkDocument | null; seenMediaId: string | null }
type On = { pieceId: string; versionId: string; partId: string }

/**
 * What teachers write on copies of what was handed in. It hangs on the version: what a pupil makes
 * later does not touch it, and it touches nothing of theirs.
 */
export class MarkUps {
  readonly #platform: Platform
  readonly #media: Media
  constructor(platform: Platform, media: Media) {
    this.#platform = platform
    this.#media = media
  }

  /** @param forTeacher - Otherwise only what is written on versions that are decided. */
  async list(pieceId: string, forTeacher: boolean): Promise<MarkUp[]> {
    const rows = await this.#platform.db.manager.query<
      (Omit<MarkUp, 'changedAt'> & { changedAt: Date })[]
    >(
      `select k.version_id as "versionId", k.part_id as "partId", k.ink_media_id as "mediaId", k.changed_at as "changedAt",
         trim(u.first_name || ' ' || u.last_name) as by
       from piece_version w join mark_up k on k.version_id = w.id join person u on u.id = k.by_id
       where w.piece_id = $1 and ${markUpIsShown('w.id', '$2')} order by w.number desc, k.part_id`,
      [pieceId, forTeacher],
    )
    return rows.map((row) => ({ ...row, changedAt: row.changedAt.toISOString() }))
  }

  /**
   * Puts one in the place of the one there is; null takes it away.
   * @throws DomainError `piece/part-gone` for what is no part of that version, or cannot be written on;
   *   `piece/marked-already` where another is there by now; `media/not-found` for a picture that is
   *   neither the teacher's nor on that part
   */
  async put(viewer: SignedIn, on: On, { ink, seenMediaId }: NewMarkUp): Promise<void> {
    const { pieceId, versionId, partId } = on
    await this.#platform.db.transaction(async (manager) => {
      await holdName(manager, `mark-up:${versionId}:${partId}`)
      await refuseUnfit(manager, on)
      const before = await manager.findOneBy(MarkUpRow, { versionId, partId })
      if ((before?.inkMediaId ?? null) !== seenMediaId)
        throw new DomainError('piece/marked-already')
      const pictures = ink ? picturesAmong(ink.sheets.flatMap(({ things }) => things)) : []
      await refuseForeign(manager, viewer.personId, pictures, await picturesOn(manager, on))
      const now = this.#platform.clock.now()
      await manager.delete(MarkUpPictureRow, { versionId, partId })
      if (ink) {
        const inkMediaId = await this.#media.keepInk(manager, viewer.personId, ink)
        const row = { versionId, partId, inkMediaId, byId: viewer.personId, changedAt: now }
        await manager.upsert(MarkUpRow, row, ['versionId', 'partId'])
        if (pictures.length > 0)
          await manager.insert(
            MarkUpPictureRow,
            pictures.map((mediaId) => ({ versionId, partId, mediaId })),
          )
      } else await manager.delete(MarkUpRow, { versionId, partId })
      if (before)
        await addJob(manager, 'media.let-go', { mediaId: before.inkMediaId }, before.inkMediaId)
      // A teacher's hand rests every second: once for each time it was begun.
      if (!before || !ink)
        await note(
          manager,
          now,
          viewer.personId,
          ink ? 'mark-up.make' : 'mark-up.remove',
          pieceId,
          {
            ...{ versionId, partId },
          },
        )
      await tell(manager, await everyoneOf(manager, pieceId), { topic: 'mark-ups', id: pieceId })
    })
  }
}

async function refuseUnfit(manager: EntityManager, on: On): Promise<void> {
  const [part] = await manager.query<{ kind: PartKind }[]>(
    `select t.kind from version_part w join piece_version v on v.id = w.version_id join part t on t.id = w.part_id
     where w.version_id = $1 and w.part_id = $2 and v.piece_id = $3`,
    [on.versionId, on.partId, on.pieceId],
  )
  if (!part || !canBeMarked(part.kind)) throw new DomainError('piece/part-gone')
}

/** What hangs on the part as it was handed in, or lies on the copy already. */
async function picturesOn(manager: EntityManager, { versionId, partId }: On): Promise<string[]> {
  const rows = await manager.query<{ id: string }[]>(
    `select media_id as id from version_file where version_id = $1 and part_id = $2
     union select media_id from mark_up_picture where version_id = $1 and part_id = $2`,
    [versionId, partId],
  )
  return rows.map(({ id }) => id)
}
