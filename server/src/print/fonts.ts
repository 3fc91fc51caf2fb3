import { readFileSync } from 'node:fs'
import PDFDocument from 'pdfkit'
import { createRequire } from 'node:module'
import { faceFor, fileOf, type Face } from './faces.ts'
import { unpackFont } from './unpackFont.ts'

const require = createRequire(import.meta.url)

/** Read once a process. */
const loaded = new Map<string, Buffer>()
function load(file: string): Buffer {
  const known = loaded.get(file) ?? unpackFont(readFileSync(file))
  loaded.set(file, known)
  return known
}

/** Fonts come as one file a script; text is split into runs by the letters each has. */
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

type Features = string[] | Record<string, boolean>
type Glyphs = {
  hasGlyphForCodePoint(point: number): boolean
  layout(text: string, features: Features): unknown
}
/** What pdfkit keeps of an opened font, as far as we look into it. */
type OpenedFont = { font: Glyphs }
type Document = {
  registerFont(name: string, source: Buffer): unknown
  font(name: string): unknown
  _font: OpenedFont
}

/**
 * A stretch of text in one font. `other`: in a face for another script than our own letters';
 * `fromRight`: one that is written so; `larger`: so many times the size of ours.
 */
export type Run = { font: string; text: string; other: boolean; fromRight: boolean; larger: number }
type Sign = { text: string; font: string; face: Face | undefined }

/** The fonts of everything printed, registered in a document. */
export class PrintFonts {
  readonly #document: Document
  readonly #opened = new Map<string, Glyphs>()
  constructor(document: PDFKit.PDFDocument) {
    this.#document = document as unknown as Document
    for (const [family, files] of Object.entries(FAMILIES)) {
      files.forEach((file, i) =>
        this.#document.registerFont(`${family}-${i}`, load(require.resolve(file))),
      )
    }
  }

  /**
   * Splits a text into runs of one font each, in the order they stand from the left. What our own
   * letters lack is set in a face for its script (`faces.ts`), from the right where it is written
   * so. Signs no font has (pictures) become a small square, so that the reader sees that something
   * stood there.
   */
  runs(family: Family, text: string): Run[] {
    if (PLAIN.test(text))
      return [{ font: `${family}-0`, text, other: false, fromRight: false, larger: 1 }]
    // A title is set in one family: where the title's own lacks a letter, the whole of it is set in
    // the other.
    if (
      family === 'title' &&
      ![...text].every((sign) => sign === '\n' || this.#ownFont(family, sign) !== undefined)
    )
      return this.runs('strong', text)
    const clean = text.replaceAll(/[\t\r]/g, ' ')
    const signs = [...SIGNS.segment(clean)].map(({ segment }) => this.#set(family, segment, clean))
    joinSpaces(signs)
    const runs: Run[] = []
    for (const { text: sign, font, face } of signs) {
      const last = runs.at(-1)
      if (last?.font === font) last.text += sign
      else
        runs.push({
          font,
          text: sign,
          other: face !== undefined,
          fromRight: face?.fromRight ?? false,
          larger: face?.larger ?? 1,
        })
    }
    const first = signs.find(({ text: sign }) => /\p{L}/u.test(sign))
    return first?.face?.fromRight ? runs.reverse() : runs
  }

  /**
   * How a run is shaped: as a whole line. Letters written from the right stay whole: taken apart
   * into strokes and dots, several would be the same stroke to whoever reads the file. The signs
   * above letters stay where they are where the library stumbles over a face that says nothing of
   * where they go.
   */
  shapingOf({ font, text, other, fromRight }: Run): { features?: Features } {
    if (!other) return {}
    if (fromRight) return { features: { ccmp: false } }
    try {
      this.#glyphs(font).layout(text, [])
      return { features: [] }
    } catch {
      return { features: { abvm: false } }
    }
  }

  /** Whether every sign of a text can be printed. */
  covers(text: string): boolean {
    return (
      PLAIN.test(text) ||
      [...SIGNS.segment(text)].every(({ segment }) => this.#find('read', segment, text) !== null)
    )
  }

  #find(family: Family, sign: string, text: string): Sign | null {
    const own = this.#ownFont(family, sign)
    if (own) return { text: sign, font: own, face: undefined }
    const face = faceFor(sign, text)
    const font = face && this.#open(face, family)
    const whole = font && [...sign].every((one) => this.#has(font, one) || JOINER.test(one))
    return whole ? { text: sign, font, face } : null
  }

  #set(family: Family, sign: string, text: string): Sign {
    const found = this.#find(family, sign, text)
    if (found) return found
    const first = `${family}-0`
    return { text: this.#has(first, '▫') ? '▫' : '·', font: first, face: undefined }
  }

  #ownFont(family: Family, segment: string): string | undefined {
    return FAMILIES[family]
      .map((_, i) => `${family}-${i}`)
      .find((name) => [...segment].every((sign) => sign === '\n' || this.#has(name, sign)))
  }

  /** Read when the first name in its script is printed: some are as large as all others together. */
  #open(face: Face, family: Family): string {
    const weight = family === 'read' ? 400 : 700
    const name = `${face.name}-${weight}`
    if (!this.#opened.has(name)) this.#document.registerFont(name, load(fileOf(face, weight)))
    return name
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

/** Those of some names that hold a sign no typeface here has: it would be printed as a dot. */
export function namesNotCovered(names: readonly string[]): string[] {
  if (names.every((name) => PLAIN.test(name))) return []
  const fonts = new PrintFonts(new PDFDocument())
  return names.filter((name) => !fonts.covers(name))
}

/** What stands between two words of one face belongs to it, so that both are set as one line. */
function joinSpaces(signs: Sign[]): void {
  for (let i = 1; i < signs.length; i++) {
    const before = signs[i - 1]!
    if (!before.face || !BETWEEN.test(signs[i]!.text)) continue
    const next = signs.slice(i).find(({ text }) => !BETWEEN.test(text))
    if (next?.face === before.face)
      signs[i] = { ...signs[i]!, font: before.font, face: before.face }
  }
}

const BETWEEN = /^[ \-'’.]$/
/** Shapes what stands around it and is no sign of its own. */
const JOINER = /[\u200c\u200d]/

/** Signs the first file of every family has: most texts need no closer look. */
const PLAIN = /^[\n\x20-\x7e\u2018\u2019\u201c\u201d\u2013\u2026\u00b7]+$/

/** What a reader takes for one sign may be several code points. */
const SIGNS = new Intl.Segmenter('en', { granularity: 'grapheme' })
