import type { ShownPath } from './display.ts'
import { LABEL_GROUNDS, LABEL_SIZES, UNITS_PER_MM, type At, type Label } from './document.ts'
import { colourOf } from './inks.ts'
import { BASE_SHARE, lengthOf, LINE_SHARE, wordsPath } from './letters.ts'
import { boxOf, pickedUp, placePath, putDown, roundOf, wayOf } from './paths.ts'

/** Between the words and the edge of a label, as a share of their size. */
const ROOM_SHARE = 0.35
const POINTER = { width: 0.5 * UNITS_PER_MM, dot: 0.9 * UNITS_PER_MM }

/** How large a label is, unturned, in units. */
export function sizeOfLabel({ lines, size }: Pick<Label, 'lines' | 'size'>): {
  width: number
  height: number
} {
  const em = LABEL_SIZES[size]!
  const longest = Math.max(em * 0.6, ...lines.map((line) => lengthOf(line, em)))
  return {
    width: Math.round(longest + 2 * ROOM_SHARE * em),
    height: Math.round(lines.length * LINE_SHARE * em + ROOM_SHARE * em),
  }
}

/** Where the way to what a label names leaves it: the nearest place on its edge. */
function leavesAt(label: Label, pointer: At): At {
  const { width, height } = sizeOfLabel(label)
  const { x, y } = pickedUp(pointer, label.at, label.turn)
  const held = (value: number, half: number) => Math.min(half, Math.max(-half, value))
  return putDown({ x: held(x, width / 2), y: held(y, height / 2) }, label.at, label.turn)
}

/** A label as it lies on its sheet: the way to what it names below, the words on their ground above. */
export function showLabel(label: Label): ShownPath[] {
  const { pen, lines, at, turn, ground, pointer } = label
  const em = LABEL_SIZES[label.size]!
  const { width, height } = sizeOfLabel(label)
  const colour = colourOf(pen.ink)
  const pointed: ShownPath[] = pointer
    ? [
        {
          ...{ path: wayOf([leavesAt(label, pointer), pointer]), fill: null, cover: 1 },
          line: { colour, width: POINTER.width },
        },
        { path: roundOf(pointer, POINTER.dot), fill: colour, line: null, cover: 1 },
      ]
    : []
  const back = LABEL_GROUNDS[ground]
  const box = placePath(boxOf(-width / 2, -height / 2, width, height), at, turn)
  const words = lines
    .map((line, i) =>
      wordsPath(
        line,
        {
          x: -width / 2 + ROOM_SHARE * em,
          y: -height / 2 + (ROOM_SHARE / 2 + BASE_SHARE + i * LINE_SHARE) * em,
        },
        em,
      ),
    )
    .join('')
  return [
    ...pointed,
    ...(back
      ? [{ path: box, fill: back, line: { colour, width: POINTER.width / 2 }, cover: 1 }]
      : []),
    ...(words ? [{ path: placePath(words, at, turn), fill: colour, line: null, cover: 1 }] : []),
  ]
}
