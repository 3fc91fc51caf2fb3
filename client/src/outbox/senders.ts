import { Arrived, Done, Piece, type AddPart, type ChangePiece } from '@nibquill/contract'
import {
  mergeWords,
  type IntentKind,
  type IntentOf,
  type NewPart,
  type Words,
} from '@nibquill/core'
import { api } from '../api/api'
import { codeOf, ProblemError } from '../kit/problems'
import { hashOf, transfer } from '../media/transfer'

/** What a sender may use besides the intent. */
export type Way = {
  file: (mediaId: string) => File | null
  signal: AbortSignal
  /** @param share - 0..1 of a file that is at school. */
  onShare: (share: number) => void
}

/** What the pupil is asked where two tablets wrote different things. */
export type Theirs = { words: Words } | { text: string }
/** Nothing was sent: a person says which it shall be. */
export class Asks extends Error {
  readonly theirs: Theirs
  constructor(theirs: Theirs) {
    super('two tablets differ')
    this.theirs = theirs
  }
}

/**
 * Brings one kind of intent to school. Each may run again when its answer was lost.
 * @returns the piece as it is then, where the school says so
 * @throws Asks; ProblemError where the school refuses; Error when it cannot be reached
 */
type Sender<K extends IntentKind> = (intent: IntentOf<K>, way: Way) => Promise<Piece | null>

export const wordsOf = ({ title, reflection, step, folder }: Piece): Words => ({
  title,
  reflection,
  step,
  folderId: folder?.id ?? null,
})
const pieceAt = (pieceId: string, rest = ''): string => `/pieces/${pieceId}${rest}`
const look = (pieceId: string, { signal }: Way): Promise<Piece> =>
  api.get(pieceAt(pieceId), Piece, signal)

export const SENDERS: { [K in IntentKind]: Sender<K> } = {
  start: ({ pieceId, taskId }) => api.put(pieceAt(pieceId), Piece, { taskId }),

  file: async ({ mediaId, name }, { file, signal, onShare }) => {
    const bytes = file(mediaId)
    if (!bytes) throw new Error('the file is not here')
    const hash = await hashOf(bytes)
    // Its last answer may have been lost on the way.
    const there = await api.get(`/media/${mediaId}`, Arrived, signal).catch(() => null)
    const onSent = (sent: number) => onShare(bytes.size ? sent / bytes.size : 1)
    const arrived = there ?? (await transfer({ mediaId, name, hash }, bytes, signal, onSent))
    if (arrived.sentSha256 !== hash) throw new Error('what arrived differs')
    return null
  },

  'add-part': ({ pieceId, partId, part }) => {
    const at = pieceAt(pieceId, `/parts/${partId}`)
    if (part.kind !== 'talk') return api.put(at, Piece, added(part))
    const { name, mediaId: sound, talk } = part
    return api.put(`${at}/talk`, Piece, { name, sound, talk })
  },

  content: ({ pieceId, partId, text, seenText }) =>
    api
      .put(pieceAt(pieceId, `/parts/${partId}/text`), Piece, { text, seenText })
      .catch((error: unknown) => {
        if (error instanceof ProblemError && error.code === 'piece/part-changed')
          throw new Asks({ text: String(error.problem.text) })
        throw error
      }),

  ink: ({ pieceId, partId, changes }) =>
    api.post(pieceAt(pieceId, `/parts/${partId}/ink`), Piece, { changes }),

  words: async ({ pieceId, words, base }, way) => {
    const piece = await look(pieceId, way)
    const theirs = wordsOf(piece)
    const { merged, differing } = mergeWords(base, trimmed(words), theirs)
    if (differing.length > 0) throw new Asks({ words: theirs })
    const { folderId, ...rest } = merged
    const change: ChangePiece = {
      seenVersion: piece.version,
      ...rest,
      ...(folderId && folderId !== theirs.folderId ? { folderId } : {}),
    }
    return isSame(merged, theirs) ? piece : api.patch(pieceAt(pieceId), Piece, change)
  },

  order: ({ pieceId, partIds }) => api.put(pieceAt(pieceId, '/order'), Piece, { partIds }),

  name: ({ pieceId, partId, name }) =>
    api.patch(pieceAt(pieceId, `/parts/${partId}`), Piece, { name: name.trim() }),

  poster: ({ pieceId, partId, mediaId }) =>
    api.put(pieceAt(pieceId, `/parts/${partId}/poster`), Piece, { mediaId }),

  remove: ({ pieceId, partId, restore }) =>
    restore
      ? api.post(pieceAt(pieceId, `/parts/${partId}/restore`), Piece)
      : api.remove(pieceAt(pieceId, `/parts/${partId}`), Piece),

  makers: ({ pieceId, makerIds }) => api.put(pieceAt(pieceId, '/makers'), Piece, { makerIds }),

  comment: async ({ pieceId, commentId: id, words, mediaId, withId, thoughts }) => {
    const said = { pieceId, words, ...(mediaId ? { voiceId: mediaId } : {}) }
    await (withId
      ? api.put(`/comments/private/${id}`, Done, { ...said, withId })
      : api.put(`/comments/${id}`, Done, { ...said, ...(thoughts ? { thoughts } : {}) }))
    return null
  },

  'hand-in': async ({ pieceId }, way) => {
    const piece = await look(pieceId, way)
    return piece.state === 'submitted' ? piece : move(piece, 'hand-in')
  },

  withdraw: async ({ pieceId }, way) => {
    const piece = await look(pieceId, way)
    return piece.state === 'draft' ? piece : move(piece, 'withdraw')
  },

  bin: async ({ pieceId, restore }) => {
    await (
      restore ? api.post(pieceAt(pieceId, '/restore'), Done) : api.remove(pieceAt(pieceId), Done)
    ).catch((error: unknown) => {
      // It is gone, whoever threw it away.
      if (restore || codeOf(error) !== 'piece/not-found') throw error
    })
    return null
  },
}

const move = ({ id, version }: Piece, to: 'hand-in' | 'withdraw'): Promise<Piece> =>
  api.post(pieceAt(id, `/${to}`), Piece, { seenVersion: version })

function added(part: Exclude<NewPart, { kind: 'talk' }>): AddPart {
  if (part.kind === 'writing') return part
  if (part.kind === 'link') return part
  const { name, mediaId } = part
  switch (part.kind) {
    case 'drawing':
      return { kind: part.kind, name, files: { ink: mediaId } }
    case 'voice': {
      const { kind, heard } = part
      return { kind, name, files: { sound: mediaId }, ...(heard ? { heard } : {}) }
    }
    case 'film':
      return { kind: part.kind, name, files: { film: mediaId } }
    case 'page':
      return { kind: part.kind, name, files: { paper: mediaId } }
    case 'photo': {
      const { kind, instead } = part
      return { kind, name, files: { picture: mediaId }, ...(instead ? { instead } : {}) }
    }
  }
}

const isSame = (a: Words, b: Words): boolean => JSON.stringify(a) === JSON.stringify(b)
const trimmed = (words: Words): Words => ({
  ...words,
  title: words.title.trim(),
  reflection: words.reflection.trim(),
})
