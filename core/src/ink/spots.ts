import type { ShownPath } from './display.ts'
import { LABEL_SIZES, UNITS_PER_MM, type At, type Spot } from './document.ts'
import { BASE_SHARE, breakLines, LINE_SHARE, wordsPath } from './letters.ts'
import { boxOf, placePath, wayOf } from './paths.ts'

const LOOK = { ground: '#F6F1E4', edge: '#6B5D45', words: '#4A3F2C' } as const
const EDGE_WIDTH = 0.5 * UNITS_PER_MM
const DASH = { along: 3 * UNITS_PER_MM, gap: 2 * UNITS_PER_MM }
const ROOM = 2 * UNITS_PER_MM

/** Along a side in dashes, from its middle outwards alike, so that corners meet alike. */
function dashes(from: At, to: At): string {
  const long = Math.hypot(to.x - from.x, to.y - from.y)
  const count = Math.max(1, Math.round((long + DASH.gap) / (DASH.along + DASH.gap)))
  const stretch = long / (count * DASH.along + (count - 1) * DASH.gap)
  const at = (along: number): At => ({
    x: from.x + ((to.x - from.x) * along) / long,
    y: from.y + ((to.y - from.y) * along) / long,
  })
  return Array.from({ length: count }, (_, i) => {
    const begins = i * (DASH.along + DASH.gap) * stretch
    return wayOf([at(begins), at(begins + DASH.along * stretch)])
  }).join('')
}

/** The edge around (0, 0): in dashes where things are sorted into, a line to write on for a gap. */
function edgeOf({ takes, width, height }: Spot): string {
  const [left, top, right, bottom] = [-width / 2, -height / 2, width / 2, height / 2]
  const corners = [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ]
  return takes === 'gap'
    ? wayOf([corners[3]!, corners[2]!])
    : corners.map((corner, i) => dashes(corner, corners[(i + 1) % 4]!)).join('')
}

/** A spot as it lies on its sheet: its ground, its edge, and what it is called along its upper edge. */
export function showSpot(spot: Spot): ShownPath[] {
  const { at, turn, width, height, words } = spot
  const em = LABEL_SIZES[0]
  const lines = words === '' ? [] : breakLines(words, em, Math.max(em, width - 2 * ROOM))
  const path = lines
    .map((line, i) =>
      wordsPath(
        line,
        { x: -width / 2 + ROOM, y: -height / 2 + (BASE_SHARE + 0.2 + i * LINE_SHARE) * em },
        em,
      ),
    )
    .join('')
  const line = { colour: LOOK.edge, width: EDGE_WIDTH }
  return [
    {
      path: placePath(boxOf(-width / 2, -height / 2, width, height), at, turn),
      ...{ fill: LOOK.ground, line: null, cover: 1 },
    },
    { path: placePath(edgeOf(spot), at, turn), fill: null, line, cover: 1 },
    ...(path ? [{ path: placePath(path, at, turn), fill: LOOK.words, line: null, cover: 1 }] : []),
  ]
}
