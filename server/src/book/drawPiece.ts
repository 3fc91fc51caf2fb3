import { layOutPhotos, type Box } from '@nibquill/core'
import type { WritingPages } from '@nibquill/core/book/setWriting'
import {
  drawQr,
  INK_SOFT,
  INNER,
  MARGIN,
  PAGE,
  QR_SIZE,
  RULE,
  VERDIGRIS,
  type Pen,
  type Section,
} from '../print/pen.ts'
import { picturesAmong } from '@nibquill/core/ink/picturesAmong'
import { drawInk } from './drawInk.ts'
import { readInk } from '../media/kinds/ink.ts'
import { drawFoot, FOOT, SHOWN_TOP, type BookPage } from './frame.ts'
import type { Printed } from './printing.ts'
import { strings } from './strings.ts'

/** @see LINE_UNITS in core, which is measured against this size */
const LINE = { size: 12.5, pitch: 20 }
const LARGE_LINE = { size: 17, pitch: 28 }
/** Where the lines of a page begin that holds nothing else. */
const MORE_TOP = 92
/** Between pictures and what is written under them. */
const UNDER_GAP = 14
/** What stands for something heard or filmed is as large as a small picture. */
const CODE_SHAPE = { width: 300, height: 300 }

/** Reads a picture or ink. */
type ReadFile = (key: string) => Promise<Buffer>

/** A piece's own page, and those its writings go on to. */
export async function drawPiece(
  pen: Pen,
  book: Section,
  readFile: ReadFile,
  page: BookPage,
  { number, writing }: { number: number; writing: WritingPages },
): Promise<void> {
  const { doc } = pen
  doc.addPage()
  const section = doc.struct('Sect')
  book.add(section)
  drawHead(pen, page)
  const titleSize = pen.sizeFor(page.title, INNER, 48, [30, 24, 19, 15], 'title')
  pen.tag(section, 'H2', () =>
    pen.text(page.title, {
      ...{ x: MARGIN, y: 74, width: INNER, height: 50 },
      size: titleSize,
      family: 'title',
    }),
  )
  const width = INNER - QR_SIZE - 24
  const words = wordsHeight(pen, page, width)
  const wordsTop = FOOT - 28 - Math.max(words.total, QR_SIZE + 30)
  const set = writing.large ? LARGE_LINE : LINE
  const pictures = page.printed.some(({ as }) => as !== 'text')
  const written = writing.first.length * set.pitch
  const under = pictures && written > 0 ? written + UNDER_GAP : 0
  const height = wordsTop - SHOWN_TOP - 22 - under
  const space = { x: MARGIN, y: SHOWN_TOP, width: INNER, height }
  const shownTo = Math.max(SHOWN_TOP, await drawShown(pen, section, readFile, page, space))
  const top = shownTo + (under > 0 ? UNDER_GAP : 0)
  drawLines(pen, section, writing.first, { ...set, top })
  const writtenTo = top + written
  const below = Math.min(wordsTop, writtenTo + 24)
  drawWords(pen, section, page, words, { below, width })
  drawCode(pen, section, page.link, below)
  drawFoot(pen, page.foot, number)
  writing.more.forEach((lines, i) => {
    doc.addPage()
    drawHead(pen, { ...page, termName: strings.goesOn(page.title) })
    drawLines(pen, section, lines, { ...LINE, top: MORE_TOP })
    drawFoot(pen, page.foot, number + i + 1)
  })
  section.end()
}

/** The running head: what a screen reader skips. */
function drawHead(pen: Pen, { termName, folderName }: Pick<BookPage, 'termName' | 'folderName'>) {
  const half = { y: 54, width: INNER / 2, size: 10.5, colour: INK_SOFT, height: 14 }
  pen.aside(() => {
    pen.text(termName ?? '', { ...half, x: MARGIN })
    pen.text(folderName, { ...half, x: MARGIN + INNER / 2, align: 'right' })
  })
}

