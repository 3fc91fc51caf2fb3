import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

const require = createRequire(import.meta.url)
const load = (file: string) => readFileSync(require.resolve(file))

/**
 * Fonts come as one file a script; text is split into runs by the letters each has. Read once a
 * process.
 */
const FAMILIES = {
  read: ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'].map(
    (script) => `@fontsource/andika/files/andika-${script}-400-normal.woff`,
  ),
  strong: ['latin', 'latin-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'].map(
    (script) => `@fontsource/andika/files/andika-${script}-700-normal.woff`,
  ),
  title: ['latin', 'latin-ext'].map(
    (script) => `@fontsource/young-serif/files/young-serif-${script}-400-normal.woff`,
  ),
} as const
export type Family = keyof typeof FAMILIES

type Glyphs = { hasGlyphForCodePoint(point: number): boolean }
/** What pdfkit keeps of an opened font, as far as we look into it. */
type OpenedFont = { font: Glyphs }
type Document = {
  registerFont(name: string, source: Buffer): unknown
  font(name: string): unknown
  _font: OpenedFont
}

/** The fonts of everything printed, registered in a document. */
export class PrintFonts {
  readonly #document: Document
  readonly #opened = new Map<string, Glyphs>()
  constructor(document: PDFKit.PDFDocument) {
    this.#document = document as unknown as Document
    for (const [family, files] of Object.entries(FAMILIES)) {
      files.forEach((file, i) => this.#document.registerFont(`${family}-${i}`, load(file)))
    }
  }

  /**
   * Splits a text into runs of one font each. Signs no font has (pictures, scripts not shipped)
   * become a small square,
   * so that the reader sees that something stood there.
   */
  runs(family: Family, text: string): { font: string; text: string }[] {
    if (PLAIN.test(text)) return [{ font: `${family}-0`, text }]
    const fonts = FAMILIES[family].map((_, i) => `${family}-${i}`)
    // A title is set in one family: where the title's own lacks a letter, the whole of it is set in
    // the other.
    if (
      family === 'title' &&
      ![...text].every((sign) => sign === '\n' || fonts.some((name) => this.#has(name, sign)))
    )
      return this.runs('strong', text)
    const runs: { font: string; text: string }[] = []
    for (const { segment } of SIGNS.segment(text.replaceAll(/[\t\r]/g, ' '))) {
      const font = fonts.find((name) =>
        [...segment].every((sign) => sign === '\n' || this.#has(name, sign)),
      )
      const last = runs.at(-1)
      const piece = { font: font ?? fonts[0]!, text: font ? segment : '▫' }
      if (!font && !this.#glyphs(piece.font).hasGlyphForCodePoint(0x25ab)) piece.text = '·'
      if (last?.font === piece.font) last.text += piece.text
      else runs.push(piece)
    }
    return runs
  }

  #has(font: string, sign: string): boolean {
    return this.#glyphs(font).hasGlyphForCodePoint(sign.codePointAt(0)!)
  }

  #glyphs(name: string): Glyphs {
    const known = this.#opened.get(name)
    if (known) return known
    this.#document.font(name)
    const opened = this.#document._font.font
    this.#opened.set(name, opened)
    return opened
  }
}

/** Signs the first file of every family has: most texts need no closer look. */
const PLAIN = /^[\n\x20-\x7e\u2018\u2019\u201c\u201d\u2013\u2026\u00b7]+$/

/** What a reader takes for one sign may be several code points. */
const SIGNS = new Intl.Segmenter('en', { granularity: 'grapheme' })
