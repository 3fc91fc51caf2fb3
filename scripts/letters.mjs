// Writes core/src/ink/letters.generated.ts: the outlines of Andika's letters, so that words on a
// drawing are the same lines on a screen, in a picture and on paper, whatever faces are there.
import * as fontkit from 'fontkit'
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import path from 'node:path'
import { ROOT } from './setup.mjs'

const EM = 1000
/** First and last of each stretch of letters: Latin with its accents, Vietnamese, Cyrillic, signs. */
const STRETCHES = [
  [0x20, 0x7e],
  [0xa1, 0x17f],
  [0x1a0, 0x1a1],
  [0x1af, 0x1b0],
  [0x218, 0x21b],
  [0x400, 0x45f],
  [0x490, 0x491],
  [0x1ea0, 0x1ef9],
  [0x2010, 0x2026],
  [0x20ac, 0x20ac],
  [0x2190, 0x2193],
  [0x2212, 0x2212],
  [0x2260, 0x2265],
]

const { resolve } = createRequire(import.meta.url)
const faces = ['latin', 'latin-ext', 'cyrillic', 'vietnamese'].map((part) =>
  fontkit.create(readFileSync(resolve(`@fontsource/andika/files/andika-${part}-400-normal.woff2`))),
)

/** Steps from point to point, so that they are short numbers. */
function outlineOf(glyph, scale) {
  let [x, y] = [0, 0]
  const step = (to) => {
    const from = [x, y]
    ;[x, y] = to.map((value) => Math.round(value * scale))
    return `${x - from[0]} ${y - from[1]}`
  }
  return glyph.path.commands
    .map(({ command, args }) => {
      if (command === 'closePath') return 'z'
      const start = [x, y]
      if (command === 'quadraticCurveTo') {
        const [cx, cy] = args.slice(0, 2).map((value) => Math.round(value * scale))
        const end = step(args.slice(2))
        return `q${cx - start[0]} ${cy - start[1]} ${end}`
      }
      if (command === 'moveTo') return `m${step(args)}`
      if (command === 'lineTo') return `l${step(args)}`
      throw new Error(`a letter with ${command}`)
    })
    .join('')
}

const lines = []
for (const [first, last] of STRETCHES)
  for (let code = first; code <= last; code++) {
    const face = faces.find(({ characterSet }) => characterSet.includes(code))
    if (!face) continue
    const glyph = face.glyphForCodePoint(code)
    const scale = EM / face.unitsPerEm
    lines.push(
      `  ${JSON.stringify(String.fromCodePoint(code))}: [${Math.round(glyph.advanceWidth * scale)}, '${outlineOf(glyph, scale)}'],`,
    )
  }

writeFileSync(
  path.join(ROOT, 'core/src/ink/letters.generated.ts'),
  `// Made by \`npm run letters\` from Andika (SIL Open Font License 1.1). Of each letter how far it leads
// on, and its outline in thousandths of its size, up from the line; steps from point to point, each
// ring from where the one before it ended.
export const LETTERS: Readonly<Record<string, readonly [advance: number, outline: string]>> = {
${lines.join('\n')}
}
`,
)
console.log(`${lines.length} letters written`)
