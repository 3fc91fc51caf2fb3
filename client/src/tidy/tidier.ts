import type { Tidying } from '@nibquill/core'
import type { Opened, TidyAnswer, TidyRequest } from '../workers/tidy.worker'

type Ask = TidyRequest extends infer R ? (R extends { id: number } ? Omit<R, 'id'> : never) : never

/** A photo being tidied, in a worker of its own: the page stays quick whatever is done to it. */
export class Tidier {
  readonly #worker = new Worker(new URL('../workers/tidy.worker.ts', import.meta.url))
  readonly #waiting = new Map<
    number,
    { take: (answer: TidyAnswer) => void; fail: (error: Error) => void }
  >()
  #next = 0

  constructor() {
    this.#worker.onmessage = ({ data }: MessageEvent<TidyAnswer>) => {
      const waiting = this.#waiting.get(data.id)
      if ('failed' in data) waiting?.fail(new Error(data.failed))
      else waiting?.take(data)
      if (!('share' in data)) this.#waiting.delete(data.id)
    }
    this.#worker.onerror = () => {
      for (const { fail } of this.#waiting.values()) fail(new Error('the worker stopped'))
      this.#waiting.clear()
    }
  }

  /**
   * Opens a photo upright, and looks for the page in it.
   * @throws Error when the browser cannot open it
   */
  open(file: Blob): Promise<Opened> {
    return this.#ask({ ask: 'open', file }, (answer) => ('opened' in answer ? answer.opened : null))
  }

  /** @param most - Pixels along the longer side. */
  preview(tidying: Tidying, most: number): Promise<ImageBitmap> {
    return this.#ask({ ask: 'preview', tidying, most }, (answer) =>
      'preview' in answer ? answer.preview : null,
    )
  }

  /** The full picture. @param tell - How far it is, 0..1. */
  make(tidying: Tidying, tell: (share: number) => void): Promise<Blob> {
    return this.#ask({ ask: 'make', tidying }, (answer) => {
      if ('share' in answer) tell(answer.share)
      return 'made' in answer ? answer.made : null
    })
  }

  close(): void {
    this.#worker.terminate()
    this.#waiting.clear()
  }

  #ask<T>(ask: Ask, read: (answer: TidyAnswer) => T | null): Promise<T> {
    const id = this.#next++
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, {
        take: (answer) => {
          const found = read(answer)
          if (found !== null) resolve(found)
        },
        fail: reject,
      })
      this.#worker.postMessage({ ...ask, id } as TidyRequest)
    })
  }
}
