import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { layOutPhotos, pageOfPiece, planBook, CONTENTS_LINES } from '@nibquill/core'
import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { BookFonts, type Family } from './fonts.ts'
import { strings } from './strings.ts'

export type BookPage = {
  title: string
  folderName: string
  termName: string | null
  approvedAt: string
  reflection: string
  reason: string
  goes: number
  /** Upright pixel sizes; `key` reads it. */
  photos: { key: string; width: number; height: number; name: string }[]
  link: string
}
export type BookOrder = {
  title: string
  pupilName: string
  termName: string
  schoolName: string
  timeZone: string
  pages: BookPage[]
  readPhoto: (key: string) => Promise<Buffer>
  onPage: (pagesDone: number) => Promise<void>
  /** Where the PDF goes, page by page. */
  out: Writable
}

type Doc = PDFKit.PDFDocument
type Section = PDFKit.PDFStructureElement

/** A4 in points, margins as a printed book has them. */
const PAGE = { width: 595.28, height: 841.89 }
const MARGIN = 68
const INNER = PAGE.width - 2 * MARGIN
const INK = '#2B2118'
const INK_SOFT = '#5E5146'
const RULE = '#E5DCCB'
const AUBERGINE = '#54284F'
const VERDIGRIS = '#2A6F68'
/** 27 mm: at 300 dpi and at 150 dpi every module is more than three dots wide. */
const QR_SIZE = 76
const PHOTO_TOP = 130
const FOOT = PAGE.height - 58

/** Draws a book page by page: what is drawn goes out before the next page begins, so long books need no more memory than short ones. */
export async function drawBook(order: BookOrder): Promise<void> {
  const doc = new PDFDocument({
    size: 'A4', margin: 0, pdfVersion: '1.7', tagged: true, lang: 'en-GB', displayTitle: true, autoFirstPage: false, font: '',
    info: { Title: order.title, Author: order.schoolName, Creator: 'Nibquill', Producer: 'Nibquill' },
  } as unknown as PDFKit.PDFDocumentOptions) // prettier-ignore
  const written = pipeline(doc, order.out)
  const fonts = new BookFonts(doc)
  const book = doc.struct('Document')
  doc.addStructure(book)
  const plan = planBook(order.pages.length)
  const draw = new Pen(doc, fonts)
  drawCover(draw, book, order)
  drawContents(draw, book, order)
  await order.onPage(plan.coverPages + plan.contentsPages)
  for (const [i, page] of order.pages.entries()) {
    await drawPiece(draw, book, order, page, pageOfPiece(plan, i))
    await goneOut(order.out)
    await order.onPage(pageOfPiece(plan, i))
  }
  book.end()
  doc.end()
  await written
}

/** Lets what was drawn leave before more is made. */
async function goneOut(out: Writable): Promise<void> {
  await new Promise((resolve) => setImmediate(resolve))
  if (out.writableNeedDrain) await once(out, 'drain')
}

