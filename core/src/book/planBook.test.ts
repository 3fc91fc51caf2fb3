import fc from 'fast-check'
import { layOutPhotos, pageOfPiece, planBook } from './planBook.ts'

test.each([
  { pieces: 0, total: 2 },
  { pieces: 1, total: 3 },
  { pieces: 26, total: 28 },
  { pieces: 27, total: 30 },
  // One piece, one page: 127 pieces make 127 pages (common practice, no source), beside the cover
  // and five of contents.
  { pieces: 127, total: 127 + 1 + 5 },
])('$pieces pieces make a book of $total pages', ({ pieces, total }) => {
  expect(planBook(Array.from({ length: pieces }, () => 1)).totalPages).toBe(total)
})

test('pieces follow each other without a gap, and the last ends on the last page', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 300 }),
      (pages) => {
        const plan = planBook(pages)
        pages.forEach((count, i) =>
          expect(pageOfPiece(plan, i) + count).toBe(
            i + 1 < pages.length ? pageOfPiece(plan, i + 1) : plan.totalPages + 1,
          ),
        )
      },
    ),
  )
})

test('one photo is as large as the space allows', () => {
  expect(
    layOutPhotos([{ width: 400, height: 300 }], { x: 10, y: 20, width: 200, height: 600 }),
  ).toEqual([{ x: 10, y: 20, width: 200, height: 150 }])
})

test('photos keep their shape, stay in their space and do not overlap', () => {
  const size = fc.record({
    width: fc.integer({ min: 50, max: 5000 }),
    height: fc.integer({ min: 50, max: 5000 }),
  })
  const space = { x: 30, y: 40, width: 480, height: 360 }
  fc.assert(
    fc.property(fc.array(size, { minLength: 1, maxLength: 30 }), (photos) => {
      const boxes = layOutPhotos(photos, space)
      expect(boxes).toHaveLength(photos.length)
      boxes.forEach((box, i) => {
        const photo = photos[i]!
        expect(box.width / box.height).toBeCloseTo(photo.width / photo.height, 5)
        expect(box.x).toBeGreaterThanOrEqual(space.x - 1e-6)
        expect(box.y).toBeGreaterThanOrEqual(space.y - 1e-6)
        expect(box.x + box.width).toBeLessThanOrEqual(space.x + space.width + 1e-6)
        expect(box.y + box.height).toBeLessThanOrEqual(space.y + space.height + 1e-6)
        for (const other of boxes.slice(i + 1)) {
          const apart =
            other.x >= box.x + box.width - 1e-6 ||
            other.x + other.width <= box.x + 1e-6 ||
            other.y >= box.y + box.height - 1e-6 ||
            other.y + other.height <= box.y + 1e-6
          expect(apart).toBe(true)
        }
      })
    }),
  )
})
