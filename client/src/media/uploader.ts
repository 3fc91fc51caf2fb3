import { Arrived } from '@nibquill/contract'
import { backOffMs, mostBytesFor, whoseTurn, type PartKind, type Tidying } from '@nibquill/core'
import { v7 as newId } from 'uuid'
import { api } from '../api/api'
import { codeOf, ProblemError, sentenceOf } from '../api/problems'
import { strings } from './strings'
import { hashOf, transfer } from './transfer'
import { UploadLedger } from './uploadLedger'

/** What a file becomes when it has arrived. */
export type Line = {
  partId: string
  mediaId: string
  pieceId: string
  ownerId: string
  kind: PartKind
  name: string
  /** It takes the place of another part: a photo tidied from that one. */
  instead: { partId: string; tidying: Tidying } | null
}

/** One file on its way. `partId` names it everywhere. */
export type Sending = Line & {
  sizeBytes: number
  sentBytes: number
  /** It is on this tablet for good until it has arrived: a closed page loses nothing. */
  kept: boolean
  /**
   * `stuck`: tried again by itself. `refused`: the server said why not, and only a person can help.
   */
  state: 'keeping' | 'waiting' | 'sending' | 'checking' | 'stuck' | 'refused'
  /** Why, when stuck or refused. */
  sentence: string | null
  preview: string
}

const AT_ONCE = 2
/**
 * Those that one day may be otherwise: somebody signs in again, makes room, or the server recovers.
 */
const MAY_PASS = new Set([
  'accounts/signed-out',
  'media/differs',
  'media/no-room',
  'media/too-many-uploads',
  'request/too-large',
])

/** Where files wait that have not arrived, beyond the life of the page. */
export type Shelf = {
  put: (file: Line, bytes: File) => Promise<unknown>
  drop: (partId: string) => Promise<unknown>
}
/**
 * When a tablet changes hands, files under way may finish; those on the shelf wait for their owner
 * after that.
 */
const SETTLE_MS = 20_000

type Delivered = (sending: Sending, signal: AbortSignal, arrived: Arrived) => Promise<void>
/** Lets one page of this browser send at a time. */
type Turn = (work: () => Promise<void>) => Promise<unknown>
const TRANSFERS = 'nibquill.transfers'
const oneAtATime: Turn = (work) =>
  typeof navigator === 'undefined' || navigator.locks === undefined
    ? work()
    : navigator.locks.request(TRANSFERS, work)

/**
 * Brings files to school: resumable, two at a time, fair between pieces, each under ids made here,
 * so that whatever is repeated
 * arrives once. It is handed files and says how far they are; where they wait meanwhile is not its
 * business.
 */
export class Uploader {
  #sendings: readonly Sending[] = []
  readonly #files = new Map<string, File>()
  readonly #hashes = new Map<string, Promise<string>>()
  readonly #running = new Map<string, { abort: () => void; pieceId: string }>()
  readonly #listeners = new Set<() => void>()
  readonly #ledger = new UploadLedger()
  readonly #deliver: Delivered
  readonly #shelf: Shelf | null
  readonly #turn: Turn
  readonly #onFailed: (error: unknown) => void
  /** Pieces in the order in which they were served last. */
  #served: string[] = []
  #failures = 0
  #retry: ReturnType<typeof setTimeout> | null = null
  #hasTurn = false

