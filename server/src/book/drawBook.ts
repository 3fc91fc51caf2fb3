import { once } from 'node:events'
import { pipeline } from 'node:stream/promises'
import type { Writable } from 'node:stream'
import { CONTENTS_LINES, pageOfPiece, planBook, type BookPlan } from '@nibquill/core'
import {
  AUBERGINE,
  INK_SOFT,
  INNER,
  MARGIN,
  openDocument,
  PAGE,
  Pen,
  RULE,
  type Section,
} from '../print/pen.ts'
import { drawPiece } from './drawPiece.ts'
import { drawFoot, FOOT, type BookOrder } from './frame.ts'
import { writingOf } from './printing.ts'
import { strings } from './strings.ts'

/**
 * Draws a book page by page: what is drawn goes out before the next page begins, so long books need
 * no more memory than short ones.
 */
export async function drawBook(order: BookOrder): Promise<void> {
  const doc = await openDocument(order.title, order.schoolName)
  const written = pipeline(doc, order.out)
  const book = doc.struct('Document')
  doc.addStructure(book)
  const writings = order.pages.map((page) => writingOf(page.printed, page))
  const plan = planBook(writings.map(({ more }) => 1 + more.length))
  const draw = new Pen(doc)
  drawCover(draw, book, order)
  drawContents(draw, book, order, plan)
  await order.onPage(plan.coverPages + plan.contentsPages)
  for (const [i, page] of order.pages.entries()) {
    const number = pageOfPiece(plan, i)
    await drawPiece(draw, book, order.readFile, page, { number, writing: writings[i]! })
    await goneOut(order.out)
    await order.onPage(number + writings[i]!.more.length)
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

function drawContents(pen: Pen, book: Section, order: BookOrder, plan: BookPlan): void {
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
