import type { Piece } from '@nibquill/contract'
import { backOffMs, mergeWords } from '@nibquill/core'
import { codeOf, ProblemError, sentenceOf } from '../api/problems'
import type { OutboxDraft, Words } from '../outbox/outbox'

/** A draft whose words, or whose way into the tray, the school has not got yet. */
export type Draft = OutboxDraft & {
  /** `asks`: somebody wrote something else meanwhile, and the pupil says which it shall be. */
  state: 'waiting' | 'sending' | 'stuck' | 'refused' | 'asks'
  sentence: string | null
  /** As it stands at school, where it differs. */
  theirs: Words | null
  /** The tablet keeps it whatever happens to the page. */
  kept: boolean
}

/** Where drafts wait beyond the life of the page. */
export type DraftShelf = {
  put: (draft: OutboxDraft) => Promise<unknown>
  drop: (pieceId: string) => Promise<unknown>
}
/** What the school can be asked. Starting a piece that is there answers with it as it stands. */
export type School = {
  start: (pieceId: string, taskId: string | null) => Promise<Piece>
  change: (pieceId: string, seenVersion: number, words: Words) => Promise<Piece>
  handIn: (pieceId: string, seenVersion: number) => Promise<Piece>
  /** Whether parts of it are still on their way. */
  isComing: (pieceId: string) => boolean
  onPiece: (piece: Piece) => void
  onFailed: (error: unknown) => void
}

export const wordsOf = ({ title, reflection, step, folder }: Piece): Words => ({
  title,
  reflection,
  step,
  folderId: folder?.id ?? null,
})
const isSame = (a: Words, b: Words): boolean => JSON.stringify(a) === JSON.stringify(b)
const trimmed = (words: Words): Words => ({
  ...words,
  title: words.title.trim(),
  reflection: words.reflection.trim(),
})
const SETTLE_MS = 5000
const PATIENCE_MS = 1500

/**
 * Brings words, folder and handing in to school, in that order and after the piece's parts.
 * Everything is on the shelf before it
 * is sent, merged with what was written elsewhere, and tried again by itself.
 */
export class Drafts {
  #drafts: ReadonlyMap<string, Draft> = new Map()
  readonly #listeners = new Set<() => void>()
  readonly #shelf: DraftShelf
  readonly #school: School
  readonly #syncing = new Map<string, Promise<void>>()
  #failures = 0
  #retry: ReturnType<typeof setTimeout> | null = null

  constructor(shelf: DraftShelf, school: School) {
    this.#shelf = shelf
    this.#school = school
    if (typeof window !== 'undefined') window.addEventListener('online', () => this.retry())
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
  getSnapshot = (): ReadonlyMap<string, Draft> => this.#drafts

  /** Takes up what waited on the shelf. */
  restore(draft: OutboxDraft): void {
    if (this.#drafts.has(draft.pieceId)) return
    this.#set({ ...draft, state: 'waiting', sentence: null, theirs: null, kept: true })
    void this.#sync(draft.pieceId)
  }

  /**
   * Keeps words (and what shall happen with them). Resolves once the school has them, or they wait
   * safely on this tablet.
   * @param piece - As it was shown when they were written.
   */
  async write(
    piece: Pick<Draft, 'pieceId' | 'ownerId' | 'taskId' | 'base'>,
    change: Partial<Words>,
    options: { handIn?: boolean } = {},
  ): Promise<void> {
    const before = this.#drafts.get(piece.pieceId)
    const draft: Draft = {
      pieceId: piece.pieceId,
      ownerId: piece.ownerId,
      taskId: piece.taskId,
      base: before?.base ?? piece.base,
      words: { ...(before?.words ?? piece.base), ...change },
      handIn: options.handIn ?? before?.handIn ?? false,
      keptAt: Date.now(),
      state: before?.state === 'asks' ? 'asks' : 'waiting',
      sentence: null,
      theirs: before?.theirs ?? null,
      kept: false,
    }
    if (!before && !options.handIn && isSame(trimmed(draft.words), draft.base)) return
    this.#set(draft)
    await this.#keep(piece.pieceId)
    const synced = this.#sync(piece.pieceId)
    // A network that leads nowhere may take minutes to say so: what is kept here need not wait for
    // it.
    const patience = new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))
    await (this.#drafts.get(piece.pieceId)?.kept === false
      ? synced
      : Promise.race([synced, patience]))
  }

  /** What the pupil says where two tablets differ. */
  async choose(pieceId: string, whose: 'mine' | 'theirs'): Promise<void> {
    const draft = this.#drafts.get(pieceId)
    if (!draft?.theirs) return
    const words = whose === 'theirs' ? draft.theirs : draft.words
    this.#set({ ...draft, words, base: draft.theirs, theirs: null, state: 'waiting' })
    await this.#keep(pieceId)
    await this.#sync(pieceId)
  }

