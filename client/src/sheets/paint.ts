import { showThing, type Shown, type ShownPath } from '@nibquill/core/ink/display'
import type { At, InkSheet } from '@nibquill/core/ink/document'
import { isBegunBy, paintOn, type Means } from '@nibquill/core/ink/paintOn'
import { paperLines } from '@nibquill/core/ink/papers'

/** Where a sheet lies on a canvas. `scale`: px a unit; `x`, `y`: its corner, in px. */
export type View = { scale: number; x: number; y: number }

const paths = new WeakMap<ShownPath, Path2D>()
function pathOf(shown: ShownPath): Path2D {
  const there = paths.get(shown)
  if (there) return there
  const made = new Path2D(shown.path)
  paths.set(shown, made)
  return made
}

type Canvas = CanvasRenderingContext2D

/** Lays the sheet's corner and measure under what is painted next. */
export function layUnder(canvas: Canvas, { scale, x, y }: View): void {
  const dots = window.devicePixelRatio || 1
  canvas.setTransform(scale * dots, 0, 0, scale * dots, x * dots, y * dots)
}

export function wipe(canvas: Canvas): void {
  canvas.setTransform(1, 0, 0, 1, 0, 0)
  canvas.clearRect(0, 0, canvas.canvas.width, canvas.canvas.height)
}

/** A picture that lies on a sheet; null while it is not here. */
export type PictureOf = (mediaId: string) => CanvasImageSource | null
const NO_PICTURES: PictureOf = () => null

/** Paints a display list, lowest first. The sheet is laid under already. */
export const paint = (
  canvas: Canvas,
  list: readonly Shown[],
  pictureOf: PictureOf = NO_PICTURES,
): void => paintOn(canvas, list, { pathOf, pictureOf, aside: asideOf(canvas) })

const asideOf =
  (canvas: Canvas): Means<Path2D, CanvasImageSource>['aside'] =>
  (paintThere, cover) => {
    const aside = document.createElement('canvas')
    aside.width = canvas.canvas.width
    aside.height = canvas.canvas.height
    const there = aside.getContext('2d')!
    const place = canvas.getTransform()
    there.setTransform(place)
    paintThere(there)
    canvas.setTransform(1, 0, 0, 1, 0, 0)
    canvas.globalAlpha = cover
    canvas.drawImage(aside, 0, 0)
    canvas.globalAlpha = 1
    canvas.setTransform(place)
  }

/** The paper with what is printed on it, and a soft shadow round it. */
function paintPaper(canvas: Canvas, sheet: InkSheet): void {
  canvas.save()
  canvas.shadowColor = 'rgba(43, 33, 24, 0.25)'
  canvas.shadowBlur = 10
  canvas.shadowOffsetY = 2
  canvas.fillStyle = '#FFFFFF'
  canvas.fillRect(0, 0, sheet.width, sheet.height)
  canvas.restore()
  canvas.save()
  onSheetOnly(canvas, sheet)
  paint(canvas, paperLines(sheet))
  canvas.restore()
}

/** Nothing is painted beyond the sheet from here on, until it is restored. */
export function onSheetOnly(canvas: Canvas, { width, height }: InkSheet): void {
  canvas.beginPath()
  canvas.rect(0, 0, width, height)
  canvas.clip()
}

/** A sheet on a canvas that remembers what it shows: what only came on top is added to it. */
export class PaintedSheet {
  #sheet: InkSheet | null = null
  #view: View | null = null
  readonly #canvas: Canvas
  readonly #pictureOf: PictureOf
  constructor(canvas: Canvas, pictureOf: PictureOf) {
    this.#canvas = canvas
    this.#pictureOf = pictureOf
  }

  /** The canvas was sized anew and is empty, or a picture has come. */
  forget(): void {
    this.#sheet = null
  }

  show(sheet: InkSheet, view: View): void {
    const before = this.#view === view && this.#sheet && isBegunBy(this.#sheet, sheet)
    const from = before ? this.#sheet!.things.length : 0
    if (!before) {
      wipe(this.#canvas)
      layUnder(this.#canvas, view)
      paintPaper(this.#canvas, sheet)
    }
    layUnder(this.#canvas, view)
    this.#canvas.save()
    onSheetOnly(this.#canvas, sheet)
    for (const thing of sheet.things.slice(from))
      paint(this.#canvas, showThing(thing), this.#pictureOf)
    this.#canvas.restore()
    this.#sheet = sheet
    this.#view = view
  }
}

/** Round what is chosen. `turn`, `size`, `pointer`: where it is taken hold of; null where it is not. */
export type Frame = {
  corners: readonly At[]
  turn: At | null
  size: At | null
  pointer: At | null
}
const HOLD_PX = 14
const FRAME = { dark: '#54284F', light: '#FFFFFF' }

/** @param scale - px a unit: a frame is as wide on every screen. */
export function paintFrame(canvas: Canvas, { corners, turn, size, pointer }: Frame, scale: number) {
  const px = 1 / scale
  canvas.lineJoin = 'round'
  const edge = (colour: string, width: number, dashes: number[]) => {
    canvas.strokeStyle = colour
    canvas.lineWidth = width * px
    canvas.setLineDash(dashes.map((dash) => dash * px))
    canvas.beginPath()
    for (const { x, y } of corners) canvas.lineTo(x, y)
    canvas.closePath()
    canvas.stroke()
    canvas.setLineDash([])
  }
  edge(FRAME.light, 5, [])
  edge(FRAME.dark, 3, [9, 7])
  const hold = (at: At, fill: string) => {
    canvas.beginPath()
    canvas.arc(at.x, at.y, HOLD_PX * px, 0, 2 * Math.PI)
    canvas.fillStyle = fill
    canvas.fill()
    canvas.strokeStyle = FRAME.dark
    canvas.lineWidth = 4 * px
    canvas.stroke()
  }
  if (turn) hold(turn, FRAME.light)
  if (size) hold(size, FRAME.dark)
  if (pointer) hold(pointer, '#FBEBD0')
}
