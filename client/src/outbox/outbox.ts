import type { Piece } from '@nibquill/contract'
import {
  addIntent,
  backOffMs,
  GATHER_MS,
  overtaken,
  readyIntents,
  TAKE_BACK_MS,
  whoseTurn,
  type Intent,
  type IntentBody,
  type Standing,
} from '@nibquill/core'
import { v7 as newId } from 'uuid'
import { codeOf, ProblemError, sentenceOf } from '../kit/problems'
import { fileHere, holdHere, letGo } from '../media/filesHere'
import { Asks, SENDERS, type Theirs, type Way } from './senders'
import type { Kept, OutboxStore } from './store'
import { t } from './words'

/** One thing on its way to school. */
export type Waiting = Kept & {
  /** `stuck`: tried again by itself. `refused`: the school said why not. `asks`: the pupil says. */
  standing: Standing | 'waiting'
  /** Why, when stuck or refused. */
  sentence: string | null
  /** 0..1 of a file that is at school. */
  share: number
  /** As it stands at school, where two tablets differ. */
  theirs: Theirs | null
  /** It is on this tablet for good until it has arrived: a closed page loses nothing. */
  kept: boolean
}

/** What the outbox tells the rest of the application. */
export type Hears = {
  onPiece: (piece: Piece) => void
  /** A piece was thrown away or brought back. */
  onBinned: (pieceId: string) => void
  onFailed: (error: unknown) => void
}
/**
 * A recording that is kept while it runs. `become`: what is wanted once it has ended is something
 * else by now; `end` lets go of what was kept.
 */
export type KeptRecording = {
  add: (slice: Blob) => void
  become: (bodies: readonly IntentBody[]) => void
  end: () => Promise<void>
}
/** Brings an intent to school; replaced in tests. */
export type Send = (intent: Intent, way: Way) => Promise<Piece | null>
const send: Send = (intent, way) =>
  (SENDERS[intent.kind] as (intent: Intent, way: Way) => Promise<Piece | null>)(intent, way)

/** Those that one day may be otherwise: somebody signs in again, makes room, the server recovers. */
const MAY_PASS = new Set([
  'accounts/signed-out',
  'media/differs',
  'media/no-room',
  'media/too-many-uploads',
  'request/too-large',
])
const FILES_AT_ONCE = 2
/** When a tablet changes hands, what is under way may finish for so long. */
const SETTLE_MS = 20_000
/** Somebody else was first: looked at again at once, a few times. */
const STALE_AGAIN_MS = 200
const STALE_TRIES = 4

/** Lets one page of this browser send files at a time. */
type Turn = (work: () => Promise<void>) => Promise<unknown>
const oneAtATime: Turn = (work) =>
  typeof navigator === 'undefined' || navigator.locks === undefined
    ? work()
    : navigator.locks.request('nibquill.transfers', work)

/**
 * Everything a pupil does to a draft: kept on the tablet before anything else happens, shown at
 * once, brought to school in an order that fits, and tried again by itself.
 */
export class Outbox {
  #lines: readonly Waiting[] = []
  #order = 0
  #failures = 0
  #retry: ReturnType<typeof setTimeout> | null = null
  #hasTurn = false
  #served: string[] = []
  /** Recordings that run in this page. */
  readonly #recording = new Set<string>()
  readonly #running = new Map<
    string,
    { control: AbortController; pieceId: string; file: boolean }
  >()
  readonly #listeners = new Set<() => void>()
  readonly #store: OutboxStore
  readonly #hears: Hears
  readonly #send: Send
  readonly #turn: Turn

