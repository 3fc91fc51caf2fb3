import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import { unpackFont } from './unpackFont.ts'

const require = createRequire(import.meta.url)
const FILES = [
  '@fontsource/andika/files/andika-latin-400-normal.woff',
  '@fontsource/young-serif/files/young-serif-latin-400-normal.woff',
  '@fontsource/noto-sans-arabic/files/noto-sans-arabic-arabic-700-normal.woff',
]

type Font = {
  postscriptName: string
  numGlyphs: number
  unitsPerEm: number
  layout(text: string): {
    glyphs: { id: number; advanceWidth: number; path: { toSVG(): string } }[]
  }
}
/** As the library that sets our papers reads it. */
function read(file: Buffer): Font {
  const document = new PDFDocument().font(file) as unknown as { _font: { font: Font } }
  return document._font.font
}
/** Names, widths and outlines. */
const facts = (font: Font) => ({
  name: font.postscriptName,
  glyphs: font.numGlyphs,
  units: font.unitsPerEm,
  drawn: font
    .layout('Rock pools سلام')
    .glyphs.map(({ id, advanceWidth, path }) => [id, advanceWidth, path.toSVG()]),
})

// Held against fontkit, which reads both and unpacks by itself.
test.each(FILES)('%s holds the same font unpacked', (file) => {
  const packed = readFileSync(require.resolve(file))
  const plain = unpackFont(packed)
  expect(plain.length).toBe(packed.readUInt32BE(16))
  expect(facts(read(plain))).toEqual(facts(read(packed)))
})

test('what is no font is refused', () => {
  expect(() => unpackFont(Buffer.from('this is no font at all'))).toThrow(RangeError)
})
