import type { InkChange } from '@nibquill/core/ink/changes'
import { movedTo, sizedBy, turnedTo } from '@nibquill/core/ink/arrange'
import {
  isPlaced,
  LONGEST_EDGE,
  MOST_SHEETS,
  SPOT_SIZES,
  UNITS_PER_MM,
  type InkSheet,
  type PlacedThing,
  type SpotKind,
  type StampWhat,
} from '@nibquill/core/ink/document'
import { STAMP_SIZES } from '@nibquill/core/ink/stamps'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { beginArranging, frameOf, placedBy, set } from './arranging'
import type { Drawing, Seen } from './drawing'
import { penOf, type Hold } from './hold'
import type { Work } from './SheetStage'

const MM = UNITS_PER_MM
/** A copy lies a little beside what it was copied from. */
const BESIDE = 8 * MM
const STEP = { small: 2 * MM, large: 10 * MM }
const TURN_STEP = 15
const GROWS = 1.25
const LEAST_SPOT = 10 * MM
/** How much of its sheet a picture takes at first. */
const PICTURE_SHARE = 0.6

export type LabelWords = Pick<Extract<PlacedThing, { kind: 'label' }>, 'lines' | 'size' | 'ground'>

/** Everything that is done on the cutting mat, and which thing it is done to. */
export function useArranging(drawing: Drawing, seen: Seen, hold: Hold) {
  const [id, setId] = useState<string | null>(null)
  const { sheet } = seen
  const chosen = placedBy(sheet, id)
  const act = drawing.act.bind(drawing)
  const put = (thing: PlacedThing, below: string | null = null) => {
    act([{ kind: 'put', sheetId: sheet.id, things: [thing], below }])
    setId(thing.id)
  }
  const change = (to: (thing: PlacedThing) => PlacedThing) => {
    const now = placedBy(drawing.sheet, id)
    if (now && !now.locked) act(set(drawing.sheet, to(now)))
  }
  const work: Work = {
    begin: (first, reach) =>
      beginArranging(drawing.sheet, placedBy(drawing.sheet, id), first, reach, setId),
    frame: (reach) => {
      const now = placedBy(drawing.sheet, id)
      return now && frameOf(now, reach)
    },
    onKey: (event) => {
      if (event.key === ' ' || event.key === 'Enter') {
        setId(nextAfter(drawing.sheet, id))
        return true
      }
      const to = KEYS[event.key]
      if (!to || id === null) return ARROWS.includes(event.key)
      if (event.key === 'Delete' || event.key === 'Backspace') takeOff()
      else change((thing) => to(thing, event.shiftKey ? STEP.large : STEP.small, drawing))
      return true
    },
  }
  function takeOff() {
    if (!chosen || chosen.locked) return
    act([{ kind: 'take', sheetId: sheet.id, ids: [chosen.id] }])
    setId(null)
  }
  return {
    chosen,
    work,
    letGo: () => setId(null),
    ...layingDown(drawing, sheet, hold, put),
    widen: (way: 1 | -1) => change((thing) => widened(thing, way)),
    change,
    grow: () => change((thing) => sizedBy(thing, thing.kind === 'label' ? 1.5 : GROWS)),
    shrink: () => change((thing) => sizedBy(thing, thing.kind === 'label' ? 0.66 : 1 / GROWS)),
    turn: (way: 1 | -1) => change((thing) => turnedTo(thing, thing.turn + way * TURN_STEP)),
    toFront: () => chosen && put(chosen),
    toBack: () =>
      chosen && put(chosen, sheet.things.find(({ id: one }) => one !== chosen.id)?.id ?? null),
    copy: () => {
      if (!chosen) return
      const { x, y } = chosen.at
      const made = { ...chosen, id: newId(), locked: false }
      put(movedTo(made, { x: x + BESIDE, y: y + BESIDE }, sheet))
    },
    lock: (locked: boolean) => chosen && act(set(sheet, { ...chosen, locked })),
    takeOff,
  }
}
export type Arranging = ReturnType<typeof useArranging>

