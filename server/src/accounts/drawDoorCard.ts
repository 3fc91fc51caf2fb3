import { writeCardCode } from '@nibquill/core'
import type { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  AUBERGINE,
  drawQr,
  INK_SOFT,
  INNER,
  MARGIN,
  openDocument,
  PAGE,
  Pen,
} from '../print/pen.ts'
import { strings } from './strings.ts'

/** `code` without gaps; `address` is what the QR code says. */
export type DoorCard = { className: string; schoolName: string; code: string; address: string }

/** 110 mm: read from across a table. */
const CODE = 312

/** The class's door card, a page to hang up where the teacher can take it down. */
export async function drawDoorCard(card: DoorCard, out: Writable): Promise<void> {
  const doc = await openDocument(strings.doorCard(card.className), card.schoolName)
  const written = pipeline(doc, out)
  const root = doc.struct('Document')
  doc.addStructure(root)
  const pen = new Pen(doc)
  doc.addPage()
  const line = { x: MARGIN, width: INNER, align: 'center' } as const
  pen.tag(root, 'P', () =>
    pen.text(card.schoolName, { ...line, y: 70, size: 14, colour: INK_SOFT, height: 20 }),
  )
  const title = strings.doorCard(card.className)
  const size = pen.sizeFor(title, INNER, 60, [40, 32, 26, 20], 'title')
  pen.tag(root, 'H1', () =>
    pen.text(title, { ...line, y: 104, size, family: 'title', colour: AUBERGINE, height: 60 }),
  )
  const place = { x: (PAGE.width - CODE) / 2, y: 200, size: CODE }
  pen.tag(root, 'Figure', () => drawQr(doc, card.address, place), {
    alt: strings.qrOfDoor(card.className),
  })
  pen.tag(root, 'P', () =>
    pen.text(writeCardCode(card.code), { ...line, y: 548, size: 26, family: 'strong' }),
  )
  pen.tag(root, 'P', () =>
    pen.text(strings.doorHelp, { ...line, y: 620, size: 14, colour: INK_SOFT }),
  )
  root.end()
  doc.end()
  await written
}
