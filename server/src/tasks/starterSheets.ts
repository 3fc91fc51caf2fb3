import type { LyingOnCopies } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { InkDocument } from '@nibquill/core/ink/document'
import { picturesAmong } from '@nibquill/core/ink/picturesAmong'
import { spotsOf, stillExpected, whatLiesWhere, type Expected } from '@nibquill/core/ink/sorting'
import type { EntityManager } from 'typeorm'
import { refuseForeign } from '../media/attachments.ts'
import type { Media } from '../media/media.ts'
import { addJob } from '../platform/queue.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ITS_PUPILS, type FlatPupil, pupilOf } from './itsPupils.ts'
import { TaskRow, TaskSheetRow } from './rows.ts'

/** @see PutSheet in the contract */
export type NewSheet = {
  ink: InkDocument | null
  seenMediaId: string | null
  expected: Expected
}

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
    { ink, seenMediaId, expected }: NewSheet,
  ): Promise<void> {
    const hanging = await manager.findBy(TaskSheetRow, { taskId })
    const before = inkAmong(hanging)
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
    await manager.update(TaskRow, taskId, {
      sheetExpected: ink && spotsOf(ink).length > 0 ? stillExpected(expected, ink) : null,
      sheetOffered: false,
    })
    if (before) await addJob(manager, 'media.let-go', { mediaId: before }, before)
  }

  /** @throws DomainError `task/stale` when another sheet is there by now */
  async offer(
    manager: EntityManager,
    taskId: string,
    { offered, seenMediaId }: { offered: boolean; seenMediaId: string },
  ): Promise<void> {
    if (inkAmong(await manager.findBy(TaskSheetRow, { taskId })) !== seenMediaId)
      throw new DomainError('task/stale', {})
    await manager.update(TaskRow, taskId, { sheetOffered: offered })
  }

  /** @see LyingOnCopies in the contract */
  async listLying(manager: EntityManager, taskId: string): Promise<LyingOnCopies> {
    const rows = await manager.query<(FlatPupil & { pieceId: string; mediaIds: string[] })[]>(
      HANDED_IN,
      [taskId],
    )
    const copies: LyingOnCopies = []
    for (const { pieceId, mediaIds, ...pupil } of rows) {
      const lies: LyingOnCopies[number]['lies'] = []
      for (const mediaId of mediaIds)
        lies.push(...whatLiesWhere(await this.#media.readInk(manager, mediaId)))
      copies.push({ pupil: pupilOf(pupil), pieceId, lies })
    }
    return copies
  }

  /** The same sheet for a copy of a task. */
  async copy(manager: EntityManager, taskId: string, copyId: string): Promise<void> {
    await manager.query(
      'insert into task_sheet select $2, role, media_id from task_sheet where task_id = $1',
      [taskId, copyId],
    )
  }
}

const inkAmong = (hanging: readonly TaskSheetRow[]): string | null =>
  hanging.find(({ role }) => role === 'ink')?.mediaId ?? null

/** SQL: of the pupils of task $1, in order, the ink of what each handed in last. */
const HANDED_IN = `select u.id, u.first_name as "firstName", u.last_name as "lastName", u.peg_symbol as symbol, u.peg_colour as colour,
    v.piece_id as "pieceId", array_agg(f.media_id order by w.position) as "mediaIds"
  from task t ${ITS_PUPILS}
    join lateral (select v.id, v.piece_id from piece p join piece_maker m on m.piece_id = p.id and m.person_id = u.id
      join piece_version v on v.piece_id = p.id and (p.state <> 'draft' or v.id = p.approved_version_id)
      where p.task_id = t.id and p.binned_at is null order by p.created_at desc, p.id desc, v.number desc limit 1) v on true
    join version_part w on w.version_id = v.id
    join version_file f on f.version_id = v.id and f.part_id = w.part_id and f.role = 'ink'
  where t.id = $1 group by u.id, v.piece_id order by u.first_name, u.last_name, u.id`