/** Everything that can be put down. */
function layingDown(
  drawing: Drawing,
  sheet: InkSheet,
  hold: Hold,
  put: (thing: PlacedThing, below?: string | null) => void,
) {
  // One after the other they come down a little further, so that none hides the one before it.
  const free = () => {
    const there = sheet.things.filter(isPlaced).length
    const off = (there % 5) * BESIDE
    return { x: Math.round(sheet.width / 2) + off, y: Math.round(sheet.height / 2.6) + off }
  }
  const bare = () => ({ id: newId(), at: free(), turn: 0, locked: false })
  const fresh = () => ({ ...bare(), pen: penOf(hold) })
  return {
    addLabel: (words: LabelWords) => put({ ...fresh(), kind: 'label', ...words, pointer: null }),
    /** A picture that is on its way, or hangs on the piece already. @param pixels - Of it, upright. */
    addPicture: (mediaId: string, pixels: { width: number; height: number }) => {
      const share =
        PICTURE_SHARE * Math.min(sheet.width / pixels.width, sheet.height / pixels.height)
      const [width, height] = [pixels.width * share, pixels.height * share].map(Math.round)
      put({ ...bare(), kind: 'picture', mediaId, width: width!, height: height! })
    },
    /** A sheet after the one on top, or in its place while that is empty. */
    addSheet: (made: InkSheet) => {
      const { ink, sheet: top } = drawing.getSnapshot()
      const after = ink.sheets[ink.sheets.findIndex(({ id }) => id === top.id) + 1]
      const bare: InkChange[] =
        top.things.length === 0 ? [{ kind: 'take-sheet', sheetId: top.id }] : []
      drawing.act([{ kind: 'put-sheet', sheet: made, below: after?.id ?? null }, ...bare])
      drawing.turnTo(made.id)
    },
    isFull: () => drawing.getSnapshot().ink.sheets.length >= MOST_SHEETS,
    addStamp: (what: StampWhat) =>
      put({ ...fresh(), kind: 'stamp', what, ...STAMP_SIZES[what.of] }),
    /** Below everything: what is sorted lies on it. */
    addSpot: (takes: SpotKind) =>
      put(
        { ...bare(), kind: 'spot', takes, words: '', ...SPOT_SIZES[takes] },
        sheet.things.find((thing) => thing.kind !== 'spot')?.id ?? null,
      ),
  }
}

/** What can be chosen, one after the other. */
function nextAfter({ things }: InkSheet, id: string | null) {
  const all = things.filter((thing) => isPlaced(thing) && !thing.fixed)
  return all[(all.findIndex((thing) => thing.id === id) + 1) % all.length]?.id ?? null
}

/** A spot, one way only. */
function widened(thing: PlacedThing, way: 1 | -1): PlacedThing {
  if (thing.kind !== 'spot') return thing
  const wanted = Math.round(thing.width * GROWS ** way)
  return { ...thing, width: Math.min(LONGEST_EDGE, Math.max(LEAST_SPOT, wanted)) }
}

type KeyWork = (thing: PlacedThing, step: number, drawing: Drawing) => PlacedThing
const move =
  (x: number, y: number): KeyWork =>
  (thing, step, drawing) =>
    movedTo(thing, { x: thing.at.x + x * step, y: thing.at.y + y * step }, drawing.sheet)
const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']
const KEYS: Partial<Record<string, KeyWork>> = {
  ArrowLeft: move(-1, 0),
  ArrowRight: move(1, 0),
  ArrowUp: move(0, -1),
  ArrowDown: move(0, 1),
  '.': (thing) => turnedTo(thing, thing.turn + TURN_STEP),
  ',': (thing) => turnedTo(thing, thing.turn - TURN_STEP),
  ']': (thing) => sizedBy(thing, GROWS * 1.2),
  '[': (thing) => sizedBy(thing, 1 / (GROWS * 1.2)),
  Delete: (thing) => thing,
  Backspace: (thing) => thing,
}