  /** Not into the tray after all, while it has not got there. */
  async keepOut(pieceId: string): Promise<void> {
    const draft = this.#drafts.get(pieceId)
    if (!draft) return
    this.#set({
      ...draft,
      handIn: false,
      state: draft.state === 'refused' ? 'waiting' : draft.state,
      sentence: null,
    })
    await this.#keep(pieceId)
    await this.#sync(pieceId)
  }

  /** Lets go of a draft nobody wants at school any more. */
  forget(pieceId: string): void {
    this.#drop(pieceId)
    void this.#shelf.drop(pieceId)
  }

  retry(): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    for (const { pieceId, state } of this.#drafts.values())
      if (state === 'stuck' || state === 'waiting') void this.#sync(pieceId)
  }

  /**
   * Waits a little for what is under way.
   * @throws Error when something is neither at school nor kept here
   */
  async settle(): Promise<void> {
    this.retry()
    await Promise.race([
      Promise.allSettled(this.#syncing.values()),
      new Promise((resolve) => setTimeout(resolve, SETTLE_MS)),
    ])
    if ([...this.#drafts.values()].some(({ kept }) => !kept))
      throw new Error('words wait for the network')
  }

  /** On signing out: nothing of this pupil stays in memory. */
  clear(): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    this.#drafts = new Map()
    this.#changed()
  }

  async #keep(pieceId: string): Promise<void> {
    const draft = this.#drafts.get(pieceId)
    if (!draft) return
    const { state: _s, sentence: _w, theirs: _t, kept: _k, ...line } = draft
    const kept = await this.#shelf.put(line).then(
      () => true,
      () => false,
    )
    const now = this.#drafts.get(pieceId)
    if (now?.keptAt === draft.keptAt) this.#set({ ...now, kept })
  }

  /** One at a time for each piece; a second wish is looked at when the first is done. */
  #sync(pieceId: string): Promise<void> {
    const running = this.#syncing.get(pieceId)
    const next = (running ?? Promise.resolve())
      .then(() => this.#bring(pieceId))
      .finally(() => {
        if (this.#syncing.get(pieceId) === next) this.#syncing.delete(pieceId)
      })
    this.#syncing.set(pieceId, next)
    return next
  }

  async #bring(pieceId: string): Promise<void> {
    const draft = this.#drafts.get(pieceId)
    if (!draft || draft.state === 'asks' || draft.state === 'refused') return
    this.#set({ ...draft, state: 'sending' })
    try {
      const piece = await this.#bringWords(draft)
      const now = this.#drafts.get(pieceId)
      if (!piece || !now) return
      this.#failures = 0
      this.#school.onPiece(piece)
      if (now.keptAt !== draft.keptAt)
        return void this.#set({ ...now, base: wordsOf(piece), state: 'waiting' })
      if (now.handIn && piece.state !== 'submitted') return await this.#bringIn(now, piece)
      this.#drop(pieceId)
      await this.#shelf.drop(pieceId)
    } catch (error) {
      this.#failed(pieceId, error)
    }
  }

  /** @returns the piece with the words in it, or null when the pupil has to say something first */
  async #bringWords(draft: Draft): Promise<Piece | null> {
    const piece = await this.#school.start(draft.pieceId, draft.taskId)
    const theirs = wordsOf(piece)
    const { merged, differing } = mergeWords(draft.base, trimmed(draft.words), theirs)
    if (differing.length > 0) {
      const now = this.#drafts.get(draft.pieceId)
      if (now) this.#set({ ...now, state: 'asks', theirs })
      return null
    }
    return isSame(merged, theirs) ? piece : this.#school.change(piece.id, piece.version, merged)
  }

  async #bringIn(draft: Draft, piece: Piece): Promise<void> {
    // Its parts come first; the uploader says when they are there.
    if (this.#school.isComing(piece.id))
      return void this.#set({ ...draft, base: wordsOf(piece), state: 'waiting' })
    const handedIn = await this.#school.handIn(piece.id, piece.version)
    this.#drop(piece.id)
    await this.#shelf.drop(piece.id)
    this.#school.onPiece(handedIn)
  }

  #failed(pieceId: string, error: unknown): void {
    const now = this.#drafts.get(pieceId)
    if (!now) return
    this.#school.onFailed(error)
    const stale = codeOf(error) === 'piece/stale'
    const passes =
      !(error instanceof ProblemError) ||
      error.problem.status >= 500 ||
      codeOf(error) === 'accounts/signed-out'
    if (!stale && !passes)
      return void this.#set({ ...now, state: 'refused', sentence: sentenceOf(error) })
    this.#set({ ...now, state: 'stuck', sentence: null })
    this.#failures++
    // Somebody else was first: look again at once, a few times.
    const wait = stale && this.#failures < 4 ? 200 : backOffMs(this.#failures, Math.random())
    this.#retry ??= setTimeout(() => this.retry(), wait)
  }

  #set(draft: Draft): void {
    this.#drafts = new Map(this.#drafts).set(draft.pieceId, draft)
    this.#changed()
  }

  #drop(pieceId: string): void {
    const left = new Map(this.#drafts)
    left.delete(pieceId)
    this.#drafts = left
    this.#changed()
  }

  #changed(): void {
    for (const listener of this.#listeners) listener()
  }
}