  /**
   * @param deliver - Called when the server has confirmed the file; hangs it into its piece. The
   *   signal says that its pupil has left.
   * @param shelf - Without one, files live as long as the page.
   * @param onFailed - Hears why a file did not arrive; what becomes of the file is settled here.
   */
  constructor(
    deliver: Delivered,
    shelf: Shelf | null = null,
    onFailed: (error: unknown) => void = () => undefined,
    turn: Turn = oneAtATime,
  ) {
    this.#deliver = deliver
    this.#shelf = shelf
    this.#turn = turn
    this.#onFailed = onFailed
    if (typeof window !== 'undefined') window.addEventListener('online', () => this.retryStuck())
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
  getSnapshot = (): readonly Sending[] => this.#sendings

  /** A file that is on its way, for looking at or tidying it before it has arrived. */
  fileOf(partId: string): File | null {
    return this.#files.get(partId) ?? null
  }

  /** SHA-256 of a file on its way, in hex. */
  async hashOf(partId: string): Promise<string | null> {
    const file = this.#files.get(partId)
    if (!file) return null
    const hash = this.#hashes.get(partId) ?? hashOf(file)
    this.#hashes.set(partId, hash)
    return hash
  }

  /**
   * Takes a file on; resolves once it is kept, where it can be. A file that was half-way before
   * goes on where it stopped.
   * @returns the part it will be
   */
  async add(
    ownerId: string,
    pieceId: string,
    file: File,
    instead: Line['instead'] = null,
  ): Promise<string> {
    const before = instead ? null : this.#ledger.find(ownerId, pieceId, file)
    if (before && this.#sendings.some(({ partId }) => partId === before.partId))
      return before.partId
    const ids = before ?? { partId: newId(), mediaId: newId() }
    const refusal =
      file.size === 0
        ? strings.empty
        : file.size > mostBytesFor('attachment')
          ? strings.tooLarge
          : null
    const sending: Sending = {
      ...ids,
      ownerId,
      pieceId,
      kind: 'photo',
      name: file.name,
      instead,
      sizeBytes: file.size,
      sentBytes: 0,
      kept: false,
      state: refusal ? 'refused' : this.#shelf ? 'keeping' : 'waiting',
      sentence: refusal,
      preview: URL.createObjectURL(file),
    }
    this.#sendings = [...this.#sendings, sending]
    this.#files.set(ids.partId, file)
    if (!refusal && !instead) this.#ledger.remember(ownerId, pieceId, file, ids)
    this.#changed()
    if (this.#shelf && !refusal) {
      const kept = await this.#shelf.put(sending, file).then(
        () => true,
        () => false,
      )
      this.#update(sending.partId, {
        kept,
        state: 'waiting',
        sentence: kept ? null : strings.notKept,
      })
    }
    this.#next()
    return ids.partId
  }

  /** Takes a file up again that waited on the shelf. */
  restore(line: Line, file: File): void {
    if (this.#sendings.some(({ partId }) => partId === line.partId)) return
    const { partId, mediaId, pieceId, ownerId, kind, name, instead } = line
    this.#sendings = [
      ...this.#sendings,
      {
        partId,
        mediaId,
        pieceId,
        ownerId,
        kind,
        name,
        instead,
        sizeBytes: file.size,
        sentBytes: 0,
        kept: true,
        state: 'waiting',
        sentence: null,
        preview: URL.createObjectURL(file),
      },
    ]
    this.#files.set(partId, file)
    this.#changed()
    this.#next()
  }

  /**
   * Names of files that began their way to a piece on this tablet and have not arrived; picked
   * again, they go on.
   */
  listHalfWay(ownerId: string, pieceId: string): string[] {
    return this.#ledger
      .list(ownerId, pieceId)
      .filter(({ partId }) => !this.#files.has(partId))
      .map(({ name }) => name)
  }

  /** Tries at once what waits for a better moment. */
  retryStuck(): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    for (const { partId, state } of this.#sendings)
      if (state === 'stuck') this.#update(partId, { state: 'waiting', sentence: null })
    this.#next()
  }

  /** Once more, what the server refused: its piece may be open again. */
  tryAgain(partId: string): void {
    this.#update(partId, { state: 'waiting', sentence: null })
    this.#next()
  }

  forget(partId: string): void {
    this.#running.get(partId)?.abort()
    this.#drop(partId)
    this.#ledger.forget(partId)
    void this.#shelf?.drop(partId)
    this.#next()
  }

  /**
   * Waits until everything has arrived, or what has not is on the shelf.
   * @throws Error when something is neither
   */
  settle(): Promise<void> {
    this.retryStuck()
    return new Promise((resolve, reject) => {
      let late = false
      const look = () => {
        const left = this.#sendings.filter(({ state }) => state !== 'refused')
        const safe = left.every(({ kept }) => kept)
        if (left.some(({ state }) => state !== 'stuck') && !(late && safe)) return
        stop()
        clearTimeout(timer)
        if (safe) resolve()
        else reject(new Error('files wait for the network'))
      }
      const stop = this.subscribe(look)
      const timer = setTimeout(() => {
        late = true
        look()
      }, SETTLE_MS)
      look()
    })
  }

  /**
   * On signing out: nothing of this pupil stays in memory; what arrived stays at school, the rest
   * on the shelf.
   */
  clear(): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    this.#served = []
    for (const { partId } of this.#sendings) {
      this.#running.get(partId)?.abort()
      this.#drop(partId)
    }
  }

  #next(): void {
    if (this.#listWaiting().length === 0) return
    if (this.#hasTurn) return this.#fill()
    this.#hasTurn = true
    void this.#turn(async () => {
      this.#fill()
      // The turn is kept while something of ours is under way.
      await new Promise<void>((resolve) => {
        const look = () => {
          if (this.#running.size > 0 || this.#listWaiting().length > 0) return
          stop()
          resolve()
        }
        const stop = this.subscribe(look)
        look()
      })
    }).finally(() => {
      this.#hasTurn = false
      this.#next()
    })
  }

  /** A tidied photo waits for the one it takes the place of. */
  #listWaiting(): Sending[] {
    const onTheWay = new Set(
      this.#sendings.filter(({ state }) => state !== 'refused').map(({ partId }) => partId),
    )
    return this.#sendings.filter(
      ({ partId, state, instead }) =>
        state === 'waiting' &&
        !this.#running.has(partId) &&
        !(instead && onTheWay.has(instead.partId)),
    )
  }

  #fill(): void {
    while (this.#running.size < AT_ONCE) {
      const waiting = this.#listWaiting().map((sending) => ({
        id: sending.partId,
        group: sending.pieceId,
        sending,
      }))
      const next = whoseTurn(
        waiting,
        [...this.#running.values()].map(({ pieceId }) => pieceId),
        this.#served,
      )
      if (!next) return
      this.#served = [...this.#served.filter((pieceId) => pieceId !== next.group), next.group]
      void this.#send(next.sending)
    }
  }

  async #send(sending: Sending): Promise<void> {
    const { partId } = sending
    const file = this.#files.get(partId)!
    const control = new AbortController()
    this.#running.set(partId, { abort: () => control.abort(), pieceId: sending.pieceId })
    this.#update(partId, { state: 'sending' })
    try {
      const hash = (await this.hashOf(partId))!
      const there = await api
        .get(`/media/${sending.mediaId}`, Arrived, control.signal)
        .catch(() => null)
      // Its pupil may have left meanwhile: nothing of theirs goes under the next one's name.
      if (control.signal.aborted) return
      const arrived =
        there ??
        (await transfer({ ...sending, hash }, file, control.signal, (sentBytes) =>
          this.#update(partId, { sentBytes }),
        ))
      if (control.signal.aborted) return
      if (arrived.sentSha256 !== hash) throw new Error('what arrived differs')
      this.#update(partId, { state: 'checking', sentBytes: file.size })
      await this.#deliver(sending, control.signal, arrived)
      this.#failures = 0
      this.#ledger.forget(partId)
      await this.#shelf?.drop(partId)
      this.#drop(partId)
    } catch (error) {
      if (control.signal.aborted) return
      this.#failed(partId, error)
      this.#onFailed(error)
    } finally {
      this.#running.delete(partId)
      this.#changed()
      this.#next()
    }
  }

  #failed(partId: string, error: unknown): void {
    const refused =
      error instanceof ProblemError && error.problem.status < 500 && !MAY_PASS.has(error.code)
    if (refused) return this.#update(partId, { state: 'refused', sentence: sentenceOf(error) })
    const sentence =
      codeOf(error) === 'accounts/signed-out'
        ? strings.waitsForCard
        : codeOf(error) === 'media/no-room'
          ? sentenceOf(error)
          : strings.stuck
    this.#update(partId, { state: 'stuck', sentence })
    this.#failures++
    this.#retry ??= setTimeout(() => this.retryStuck(), backOffMs(this.#failures, Math.random()))
  }

  #update(partId: string, change: Partial<Sending>): void {
    this.#sendings = this.#sendings.map((sending) =>
      sending.partId === partId ? { ...sending, ...change } : sending,
    )
    this.#changed()
  }

  #drop(partId: string): void {
    const gone = this.#sendings.find((sending) => sending.partId === partId)
    if (gone) URL.revokeObjectURL(gone.preview)
    this.#files.delete(partId)
    this.#hashes.delete(partId)
    this.#sendings = this.#sendings.filter((sending) => sending.partId !== partId)
    this.#changed()
  }

  #changed(): void {
    for (const listener of this.#listeners) listener()
  }
}