/** Pictures, and what paper cannot hold as squares of the same rank. @returns where they end */
async function drawShown(
  pen: Pen,
  section: Section,
  readFile: ReadFile,
  page: BookPage,
  space: Box,
): Promise<number> {
  const shown = page.printed.filter((one) => one.as !== 'text')
  const boxes = layOutPhotos(
    shown.map((one) => ('width' in one ? one : CODE_SHAPE)),
    space,
  )
  for (const [i, one] of shown.entries()) {
    const box = boxes[i]!
    if (one.as === 'code' || one.as === 'link') {
      const alt =
        one.as === 'code'
          ? strings.onScreen(one.word, page.title)
          : strings.elsewhere(one.word, one.address)
      const to = one.as === 'code' ? page.link : one.address
      pen.tag(section, 'Figure', () => drawSquare(pen, one.word, to, box), { alt })
      continue
    }
    const bytes = await readFile(one.key)
    const word = one.as === 'ink' ? strings.parts.drawing : one.word
    const alt = strings.shown(word, i + 1, shown.length, page.title)
    const draw =
      one.as === 'ink'
        ? await inkDrawer(pen, readFile, one, bytes, box)
        : () => pen.doc.image(bytes, box.x, box.y, { width: box.width, height: box.height })
    pen.tag(section, 'Figure', draw, { alt })
  }
  return Math.max(0, ...boxes.map(({ y, height }) => y + height))
}

/** Everything a sheet needs is read before it is drawn. */
async function inkDrawer(
  pen: Pen,
  readFile: ReadFile,
  one: Extract<Printed, { as: 'ink' }>,
  bytes: Buffer,
  box: Box,
): Promise<() => void> {
  const { sheets } = readInk(bytes.toString('utf8'))
  const sheet = sheets[one.sheet] ?? sheets[0]!
  const pictures = new Map<string, Buffer>()
  for (const mediaId of picturesAmong(sheet.things)) {
    const key = one.pictureKey(mediaId)
    if (key) pictures.set(mediaId, await readFile(key))
  }
  return () => drawInk(pen.doc, sheet, box, pictures)
}

/** A square with a word, and the code that leads to the piece on a screen. */
function drawSquare(pen: Pen, word: string, link: string, box: Box): void {
  const code = Math.min(QR_SIZE, box.height * 0.6, box.width * 0.8)
  const left = box.x + (box.width - code) / 2
  const top = box.y + (box.height - code - 20) / 2
  pen.doc.roundedRect(box.x, box.y, box.width, box.height, 6).lineWidth(1).stroke(RULE)
  drawQr(pen.doc, link, { x: left, y: top, size: code })
  pen.text(word, {
    ...{ x: box.x, y: top + code + 6, width: box.width, height: 16 },
    size: 12,
    align: 'center',
  })
}

/** What a child wrote, in the lines it was written in, on ruled paper. */
function drawLines(
  pen: Pen,
  section: Section,
  lines: readonly string[],
  { top, size, pitch }: { top: number; size: number; pitch: number },
): void {
  if (lines.length === 0) return
  pen.aside(() => {
    lines.forEach((_, i) => {
      const y = top + (i + 1) * pitch - 2
      pen.doc.moveTo(MARGIN, y).lineTo(MARGIN + INNER, y)
    })
    pen.doc.lineWidth(0.5).stroke(RULE)
  })
  pen.tag(section, 'P', () =>
    lines.forEach((line, i) => {
      if (line === '') return
      // Lines are set by a rough measure in core: a rare one that is still too long is set smaller.
      const fit = Math.min(1, INNER / pen.widthOf(line, size))
      pen.line(line, { x: MARGIN, y: top + i * pitch, size: size * fit })
    }),
  )
}

function drawWords(
  pen: Pen,
  section: Section,
  page: BookPage,
  words: Words,
  { below, width }: { below: number; width: number },
): void {
  if (page.reflection)
    pen.tag(section, 'P', () =>
      pen.text(page.reflection, {
        ...{ x: MARGIN, y: below, width, height: words.reflection + 2 },
        size: words.reflectionSize,
      }),
    )
  if (!page.reason) return
  const top = below + words.reflection + (page.reflection ? 14 : 0)
  pen.aside(() => pen.doc.rect(MARGIN, top, 3, words.reason).fill(VERDIGRIS))
  pen.tag(section, 'P', () =>
    pen.text(page.reason, {
      ...{ x: MARGIN + 13, y: top, width: width - 13, height: words.reason + 2 },
      size: words.reasonSize,
      colour: INK_SOFT,
    }),
  )
}

function drawCode(pen: Pen, section: Section, link: string, y: number): void {
  const x = PAGE.width - MARGIN - QR_SIZE
  pen.tag(section, 'Figure', () => drawQr(pen.doc, link, { x, y, size: QR_SIZE }), {
    alt: strings.codeAlt(link),
  })
  pen.aside(() =>
    pen.text(strings.code, {
      ...{ x: x - 14, y: y + QR_SIZE + 4, width: QR_SIZE + 28 },
      size: 9,
      align: 'center',
      colour: INK_SOFT,
    }),
  )
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