  constructor(store: OutboxStore, hears: Hears, options: { send?: Send; turn?: Turn } = {}) {
    this.#store = store
    this.#hears = hears
    this.#send = options.send ?? send
    this.#turn = options.turn ?? oneAtATime
    if (typeof window !== 'undefined') window.addEventListener('online', () => this.retry())
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
  getSnapshot = (): readonly Waiting[] => this.#lines

  /**
   * Wants something of the school. Shown at once; resolves when it is kept here (or cannot be, which
   * its line says).
   * @param files - Of the intents of kind `file` among them, by their media's id.
   */
  async want(
    ownerId: string,
    pieceId: string,
    bodies: readonly IntentBody[],
    files: ReadonlyMap<string, File> = new Map(),
  ): Promise<void> {
    for (const [mediaId, file] of files) holdHere(mediaId, file)
    const before = this.#lines
    for (const body of bodies)
      this.#merge(ownerId, { ...body, id: newId(), pieceId, at: Date.now() })
    this.#changed()
    await this.#keep(before, ownerId, files)
    this.#pump()
    // What was taken out before it was sent goes when it can no longer be taken back.
    if (bodies.some(({ kind }) => kind === 'remove' || kind === 'bin'))
      setTimeout(() => this.#pump(), TAKE_BACK_MS + 50)
    if (bodies.some(({ kind }) => kind === 'ink')) setTimeout(() => this.#pump(), GATHER_MS + 50)
  }

  /**
   * Keeps a recording while it runs: should the page end, the next one wants what had been recorded
   * by then.
   * @param bodies - What is wanted once it has ended.
   */
  keepRecording(
    ownerId: string,
    pieceId: string,
    bodies: readonly IntentBody[],
    { mediaId, name, type }: { mediaId: string; name: string; type: string },
  ): KeptRecording {
    const recordingId = newId()
    this.#recording.add(recordingId)
    const running = { recordingId, ownerId, pieceId, bodies, mediaId }
    // One that cannot be kept is still recorded.
    let last: Promise<unknown> = this.#store
      .beginRecording(running, name, type)
      .catch(() => undefined)
    const then = (keep: () => Promise<void>) => {
      last = last.then(keep).catch(() => undefined)
    }
    let place = 0
    return {
      add: (slice) => {
        const at = place++
        then(() => this.#store.addSlice(recordingId, at, slice))
      },
      become: (now) => then(() => this.#store.changeRecording({ ...running, bodies: now })),
      end: async () => {
        await last
        await this.#store.endRecording(recordingId).catch(() => undefined)
        this.#recording.delete(recordingId)
      },
    }
  }

  /** What ran when the last page ended becomes what it was to be. */
  async #takeUpRecordings(ownerId: string, gone: AbortSignal): Promise<void> {
    for (const left of await this.#store.leftRecordings(ownerId)) {
      if (this.#recording.has(left.recordingId)) continue
      const file = await this.#store.takeFile(left.recordingId)
      if (gone.aborted) return
      if (file && file.size > 0) {
        const bodies = left.bodies.map((body) =>
          body.kind === 'file' ? { ...body, sizeBytes: file.size } : body,
        )
        await this.want(ownerId, left.pieceId, bodies, new Map([[left.mediaId, file]]))
      }
      await this.#store.endRecording(left.recordingId)
    }
  }

  #merge(ownerId: string, intent: Intent): void {
    const own = this.#lines.filter((line) => line.ownerId === ownerId)
    const queue = own.map((line) => line.intent)
    const tried = new Set(own.filter(mayHaveBeenHeard).map(({ id }) => id))
    const merged = addIntent(queue, intent, tried)
    if (merged === queue) return
    const ids = new Set(merged.map(({ id }) => id))
    const lineOf = (one: Intent): Waiting => {
      const line = own.find(({ id }) => id === one.id)
      if (line?.intent === one) return line
      // Written over: looked at anew, whatever was said of it before.
      if (line) return { ...line, intent: one, standing: 'waiting', sentence: null, kept: false }
      return {
        ...{ id: one.id, ownerId, order: this.#nextOrder(), tried: false, intent: one },
        ...{ standing: 'waiting', sentence: null, share: 0, theirs: null, kept: false },
      }
    }
    const others = this.#lines.filter((line) => line.ownerId !== ownerId)
    for (const { id, intent: gone } of own)
      if (!ids.has(id) && gone.kind === 'file') letGo(gone.mediaId)
    this.#lines = [...others, ...merged.map(lineOf)]
  }

  /** Later than whatever another page of this browser wrote a moment ago. */
  #nextOrder(): number {
    this.#order = Math.max(this.#order + 1, Date.now() * 1000)
    return this.#order
  }

  /** Takes up what waited in the store. @throws when it cannot be read */
  async restore(ownerId: string, gone: AbortSignal): Promise<void> {
    const found = await this.#store.list(ownerId)
    const fresh = found.filter(({ id }) => !this.#lines.some((line) => line.id === id))
    const whole: Waiting[] = []
    for (const kept of fresh) {
      if (kept.intent.kind === 'file' && !fileHere(kept.intent.mediaId)) {
        const file = await this.#store.takeFile(kept.intent.mediaId)
        if (file) holdHere(kept.intent.mediaId, file)
      }
      whole.push({
        ...kept,
        ...{ standing: 'waiting', sentence: null, share: 0, theirs: null, kept: true },
      })
    }
    // They may have left meanwhile.
    if (gone.aborted) return
    this.#lines = [...whole, ...this.#lines].sort((a, b) => a.order - b.order)
    this.#order = Math.max(this.#order, ...whole.map(({ order }) => order))
    this.#changed()
    this.#pump()
    await this.#takeUpRecordings(ownerId, gone)
  }

  /** Writes what differs from before; a file first, so that no intent names bytes that are not there. */
  async #keep(
    before: readonly Waiting[],
    ownerId: string,
    files: ReadonlyMap<string, File>,
  ): Promise<void> {
    const now = this.#lines.filter((line) => !before.includes(line))
    const gone = before.filter(({ id }) => !this.#lines.some((line) => line.id === id))
    try {
      for (const [mediaId, file] of files) await this.#store.putFile(mediaId, ownerId, file)
      await this.#store.write(
        now.map(asKept),
        gone.map(({ id }) => id),
      )
      for (const line of gone)
        if (line.intent.kind === 'file') void this.#store.dropFile(line.intent.mediaId)
      const written = new Map(now.map((line) => [line.id, line.intent]))
      this.#update(
        (line) => written.get(line.id) === line.intent,
        () => ({ kept: true }),
      )
    } catch {
      // Its lines say that they are not kept.
    }
  }

  /** Whether this browser keeps work beyond the life of the page. */
  keepsWork(): Promise<boolean> {
    return this.#store.works()
  }

  /** What the pupil says where two tablets differ. */
  async choose(id: string, whose: 'mine' | 'theirs'): Promise<void> {
    const line = this.#lines.find((other) => other.id === id)
    if (!line?.theirs) return
    const before = this.#lines
    const intent = settled(line.intent, line.theirs, whose)
    this.#update(
      (other) => other.id === id,
      () => ({ intent, theirs: null, standing: 'waiting', kept: false }),
    )
    await this.#keep(before, line.ownerId, new Map())
    this.#pump()
  }

  /** Lets go of what the school refuses, or what nobody wants there any more. */
  async forget(ids: readonly string[]): Promise<void> {
    for (const id of ids) this.#running.get(id)?.control.abort()
    await this.#drop(ids)
    this.#pump()
  }

  /** Tries again what is stuck, and what was refused where that is asked for. */
  retry(refused: readonly string[] = []): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    this.#update(
      ({ id, standing }) => standing === 'stuck' || refused.includes(id),
      () => ({ standing: 'waiting', sentence: null }),
    )
    this.#pump()
  }

