import type { Peg } from '@nibquill/contract'
import { PIGMENTS, writeCardCode } from '@nibquill/core'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  drawQr,
  INK_SOFT,
  openDocument,
  PAGE,
  Pen,
  RULE,
  type Doc,
  type Section,
} from '../print/pen.ts'
import { PEG_DRAWINGS } from '../print/pegs.generated.ts'
import { strings } from './strings.ts'

/**
 * `name` as beside the peg: a lost card tells no surname. `code` without gaps; `address` is what
 * the QR code says.
 */
export type Card = {
  name: string
  className: string
  peg: Peg | null
  code: string
  address: string
}
/** `site`: where people reach the school, and type the letters. */
export type CardSheet = { title: string; schoolName: string; site: string }

const COLUMNS = 2
const ROWS = 4
const CARDS_A_PAGE = COLUMNS * ROWS
const WIDTH = PAGE.width / COLUMNS
const HEIGHT = PAGE.height / ROWS
/** 35 mm: read at arm's length, also by a tablet's weak camera. */
const CODE = 100
const PEG = 62
const INSET = 22

/**
 * Name cards, eight to a page with lines to cut along: peg, name, QR code, typed code.
 * @param onCard - Waited for after each card.
 */
export async function drawCards(
  cards: readonly Card[],
  { title, schoolName, site }: CardSheet,
  out: Writable,
  onCard: (cardsDone: number) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const doc = await openDocument(title, schoolName)
  const written = pipeline(doc, out)
  const root = doc.struct('Document')
  doc.addStructure(root)
  const pen = new Pen(doc)
  for (const [i, card] of cards.entries()) {
    const place = i % CARDS_A_PAGE
    if (place === 0) {
      doc.addPage()
      pen.aside(() => drawCutLines(doc))
    }
    const at = { left: (place % COLUMNS) * WIDTH, top: Math.floor(place / COLUMNS) * HEIGHT }
    drawCard(pen, root, card, at, site.replace(/^https?:\/\//, ''))
    await onCard(i + 1)
  }
  root.end()
  doc.end()
  await written
}

function drawCutLines(doc: Doc): void {
  doc.lineWidth(0.5).dash(4, { space: 4 }).strokeColor(RULE)
  doc.moveTo(WIDTH, 0).lineTo(WIDTH, PAGE.height).stroke()
  for (let row = 1; row < ROWS; row++)
    doc
      .moveTo(0, row * HEIGHT)
      .lineTo(PAGE.width, row * HEIGHT)
      .stroke()
  doc.undash()
}

function drawCard(
  pen: Pen,
  root: Section,
  card: Card,
  { left, top }: { left: number; top: number },
  site: string,
): void {
  const { doc } = pen
  const words = left + INSET
  const width = WIDTH - 2 * INSET - CODE - 14
  if (card.peg) {
    const { symbol, colour } = card.peg
    pen.tag(
      root,
      'Figure',
      () => drawPeg(doc, PEG_DRAWINGS[symbol], PIGMENTS[colour], words, top + INSET),
      {
        alt: `${colour} ${symbol}`,
      },
    )
  }
  const size = pen.sizeFor(card.name, width, 40, [26, 22, 18, 14, 11], 'title')
  pen.tag(root, 'P', () =>
    pen.text(card.name, {
      x: words,
      y: top + INSET + PEG + 12,
      width,
      size,
      family: 'title',
      height: 40,
    }),
  )
  const qr = { x: left + WIDTH - INSET - CODE, y: top + INSET, size: CODE }
  pen.tag(root, 'Figure', () => drawQr(doc, card.address, qr), { alt: strings.qrOf(card.name) })
  const foot = { x: words, width: WIDTH - 2 * INSET }
  pen.tag(root, 'P', () =>
    pen.text(writeCardCode(card.code), {
      ...foot,
      y: top + HEIGHT - INSET - 38,
      size: 17,
      family: 'strong',
    }),
  )
  // Where the letters are typed, for a tablet that has no camera.
  pen.tag(root, 'P', () =>
    pen.text([card.className, site].filter(Boolean).join(' · '), {
      ...foot,
      y: top + HEIGHT - INSET - 12,
      size: 10,
      colour: INK_SOFT,
      height: 14,
    }),
  )
}

function drawPeg(doc: Doc, drawing: string, pigment: string, left: number, top: number): void {
  doc.circle(left + PEG / 2, top + PEG / 2, PEG / 2).fill(pigment)
  const scale = (PEG * 0.56) / 24
  doc
    .save()
    .translate(left + PEG * 0.22, top + PEG * 0.22)
    .scale(scale)
    .path(drawing)
    .fill('#FFFFFF')
    .restore()
}
