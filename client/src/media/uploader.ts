import { Arrived } from '@nibquill/contract'
import { MAX_UPLOAD_BYTES } from '@nibquill/core'
import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex } from '@noble/hashes/utils'
import { type DetailedError, Upload } from 'tus-js-client'
import { v7 as newId } from 'uuid'
import * as v from 'valibot'
import { api } from '../api/api'
import { problemFrom, sentenceOf } from '../api/problems'
import { strings } from './strings'
import { UploadLedger } from './uploadLedger'

/** One file on its way. `partId` names it everywhere. */
export type Sending = {
  partId: string
  mediaId: string
  pieceId: string
  ownerId: string
  name: string
  sizeBytes: number
  sentBytes: number
  /** It is on this tablet for good until it has arrived: a closed page loses nothing. */
  kept: boolean
  state: 'keeping' | 'waiting' | 'sending' | 'checking' | 'stuck' | 'refused'
  /** Why, when stuck or refused. */
  sentence: string | null
  preview: string
}

const AT_ONCE = 2
/** Then the pupil is told, and the file waits for the network or a tap. */
const RETRY_DELAYS_MS = [0, 500, 1500, 4000, 8000, 15_000]
const ENDPOINT = '/api/media/uploads'

/** Where files wait that have not arrived, beyond the life of the page. */
export type Shelf = { put: (file: Line, bytes: File) => Promise<unknown>; drop: (partId: string) => Promise<unknown> }
export type Line = Pick<Sending, 'partId' | 'mediaId' | 'pieceId' | 'ownerId' | 'name'>
/** When a tablet changes hands, files under way may finish; those on the shelf wait for their owner after that. */
const SETTLE_MS = 20_000

type Delivered = (sending: Sending, signal: AbortSignal) => Promise<void>

/**
 * Brings files to school: resumable, two at a time, each under ids made here, so that whatever is repeated arrives once.
 * It is handed files and says how far they are; where they wait meanwhile is not its business.
 */
export class Uploader {
  #sendings: readonly Sending[] = []
  readonly #files = new Map<string, File>()
  readonly #running = new Map<string, { abort: () => void }>()
  readonly #listeners = new Set<() => void>()
  readonly #ledger = new UploadLedger()
  readonly #deliver: Delivered
  readonly #shelf: Shelf | null

