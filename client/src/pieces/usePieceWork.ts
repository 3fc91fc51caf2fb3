import type { Part, Piece } from '@nibquill/contract'
import type { IntentBody, NewPart, Words } from '@nibquill/core'
import type { InkChange } from '@nibquill/core/ink/changes'
import type { InkDocument } from '@nibquill/core/ink/document'
import type { Talk } from '@nibquill/core/ink/talk'
import type { Stretch } from '@nibquill/core/sound/silence'
import { useEffect, useRef, useState } from 'react'
import { v7 as newId } from 'uuid'
import { useKeepFirst, useSession } from '../accounts'
import { useQueryClient } from '@tanstack/react-query'
import type { KeptRecording } from '../outbox/outbox'
import { useOutbox } from '../outbox/OutboxContext'
import { wordsOf } from '../outbox/senders'
import { pieceQuery } from './piecesQueries'
import { noteTakenOut } from './shownPiece'

/**
 * A file that becomes a part; `name` is empty where nobody gave it one. `talk`: what was drawn while
 * it was said, of a talk-through.
 */
export type FileOfPart = {
  file: File
  kind: 'photo' | 'voice' | 'talk' | 'film' | 'page'
  name: string
  talk?: Talk
  /** Of a voice: without the silence at its ends. */
  heard?: Stretch | null
}

/** Everything a pupil can do to a draft, whether or not the school can be reached. */
export function usePieceWork(pieceId: string) {
  const outbox = useOutbox()
  const session = useSession()
  const queries = useQueryClient()
  // Whoever opened the screen works on it, also when their session ends while something is still to
  // be kept.
  const [me] = useState(session.data?.person?.id ?? '')
  const want = (bodies: readonly IntentBody[], files?: ReadonlyMap<string, File>) =>
    outbox.want(me, pieceId, bodies, files)
  /** Until the school has said something of it, it may not have begun there. */
  const begin = (taskId: string | null): IntentBody[] =>
    queries.getQueryData(pieceQuery(pieceId).queryKey) ? [] : [{ kind: 'start', taskId }]
  const restore = (partId: string, wanted: boolean) =>
    want([{ kind: 'remove', partId, restore: wanted }])
  return {
    /**
     * Keeps what is being recorded, second by second, should the page end in the middle.
     * @param talk - What is drawn meanwhile, by now; asked for each second.
     */
    keepRecording: (
      kind: 'voice' | 'film' | 'talk',
      file: { name: string; type: string },
      taskId: string | null,
      talk?: () => Talk,
    ): Pick<KeptRecording, 'add' | 'end'> => {
      const ids = { mediaId: newId(), partId: newId() }
      const bodies = (): IntentBody[] => [
        ...begin(taskId),
        ...partOf(
          { file: { ...file, size: 0 }, kind, name: '', ...(talk && { talk: talk() }) },
          ids,
        ).bodies,
      ]
      const kept = outbox.keepRecording(me, pieceId, bodies(), { ...ids, ...file })
      const add = (slice: Blob) => {
        kept.add(slice)
        if (talk) kept.become(bodies())
      }
      return { add, end: kept.end }
    },
    addWriting: (partId: string, text: string, taskId: string | null) =>
      want([
        ...begin(taskId),
        { kind: 'add-part', partId, part: { kind: 'writing', name: '', text } },
      ]),
    addLink: (partId: string, name: string, address: string, taskId: string | null) =>
      want([...begin(taskId), { kind: 'add-part', partId, part: { kind: 'link', name, address } }]),
    ...filesWork(want, begin),
    ...drawingWork(want, begin),
    write: (partId: string, text: string, seenText: string) =>
      want([{ kind: 'content', partId, text, seenText }]),
    order: (partIds: readonly string[]) => want([{ kind: 'order', partIds }]),
    name: (partId: string, name: string) => want([{ kind: 'name', partId, name }]),
    takeOut: (part: Part) => {
      noteTakenOut(part)
      return restore(part.id, false)
    },
    putBack: (partId: string) => restore(partId, true),
    makers: (makerIds: readonly string[]) => want([{ kind: 'makers', makerIds }]),
    words: (words: Words, base: Words) => want([{ kind: 'words', words, base }]),
    /**
     * Under the piece, or to one teacher alone. `thoughts`: what I think of what we made together.
     */
    say: (
      words: string,
      voice: File | null,
      { withId, thoughts }: { withId: string | null; thoughts: boolean },
    ) => {
      const mediaId = voice && newId()
      const comment: IntentBody = {
        ...{ kind: 'comment', commentId: newId(), words, mediaId, withId, thoughts },
      }
      if (!voice || !mediaId) return want([comment])
      return want(
        [{ kind: 'file', mediaId, name: voice.name, sizeBytes: voice.size }, comment],
        new Map([[mediaId, voice]]),
      )
    },
    handIn: () => want([{ kind: 'hand-in' }]),
    withdraw: () => want([{ kind: 'withdraw' }]),
    bin: (thrown: boolean) => want([{ kind: 'bin', restore: !thrown }]),
  }
}

