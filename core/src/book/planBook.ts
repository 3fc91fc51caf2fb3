/** Whom a book is made for: `home`, what the family may see; `school`, everything approved. */
export const BOOK_FOR = ['home', 'school'] as const
export type BookFor = (typeof BOOK_FOR)[number]

/** How many pieces one page of contents lists at a size a grandparent reads without glasses. */
export const CONTENTS_LINES = 26

export type BookPlan = {
  coverPages: number
  contentsPages: number
  /** How many pages each piece has. */
  piecePages: readonly number[]
  totalPages: number
}

/**
 * How long a book will be, known before it is made: a cover, its contents, and the pages of each
 * piece; one page, unless something written goes on.
 * @param piecePages - One number a piece, each 1 or more.
 */
export function planBook(piecePages: readonly number[]): BookPlan {
  const contentsPages = Math.max(1, Math.ceil(piecePages.length / CONTENTS_LINES))
  return {
    coverPages: 1,
    contentsPages,
    piecePages,
    totalPages: 1 + contentsPages + piecePages.reduce((sum, pages) => sum + pages, 0),
  }
}

/**
 * The page a piece begins on, printed at its foot and in the contents.
 * @param index - Place among the pieces, from 0.
 */
export function pageOfPiece(plan: BookPlan, index: number): number {
  const before = plan.piecePages.slice(0, index).reduce((sum, pages) => sum + pages, 0)
  return plan.coverPages + plan.contentsPages + before + 1
}

export type Box = { x: number; y: number; width: number; height: number }

/**
 * Lays the photos of one piece into the space they have, in rows, each as large as its row allows,
 * never cropped.
 * One photo fills the space; two stand side by side or one above the other, whichever shows more of
 * them; more make rows.
 * @param photos - Upright pixel sizes, in order.
 * @param space - In points.
 * @returns One box a photo, in order, inside the space and never overlapping.
 */
export function layOutPhotos(
  photos: readonly { width: number; height: number }[],
  space: Box,
  gap = 12,
): Box[] {
  let best: { boxes: Box[]; area: number } = { boxes: [], area: -1 }
  for (let columns = 1; columns <= Math.min(photos.length, 6); columns++) {
    const boxes = inGrid(photos, space, gap, columns)
    const area = boxes.reduce((sum, box) => sum + box.width * box.height, 0)
    if (area > best.area) best = { boxes, area }
  }
  return best.boxes
}

function inGrid(
  photos: readonly { width: number; height: number }[],
  space: Box,
  gap: number,
  columns: number,
): Box[] {
  const rows = Math.ceil(photos.length / columns)
  const cellWidth = (space.width - gap * (columns - 1)) / columns
  const cellHeight = (space.height - gap * (rows - 1)) / rows
  return photos.map((photo, index) => {
    const scale = Math.min(cellWidth / photo.width, cellHeight / photo.height)
    const width = photo.width * scale
    const height = photo.height * scale
    const left = space.x + (index % columns) * (cellWidth + gap)
    const top = space.y + Math.floor(index / columns) * (cellHeight + gap)
    return {
      x: left + (cellWidth - width) / 2,
      y: top + (rows > 1 ? (cellHeight - height) / 2 : 0),
      width,
      height,
    }
  })
}
