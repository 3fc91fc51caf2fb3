import type { Classmates, Folders, Part, Piece, PieceLine, PupilName } from '@nibquill/contract'
import {
  coverOf,
  fold,
  pendingMove,
  readAddress,
  type Intent,
  type NewPart,
  type Seen,
} from '@nibquill/core'
import { SHEET_SIZE } from '@nibquill/core/ink/sheetSize'
import { useQueryClient, type QueryClient, type UseQueryResult } from '@tanstack/react-query'
import type * as v from 'valibot'
import { useWaiting } from '../outbox/OutboxContext'
import type { Waiting } from '../outbox/outbox'
import { localPiece } from './localPiece'
import { pieceQuery, usePiece } from './piecesQueries'

type Folder = NonNullable<Piece['folder']>

/** Parts that were taken out on this tablet, so that they can be shown again when put back. */
const takenOut = new Map<string, Part>()
export const noteTakenOut = (part: Part): void => void takenOut.set(part.id, part)
/** When the tablet goes to somebody else. */
export const forgetTakenOut = (): void => takenOut.clear()

/** How what is only on this tablet is shown. */
const seenHere = (queries: QueryClient): Seen<Part, Folder, PupilName> => ({
  part: asPart,
  write: (part, text) => ('text' in part ? { ...part, text } : part),
  poster: withPoster,
  folder: (folderId) =>
    queries
      .getQueryData<v.InferOutput<typeof Folders>>(['folders'])
      ?.find(({ id }) => id === folderId),
  maker: (personId) =>
    queries
      .getQueryData<v.InferOutput<typeof Classmates>>(['pieces', 'classmates'])
      ?.find(({ id }) => id === personId),
  removed: (partId) => takenOut.get(partId),
})

const fileHere = (mediaId: string) =>
  ({ mediaId, sizeBytes: 0, sentSha256: '', state: 'arrived' }) as const

function withPoster(part: Part, mediaId: string | null): Part {
  if (part.kind !== 'film') return part
  const { film } = part.files
  return { ...part, files: mediaId ? { film, poster: fileHere(mediaId) } : { film } }
}

function asPart(id: string, made: NewPart, before: Part | null): Part {
  const name = made.name || (before?.name ?? '')
  if (made.kind === 'writing') return { id, kind: 'writing', name, files: {}, text: made.text }
  if (made.kind === 'link') {
    const read = readAddress(made.address)
    const address = typeof read === 'string' ? made.address : read.address
    return { id, kind: 'link', name, files: {}, address }
  }
  const { mediaId } = made
  const file = fileHere(mediaId)
  if (made.kind === 'drawing')
    return { id, kind: 'drawing', name, files: { ink: file }, ...SHEET_SIZE, sheets: 1 }
  if (made.kind === 'voice') {
    const { heard } = made
    return { id, kind: 'voice', name, files: { sound: file }, text: '', typed: '', heard }
  }
  if (made.kind === 'talk') {
    // What was drawn is read from what waits here: it has no file yet.
    const ink = { ...file, mediaId: '' }
    const { width, height } = made.talk.start
    return {
      id,
      kind: 'talk',
      name,
      files: { ink, sound: file },
      width,
      height,
      text: '',
      typed: '',
    }
  }
  if (made.kind === 'film')
    return {
      id,
      kind: 'film',
      name,
      files: { film: file },
      width: 0,
      height: 0,
      text: '',
      typed: '',
    }
  if (made.kind === 'page') return { id, kind: 'page', name, files: { paper: file }, pages: 1 }
  const { instead } = made
  const original =
    before?.kind === 'photo'
      ? (before.tidied?.originalMediaId ?? before.files.picture.mediaId)
      : null
  const tidied =
    instead?.tidying && original && original !== mediaId
      ? { originalMediaId: original, tidying: instead.tidying }
      : null
  return { id, kind: 'photo', name, files: { picture: file }, width: 0, height: 0, tidied }
}

const intentsOf = (lines: readonly Waiting[]): Intent[] => lines.map(({ intent }) => intent)

/** The piece as far as this tablet knows it, without what waits here. */
function knownPiece(
  queries: QueryClient,
  pieceId: string,
  lines: readonly Waiting[],
): Piece | null {
  const atSchool = queries.getQueryData(pieceQuery(pieceId).queryKey)
  if (atSchool) return atSchool
  const start = intentsOf(lines).find(({ kind }) => kind === 'start')
  return start?.kind === 'start' ? localPiece(queries, pieceId, start.taskId) : null
}

export type ShownPiece = {
  /** As its pupil sees it: what the school said, and what waits here on top of it. */
  piece: Piece | null
  /** As the school has it, as far as this tablet knows. */
  base: Piece | null
  waiting: readonly Waiting[]
  query: UseQueryResult<Piece>
}

/**
 * The one source of a piece on a pupil's screen.
 * @param begun - False for one that is made here a moment from now: nobody else knows of it.
 */
export function useShownPiece(pieceId: string, begun = true): ShownPiece {
  const queries = useQueryClient()
  const waiting = useWaiting(pieceId)
  // Until the school has heard of it there is nothing to ask for.
  const unheard = waiting.some(({ intent }) => intent.kind === 'start')
  const query = usePiece(unheard || !begun ? '' : pieceId)
  const base = query.data ?? knownPiece(queries, pieceId, waiting)
  const piece = base && fold(base, intentsOf(waiting), seenHere(queries))
  return { piece, base, waiting, query }
}

/** Pieces in a list as their pupil sees them; thrown away here, one is gone. */
export function useShownLines(listed: readonly PieceLine[]): PieceLine[] {
  const queries = useQueryClient()
  const waiting = useWaiting()
  const of = (pieceId: string) => waiting.filter(({ intent }) => intent.pieceId === pieceId)
  const shown = listed.map((line) => {
    const lines = of(line.id)
    return lines.length === 0 ? line : foldLine(queries, line, lines)
  })
  const others = [...new Set(waiting.map(({ intent }) => intent.pieceId))]
    .filter((id) => !listed.some((line) => line.id === id))
    .flatMap((id) => {
      const piece = knownPiece(queries, id, of(id))
      return piece && !piece.approved ? [foldLine(queries, piece, of(id))] : []
    })
  return [...others.reverse(), ...shown].filter(
    ({ id }) => pendingMove(intentsOf(of(id))) !== 'bin',
  )
}

function foldLine(queries: QueryClient, line: PieceLine, lines: readonly Waiting[]): PieceLine {
  const known = queries.getQueryData(pieceQuery(line.id).queryKey)
  const parts = known?.parts ?? (line.cover ? [line.cover] : [])
  const base = { ...line, reflection: '', makers: [], parts } as const
  const folded = fold(
    { ...base, makers: [] as PupilName[], parts: [...parts] },
    intentsOf(lines),
    seenHere(queries),
  )
  return {
    ...line,
    title: folded.title,
    folder: folded.folder,
    state: folded.state,
    cover: coverOf(folded.parts),
    partCount: Math.max(0, line.partCount + folded.parts.length - parts.length),
  }
}
