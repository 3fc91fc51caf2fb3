import {
  MOST_SHEETS,
  MOST_THINGS,
  type InkDocument,
  type InkSheet,
  type Paper,
  type Thing,
} from './document.ts'

/**
 * One thing done to a drawing. Each names what it means by its id and can be done again without
 * changing more, so that a batch whose answer was lost is simply sent once more, and what two
 * tablets draw on one sheet is all there.
 * `below`: the thing, or sheet, in front of which it stands; null, or where that one is gone, on top.
 */
export type InkChange =
  | { kind: 'put'; sheetId: string; things: readonly Thing[]; below: string | null }
  /** Changed where they lie; what was taken off meanwhile stays off. */
  | { kind: 'set'; sheetId: string; things: readonly Thing[] }
  | { kind: 'take'; sheetId: string; ids: readonly string[] }
  | { kind: 'paper'; sheetId: string; paper: Paper }
  | { kind: 'put-sheet'; sheet: InkSheet; below: string | null }
  /** The last sheet stays. */
  | { kind: 'take-sheet'; sheetId: string }

type Listed = { id: string }
const beneath = <T extends Listed>(list: readonly T[], below: string | null): number => {
  const at = list.findIndex(({ id }) => id === below)
  return at < 0 ? list.length : at
}
function insert<T extends Listed>(
  list: readonly T[],
  more: readonly T[],
  below: string | null,
): T[] {
  const coming = new Set(more.map(({ id }) => id))
  const rest = list.filter(({ id }) => !coming.has(id))
  const at = beneath(rest, below)
  return [...rest.slice(0, at), ...more, ...rest.slice(at)]
}

/** A drawing after things were done to it, in their order. What fits nowhere changes nothing. */
export const drawOn = (ink: InkDocument, changes: readonly InkChange[]): InkDocument =>
  changes.reduce(drawOne, ink)

function drawOne(ink: InkDocument, change: InkChange): InkDocument {
  const { sheets } = ink
  if (change.kind === 'put-sheet')
    return sheets.some(({ id }) => id === change.sheet.id)
      ? ink
      : { ...ink, sheets: insert(sheets, [change.sheet], change.below) }
  if (change.kind === 'take-sheet')
    return sheets.length === 1
      ? ink
      : { ...ink, sheets: sheets.filter(({ id }) => id !== change.sheetId) }
  return {
    ...ink,
    sheets: sheets.map((sheet) => (sheet.id === change.sheetId ? onSheet(sheet, change) : sheet)),
  }
}

type OnSheet = Extract<InkChange, { kind: 'put' | 'set' | 'take' | 'paper' }>
function onSheet(sheet: InkSheet, change: OnSheet): InkSheet {
  switch (change.kind) {
    case 'put':
      return { ...sheet, things: insert(sheet.things, change.things, change.below) }
    case 'set': {
      const now = new Map(change.things.map((thing) => [thing.id, thing]))
      return { ...sheet, things: sheet.things.map((thing) => now.get(thing.id) ?? thing) }
    }
    case 'take': {
      const gone = new Set(change.ids)
      return { ...sheet, things: sheet.things.filter(({ id }) => !gone.has(id)) }
    }
    case 'paper':
      return { ...sheet, paper: change.paper }
  }
}

/** What brings a drawing back to where it was before these were done to it, in their order. */
export function undoOf(ink: InkDocument, changes: readonly InkChange[]): InkChange[] {
  const back: InkChange[][] = []
  let now = ink
  for (const change of changes) {
    back.unshift(undoOne(now, change))
    now = drawOne(now, change)
  }
  return back.flat()
}

function undoOne(ink: InkDocument, change: InkChange): InkChange[] {
  if (change.kind === 'put-sheet')
    return ink.sheets.some(({ id }) => id === change.sheet.id)
      ? []
      : [{ kind: 'take-sheet', sheetId: change.sheet.id }]
  const at = ink.sheets.findIndex(({ id }) => id === change.sheetId)
  const sheet = ink.sheets[at]
  if (!sheet) return []
  const { sheetId } = change
  switch (change.kind) {
    case 'take-sheet':
      return ink.sheets.length === 1
        ? []
        : [{ kind: 'put-sheet', sheet, below: ink.sheets[at + 1]?.id ?? null }]
    case 'paper':
      return [{ kind: 'paper', sheetId, paper: sheet.paper }]
    case 'set': {
      const meant = new Set(change.things.map(({ id }) => id))
      return [{ kind: 'set', sheetId, things: sheet.things.filter(({ id }) => meant.has(id)) }]
    }
    case 'take':
      return putBack(sheet, new Set(change.ids))
    case 'put': {
      const ids = new Set(change.things.map(({ id }) => id))
      const moved = sheet.things.filter(({ id }) => ids.has(id))
      const there = new Set(moved.map(({ id }) => id))
      const fresh = [...ids].filter((id) => !there.has(id))
      return [
        ...(fresh.length > 0 ? [{ kind: 'take' as const, sheetId, ids: fresh }] : []),
        ...putBack(sheet, there),
      ]
    }
  }
}

/** Each where it lay: from the top down, so that what it lay below is there already. */
function putBack({ id: sheetId, things }: InkSheet, ids: ReadonlySet<string>): InkChange[] {
  return things
    .flatMap((thing, i): InkChange[] =>
      ids.has(thing.id)
        ? [{ kind: 'put', sheetId, things: [thing], below: things[i + 1]?.id ?? null }]
        : [],
    )
    .reverse()
}

/** Whether a drawing holds more than one may. */
export const isFull = ({ sheets }: InkDocument): boolean =>
  sheets.length > MOST_SHEETS || sheets.some(({ things }) => things.length > MOST_THINGS)
