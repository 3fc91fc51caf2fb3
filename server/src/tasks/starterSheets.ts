import { DomainError } from '@nibquill/core'
import { picturesAmong, type InkDocument } from '@nibquill/core/ink/document'
import type { EntityManager } from 'typeorm'
import { refuseForeign } from '../media/attachments.ts'
import type { Media } from '../media/media.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { TaskSheetRow } from './rows.ts'

/** @see PutSheet in the contract */
export type NewSheet = { ink: InkDocument | null; seenMediaId: string | null }

/**
 * Starter sheets of tasks. Each pupil draws on a copy of their own: whatever becomes of the sheet
 * afterwards, copies stay.
 */
export class StarterSheets {
  readonly #media: Media
  constructor(media: Media) {
    this.#media = media
  }

  /**
   * Puts a sheet in the place of the one there is; null takes it away.
   * @param seenMediaId - The sheet its teacher began from.
   * @throws DomainError `task/stale` when another is there by now; `media/not-found` for a picture
   *   that is not the teacher's, nor on the sheet already
   */
  async put(
    manager: EntityManager,
    viewer: SignedIn,
    taskId: string,
    { ink, seenMediaId }: NewSheet,
  ): Promise<void> {
    const hanging = await manager.findBy(TaskSheetRow, { taskId })
    const before = hanging.find(({ role }) => role === 'ink')?.mediaId ?? null
    if (before !== seenMediaId) throw new DomainError('task/stale', {})
    const wanted = ink ? picturesAmong(ink.sheets.flatMap(({ things }) => things)) : []
    await refuseForeign(
      manager,
      viewer.personId,
      wanted,
      hanging.map(({ mediaId }) => mediaId),
    )
    await manager.delete(TaskSheetRow, { taskId })
    if (ink) {
      const mediaId = await this.#media.keepInk(manager, viewer.personId, ink)
      await manager.insert(TaskSheetRow, { taskId, role: 'ink', mediaId })
    }
    for (const mediaId of wanted)
      await manager.insert(TaskSheetRow, { taskId, role: 'laid', mediaId })
    if (before) await addJob(manager, 'media.let-go', { mediaId: before }, before)
  }

  /** The same sheet for a copy of a task. */
  async copy(manager: EntityManager, taskId: string, copyId: string): Promise<void> {
    await manager.query(
      'insert into task_sheet select $2, role, media_id from task_sheet where task_id = $1',
      [taskId, copyId],
    )
  }
}
