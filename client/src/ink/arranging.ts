import {
  cornersOf,
  holdsOf,
  movedTo,
  placedAt,
  sizedBetween,
  turnedBetween,
} from '@nibquill/core/ink/arrange'
import type { InkChange } from '@nibquill/core/ink/changes'
import { isPlaced, type At, type InkSheet, type PlacedThing } from '@nibquill/core/ink/document'
import type { Sample } from '@nibquill/core/ink/hand'
import type { Frame } from '../sheets/paint'
import type { Stroke } from './strokes'

/** A placed thing by its id; null where it is not, or not any more. */
export function placedBy(sheet: InkSheet, id: string | null): PlacedThing | null {
  const found = sheet.things.find((thing) => thing.id === id)
  return found && isPlaced(found) ? found : null
}

/** What is locked is chosen, and no more. @param reach - Of a finger, in units. */
export function frameOf(thing: PlacedThing, reach: number): Frame {
  const { turn, size } = holdsOf(thing, reach * BEYOND)
  const corners = cornersOf(thing)
  return thing.locked
    ? { corners, turn: null, size: null, pointer: null }
    : { corners, turn, size, pointer: thing.kind === 'label' ? thing.pointer : null }
}

/** A hold's middle lies so much of a finger's reach beyond its corner. */
const BEYOND = 0.5

const isNear = (a: At, b: At | null, reach: number): boolean =>
  b !== null && Math.hypot(a.x - b.x, a.y - b.y) <= reach

/** What a hand does to the thing it took hold of, wherever it is drawn. */
function workOf(
  thing: PlacedThing,
  sheet: InkSheet,
  first: At,
  reach: number,
): (to: At) => PlacedThing {
  const frame = frameOf(thing, reach)
  if (isNear(first, frame.turn, reach)) return (to) => turnedBetween(thing, first, to)
  if (isNear(first, frame.size, reach)) return (to) => sizedBetween(thing, first, to)
  if (thing.kind === 'label' && isNear(first, frame.pointer, reach))
    return ({ x, y }) => ({ ...thing, pointer: { x: Math.round(x), y: Math.round(y) } })
  return ({ x, y }) =>
    movedTo(thing, { x: thing.at.x + x - first.x, y: thing.at.y + y - first.y }, sheet)
}

/**
 * A hand put down where things are arranged: it takes hold of what is chosen, or chooses another;
 * beside everything it lets go. It never draws.
 */
export function beginArranging(
  sheet: InkSheet,
  chosen: PlacedThing | null,
  first: Sample,
  reach: number,
  onChoose: (id: string | null) => void,
): Stroke | null {
  const frame = chosen && frameOf(chosen, reach)
  const holds = frame
    ? [frame.turn, frame.size, frame.pointer].some((hold) => isNear(first, hold, reach))
    : false
  const thing = holds ? chosen : placedAt(sheet, first, reach / 3)
  if (thing?.id !== chosen?.id) onChoose(thing?.id ?? null)
  if (!thing) return null
  let now = thing
  const work = thing.locked ? () => thing : workOf(thing, sheet, first, reach)
  return {
    move: (to) => (now = work(to)),
    shown: () => [],
    sheet: () =>
      now === thing
        ? null
        : { ...sheet, things: sheet.things.map((one) => (one.id === now.id ? now : one)) },
    measure: () => null,
    frame: (near) => frameOf(now, near),
    lift: () => (now === thing ? [] : set(sheet, now)),
  }
}

/** A thing changed where it lies. */
export const set = (sheet: InkSheet, thing: PlacedThing): InkChange[] => [
  { kind: 'set', sheetId: sheet.id, things: [thing] },
]