/** What is wanted for a file to become a part. */
function partOf(
  {
    file,
    kind,
    name,
    talk,
    heard = null,
  }: Omit<FileOfPart, 'file'> & { file: Pick<File, 'name' | 'size'> },
  { mediaId, partId } = { mediaId: newId(), partId: newId() },
): {
  mediaId: string
  partId: string
  bodies: IntentBody[]
} {
  return {
    mediaId,
    partId,
    bodies: [
      { kind: 'file', mediaId, name: file.name, sizeBytes: file.size },
      { kind: 'add-part', partId, part: newPart() },
    ],
  }

  function newPart(): NewPart {
    if (kind === 'photo') return { kind, name, mediaId, instead: null }
    if (kind === 'talk') return { kind, name, mediaId, talk: talk! }
    if (kind === 'voice') return { kind, name, mediaId, heard }
    return { kind, name, mediaId }
  }
}

type Want = (bodies: readonly IntentBody[], files?: ReadonlyMap<string, File>) => Promise<void>

/** What is done with files. */
function filesWork(want: Want, begin: (taskId: string | null) => IntentBody[]) {
  return {
    /** Files, each a part of its own. @returns the parts they will be */
    addFiles: async (files: readonly FileOfPart[], taskId: string | null): Promise<string[]> => {
      const made = files.map((one) => ({ ...partOf(one), file: one.file }))
      await want(
        [...begin(taskId), ...made.flatMap(({ bodies }) => bodies)],
        new Map(made.map(({ file, mediaId }) => [mediaId, file])),
      )
      return made.map(({ partId }) => partId)
    },
    /** In the place of another part. @param file - Null where it is one that was there before. */
    replacePhoto: async (
      part: Extract<Extract<IntentBody, { kind: 'add-part' }>['part'], { kind: 'photo' }>,
      file: File | null,
    ): Promise<string> => {
      const partId = newId()
      const { mediaId } = part
      const bytes: IntentBody[] = file
        ? [{ kind: 'file', mediaId, name: file.name, sizeBytes: file.size }]
        : []
      await want(
        [...bytes, { kind: 'add-part', partId, part }],
        file ? new Map([[mediaId, file]]) : undefined,
      )
      return partId
    },
    /** @param picture - Null for the school's own choice; one that was sent before by its id. */
    choosePoster: (partId: string, picture: File | string | null) => {
      if (!(picture instanceof File)) return want([{ kind: 'poster', partId, mediaId: picture }])
      const mediaId = newId()
      return want(
        [
          { kind: 'file', mediaId, name: picture.name, sizeBytes: picture.size },
          { kind: 'poster', partId, mediaId },
        ],
        new Map([[mediaId, picture]]),
      )
    },
  }
}

/** What is done to drawings. */
function drawingWork(want: Want, begin: (taskId: string | null) => IntentBody[]) {
  return {
    /** An empty drawing, and what is drawn on it first. */
    addDrawing: (
      partId: string,
      ink: InkDocument,
      changes: readonly InkChange[],
      taskId: string | null,
    ) => {
      const mediaId = newId()
      const file = new File([JSON.stringify(ink)], 'drawing.json', { type: 'application/json' })
      return want(
        [
          ...begin(taskId),
          { kind: 'file', mediaId, name: file.name, sizeBytes: file.size },
          { kind: 'add-part', partId, part: { kind: 'drawing', name: '', mediaId } },
          { kind: 'ink', partId, changes },
        ],
        new Map([[mediaId, file]]),
      )
    },
    /** A picture that will be laid on a drawing; it goes before what lays it on. */
    sendPicture: (mediaId: string, file: File) =>
      want(
        [{ kind: 'file', mediaId, name: file.name, sizeBytes: file.size }],
        new Map([[mediaId, file]]),
      ),
    draw: (partId: string, changes: readonly InkChange[]) =>
      want([{ kind: 'ink', partId, changes }]),
  }
}

const PAUSE_MS = 900

/** Something typed that saves itself: after a pause, at once by `save`, and when one leaves. */
export function useSavesItself<T>(
  value: T,
  isSame: (a: T, b: T) => boolean,
  keep: (value: T) => Promise<unknown>,
): () => Promise<void> {
  const latest = useRef(value)
  latest.current = value
  const kept = useRef(value)
  const save = async (): Promise<void> => {
    const now = latest.current
    if (isSame(now, kept.current)) return
    kept.current = now
    await keep(now)
  }
  useKeepFirst(save)
  const leave = useRef(save)
  leave.current = save
  useEffect(() => {
    const timer = setTimeout(() => void leave.current(), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [value])
  // Leaving is always safe: what was typed in the last moment is kept as well, also when the tablet
  // is laid aside.
  useEffect(() => {
    const hidden = () => void leave.current()
    window.addEventListener('pagehide', hidden)
    document.addEventListener('visibilitychange', hidden)
    return () => {
      window.removeEventListener('pagehide', hidden)
      document.removeEventListener('visibilitychange', hidden)
      hidden()
    }
  }, [])
  return save
}

/** A piece's words, as they are typed. */
export function useWords(piece: Piece) {
  const work = usePieceWork(piece.id)
  const [words, setWords] = useState(() => wordsOf(piece))
  // What this screen and the school agreed on last.
  const agreed = useRef(words)
  const save = useSavesItself(words, isSame, async (now) => {
    const base = agreed.current
    agreed.current = now
    await work.words(now, base)
  })
  return {
    words,
    write: (more: Partial<Words>) => setWords((now) => ({ ...now, ...more })),
    save,
  }
}

const isSame = (a: Words, b: Words): boolean =>
  a.title === b.title &&
  a.reflection === b.reflection &&
  a.step === b.step &&
  a.folderId === b.folderId
