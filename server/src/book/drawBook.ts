import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { layOutPhotos, pageOfPiece, planBook, CONTENTS_LINES } from '@nibquill/core'
import {
  AUBERGINE,
  drawQr,
  INK_SOFT,
  INNER,
  MARGIN,
  openDocument,
  PAGE,
  Pen,
  QR_SIZE,
  RULE,
  VERDIGRIS,
  type Section,
} from '../print/pen.ts'
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

const PHOTO_TOP = 130
const FOOT = PAGE.height - 58

/**
 * Draws a book page by page: what is drawn goes out before the next page begins, so long books need
 * no more memory than short ones.
 */
export async function drawBook(order: BookOrder): Promise<void> {
  const doc = await openDocument(order.title, order.schoolName)
  const written = pipeline(doc, order.out)
  const book = doc.struct('Document')
  doc.addStructure(book)
  const plan = planBook(order.pages.length)
  const draw = new Pen(doc)
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
    pen.text(order.pupilName, {
      x: MARGIN,
      y: 290,
      width: INNER,
      size,
      family: 'title',
      colour: AUBERGINE,
      height: 130,
    }),
  )
  pen.tag(section, 'P', () =>
    pen.text(strings.cover(order.termName, order.pages.length), {
      x: MARGIN,
      y: 446,
      width: INNER,
      size: 18,
    }),
  )
  pen.tag(section, 'P', () =>
    pen.text(order.schoolName, {
      x: MARGIN,
      y: FOOT - 12,
      width: INNER,
      size: 13,
      colour: INK_SOFT,
    }),
  )
  section.end()
}

function drawContents(pen: Pen, book: Section, order: BookOrder): void {
  const plan = planBook(order.pages.length)
  for (let page = 0; page < plan.contentsPages; page++) {
    pen.doc.addPage()
    const section = pen.doc.struct('Sect')
    book.add(section)
    if (page === 0)
      pen.tag(section, 'H1', () =>
        pen.text(strings.contents, { x: MARGIN, y: 72, width: INNER, size: 28, family: 'title' }),
      )
    const lines = order.pages.slice(page * CONTENTS_LINES, (page + 1) * CONTENTS_LINES)
    lines.forEach((line, i) => {
      const y = 130 + i * 25
      const number = pageOfPiece(plan, page * CONTENTS_LINES + i)
      pen.tag(section, 'P', () => {
        pen.text(line.title, { x: MARGIN, y, width: INNER - 180, size: 13, height: 18 })
        pen.text(line.folderName, {
          x: MARGIN + INNER - 170,
          y,
          width: 130,
          size: 11,
          colour: INK_SOFT,
          height: 16,
        })
        pen.text(String(number), { x: MARGIN + INNER - 40, y, width: 40, size: 13, align: 'right' })
      })
      pen.aside(() =>
        pen.doc
          .moveTo(MARGIN, y + 21)
          .lineTo(PAGE.width - MARGIN, y + 21)
          .lineWidth(0.5)
          .stroke(RULE),
      )
    })
    drawFoot(pen, order.schoolName, plan.coverPages + page + 1)
    section.end()
  }
}

async function drawPiece(
  pen: Pen,
  book: Section,
  order: BookOrder,
  page: BookPage,
  number: number,
): Promise<void> {
  const { doc } = pen
  doc.addPage()
  const section = doc.struct('Sect')
  book.add(section)
  pen.aside(() => {
    pen.text(page.termName ?? '', {
      x: MARGIN,
      y: 54,
      width: INNER / 2,
      size: 10.5,
      colour: INK_SOFT,
    })
    pen.text(page.folderName, {
      x: MARGIN + INNER / 2,
      y: 54,
      width: INNER / 2,
      size: 10.5,
      colour: INK_SOFT,
      align: 'right',
    })
  })
  const titleSize = pen.sizeFor(page.title, INNER, 48, [30, 24, 19, 15], 'title')
  pen.tag(section, 'H2', () =>
    pen.text(page.title, {
      x: MARGIN,
      y: 74,
      width: INNER,
      size: titleSize,
      family: 'title',
      height: 50,
    }),
  )

  const wordsWidth = INNER - QR_SIZE - 24
  const words = wordsHeight(pen, page, wordsWidth)
  const wordsTop = FOOT - 28 - Math.max(words.total, QR_SIZE + 30)
  const boxes = layOutPhotos(page.photos, {
    x: MARGIN,
    y: PHOTO_TOP,
    width: INNER,
    height: wordsTop - PHOTO_TOP - 22,
  })
  const drawn: Buffer[] = []
  for (const photo of page.photos) drawn.push(await order.readPhoto(photo.key))
  drawn.forEach((bytes, i) => {
    const box = boxes[i]!
    const alt = strings.photo(i + 1, drawn.length, page.title)
    pen.tag(
      section,
      'Figure',
      () => doc.image(bytes, box.x, box.y, { width: box.width, height: box.height }),
      { alt },
    )
  })

  const below = Math.min(
    wordsTop,
    Math.max(PHOTO_TOP, ...boxes.map((box) => box.y + box.height)) + 24,
  )
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
  pen.tag(section, 'Figure', () => drawQr(doc, page.link, { x: qrLeft, y: below, size: QR_SIZE }), {
    alt: strings.codeAlt(page.link),
  })
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
    [order.pupilName, strings.goes(page.goes), dayOf(page.approvedAt, order.timeZone)]
      .filter(Boolean)
      .join(' · '),
    number,
  )
  section.end()
}

type Words = {
  total: number
  reflection: number
  reflectionSize: number
  reason: number
  reasonSize: number
}

/**
 * A child's words are set as large as they fit; long ones get smaller, never cut before half the
 * page is theirs.
 */
function wordsHeight(pen: Pen, page: BookPage, width: number): Words {
  const reflectionSize = page.reflection
    ? pen.sizeFor(page.reflection, width, 220, [16, 14, 12, 10, 8])
    : 16
  const reflection = page.reflection
    ? Math.min(300, pen.heightOf(page.reflection, { width, size: reflectionSize }))
    : 0
  const reasonSize = page.reason ? pen.sizeFor(page.reason, width - 13, 80, [12, 10, 8]) : 12
  const reason = page.reason
    ? Math.min(100, pen.heightOf(page.reason, { width: width - 13, size: reasonSize }))
    : 0
  return {
    total: reflection + reason + (page.reflection && page.reason ? 14 : 0),
    reflection,
    reflectionSize,
    reason,
    reasonSize,
  }
}

function drawFoot(pen: Pen, left: string, number: number): void {
  pen.aside(() => {
    pen.doc
      .moveTo(MARGIN, FOOT)
      .lineTo(PAGE.width - MARGIN, FOOT)
      .lineWidth(0.75)
      .stroke(RULE)
    pen.text(left, {
      x: MARGIN,
      y: FOOT + 10,
      width: INNER - 60,
      size: 10.5,
      colour: INK_SOFT,
      height: 15,
    })
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
    DAYS.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone })
  DAYS.set(timeZone, format)
  return format.format(new Date(moment))
}