  /**
   * Waits a little for what is under way.
   * @throws Error when something is neither at school nor kept here
   */
  async settle(): Promise<void> {
    this.retry()
    // What can still go goes; what is stuck is safe here.
    const safe = () =>
      this.#lines.every(({ kept }) => kept) &&
      this.#running.size === 0 &&
      this.#ready().length === 0
    await new Promise<void>((resolve) => {
      const look = () => {
        if (!safe()) return
        stop()
        clearTimeout(timer)
        resolve()
      }
      const stop = this.subscribe(look)
      const timer = setTimeout(() => (stop(), resolve()), SETTLE_MS)
      look()
    })
    if (this.#lines.some(({ kept }) => !kept)) throw new Error('work waits for the network')
  }

  /** On signing out: nothing of this pupil stays in memory; what is kept waits for them. */
  clear(): void {
    if (this.#retry) clearTimeout(this.#retry)
    this.#retry = null
    for (const { control } of this.#running.values()) control.abort()
    this.#running.clear()
    this.#served = []
    this.#lines = []
    this.#changed()
  }

  #pump(): void {
    void this.#letOvertakenGo()
    this.#sendAll()
    this.#sendFiles()
  }

  async #letOvertakenGo(): Promise<void> {
    const tried = new Set(this.#lines.filter(mayHaveBeenHeard).map(({ id }) => id))
    const gone = overtaken(
      this.#lines.map(({ intent }) => intent),
      tried,
      Date.now(),
    )
    if (gone.size > 0) await this.#drop([...gone])
  }

  #ready(): Waiting[] {
    const standings = new Map(
      this.#lines.flatMap(({ id, standing }) =>
        standing === 'waiting' ? [] : [[id, standing] as const],
      ),
    )
    const ready = readyIntents(
      this.#lines.map(({ intent }) => intent),
      standings,
      Date.now(),
    )
    return ready
      .map(({ id }) => this.#lines.find((line) => line.id === id)!)
      .filter(({ standing }) => standing === 'waiting')
  }

  /** Everything but files: one at a time for each piece. */
  #sendAll(): void {
    for (const line of this.#ready()) {
      if (line.intent.kind === 'file') continue
      const busy = [...this.#running.values()].some(
        ({ pieceId, file }) => !file && pieceId === line.intent.pieceId,
      )
      if (!busy) void this.#bring(line)
    }
  }

