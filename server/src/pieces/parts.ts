import { isDeepStrictEqual } from 'node:util'
import type { AddPart, WritePart } from '@nibquill/contract'
import type { AddTalk, DrawOn } from '@nibquill/contract/ink'
import {
  DomainError,
  isOpen,
  MAX_PARTS,
  orderParts,
  PART_FILES,
  type MediaKind,
  type PartFileRole,
  type PartKind,
} from '@nibquill/core'
import { drawOn, isFull } from '@nibquill/core/ink/changes'
import { picturesAmong } from '@nibquill/core/ink/picturesAmong'
import { inkOfTalk, picturesInTalk, type Talk } from '@nibquill/core/ink/talk'
import { IsNull, type EntityManager } from 'typeorm'
import type { Media } from '../media/media.ts'
import { MediaRow } from '../media/rows.ts'
import { note } from '../platform/audit.ts'
import { addJob } from '../platform/queue.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import { contentOf, wordsIn, type PartContent } from './partKinds.ts'
import type { PieceChanges } from './pieceChanges.ts'
import { PartFileRow, PartRow, type PieceRow } from './rows.ts'

/** A part as it is to hang on a piece. `instead`: the part whose place it takes. */
type Hung = {
  kind: PartKind
  name: string
  content: PartContent
  files: Partial<Record<PartFileRole, string>>
  instead?: string | undefined
}

/**
 * What a draft is made of. Whatever is done here, versions that were handed in keep what they had.
 */
export class Parts {
  readonly #platform: Platform
  readonly #changes: PieceChanges
  readonly #media: Media
  constructor(platform: Platform, changes: PieceChanges, media: Media) {
    this.#platform = platform
    this.#changes = changes
    this.#media = media
  }

