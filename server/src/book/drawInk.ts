import type { Box } from '@nibquill/core'
import type { InkSheet } from '@nibquill/core/ink/document'
import { displayOf } from '@nibquill/core/ink/display'
import { RULE, type Pen } from '../print/pen.ts'
import { pointsOf } from './printing.ts'

/**
 * A sheet on paper, as paths, never as a picture. Where it fits it has its real size, in the middle
 * of its place: a centimetre drawn is one printed.
 */
export function drawInk(doc: Pen['doc'], sheet: InkSheet, box: Box): void {
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
  for (const { path, fill, line, cover } of displayOf(sheet)) {
    doc.path(path).fillOpacity(cover).strokeOpacity(cover)
    if (line) doc.lineWidth(line.width).lineCap('round').lineJoin('round')
    if (fill && line) doc.fillAndStroke(fill, line.colour)
    else if (fill) doc.fill(fill)
    else if (line) doc.stroke(line.colour)
  }
  doc.restore()
}