  /** Files: two at a time, fair between pieces, one page of this browser at a time. */
  #sendFiles(): void {
    const waiting = () => this.#ready().filter(({ intent }) => intent.kind === 'file')
    if (waiting().length === 0) return
    if (this.#hasTurn) return this.#fill(waiting)
    this.#hasTurn = true
    void this.#turn(async () => {
      this.#fill(waiting)
      // The turn is kept while something of ours is under way.
      await new Promise<void>((resolve) => {
        const look = () => {
          if ([...this.#running.values()].some(({ file }) => file) || waiting().length > 0) return
          stop()
          resolve()
        }
        const stop = this.subscribe(look)
        look()
      })
    }).finally(() => {
      this.#hasTurn = false
      this.#sendFiles()
    })
  }

  #fill(waiting: () => Waiting[]): void {
    for (;;) {
      const running = [...this.#running.values()].filter(({ file }) => file)
      if (running.length >= FILES_AT_ONCE) return
      const next = whoseTurn(
        waiting().map((line) => ({ id: line.id, group: line.intent.pieceId, line })),
        running.map(({ pieceId }) => pieceId),
        this.#served,
      )
      if (!next) return
      this.#served = [...this.#served.filter((other) => other !== next.group), next.group]
      void this.#bring(next.line)
    }
  }

