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

export type Letter = { parentName: string; children: string[]; address: string }

const CODE = 170

/** A letter a page: what Nibquill shows, a QR code, and the address to type. */
export async function drawLetters(
  letters: readonly Letter[],
  schoolName: string,
  out: Writable,
): Promise<void> {
  const doc = await openDocument(strings.lettersTitle(schoolName), schoolName)
  const written = pipeline(doc, out)
  const root = doc.struct('Document')
  doc.addStructure(root)
  const pen = new Pen(doc)
  for (const letter of letters) {
    doc.addPage()
    const children = letter.children.join(strings.and)
    pen.tag(root, 'P', () =>
      pen.text(schoolName, { x: MARGIN, y: 64, width: INNER, size: 12, colour: INK_SOFT }),
    )
    pen.tag(root, 'H1', () =>
      pen.text(strings.letterHead(children), {
        x: MARGIN,
        y: 120,
        width: INNER,
        size: 26,
        family: 'title',
        colour: AUBERGINE,
      }),
    )
    pen.tag(root, 'P', () =>
      pen.text(strings.letter(letter.parentName, children), {
        x: MARGIN,
        y: 210,
        width: INNER,
        size: 14,
      }),
    )
    const place = { x: (PAGE.width - CODE) / 2, y: 400, size: CODE }
    pen.tag(root, 'Figure', () => drawQr(doc, letter.address, place), {
      alt: strings.code(children),
    })
    pen.tag(root, 'P', () =>
      pen.text(letter.address, {
        x: MARGIN,
        y: 590,
        width: INNER,
        size: 12,
        align: 'center',
        colour: INK_SOFT,
      }),
    )
    pen.tag(root, 'P', () =>
      pen.text(strings.letterFoot, { x: MARGIN, y: 640, width: INNER, size: 12, colour: INK_SOFT }),
    )
  }
  root.end()
  doc.end()
  await written
}