  /**
   * @param deliver - Called when the server has confirmed the file; hangs it into its piece. The signal says that its pupil has left.
   * @param shelf - Without one, files live as long as the page.
   */
  constructor(deliver: Delivered, shelf: Shelf | null = null) {
    this.#deliver = deliver
    this.#shelf = shelf
    if (typeof window !== 'undefined') window.addEventListener('online', () => this.retryStuck())
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
  getSnapshot = (): readonly Sending[] => this.#sendings

  /** Takes a file on; resolves once it is kept, where it can be. A file that was half-way before goes on where it stopped. */
  async add(ownerId: string, pieceId: string, file: File): Promise<void> {
    const before = this.#ledger.find(ownerId, pieceId, file)
    if (before && this.#sendings.some(({ partId }) => partId === before.partId)) return
    const ids = before ?? { partId: newId(), mediaId: newId() }
    const refusal = file.size === 0 ? strings.empty : file.size > MAX_UPLOAD_BYTES ? strings.tooLarge : null
    const sending: Sending = {
      ...ids, ownerId, pieceId, name: file.name, sizeBytes: file.size, sentBytes: 0, kept: false, state: refusal ? 'refused' : this.#shelf ? 'keeping' : 'waiting', sentence: refusal,
      preview: URL.createObjectURL(file),
    } // prettier-ignore
    this.#sendings = [...this.#sendings, sending]
    this.#files.set(ids.partId, file)
    if (!refusal) this.#ledger.remember(ownerId, pieceId, file, ids)
    this.#changed()
    if (this.#shelf && !refusal) {
      const kept = await this.#shelf.put(sending, file).then(
        () => true,
        () => false,
      )
      this.#update(sending.partId, { kept, state: 'waiting', sentence: kept ? null : strings.notKept })
    }
    this.#next()
  }

  /** Takes a file up again that waited on the shelf. */
  restore(line: Line, file: File): void {
    if (this.#sendings.some(({ partId }) => partId === line.partId)) return
    const { partId, mediaId, pieceId, ownerId, name } = line
    this.#sendings = [
      ...this.#sendings,
      {
        partId, mediaId, pieceId, ownerId, name, sizeBytes: file.size, sentBytes: 0, kept: true, state: 'waiting', sentence: null,
        preview: URL.createObjectURL(file),
      },
    ] // prettier-ignore
    this.#files.set(partId, file)
    this.#changed()
    this.#next()
  }

  /** Names of files that began their way to a piece on this tablet and have not arrived; picked again, they go on. */
  listHalfWay(ownerId: string, pieceId: string): string[] {
    return this.#ledger.list(ownerId, pieceId).filter(({ partId }) => !this.#files.has(partId)).map(({ name }) => name) // prettier-ignore
  }

  retryStuck(): void {
    for (const { partId, state } of this.#sendings)
      if (state === 'stuck') this.#update(partId, { state: 'waiting', sentence: null })
    this.#next()
  }

  forget(partId: string): void {
    this.#running.get(partId)?.abort()
    this.#drop(partId)
    this.#ledger.forget(partId)
    void this.#shelf?.drop(partId)
    this.#next()
  }

  /** Waits until everything has arrived, or what has not is on the shelf. @throws Error when something is neither */
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

  /** On signing out: nothing of this pupil stays in memory; what arrived stays at school, the rest on the shelf. */
  clear(): void {
    for (const { partId } of this.#sendings) {
      this.#running.get(partId)?.abort()
      this.#drop(partId)
    }
  }

  #next(): void {
    for (const sending of this.#sendings) {
      if (this.#running.size >= AT_ONCE) return
      if (sending.state === 'waiting' && !this.#running.has(sending.partId)) void this.#send(sending)
    }
  }

  async #send(sending: Sending): Promise<void> {
    const { partId } = sending
    const file = this.#files.get(partId)!
    const control = new AbortController()
    this.#running.set(partId, { abort: () => control.abort() })
    this.#update(partId, { state: 'sending' })
    try {
      const hash = bytesToHex(sha256(new Uint8Array(await file.arrayBuffer())))
      const there = await api.get(`/media/${sending.mediaId}`, Arrived, control.signal).catch(() => null)
      const arrived = there ?? (await this.#transfer(sending, file, hash, control.signal))
      if (arrived.sentSha256 !== hash) throw new Error('what arrived differs')
      this.#update(partId, { state: 'checking', sentBytes: file.size })
      await this.#deliver(sending, control.signal)
      this.#ledger.forget(partId)
      await this.#shelf?.drop(partId)
      this.#drop(partId)
    } catch (error) {
      if (control.signal.aborted) return
      const refused = error instanceof Refused
      if (refused) this.#ledger.forget(partId)
      this.#update(partId, { state: refused ? 'refused' : 'stuck', sentence: refused ? error.message : strings.stuck })
    } finally {
      this.#running.delete(partId)
      this.#next()
    }
  }

  #transfer(sending: Sending, file: File, hash: string, signal: AbortSignal): Promise<Arrived> {
    return new Promise((resolve, reject) => {
      const upload = new Upload(file, {
        endpoint: ENDPOINT,
        retryDelays: RETRY_DELAYS_MS,
        removeFingerprintOnSuccess: true,
        fingerprint: () => Promise.resolve(`nibquill/${sending.mediaId}`),
        metadata: { mediaId: sending.mediaId, filename: sending.name, sha256: hash },
        onProgress: (sentBytes) => this.#update(sending.partId, { sentBytes }),
        onSuccess: ({ lastResponse }) => {
          const arrived = v.safeParse(Arrived, parse(lastResponse.getBody()))
          // An earlier try arrived whole, and its answer was lost on the way: ask.
          if (arrived.success) resolve(arrived.output)
          else api.get(`/media/${sending.mediaId}`, Arrived).then(resolve, reject)
        },
        onError: (error) => void refusalOf(error).then(reject),
      })
      signal.addEventListener('abort', () => {
        void upload.abort()
        reject(new Error('stopped'))
      })
      upload.findPreviousUploads().then(([previous]) => {
        if (previous) upload.resumeFromPreviousUpload(previous)
        upload.start()
      }, reject)
    })
  }

  #update(partId: string, change: Partial<Sending>): void {
    this.#sendings = this.#sendings.map((sending) => (sending.partId === partId ? { ...sending, ...change } : sending))
    this.#changed()
  }

  #drop(partId: string): void {
    const gone = this.#sendings.find((sending) => sending.partId === partId)
    if (gone) URL.revokeObjectURL(gone.preview)
    this.#files.delete(partId)
    this.#sendings = this.#sendings.filter((sending) => sending.partId !== partId)
    this.#changed()
  }

  #changed(): void {
    for (const listener of this.#listeners) listener()
  }
}

/** The server looked at the file and will never take it. */
class Refused extends Error {}

async function refusalOf(error: Error | DetailedError): Promise<Error> {
  const response = 'originalResponse' in error ? error.originalResponse : null
  const status = response?.getStatus() ?? 0
  const mayChange = status === 0 || status >= 500 || status === 401 || status === 404 || status === 409 || status === 423
  if (!response || mayChange) return error
  return new Refused(sentenceOf(await problemFrom(new Response(response.getBody()))))
}

function parse(body: string): unknown {
  try {
    return JSON.parse(body)
  } catch {
    return null
  }
}
