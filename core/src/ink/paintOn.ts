import type { Shown, ShownPath, ShownPicture } from './display.ts'
import type { InkSheet } from './document.ts'

/** As much of a canvas as is needed to paint a display list: a browser's, or the server's. */
export type Canvas<Path, Picture> = {
  save(): void
  restore(): void
  translate(x: number, y: number): void
  rotate(radians: number): void
  fill(path: Path): void
  stroke(path: Path): void
  fillRect(x: number, y: number, width: number, height: number): void
  drawImage(picture: Picture, x: number, y: number, width: number, height: number): void
  fillStyle: unknown
  strokeStyle: unknown
  lineWidth: number
  lineCap: string
  lineJoin: string
  globalAlpha: number
}

/** What differs from one canvas to another. */
export type Means<Path, Picture> = {
  pathOf: (shown: ShownPath) => Path
  /** A picture that lies on a sheet; null while it is not here. */
  pictureOf: (mediaId: string) => Picture | null
  /** Paints on a canvas laid as this one, and that upon this one, let through as said. */
  aside: (paintThere: (canvas: Canvas<Path, Picture>) => void, cover: number) => void
}

/** Stands where a picture will be. */
const NO_PICTURE = '#E5DCCB'

/** Paints a display list, lowest first. The sheet is laid under already. */
export function paintOn<Path, Picture>(
  canvas: Canvas<Path, Picture>,
  list: readonly Shown[],
  means: Means<Path, Picture>,
): void {
  for (const shown of list) {
    if ('picture' in shown) paintPicture(canvas, shown, means.pictureOf(shown.picture))
    // Fill and edge together let through what lies below: not each of them by itself.
    else if (shown.cover < 1 && shown.fill && shown.line)
      means.aside((there) => paintOne(there, shown, 1, means), shown.cover)
    else paintOne(canvas, shown, shown.cover, means)
  }
}

function paintPicture<Path, Picture>(
  canvas: Canvas<Path, Picture>,
  { at, turn, width, height }: ShownPicture,
  picture: Picture | null,
): void {
  canvas.save()
  canvas.translate(at.x, at.y)
  canvas.rotate((turn * Math.PI) / 180)
  if (picture) canvas.drawImage(picture, -width / 2, -height / 2, width, height)
  else {
    canvas.fillStyle = NO_PICTURE
    canvas.fillRect(-width / 2, -height / 2, width, height)
  }
  canvas.restore()
}

function paintOne<Path, Picture>(
  canvas: Canvas<Path, Picture>,
  shown: ShownPath,
  cover: number,
  { pathOf }: Means<Path, Picture>,
): void {
  const path = pathOf(shown)
  canvas.globalAlpha = cover
  if (shown.fill) {
    canvas.fillStyle = shown.fill
    canvas.fill(path)
  }
  if (shown.line) {
    canvas.strokeStyle = shown.line.colour
    canvas.lineWidth = shown.line.width
    canvas.lineCap = canvas.lineJoin = 'round'
    canvas.stroke(path)
  }
  canvas.globalAlpha = 1
}

/** Whether a sheet is another with more on top of it: only that has to be painted. */
export const isBegunBy = (before: InkSheet, now: InkSheet): boolean =>
  before.id === now.id &&
  before.paper === now.paper &&
  before.things.length <= now.things.length &&
  before.things.every((thing, i) => thing === now.things[i])