  /**
   * Puts a part into the piece: last, or in the place of the part it was tidied from. The same part
   * again changes nothing.
   * @throws DomainError `piece/not-open`, `piece/full`, `piece/part-gone`, `media/not-found`,
   *   `media/not-for-pieces`, `media/id-taken`
   */
  async add(viewer: SignedIn, pieceId: string, partId: string, input: AddPart): Promise<void> {
    const { kind, name } = input
    await this.#hangIn(viewer, pieceId, partId, {
      ...{ kind, name, content: contentOf(input) },
      files: 'files' in input ? input.files : {},
      instead: 'instead' in input ? input.instead?.partId : undefined,
    })
  }

  /**
   * Puts a talk-through into the piece, last: what was said, and what was drawn meanwhile. The same
   * again changes nothing.
   * @throws DomainError `piece/not-open`, `piece/full`, `piece/drawing-full`, `media/not-found`,
   *   `media/not-for-pieces`, `media/id-taken`
   */
  async addTalk(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    { name, sound, talk }: Omit<AddTalk, 'talk'> & { talk: Talk },
  ): Promise<void> {
    await this.#hangIn(
      viewer,
      pieceId,
      partId,
      { kind: 'talk', name, content: {}, files: { sound } },
      async (manager) => {
        const ink = inkOfTalk(talk)
        if (isFull(ink)) throw new DomainError('piece/drawing-full')
        await this.#hangPictures(viewer, { pieceId, partId }, picturesInTalk(talk), manager)
        const mediaId = await this.#media.keepInk(manager, viewer.personId, ink)
        await manager.insert(PartFileRow, { partId, role: 'ink', mediaId })
      },
    )
  }

  /** @param more - What else hangs on it. */
  async #hangIn(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    { kind, name, content, files: wanted, instead }: Hung,
    more?: (manager: EntityManager) => Promise<void>,
  ): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      if (await isThere(manager, pieceId, partId, { kind, files: wanted })) return null
      refuseHandedIn(piece)
      const before = instead ? await manager.findOneBy(PartRow, { id: instead, pieceId }) : null
      if (instead && !before) throw new DomainError('piece/part-gone')
      const files = await this.#filesFor(viewer, { kind, files: wanted }, before, manager)
      const parts = await manager.findBy(PartRow, { pieceId, removedAt: IsNull() })
      if (parts.filter(({ id }) => id !== before?.id).length >= MAX_PARTS)
        throw new DomainError('piece/full')
      await manager.insert(PartRow, {
        ...{ id: partId, pieceId, kind, content, removedAt: null },
        name: name || (before?.name ?? ''),
        position: before?.position ?? lastOf(parts) + 1,
      })
      for (const file of files) await manager.insert(PartFileRow, { partId, ...file })
      await more?.(manager)
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
   * maker's. A tidied photo keeps what was taken.
   */
  async #filesFor(
    viewer: SignedIn,
    { kind, files: wanted }: Pick<Hung, 'kind' | 'files'>,
    before: PartRow | null,
    manager: EntityManager,
  ): Promise<Omit<PartFileRow, 'partId'>[]> {
    const original = before ? await originalOf(manager, before.id) : null
    const files = Object.entries(wanted) as [PartFileRole, string][]
    const roles: Partial<Record<PartFileRole, { kind: MediaKind }>> = PART_FILES[kind]
    for (const [role, mediaId] of files) {
      const media = await manager.findOneBy(
        MediaRow,
        mediaId === original ? { id: mediaId } : { id: mediaId, ownerId: viewer.personId },
      )
      if (!media) throw new DomainError('media/not-found')
      if (media.kind !== roles[role]?.kind) throw new DomainError('media/not-for-pieces')
    }
    const own = files.map(([role, mediaId]) => ({ role, mediaId }))
    return original && !own.some(({ mediaId }) => mediaId === original)
      ? [...own, { role: 'taken', mediaId: original }]
      : own
  }

  /**
   * What stands in a writing, or is said in a voice, a talk-through or a film, from now on; versions
   * that were handed in keep what stood there.
   * @throws DomainError `piece/not-open`, `piece/part-gone`; `piece/part-changed` with `text` where
   *   something else stands there than the writer began from
   */
  async write(pieceId: string, partId: string, { text, seenText }: WritePart): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const found = await manager.findOneBy(PartRow, { id: partId, pieceId, removedAt: IsNull() })
      const there = found && wordsIn(found)
      if (there === null) throw new DomainError('piece/part-gone')
      if (there === text) return null
      if (there !== seenText) throw new DomainError('piece/part-changed', { text: there })
      await manager.update(PartRow, partId, { content: { ...found!.content, text } })
      return { version: piece.version + 1 }
    })
  }

  /**
   * Draws on a drawing; versions that were handed in keep what was drawn then.
   * @throws DomainError `piece/not-open`, `piece/part-gone`, `piece/drawing-full`, `media/not-found`
   */
  async draw(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    { changes }: DrawOn,
  ): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const found = await manager.findOneBy(PartRow, { id: partId, pieceId, removedAt: IsNull() })
      if (found?.kind !== 'drawing') throw new DomainError('piece/part-gone')
      const { mediaId } = await manager.findOneByOrFail(PartFileRow, { partId, role: 'ink' })
      const ink = await this.#media.readInk(manager, mediaId)
      const drawn = drawOn(ink, changes)
      if (isFull(drawn)) throw new DomainError('piece/drawing-full')
      if (isDeepStrictEqual(drawn, ink)) return null
      const pictures = drawn.sheets.flatMap(({ things }) => picturesAmong(things))
      await this.#hangPictures(viewer, { pieceId, partId }, pictures, manager)
      const now = await this.#media.keepInk(manager, viewer.personId, drawn)
      await manager.update(PartFileRow, { partId, role: 'ink' }, { mediaId: now })
      const sheets = drawn.sheets.length
      if (sheets !== ink.sheets.length)
        await manager.update(PartRow, partId, { content: { sheets } })
      await addJob(manager, 'media.let-go', { mediaId }, mediaId)
      return { version: piece.version + 1 }
    })
  }

  /**
   * Pictures that are laid on a drawing hang on it from then on, also when they are taken off again:
   * that can be undone. Everyone lays on what they sent themselves, what hangs on the piece, or
   * what lay on the starter sheet.
   */
  async #hangPictures(
    viewer: SignedIn,
    { pieceId, partId }: { pieceId: string; partId: string },
    pictures: readonly string[],
    manager: EntityManager,
  ): Promise<void> {
    const there = new Set(
      (await manager.findBy(PartFileRow, { partId, role: 'laid' })).map(({ mediaId }) => mediaId),
    )
    for (const mediaId of new Set(pictures)) {
      if (there.has(mediaId)) continue
      const [picture] = await manager.query<unknown[]>(
        `select 1 from media m where m.id = $1 and m.kind = 'picture' and (m.owner_id = $2
           or exists (select 1 from part_file x join part t on t.id = x.part_id where x.media_id = m.id and t.piece_id = $3)
           or exists (select 1 from task_sheet k join piece p on p.task_id = k.task_id where k.media_id = m.id and p.id = $3))`,
        [mediaId, viewer.personId, pieceId],
      )
      if (!picture) throw new DomainError('media/not-found')
      await manager.insert(PartFileRow, { partId, role: 'laid', mediaId })
    }
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

  /**
   * The picture that stands for a film, which one of the piece's makers sent; null for the school's
   * own choice. Versions that were handed in keep theirs.
   * @throws DomainError `piece/not-open`, `piece/part-gone`, `media/not-found`
   */
  async choosePoster(
    viewer: SignedIn,
    pieceId: string,
    partId: string,
    mediaId: string | null,
  ): Promise<void> {
    await this.#changes.change(pieceId, async (piece, manager) => {
      refuseHandedIn(piece)
      const found = await manager.findOneBy(PartRow, { id: partId, pieceId, removedAt: IsNull() })
      if (found?.kind !== 'film') throw new DomainError('piece/part-gone')
      const there = await manager.findOneBy(PartFileRow, { partId, role: 'poster' })
      if ((there?.mediaId ?? null) === mediaId) return null
      if (mediaId !== null) {
        const [sent] = await manager.query<unknown[]>(
          `select 1 from media m join piece_maker k on k.person_id = m.owner_id
           where m.id = $1 and m.kind = 'picture' and k.piece_id = $2`,
          [mediaId, pieceId],
        )
        if (!sent) throw new DomainError('media/not-found')
      }
      await manager.delete(PartFileRow, { partId, role: 'poster' })
      if (mediaId !== null) await manager.insert(PartFileRow, { partId, role: 'poster', mediaId })
      await this.#note(manager, viewer, 'part.poster', pieceId, { partId })
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

/** @throws DomainError `media/id-taken` where the id is another part's */
async function isThere(
  manager: EntityManager,
  pieceId: string,
  partId: string,
  { kind, files: wanted }: Pick<Hung, 'kind' | 'files'>,
): Promise<boolean> {
  const there = await manager.findOneBy(PartRow, { id: partId })
  if (!there) return false
  const files = await manager.findBy(PartFileRow, { partId })
  const same =
    there.pieceId === pieceId &&
    there.kind === kind &&
    Object.entries(wanted).every(([role, mediaId]) =>
      files.some((file) => file.role === role && file.mediaId === mediaId),
    )
  if (!same) throw new DomainError('media/id-taken')
  return true
}

/** The file a photo began as. */
async function originalOf(manager: EntityManager, partId: string): Promise<string | null> {
  const files = await manager.findBy(PartFileRow, { partId })
  const byRole = (wanted: PartFileRole) => files.find(({ role }) => role === wanted)?.mediaId
  return byRole('taken') ?? byRole('picture') ?? null
}

const lastOf = (parts: readonly PartRow[]): number =>
  Math.max(-1, ...parts.map(({ position }) => position))