type TextStyle = {
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
class Pen {
  readonly doc: Doc
  readonly #fonts: BookFonts
  constructor(doc: Doc, fonts: BookFonts) {
    this.doc = doc
    this.#fonts = fonts
  }

  text(text: string, style: TextStyle): void {
    const runs = this.#fonts.runs(style.family ?? 'read', text)
    this.doc.fillColor(style.colour ?? INK).fontSize(style.size)
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
      this.doc.font(run.font)
      if (i === 0) this.doc.text(run.text, style.x, style.y, options)
      else this.doc.text(run.text, options)
    })
  }

  /** How high a text would stand. */
  heightOf(text: string, style: Pick<TextStyle, 'width' | 'size' | 'family'>): number {
    this.doc.font(this.#fonts.runs(style.family ?? 'read', text || ' ')[0]?.font ?? 'read-0').fontSize(style.size)
    return this.doc.heightOfString(text, { width: style.width, lineGap: style.size * 0.22 })
  }

  /** The largest of the sizes at which a text stays inside a height; the smallest otherwise. */
  sizeFor(text: string, width: number, height: number, sizes: readonly number[], family?: Family): number {
    return sizes.find((size) => this.heightOf(text, { width, size, family }) <= height) ?? sizes.at(-1)!
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

function drawCover(pen: Pen, book: Section, order: BookOrder): void {
  const { doc } = pen
  doc.addPage()
  const section = doc.struct('Sect')
  book.add(section)
  pen.aside(() => {
    doc.rect(0, 0, PAGE.width, PAGE.height).fill('#FBF7EE')
    doc.rect(0, 0, 34, PAGE.height).fill(AUBERGINE)
    doc
      .moveTo(MARGIN, 430)
      .lineTo(PAGE.width - MARGIN, 430)
      .lineWidth(1)
      .stroke(RULE)
  })
  const size = pen.sizeFor(order.pupilName, INNER, 120, [58, 44, 32, 22], 'title')
  pen.tag(section, 'H1', () =>
    pen.text(order.pupilName, { x: MARGIN, y: 290, width: INNER, size, family: 'title', colour: AUBERGINE, height: 130 }),
  )
  pen.tag(section, 'P', () =>
    pen.text(strings.cover(order.termName, order.pages.length), { x: MARGIN, y: 446, width: INNER, size: 18 }),
  )
  pen.tag(section, 'P', () => pen.text(order.schoolName, { x: MARGIN, y: FOOT - 12, width: INNER, size: 13, colour: INK_SOFT }))
  section.end()
}

function drawContents(pen: Pen, book: Section, order: BookOrder): void {
  const plan = planBook(order.pages.length)
  for (let page = 0; page < plan.contentsPages; page++) {
    pen.doc.addPage()
    const section = pen.doc.struct('Sect')
    book.add(section)
    if (page === 0)
      pen.tag(section, 'H1', () => pen.text(strings.contents, { x: MARGIN, y: 72, width: INNER, size: 28, family: 'title' }))
    const lines = order.pages.slice(page * CONTENTS_LINES, (page + 1) * CONTENTS_LINES)
    lines.forEach((line, i) => {
      const y = 130 + i * 25
      const number = pageOfPiece(plan, page * CONTENTS_LINES + i)
      pen.tag(section, 'P', () => {
        pen.text(line.title, { x: MARGIN, y, width: INNER - 180, size: 13, height: 18 })
        pen.text(line.folderName, { x: MARGIN + INNER - 170, y, width: 130, size: 11, colour: INK_SOFT, height: 16 })
        pen.text(String(number), { x: MARGIN + INNER - 40, y, width: 40, size: 13, align: 'right' })
      })
      pen.aside(() => pen.doc.moveTo(MARGIN, y + 21).lineTo(PAGE.width - MARGIN, y + 21).lineWidth(0.5).stroke(RULE)) // prettier-ignore
    })
    drawFoot(pen, order.schoolName, plan.coverPages + page + 1)
    section.end()
  }
}

async function drawPiece(pen: Pen, book: Section, order: BookOrder, page: BookPage, number: number): Promise<void> {
  const { doc } = pen
  doc.addPage()
  const section = doc.struct('Sect')
  book.add(section)
  pen.aside(() => {
    pen.text(page.termName ?? '', { x: MARGIN, y: 54, width: INNER / 2, size: 10.5, colour: INK_SOFT })
    pen.text(page.folderName, { x: MARGIN + INNER / 2, y: 54, width: INNER / 2, size: 10.5, colour: INK_SOFT, align: 'right' })
  })
  const titleSize = pen.sizeFor(page.title, INNER, 48, [30, 24, 19, 15], 'title')
  pen.tag(section, 'H2', () =>
    pen.text(page.title, { x: MARGIN, y: 74, width: INNER, size: titleSize, family: 'title', height: 50 }),
  )

  const wordsWidth = INNER - QR_SIZE - 24
  const words = wordsHeight(pen, page, wordsWidth)
  const wordsTop = FOOT - 28 - Math.max(words.total, QR_SIZE + 30)
  const boxes = layOutPhotos(page.photos, { x: MARGIN, y: PHOTO_TOP, width: INNER, height: wordsTop - PHOTO_TOP - 22 })
  const drawn: Buffer[] = []
  for (const photo of page.photos) drawn.push(await order.readPhoto(photo.key))
  drawn.forEach((bytes, i) => {
    const box = boxes[i]!
    const alt = strings.photo(i + 1, drawn.length, page.title)
    pen.tag(section, 'Figure', () => doc.image(bytes, box.x, box.y, { width: box.width, height: box.height }), { alt })
  })

  const below = Math.min(wordsTop, Math.max(PHOTO_TOP, ...boxes.map((box) => box.y + box.height)) + 24)
  if (page.reflection) {
    pen.tag(section, 'P', () =>
      pen.text(page.reflection, {
        x: MARGIN,
        y: below,
        width: wordsWidth,
        size: words.reflectionSize,
        height: words.reflection + 2,
      }),
    )
  }
  if (page.reason) {
    const top = below + words.reflection + (page.reflection ? 14 : 0)
    pen.aside(() => doc.rect(MARGIN, top, 3, words.reason).fill(VERDIGRIS))
    pen.tag(section, 'P', () =>
      pen.text(page.reason, {
        x: MARGIN + 13,
        y: top,
        width: wordsWidth - 13,
        size: words.reasonSize,
        colour: INK_SOFT,
        height: words.reason + 2,
      }),
    )
  }
  const qrLeft = PAGE.width - MARGIN - QR_SIZE
  pen.tag(section, 'Figure', () => drawQr(doc, page.link, qrLeft, below), { alt: strings.codeAlt(page.link) })
  pen.aside(() =>
    pen.text(strings.code, {
      x: qrLeft - 14,
      y: below + QR_SIZE + 4,
      width: QR_SIZE + 28,
      size: 9,
      align: 'center',
      colour: INK_SOFT,
    }),
  )
  drawFoot(
    pen,
    [order.pupilName, strings.goes(page.goes), dayOf(page.approvedAt, order.timeZone)].filter(Boolean).join(' · '),
    number,
  )
  section.end()
}

type Words = { total: number; reflection: number; reflectionSize: number; reason: number; reasonSize: number }

/** A child's words are set as large as they fit; long ones get smaller, never cut before half the page is theirs. */
function wordsHeight(pen: Pen, page: BookPage, width: number): Words {
  const reflectionSize = page.reflection ? pen.sizeFor(page.reflection, width, 220, [16, 14, 12, 10, 8]) : 16
  const reflection = page.reflection ? Math.min(300, pen.heightOf(page.reflection, { width, size: reflectionSize })) : 0
  const reasonSize = page.reason ? pen.sizeFor(page.reason, width - 13, 80, [12, 10, 8]) : 12
  const reason = page.reason ? Math.min(100, pen.heightOf(page.reason, { width: width - 13, size: reasonSize })) : 0
  return {
    total: reflection + reason + (page.reflection && page.reason ? 14 : 0),
    reflection,
    reflectionSize,
    reason,
    reasonSize,
  }
}

/** ISO/IEC 18004, level M, with the quiet zone of four modules left white around it. */
function drawQr(doc: Doc, link: string, x: number, y: number): void {
  const { modules } = QRCode.create(link, { errorCorrectionLevel: 'M' })
  const step = QR_SIZE / modules.size
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

function drawFoot(pen: Pen, left: string, number: number): void {
  pen.aside(() => {
    pen.doc
      .moveTo(MARGIN, FOOT)
      .lineTo(PAGE.width - MARGIN, FOOT)
      .lineWidth(0.75)
      .stroke(RULE)
    pen.text(left, { x: MARGIN, y: FOOT + 10, width: INNER - 60, size: 10.5, colour: INK_SOFT, height: 15 })
    pen.text(String(number), {
      x: PAGE.width - MARGIN - 50,
      y: FOOT + 10,
      width: 50,
      size: 10.5,
      align: 'right',
      colour: INK_SOFT,
    })
  })
}

const DAYS = new Map<string, Intl.DateTimeFormat>()
function dayOf(moment: string, timeZone: string): string {
  const format =
    DAYS.get(timeZone) ?? new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone })
  DAYS.set(timeZone, format)
  return format.format(new Date(moment))
}
