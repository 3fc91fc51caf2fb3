import type { Box } from '@nibquill/core'
import type { InkSheet } from '@nibquill/core/ink/document'
import { displayOf, type ShownPicture } from '@nibquill/core/ink/display'
import { RULE, type Pen } from '../print/pen.ts'
import { pointsOf } from './printing.ts'

/**
 * A sheet on paper, as paths, never as a picture. Where it fits it has its real size, in the middle
 * of its place: a centimetre drawn is one printed.
 */
export function drawInk(
  doc: Pen['doc'],
  sheet: InkSheet,
  box: Box,
  pictures: ReadonlyMap<string, Buffer>,
): void {
  const [width, height] = [pointsOf(sheet.width), pointsOf(sheet.height)]
  const scale = Math.min(1, box.width / width, box.height / height)
  const left = box.x + (box.width - width * scale) / 2
  const top = box.y + (box.height - height * scale) / 2
  doc
    .rect(left, top, width * scale, height * scale)
    .lineWidth(0.5)
    .strokeOpacity(1)
    .stroke(RULE)
  doc.save()
  doc.rect(left, top, width * scale, height * scale).clip()
  doc.translate(left, top).scale(scale * pointsOf(1))
  for (const shown of displayOf(sheet)) {
    if ('picture' in shown) {
      drawPicture(doc, shown, pictures.get(shown.picture))
      continue
    }
    const { path, fill, line, cover } = shown
    doc.path(path).fillOpacity(cover).strokeOpacity(cover)
    if (line) doc.lineWidth(line.width).lineCap('round').lineJoin('round')
    if (fill && line) doc.fillAndStroke(fill, line.colour)
    else if (fill) doc.fill(fill)
    else if (line) doc.stroke(line.colour)
  }
  doc.restore()
}

function drawPicture(
  doc: Pen['doc'],
  { at, turn, width, height }: ShownPicture,
  bytes: Buffer | undefined,
): void {
  doc.save()
  doc.fillOpacity(1).translate(at.x, at.y).rotate(turn)
  if (bytes) doc.image(bytes, -width / 2, -height / 2, { width, height })
  else doc.rect(-width / 2, -height / 2, width, height).fill(RULE)
  doc.restore()
}
