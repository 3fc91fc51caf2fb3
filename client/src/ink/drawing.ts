import { drawOn, undoOf, type InkChange } from '@nibquill/core/ink/changes'
import type { InkDocument, InkSheet } from '@nibquill/core/ink/document'

type Step = { sheetId: string; changes: readonly InkChange[] }

/**
 * A drawing under the hand: what is on it, which sheet lies on top, and the way back. Whatever is
 * done is handed on at once, to be kept.
 */
export class Drawing {
  #ink: InkDocument
  #sheetId: string
  #done: readonly Step[] = []
  #undone: readonly Step[] = []
  #snapshot: Seen
  readonly #keep: (changes: readonly InkChange[]) => void
  readonly #listeners = new Set<() => void>()

  /** @param keep - Is handed everything that is done, undone and done again, in its order. */
  constructor(ink: InkDocument, keep: (changes: readonly InkChange[]) => void) {
    this.#ink = ink
    this.#sheetId = ink.sheets[0]!.id
    this.#keep = keep
    this.#snapshot = this.#see()
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }
  getSnapshot = (): Seen => this.#snapshot

  get sheet(): InkSheet {
    return this.#snapshot.sheet
  }

  act(changes: readonly InkChange[]): void {
    if (changes.length === 0) return
    this.#done = [...this.#done, { sheetId: this.#sheetId, changes: this.#do(changes) }]
    this.#undone = []
    this.#changed()
  }

  undo(): void {
    const step = this.#done.at(-1)
    if (!step) return
    this.#done = this.#done.slice(0, -1)
    this.#undone = [...this.#undone, { sheetId: this.#sheetId, changes: this.#do(step.changes) }]
    this.#sheetId = step.sheetId
    this.#changed()
  }

  redo(): void {
    const step = this.#undone.at(-1)
    if (!step) return
    this.#undone = this.#undone.slice(0, -1)
    this.#done = [...this.#done, { sheetId: this.#sheetId, changes: this.#do(step.changes) }]
    this.#sheetId = step.sheetId
    this.#changed()
  }

  /** Lays another sheet on top. */
  turnTo(sheetId: string): void {
    this.#sheetId = sheetId
    this.#changed()
  }

  /** What was drawn elsewhere meanwhile is there too; the way back stays. */
  lay(ink: InkDocument): void {
    this.#ink = ink
    this.#changed()
  }

  /** @returns what undoes it */
  #do(changes: readonly InkChange[]): InkChange[] {
    const back = undoOf(this.#ink, changes)
    this.#ink = drawOn(this.#ink, changes)
    this.#keep(changes)
    return back
  }

  #see(): Seen {
    const { sheets } = this.#ink
    const at = Math.max(
      0,
      sheets.findIndex(({ id }) => id === this.#sheetId),
    )
    return {
      ...{ ink: this.#ink, sheet: sheets[at]!, at },
      ...{ canUndo: this.#done.length > 0, canRedo: this.#undone.length > 0 },
    }
  }

  #changed(): void {
    this.#snapshot = this.#see()
    this.#sheetId = this.#snapshot.sheet.id
    for (const listener of this.#listeners) listener()
  }
}

/** `at`: which of its sheets lies on top, from 0. */
export type Seen = {
  ink: InkDocument
  sheet: InkSheet
  at: number
  canUndo: boolean
  canRedo: boolean
}
