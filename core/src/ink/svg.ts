import { UNITS_PER_MM, type InkSheet } from './document.ts'
import { displayOf, type Shown, type ShownPicture } from './display.ts'

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '"': '&quot;' }
const escaped = (value: string | number): string =>
  String(value).replace(/[&<"]/g, (one) => ESCAPES[one]!)
const attributes = (values: Record<string, string | number>): string =>
  Object.entries(values)
    .map(([name, value]) => ` ${name}="${escaped(value)}"`)
    .join('')

/** Where a picture is read from; null where it is not to be had. */
export type HrefOf = (mediaId: string) => string | null

function pictureElement(
  { picture, at, turn, width, height }: ShownPicture,
  hrefOf: HrefOf,
): string {
  const href = hrefOf(picture)
  const place = {
    ...{ x: -width / 2, y: -height / 2, width, height },
    transform: `translate(${at.x} ${at.y}) rotate(${turn})`,
  }
  return href === null
    ? `<rect${attributes({ ...place, fill: '#E5DCCB' })}/>`
    : `<image${attributes({ ...place, preserveAspectRatio: 'none', href })}/>`
}

function element(shown: Shown, hrefOf: HrefOf): string {
  if ('picture' in shown) return pictureElement(shown, hrefOf)
  const { path, fill, line, cover } = shown
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

const FITS = { cover: 'xMidYMid slice', contain: 'xMidYMid meet' }
/**
 * A sheet as a picture anybody can open, on white.
 * @param fills - As large as its place, cut off or whole.
 * @param hrefOf - Of pictures on it; without, they are left grey.
 * @param longestEdgePx - So many pixels long; without, it has its real size on paper.
 */
export function inkToSvg(
  sheet: InkSheet,
  {
    longestEdgePx,
    fills,
    hrefOf = () => null,
  }: { longestEdgePx?: number; fills?: 'cover' | 'contain'; hrefOf?: HrefOf } = {},
): string {
  const { width, height } = sheet
  const pixels = (units: number) =>
    fills
      ? '100%'
      : longestEdgePx === undefined
        ? `${units / UNITS_PER_MM}mm`
        : Math.max(1, Math.round((units / Math.max(width, height)) * longestEdgePx))
  return `<svg${attributes({
    xmlns: 'http://www.w3.org/2000/svg',
    width: pixels(width),
    height: pixels(height),
    viewBox: `0 0 ${width} ${height}`,
    ...(fills ? { preserveAspectRatio: FITS[fills] } : {}),
  })}><rect width="100%" height="100%" fill="#FFFFFF"/>${displayOf(sheet)
    .map((shown) => element(shown, hrefOf))
    .join('')}</svg>`
}
