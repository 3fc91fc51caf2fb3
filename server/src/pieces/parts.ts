import type { AddPart } from '@nibquill/contract'
import { DomainError, isOpen, MAX_PARTS, orderParts } from '@nibquill/core'
import { IsNull, type EntityManager } from 'typeorm'
import { MediaRow } from '../media/rows.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { PART_NEEDS } from './partKinds.ts'
import type { PieceChanges } from './pieceChanges.ts'
import { PartRow, type PieceRow } from './rows.ts'

/**
 * What a draft is made of. Whatever is done here, versions that were handed in keep what they had.
 */
export class Parts {
  readonly #platform: Platform
  readonly #changes: PieceChanges
  constructor(platform: Platform, changes: PieceChanges) {
    this.#platform = platform
    this.#changes = changes
  }

  /**
   * Hangs what arrived into the piece: last, or in the place of the part it was tidied from. The
   * same part again changes nothing.
   * @throws DomainError `piece/not-open`, `piece/full`, `piece/part-gone`, `media/not-found`,
   *   `media/not-for-pieces`, `media/id-taken`
   */
  async add(viewer: SignedIn, pieceId: string, partId: string, input: AddPart): Promise<void> {
    const { kind, mediaId, name, instead } = input
    await this.#changes.change(pieceId, async (piece, manager) => {
      const there = await manager.findOneBy(PartRow, { id: partId })
      if (there) {
        if (there.pieceId !== pieceId || there.mediaId !== mediaId)
          throw new DomainError('media/id-taken')
        return null
      }
      refuseHandedIn(piece)
      const before = instead
        ? await manager.findOneBy(PartRow, { id: instead.partId, pieceId })
        : null
      if (instead && !before) throw new DomainError('piece/part-gone')
      const original = before ? (before.originalMediaId ?? before.mediaId) : null
      const media = await this.#mediaFor(viewer, mediaId, original, manager)
      if (!PART_NEEDS[kind](media)) throw new DomainError('media/not-for-pieces')
      const parts = await manager.findBy(PartRow, { pieceId, removedAt: IsNull() })
      if (parts.filter(({ id }) => id !== before?.id).length >= MAX_PARTS)
        throw new DomainError('piece/full')
      await manager.insert(PartRow, {
        id: partId,
        pieceId,
        kind,
        name: name || (before?.name ?? ''),
        position: before?.position ?? lastOf(parts) + 1,
        mediaId,
        originalMediaId: mediaId === original ? null : original,
        tidying: (mediaId === original ? null : instead?.tidying) ?? null,
        removedAt: null,
      })
      if (before && !before.removedAt)
        await manager.update(PartRow, before.id, { removedAt: this.#platform.clock.now() })
      await this.#note(manager, viewer, 'part.add', pieceId, {
        partId,
        ...(before ? { instead: before.id } : {}),
      })
      return { version: piece.version + 1 }
    })
  }

  /**
   * Everyone hangs in what they sent themselves; a photo made as it was again may be a fellow
   * maker's.
   */
  async #mediaFor(
    viewer: SignedIn,
    mediaId: string,
    original: string | null,
    manager: EntityManager,
  ): Promise<MediaRow> {
    const media = await manager.findOneBy(
      MediaRow,
      mediaId === original ? { id: mediaId } : { id: mediaId, ownerId: viewer.personId },
    )
    if (!media) throw new DomainError('media/not-found')
    return media
  }

  /**
   * Takes a part out of the draft, or puts it back where it was.
   * @throws DomainError `piece/not-open`, `piece/full`
   */
  async remove(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    options: { restore: boolean },
  ): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const found = await manager.findOneBy(PartRow, { id: partId, pieceId })
      if (!found) throw new DomainError('request/not-found')
      if ((found.removedAt === null) === options.restore) return null
      if (
        options.restore &&
        (await manager.countBy(PartRow, { pieceId, removedAt: IsNull() })) >= MAX_PARTS
      )
        throw new DomainError('piece/full')
      await manager.update(PartRow, partId, {
        removedAt: options.restore ? null : this.#platform.clock.now(),
      })
      await this.#note(manager, viewer, options.restore ? 'part.restore' : 'part.remove', pieceId, {
        partId,
      })
      return { version: piece.version + 1 }
    })
  }

  /** @throws DomainError `piece/not-open`, `piece/part-gone` */
  async name(viewer: SignedIn, pieceId: string, partId: string, name: string): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const found = await manager.findOneBy(PartRow, { id: partId, pieceId, removedAt: IsNull() })
      if (!found) throw new DomainError('piece/part-gone')
      if (found.name === name) return null
      await manager.update(PartRow, partId, { name })
      await this.#note(manager, viewer, 'part.name', pieceId, { partId })
      return { version: piece.version + 1 }
    })
  }

  /**
   * Sets the order. Parts another tablet added meanwhile follow.
   * @throws DomainError `piece/not-open`
   */
  async order(viewer: SignedIn, pieceId: string, wanted: readonly string[]): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const parts = await manager.find(PartRow, {
        where: { pieceId, removedAt: IsNull() },
        order: { position: 'ASC', id: 'ASC' },
      })
      const ordered = orderParts(
        parts.map(({ id }) => id),
        wanted,
      )
      if (ordered.every((id, i) => id === parts[i]!.id)) return null
      for (const [position, id] of ordered.entries())
        await manager.update(PartRow, id, { position })
      await this.#note(manager, viewer, 'part.order', pieceId, { partIds: ordered })
      return { version: piece.version + 1 }
    })
  }

  #note(
    manager: EntityManager,
    viewer: SignedIn,
    action: string,
    pieceId: string,
    details: Record<string, unknown>,
  ): Promise<void> {
    return note(manager, this.#platform.clock.now(), viewer.personId, action, pieceId, details)
  }
}

function refuseHandedIn({ state }: PieceRow): void {
  if (!isOpen(state)) throw new DomainError('piece/not-open', { state })
}

const lastOf = (parts: readonly PartRow[]): number =>
  Math.max(-1, ...parts.map(({ position }) => position))
