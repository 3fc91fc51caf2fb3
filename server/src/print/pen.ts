import QRCode from 'qrcode'
import { PrintFonts, type Family, type Run } from './fonts.ts'

export type Doc = PDFKit.PDFDocument
export type Section = PDFKit.PDFStructureElement

/** A4 in points, margins as a printed book has them. */
export const PAGE = { width: 595.28, height: 841.89 }
export const MARGIN = 68
export const INNER = PAGE.width - 2 * MARGIN
export const INK = '#2B2118'
export const INK_SOFT = '#5E5146'
export const RULE = '#E5DCCB'
export const AUBERGINE = '#54284F'
export const VERDIGRIS = '#2A6F68'
/** 27 mm: at 300 dpi and at 150 dpi every module is more than three dots wide. */
export const QR_SIZE = 76

/**
 * An A4 document as everything printed has it: tagged, titled, in English, with our own fonts only.
 * The library comes with the first one:
 * a server that starts does without its third of a second.
 */
export async function openDocument(title: string, author: string): Promise<Doc> {
  const { default: PDFDocument } = await import('pdfkit')
  return new PDFDocument({
    size: 'A4',
    margin: 0,
    pdfVersion: '1.7',
    tagged: true,
    lang: 'en-GB',
    displayTitle: true,
    autoFirstPage: false,
    font: '',
    info: { Title: title, Author: author, Creator: 'Nibquill', Producer: 'Nibquill' },
  } as unknown as PDFKit.PDFDocumentOptions)
}

export type TextStyle = {
  x: number
  y: number
  width: number
  size: number
  family?: Family
  colour?: string
  height?: number
  align?: 'left' | 'right' | 'center'
}

/** Writes text in runs of the fonts that have its letters. */
export class Pen {
  readonly doc: Doc
  readonly #fonts: PrintFonts
  constructor(doc: Doc) {
    this.doc = doc
    this.#fonts = new PrintFonts(doc)
  }

  text(text: string, style: TextStyle): void {
    const runs = this.#fonts.runs(style.family ?? 'read', text)
    this.doc.fillColor(style.colour ?? INK)
    runs.forEach((run, i) => {
      const last = i === runs.length - 1
      const options = {
        width: style.width,
        lineGap: style.size * 0.22,
        align: style.align,
        height: style.height,
        ellipsis: style.height !== undefined,
        continued: !last,
      }
      this.doc.font(run.font).fontSize(style.size * run.larger)
      this.#said(run, (shaped) => {
        if (i === 0) this.doc.text(run.text, style.x, style.y, { ...options, ...shaped })
        else this.doc.text(run.text, { ...options, ...shaped })
      })
    })
  }

  /** Writes one line, however long, without breaking it. */
  line(text: string, { x, y, size }: { x: number; y: number; size: number }): void {
    this.doc.fillColor(INK)
    let at = x
    for (const run of this.#fonts.runs('read', text)) {
      this.doc.font(run.font).fontSize(size * run.larger)
      this.#said(run, (shaped) => this.doc.text(run.text, at, y, { lineBreak: false, ...shaped }))
      at += this.#widthOf(run, size)
    }
  }

  /**
   * Other scripts are shaped as a whole line, and the document says beside what is drawn which
   * letters they are: their shapes alone stand in another order, or are one for several.
   * @see ISO 32000-1, 14.9.4, replacement text
   */
  #said(run: Run, draw: (shaped: object) => void): void {
    if (!run.other) return draw({})
    // Readers put what is written from the right into its order by themselves, once.
    if (run.fromRight) return draw(this.#fonts.shapingOf(run))
    this.doc.markContent('Span', { actual: run.text } as never)
    draw(this.#fonts.shapingOf(run))
    this.doc.endMarkedContent()
  }

  /** How long a line would be. */
  widthOf(text: string, size: number, family: Family = 'read'): number {
    return this.#fonts.runs(family, text).reduce((sum, run) => sum + this.#widthOf(run, size), 0)
  }

  #widthOf(run: Run, size: number): number {
    return this.doc
      .font(run.font)
      .fontSize(size * run.larger)
      .widthOfString(run.text, this.#fonts.shapingOf(run) as PDFKit.Mixins.TextOptions)
  }

  /** How high a text would stand. */
  heightOf(text: string, style: Pick<TextStyle, 'width' | 'size' | 'family'>): number {
    const runs = this.#fonts.runs(style.family ?? 'read', text || ' ')
    this.doc
      .font(runs[0]?.font ?? 'read-0')
      .fontSize(style.size * Math.max(...runs.map(({ larger }) => larger)))
    if (runs.some(({ other }) => other)) {
      const line = this.doc.currentLineHeight(true) + style.size * 0.22
      return line * Math.ceil(this.widthOf(text, style.size, style.family) / style.width)
    }
    return this.doc.heightOfString(text, { width: style.width, lineGap: style.size * 0.22 })
  }

  /** The largest of the sizes at which a text stays inside a height; the smallest otherwise. */
  sizeFor(
    text: string,
    width: number,
    height: number,
    sizes: readonly number[],
    family?: Family,
  ): number {
    return (
      sizes.find((size) => this.heightOf(text, { width, size, family }) <= height) ?? sizes.at(-1)!
    )
  }

  /** A tagged element around what is drawn. */
  tag(parent: Section, type: string, draw: () => void, options: { alt?: string } = {}): void {
    const element = this.doc.struct(type, options, draw)
    parent.add(element)
    element.end()
  }

  /** What a screen reader skips: rules, page numbers, running heads. */
  aside(draw: () => void): void {
    this.doc.markContent('Artifact', { type: 'Layout' } as never)
    draw()
    this.doc.endMarkedContent()
  }
}

/** ISO/IEC 18004, level M, with the quiet zone of four modules left white around it. */
export function drawQr(
  doc: Doc,
  link: string,
  { x, y, size }: { x: number; y: number; size: number },
): void {
  const { modules } = QRCode.create(link, { errorCorrectionLevel: 'M' })
  const step = size / modules.size
  for (let row = 0; row < modules.size; row++) {
    // Dark modules side by side are one bar: half the drawing, and no hairlines between them.
    for (let column = 0, length = 1; column < modules.size; column += length, length = 1) {
      if (!modules.get(row, column)) continue
      while (column + length < modules.size && modules.get(row, column + length)) length++
      doc.rect(x + column * step, y + row * step, length * step, step + 0.02)
    }
  }
  doc.fill('#000000')
}
