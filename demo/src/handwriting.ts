import * as fontkit from 'fontkit'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Chance } from './chance.ts'

const file = createRequire(import.meta.url).resolve(
  '@fontsource/andika/files/andika-latin-400-normal.woff',
)
const opened = fontkit.create(readFileSync(file))
if (!('layout' in opened)) throw new Error('one font expected, not a collection')
const font = opened

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
): string {
  const { glyphs, positions } = font.layout(text)
  const scale = size / font.unitsPerEm
  let at = x
  const letters = glyphs.map((glyph, i) => {
    const tilt = chance.between(-4, 4)
    const letter = `<path d="${glyph.path.toSVG()}" transform="translate(${at.toFixed(1)} ${(y + chance.between(-1, 1) * size * 0.04).toFixed(1)}) rotate(${tilt.toFixed(1)}) scale(${scale.toFixed(4)} ${(-scale).toFixed(4)})"/>`
    at += positions[i]!.xAdvance * scale * chance.between(0.98, 1.06)
    return letter
  })
  return `<g fill="${colour}" stroke="${colour}" stroke-width="${font.unitsPerEm * 0.018}">${letters.join('')}</g>`
}
