import type { InkSheet } from '@nibquill/core/ink/document'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { saveBlob } from '../media/saveFile'
import { PaintedSheet } from '../sheets/paint'
import type { Pictures } from '../sheets/pictures'

const LONGEST_PX = 2048

const canvasOf = (width: number, height: number): CanvasRenderingContext2D =>
  Object.assign(document.createElement('canvas'), { width, height }).getContext('2d')!

/** A sheet as a picture of pixels, painted as on the screen. */
export async function savePng(sheet: InkSheet, pictures: Pictures, name: string): Promise<void> {
  const scale = LONGEST_PX / Math.max(sheet.width, sheet.height)
  const canvas = canvasOf(Math.round(sheet.width * scale), Math.round(sheet.height * scale))
  const dots = window.devicePixelRatio || 1
  new PaintedSheet(canvas, (mediaId) => pictures.get(mediaId)).show(sheet, {
    ...{ scale: scale / dots, x: 0, y: 0 },
  })
  const png = await new Promise<Blob | null>((resolve) => canvas.canvas.toBlob(resolve))
  if (png) saveBlob(png, name)
}

/** A sheet as lines, in its real size, with its pictures in it: it needs nothing else to be shown. */
export function saveSvg(sheet: InkSheet, pictures: Pictures, name: string): void {
  const hrefOf = (mediaId: string) => {
    const picture = pictures.get(mediaId)
    if (!picture) return null
    const canvas = canvasOf(picture.naturalWidth, picture.naturalHeight)
    canvas.drawImage(picture, 0, 0)
    return canvas.canvas.toDataURL('image/jpeg', 0.9)
  }
  saveBlob(new Blob([inkToSvg(sheet, { hrefOf })], { type: 'image/svg+xml' }), name)
}
