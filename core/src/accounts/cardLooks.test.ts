import fc from 'fast-check'
import { type Grey } from '../media/grey.ts'
import { CARD_LOOKS, lookAt } from './cardLooks.ts'

const picture = (width: number, height: number, at: (x: number, y: number) => number): Grey => ({
  width,
  height,
  data: Uint8ClampedArray.from({ length: width * height }, (_, i) =>
    at(i % width, Math.floor(i / width)),
  ),
})
describe('looks at a picture of a card', () => {
  test('an even page stays even in every look', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 255 }),
        fc.constantFrom(...CARD_LOOKS),
        (shade, look) => {
          const seen = lookAt(
            picture(12, 10, () => shade),
            look,
          )
          expect(new Set(seen.data).size).toBe(1)
        },
      ),
    )
  })

  test.each([
    { look: 'small', width: 5, height: 3 },
    { look: 'large', width: 20, height: 14 },
    { look: 'even', width: 10, height: 7 },
  ] as const)('$look has its own size', ({ look, width, height }) => {
    const seen = lookAt(
      picture(10, 7, (x) => x * 20),
      look,
    )
    expect([seen.width, seen.height, seen.data.length]).toEqual([width, height, width * height])
  })

  test('ink stays ink under a shadow that is darker than ink in the light', () => {
    // Bars of ink (half as bright as the paper) on a page that falls from 250 to 25.
    const page = picture(120, 40, (x) => (250 - x * 1.9) * (x % 8 < 4 ? 1 : 0.5))
    const seen = lookAt(page, 'even')
    const inkAt = (x: number) => seen.data[20 * 120 + x] === 0
    expect(
      [13, 53, 93].map((paper) => [inkAt(paper - (paper % 8) + 1), inkAt(paper - (paper % 8) + 6)]),
    ).toEqual([
      [false, true],
      [false, true],
      [false, true],
    ])
  })
})
