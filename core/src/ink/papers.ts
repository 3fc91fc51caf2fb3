import { UNITS_PER_MM, type InkSheet, type Paper } from './document.ts'
import type { ShownPath } from './display.ts'

const MM = UNITS_PER_MM
const CM = 10 * MM
const PRINTED = { colour: '#B9C9D6', width: 0.2 * MM }
const FAINT = { colour: '#DCE4EA', width: 0.15 * MM }

const from = (first: number, to: number, step: number): number[] =>
  Array.from(
    { length: Math.max(0, Math.floor((to - first) / step) + 1) },
    (_, i) => first + i * step,
  )
const across = (y: number, width: number) => `M0 ${Math.round(y)}L${width} ${Math.round(y)}`
const down = (x: number, height: number) => `M${Math.round(x)} 0L${Math.round(x)} ${height}`

type Size = Pick<InkSheet, 'width' | 'height'>
type Printed = [path: string, line: { colour: string; width: number }]

/** Lines to write on so many millimetres apart, with half lines for the height of small letters. */
const ruled =
  (mm: number) =>
  ({ width, height }: Size): Printed[] => {
    const lines = from(2 * mm * MM, height - mm * MM, mm * MM)
    return [
      [lines.map((y) => across(y - (mm * MM) / 2, width)).join(''), FAINT],
      [lines.map((y) => across(y, width)).join(''), PRINTED],
    ]
  }

/** Three directions, a centimetre along each. */
function isometric({ width, height }: Size): Printed[] {
  const rise = CM * Math.sqrt(3)
  const reach = height / Math.sqrt(3)
  const slanted = (sign: 1 | -1) =>
    from(-Math.ceil(reach / CM) * CM, width + reach, CM)
      .map((x) => `M${Math.round(x)} 0L${Math.round(x + sign * reach)} ${height}`)
      .join('')
  const level = from(rise / 2, height, rise / 2)
  return [[slanted(1) + slanted(-1) + level.map((y) => across(y, width)).join(''), FAINT]]
}

/** Five lines two millimetres apart; between two staves room for words. */
function staves({ width, height }: Size): Printed[] {
  const tops = from(1.5 * CM, height - 1.8 * CM, 2.4 * CM)
  const lines = tops.flatMap((top) => from(0, 8 * MM, 2 * MM).map((y) => across(top + y, width)))
  return [[lines.join(''), PRINTED]]
}

const squares =
  (side: number) =>
  ({ width, height }: Size): Printed[] => [
    [
      from(side, width - 1, side)
        .map((x) => down(x, height))
        .concat(from(side, height - 1, side).map((y) => across(y, width)))
        .join(''),
      PRINTED,
    ],
  ]

/** Dots as short as they are wide. */
function dotted({ width, height }: Size): Printed[] {
  const dots = from(CM, height - 1, CM).flatMap((y) =>
    from(CM, width - 1, CM).map((x) => `M${x - 20} ${y}L${x + 20} ${y}`),
  )
  return [[dots.join(''), { colour: '#8FA3B3', width: 0.4 * MM }]]
}

const LINES: Record<Paper, (size: Size) => Printed[]> = {
  plain: () => [],
  'ruled-8': ruled(8),
  'ruled-10': ruled(10),
  'ruled-12': ruled(12),
  squared: squares(CM),
  dotted,
  isometric,
  staves,
  map: squares(2 * CM),
}

/** What is printed on a sheet before anybody draws on it, in real measures. */
export const paperLines = (sheet: InkSheet): ShownPath[] =>
  LINES[sheet.paper](sheet)
    .filter(([path]) => path !== '')
    .map(([path, line]) => ({ path, fill: null, line, cover: 1 }))
