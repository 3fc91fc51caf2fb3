import type { Chance } from '../chance.ts'

/**
 * A child's page, 1000 x 720, as SVG content. Every draw differs a little: sizes, colours, wobble,
 * words.
 */
export type Drawing = (chance: Chance) => { paper: 'plain' | 'ruled' | 'squared'; content: string }

export const CRAYONS = ['#d9704a', '#c9553f', '#e08b4f', '#b8602e', '#a9452f'] as const
export const GREENS = ['#4c7a4f', '#6a8f3c', '#2a6f68', '#7d9a55'] as const
export const BLUES = ['#2f5e8c', '#3f7fae', '#274b7a', '#5a93b8'] as const
export const LINE = '#3a2a22'
export const PENCIL = '#4a4652'
export const INK = '#2b3350'
export const stroke = (colour: string, width: number): string =>
  `fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"`

/** One of these for each of `count`, put together. */
export const times = (count: number, draw: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => draw(i)).join('')

/** The whole page in one colour: a table, a tray, a wall behind the thing. */
export const ground = (colour: string): string =>
  `<rect x="-40" y="-40" width="1080" height="800" fill="${colour}"/>`
