import { orderParts } from '../pieces/parts.ts'
import { isOpen, type PieceState, type PieceStep } from '../pieces/movePiece.ts'
import { replacedBy, type Intent, type NewPart } from './intents.ts'

/** As much of a piece as an outbox can change. */
export type Foldable<Part, Folder, Maker> = {
  title: string
  reflection: string
  step: PieceStep
  state: PieceState
  folder: Folder | null
  parts: Part[]
  makers: Maker[]
}

/** How what is only on this tablet is shown. */
export type Seen<Part, Folder, Maker> = {
  /** A part as it was made here. @param before - The one whose place it takes. */
  part: (partId: string, part: NewPart, before: Part | null) => Part
  write: (part: Part, text: string) => Part
  /** A film with another picture that stands for it; null for the school's own choice. */
  poster: (part: Part, mediaId: string | null) => Part
  folder: (folderId: string) => Folder | undefined
  maker: (personId: string) => Maker | undefined
  /** A part that was taken out and shall come back. */
  removed: (partId: string) => Part | undefined
}

/**
 * A piece as its pupil sees it: what the school said, and what waits here on top of it. What the
 * school has heard already changes nothing.
 * Handing in changes no state here: that it goes into the tray is for the screen to say.
 * @param intents - Of this piece, in the order they were wanted.
 */
export function fold<
  Part extends { id: string; name: string },
  Folder extends { id: string },
  Maker extends { id: string },
  P extends Foldable<Part, Folder, Maker>,
>(piece: P, intents: readonly Intent[], seen: Seen<Part, Folder, Maker>): P {
  return intents.reduce<P>((now, intent) => apply(now, intent, seen), piece)
}

function apply<
  Part extends { id: string; name: string },
  Folder extends { id: string },
  Maker extends { id: string },
  P extends Foldable<Part, Folder, Maker>,
>(piece: P, intent: Intent, seen: Seen<Part, Folder, Maker>): P {
  const change = (partId: string, to: (part: Part) => Part): P => ({
    ...piece,
    parts: piece.parts.map((part) => (part.id === partId ? to(part) : part)),
  })
  switch (intent.kind) {
    case 'words': {
      const { words, base } = intent
      const mine = <K extends keyof typeof words>(field: K) => words[field] !== base[field]
      return {
        ...piece,
        title: mine('title') ? words.title : piece.title,
        reflection: mine('reflection') ? words.reflection : piece.reflection,
        step: mine('step') ? words.step : piece.step,
        folder:
          mine('folderId') && words.folderId !== null
            ? (seen.folder(words.folderId) ?? piece.folder)
            : piece.folder,
      }
    }
    case 'add-part':
      return { ...piece, parts: withPart(piece.parts, intent.partId, intent.part, seen) }
    case 'content':
      return change(intent.partId, (part) => seen.write(part, intent.text))
    case 'name':
      return change(intent.partId, (part) => ({ ...part, name: intent.name }))
    case 'poster':
      return change(intent.partId, (part) => seen.poster(part, intent.mediaId))
    case 'order': {
      const ids = orderParts(
        piece.parts.map(({ id }) => id),
        intent.partIds,
      )
      return { ...piece, parts: ids.map((id) => piece.parts.find((part) => part.id === id)!) }
    }
    case 'remove': {
      if (!intent.restore)
        return { ...piece, parts: piece.parts.filter(({ id }) => id !== intent.partId) }
      const back = seen.removed(intent.partId)
      return back && !piece.parts.some(({ id }) => id === back.id)
        ? { ...piece, parts: [...piece.parts, back] }
        : piece
    }
    case 'makers': {
      const makers = intent.makerIds
        .map((id) => piece.makers.find((maker) => maker.id === id) ?? seen.maker(id))
        .filter((maker) => maker !== undefined)
      return { ...piece, makers }
    }
    case 'withdraw':
      return isOpen(piece.state) ? piece : { ...piece, state: 'draft' }
    // Whoever shows a drawing lays what waits over it.
    case 'ink':
    case 'start':
    case 'file':
    case 'comment':
    case 'hand-in':
    case 'bin':
      return piece
  }
}

function withPart<Part extends { id: string }>(
  parts: Part[],
  partId: string,
  part: NewPart,
  seen: Pick<Seen<Part, never, never>, 'part'>,
): Part[] {
  if (parts.some(({ id }) => id === partId)) return parts
  const at = parts.findIndex(({ id }) => id === replacedBy(part))
  if (at < 0) return [...parts, seen.part(partId, part, null)]
  return parts.map((other, i) => (i === at ? seen.part(partId, part, other) : other))
}

/** Where a piece as a whole is going, as far as it waits here. */
export function pendingMove(intents: readonly Intent[]): 'hand-in' | 'withdraw' | 'bin' | null {
  const last = intents.findLast(
    ({ kind }) => kind === 'hand-in' || kind === 'withdraw' || kind === 'bin',
  )
  if (!last) return null
  if (last.kind === 'bin') return last.restore ? null : 'bin'
  return last.kind === 'hand-in' || last.kind === 'withdraw' ? last.kind : null
}
