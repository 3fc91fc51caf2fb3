import { mixPigments } from './spectral.ts'

/** Pigments in the wells, darkest first as they stand there, each with its colour on white paper. */
export const WELLS = {
  soot: '#2B2118',
  aubergine: '#54284F',
  madder: '#93344F',
  clay: '#A9452F',
  ochre: '#B9741A',
  straw: '#E3C04C',
  moss: '#5F6B2D',
  verdigris: '#2A6F68',
  sea: '#2F5E8C',
  indigo: '#3B3F7A',
  heather: '#8E6BAA',
  chalk: '#FDFBF5',
} as const
export type Well = keyof typeof WELLS
export const WELL_NAMES = Object.keys(WELLS) as readonly Well[]

/** An ink: a drop from one well, or several from any, mixed in the dish. */
export type Ink = readonly Well[]
/** More change nothing one can see. */
export const MOST_DROPS = 12

/** How much of what lies below an ink shows through, by how much water is in it. */
const COVERS = [1, 0.6, 0.4, 0.22] as const
export const coverOfWater = (water: 0 | 1 | 2 | 3): number => COVERS[water]

const known = new Map<string, string>()

/**
 * The colour drops make together, as pigments do: what each absorbs is absorbed, so that blue and
 * yellow make green and many make mud.
 * @returns `#RRGGBB`
 * @see Kubelka and Munk 1931, in its one-constant form, as spectral.js 3 computes it
 */
export function colourOf(ink: Ink): string {
  const key = [...ink].sort().join(' ')
  const there = known.get(key)
  if (there) return there
  const drops = new Map<Well, number>()
  for (const well of ink) drops.set(well, (drops.get(well) ?? 0) + 1)
  const [only, ...others] = drops.keys()
  const colour =
    others.length === 0
      ? WELLS[only ?? 'soot']
      : mixPigments([...drops].map(([well, count]) => [WELLS[well], count]))
  known.set(key, colour)
  return colour
}

const CHANNELS = [1, 3, 5]
/** How light a colour is, 0 to 1. @see WCAG 2.2, "relative luminance" */
export function luminanceOf(colour: string): number {
  const [red, green, blue] = CHANNELS.map((at) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!
}

/** How far apart two colours are, 1 to 21. @see WCAG 2.2, "contrast ratio" */
export function contrastOf(one: string, other: string): number {
  const [lighter, darker] = [luminanceOf(one), luminanceOf(other)].sort((a, b) => b - a)
  return (lighter! + 0.05) / (darker! + 0.05)
}

/** A colour as it shows where some of the ground below it shines through. @param cover - 0 to 1. */
export function laidOver(colour: string, ground: string, cover: number): string {
  return `#${CHANNELS.map((at) => {
    const [above, below] = [colour, ground].map((one) => parseInt(one.slice(at, at + 2), 16))
    return Math.round(below! + (above! - below!) * cover)
      .toString(16)
      .padStart(2, '0')
      .toUpperCase()
  }).join('')}`
}

/** Graphics need 3 to 1 against what is beside them. @see WCAG 2.2, 1.4.11 */
const LEAST_CONTRAST = 3
/** Whether an ink is so faint on a paper that not everybody will see its line. */
export const isFaint = (ink: Ink, water: 0 | 1 | 2 | 3, paper = '#FFFFFF'): boolean =>
  contrastOf(laidOver(colourOf(ink), paper, coverOfWater(water)), paper) < LEAST_CONTRAST
