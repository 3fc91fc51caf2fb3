import type { KeptIn } from '@nibquill/contract'
import { DomainError } from '@nibquill/core'
import type { EntityManager } from 'typeorm'
import { madeTogether } from '../access/facts.ts'
import type { Guard } from '../access/guard.ts'
import { note } from '../platform/audit.ts'
import { tell } from '../platform/live.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { ask, sql, type Sql } from '../platform/sql.ts'
import { KeptInRow } from './rows.ts'
import { seenBy } from './seenBy.ts'

/**
 * SQL: where a pupil keeps a piece `p`, as long as they see that folder and it stands on the shelf; null
 * where they have chosen none.
 */
const keptIn = (viewer: SignedIn): Sql =>
  sql`(select k.folder_id from kept_in k join folder f on f.id = k.folder_id
     where k.piece_id = p.id and k.person_id = ${viewer.personId} and f.put_away_at is null and ${seenBy(viewer)})`

/**
 * SQL: whether an approved piece `p` lies in a folder for somebody who looks there: for a pupil where
 * they keep it, for everybody else where it was approved into.
 */
export const liesIn = (viewer: SignedIn, folderId: Sql): Sql =>
  viewer.role === 'pupil'
    ? sql`coalesce(${keptIn(viewer)}, p.approved_folder_id) = ${folderId}`
    : sql`p.approved_folder_id = ${folderId}`

/**
 * What several made together, each keeps in a folder of their own. It changes their shelf alone:
 * teachers, families and books know the folder it was approved into.
 */
export class KeptFolders {
  readonly #platform: Platform
  readonly #guard: Guard
  constructor(platform: Platform, guard: Guard) {
    this.#platform = platform
    this.#guard = guard
  }

  async describe(viewer: SignedIn, pieceId: string): Promise<KeptIn> {
    return describe(this.#platform.db.manager, viewer, pieceId)
  }

  /**
   * @param folderId - Null: where it was approved into.
   * @throws DomainError `piece/not-together`; `folder/fixed` where its task leaves no choice;
   *   `folder/not-found`
   */
  async keep(viewer: SignedIn, pieceId: string, folderId: string | null): Promise<KeptIn> {
    const { personId } = viewer
    const now = this.#platform.clock.now()
    return this.#platform.db.transaction(async (manager) => {
      if (folderId) {
        await this.#demandPlace(manager, viewer, pieceId, folderId)
        await manager.upsert(KeptInRow, { personId, pieceId, folderId, keptAt: now }, [
          'personId',
          'pieceId',
        ])
      } else await manager.delete(KeptInRow, { personId, pieceId })
      await note(manager, now, personId, 'piece.keep', pieceId, { folderId })
      await tell(manager, [personId], { topic: 'folders' })
      return describe(manager, viewer, pieceId)
    })
  }

  async #demandPlace(
    manager: EntityManager,
    viewer: SignedIn,
    pieceId: string,
    folderId: string,
  ): Promise<void> {
    const { together, fixed } = await standing(manager, viewer, pieceId)
    if (!together) throw new DomainError('piece/not-together')
    if (fixed) throw new DomainError('folder/fixed')
    await this.#guard.folder(viewer, 'folder.file-into', folderId, manager)
  }
}

async function standing(
  manager: EntityManager,
  { personId }: SignedIn,
  pieceId: string,
): Promise<{ together: boolean; fixed: boolean }> {
  const [found] = await ask<{ together: boolean; fixed: boolean }>(
    manager,
    sql`select ${madeTogether('p', personId)} as together, coalesce(not t.folder_changeable, false) as fixed
     from piece p left join task t on t.id = p.task_id where p.id = ${pieceId}`,
  )
  return found ?? { together: false, fixed: false }
}

async function describe(
  manager: EntityManager,
  viewer: SignedIn,
  pieceId: string,
): Promise<KeptIn> {
  const [folder] = await ask<NonNullable<KeptIn['folder']>>(
    manager,
    sql`select o.id, o.name, o.symbol, o.colour from piece p join folder o on o.id = ${keptIn(viewer)} where p.id = ${pieceId}`,
  )
  const { together, fixed } = await standing(manager, viewer, pieceId)
  return { folder: folder ?? null, together, mayChoose: together && !fixed }
}