  async #bring({ id, intent, ownerId }: Waiting): Promise<void> {
    // Known to be away: it does not set out, so that it can still be merged into.
    if (typeof navigator !== 'undefined' && navigator.onLine === false)
      return this.#update(
        (line) => line.id === id,
        () => ({ standing: 'stuck', sentence: t('waitsForNetwork') }),
      )
    const control = new AbortController()
    const { pieceId, kind } = intent
    this.#running.set(id, { control, pieceId, file: kind === 'file' })
    const before = this.#lines
    const mine = (line: Waiting) => line.id === id
    this.#update(mine, () => ({ standing: 'sending', tried: true }))
    // Once it has set out it is not merged into any more, also after a reload.
    if (kind !== 'file') await this.#keep(before, ownerId, new Map())
    try {
      const piece = await this.#send(intent, {
        file: fileHere,
        signal: control.signal,
        onShare: (share) => this.#update(mine, () => ({ share })),
      })
      // Its pupil may have left: nothing of theirs comes back into memory.
      if (control.signal.aborted) return
      this.#failures = 0
      if (piece) this.#hears.onPiece(piece)
      if (kind === 'bin') this.#hears.onBinned(pieceId)
      await this.#drop([id])
    } catch (error) {
      if (!control.signal.aborted) this.#failed(id, error)
    } finally {
      this.#running.delete(id)
      this.#changed()
      this.#pump()
    }
  }

  #failed(id: string, error: unknown): void {
    const mine = (line: Waiting) => line.id === id
    if (error instanceof Asks)
      return this.#update(mine, () => ({ standing: 'asks', theirs: error.theirs }))
    this.#hears.onFailed(error)
    const stale = codeOf(error) === 'piece/stale'
    const refused =
      error instanceof ProblemError && error.problem.status < 500 && !MAY_PASS.has(error.code)
    if (refused && !stale)
      return this.#update(mine, () => ({ standing: 'refused', sentence: sentenceOf(error) }))
    this.#update(mine, () => ({ standing: 'stuck', sentence: whyStuck(error) }))
    // Many things fail at once when the network goes: that counts as one failure.
    if (this.#retry) return
    this.#failures++
    const soon = stale && this.#failures < STALE_TRIES
    this.#retry = setTimeout(
      () => this.retry(),
      soon ? STALE_AGAIN_MS : backOffMs(this.#failures, Math.random()),
    )
  }

  async #drop(ids: readonly string[]): Promise<void> {
    const gone = this.#lines.filter(({ id }) => ids.includes(id))
    this.#lines = this.#lines.filter(({ id }) => !ids.includes(id))
    this.#changed()
    await this.#store.write([], ids).catch(() => undefined)
    for (const { intent } of gone)
      if (intent.kind === 'file') await this.#store.dropFile(intent.mediaId)
  }

  #update(which: (line: Waiting) => boolean, change: (line: Waiting) => Partial<Waiting>): void {
    this.#lines = this.#lines.map((line) => (which(line) ? { ...line, ...change(line) } : line))
    this.#changed()
  }

  #changed(): void {
    for (const listener of this.#listeners) listener()
  }
}

/** It set out once and the school did not say no: what became of it is not known. */
const mayHaveBeenHeard = ({ tried, standing }: Waiting): boolean => tried && standing !== 'refused'

const asKept = ({ id, ownerId, order, tried, intent }: Waiting): Kept => ({
  ...{ id, ownerId, order, tried, intent },
})

/** An intent as the pupil decided it: what the school has is what it goes on from. */
function settled(intent: Intent, theirs: Theirs, whose: 'mine' | 'theirs'): Intent {
  if (intent.kind === 'words' && 'words' in theirs)
    return {
      ...intent,
      base: theirs.words,
      words: whose === 'theirs' ? theirs.words : intent.words,
    }
  if (intent.kind === 'content' && 'text' in theirs)
    return {
      ...intent,
      seenText: theirs.text,
      text: whose === 'theirs' ? theirs.text : intent.text,
    }
  return intent
}

function whyStuck(error: unknown): string {
  if (codeOf(error) === 'accounts/signed-out') return t('waitsForCard')
  if (codeOf(error) === 'media/no-room') return sentenceOf(error)
  return error instanceof ProblemError ? t('waitsForSchool') : t('waitsForNetwork')
}
