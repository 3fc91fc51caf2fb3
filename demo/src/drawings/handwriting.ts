import * as fontkit from 'fontkit'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Chance } from '../chance.ts'

const file = createRequire(import.meta.url).resolve(
  '@fontsource/andika/files/andika-latin-400-normal.woff',
)
const opened = fontkit.create(readFileSync(file))
if (!('layout' in opened)) throw new Error('one font expected, not a collection')
const font = opened

/** How somebody writes: how far the letters lean, how wide they are and how far apart. */
export type Hand = { leanDegrees: number; width: number; gap: number; size: number; weight: number }
const PLAIN: Hand = { leanDegrees: 0, width: 1, gap: 1, size: 1, weight: 1 }

/** Somebody's hand. */
export const handOf = (chance: Chance): Hand => ({
  leanDegrees: chance.between(-14, 16),
  width: chance.between(0.82, 1.12),
  gap: chance.between(0.94, 1.12),
  size: chance.between(0.8, 1.06),
  weight: chance.between(0.6, 2.6),
})

/**
 * A line of a child's writing as SVG: letters that wobble and do not quite keep the line. No font
 * needs to be installed.
 */
export function handwriting(
  chance: Chance,
  text: string,
  x: number,
  y: number,
  size: number,
  colour: string,
  hand: Hand = PLAIN,
): string {
  const { glyphs, positions } = font.layout(text)
  const scale = (size * hand.size) / font.unitsPerEm
  let at = x
  const letters = glyphs.map((glyph, i) => {
    const tilt = chance.between(-4, 4)
    const letter = `<path d="${glyph.path.toSVG()}" transform="translate(${at.toFixed(1)} ${(y + chance.between(-1, 1) * size * 0.04).toFixed(1)}) rotate(${tilt.toFixed(1)}) skewX(${(-hand.leanDegrees).toFixed(1)}) scale(${(scale * hand.width).toFixed(4)} ${(-scale).toFixed(4)})"/>`
    at += positions[i]!.xAdvance * scale * hand.width * hand.gap * chance.between(0.98, 1.06)
    return letter
  })
  return `<g fill="${colour}" stroke="${colour}" stroke-width="${font.unitsPerEm * 0.018 * hand.weight}">${letters.join('')}</g>`
}
