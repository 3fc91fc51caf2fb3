import { UNITS_PER_MM, type InkSheet } from './document.ts'
import { displayOf, type Shown } from './display.ts'

const attributes = (values: Record<string, string | number>): string =>
  Object.entries(values)
    .map(([name, value]) => ` ${name}="${value}"`)
    .join('')

function element({ path, fill, line, cover }: Shown): string {
  return `<path${attributes({
    d: path,
    fill: fill ?? 'none',
    ...(line
      ? {
          stroke: line.colour,
          'stroke-width': line.width,
          'stroke-linecap': 'round',
          'stroke-linejoin': 'round',
        }
      : {}),
    ...(cover < 1 ? { opacity: cover } : {}),
  })}/>`
}

/**
 * A sheet as a picture anybody can open, on white.
 * @param longestEdgePx - So many pixels long; without, it has its real size on paper.
 */
export function inkToSvg(
  sheet: InkSheet,
  { longestEdgePx }: { longestEdgePx?: number } = {},
): string {
  const { width, height } = sheet
  const pixels = (units: number) =>
    longestEdgePx === undefined
      ? `${units / UNITS_PER_MM}mm`
      : Math.max(1, Math.round((units / Math.max(width, height)) * longestEdgePx))
  return `<svg${attributes({
    xmlns: 'http://www.w3.org/2000/svg',
    width: pixels(width),
    height: pixels(height),
    viewBox: `0 0 ${width} ${height}`,
  })}><rect width="100%" height="100%" fill="#FFFFFF"/>${displayOf(sheet).map(element).join('')}</svg>`
}
