import fc from 'fast-check'
import { average, CARD_LOOKS, greyOf, lookAt, rgbaOf, type Grey } from './cardLooks.ts'

const picture = (width: number, height: number, at: (x: number, y: number) => number): Grey => ({
  width,
  height,
  data: Uint8ClampedArray.from({ length: width * height }, (_, i) => at(i % width, Math.floor(i / width))),
})
const grey = fc
  .record({ width: fc.integer({ min: 2, max: 24 }), height: fc.integer({ min: 2, max: 24 }), seed: fc.integer() })
  .map(({ width, height, seed }) => picture(width, height, (x, y) => Math.abs((x * 7919 + y * 104_729 + seed) % 256)))

describe('looks at a picture of a card', () => {
  test('a neighbourhood’s mean is what adding up by hand gives, also at the edges', () => {
    fc.assert(
      fc.property(grey, fc.integer({ min: 0, max: 6 }), ({ data, width, height }, radius) => {
        const means = average({ data, width, height }, radius)
        for (const [x, y] of [[0, 0], [width - 1, height - 1], [width >> 1, height >> 1]] as const) {
          let [sum, count] = [0, 0]
          for (let j = Math.max(0, y - radius); j <= Math.min(height - 1, y + radius); j++)
            for (let i = Math.max(0, x - radius); i <= Math.min(width - 1, x + radius); i++) {
              sum += data[j * width + i]!
              count++
            }
          expect(Math.abs(means.data[y * width + x]! - sum / count)).toBeLessThanOrEqual(0.5)
        } // prettier-ignore
      }),
    )
  })

  test('an even page stays even in every look', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 255 }), fc.constantFrom(...CARD_LOOKS), (shade, look) => {
        const seen = lookAt(picture(12, 10, () => shade), look) // prettier-ignore
        expect(new Set(seen.data).size).toBe(1)
      }),
    )
  })

  test.each([
    { look: 'small', width: 5, height: 3 },
    { look: 'large', width: 20, height: 14 },
    { look: 'even', width: 10, height: 7 },
  ] as const)('$look has its own size', ({ look, width, height }) => {
    const seen = lookAt(picture(10, 7, (x) => x * 20), look) // prettier-ignore
    expect([seen.width, seen.height, seen.data.length]).toEqual([width, height, width * height])
  })

  test('ink stays ink under a shadow that is darker than ink in the light', () => {
    // Bars of ink (half as bright as the paper) on a page that falls from 250 to 25.
    const page = picture(120, 40, (x) => (250 - x * 1.9) * (x % 8 < 4 ? 1 : 0.5))
    const seen = lookAt(page, 'even')
    const inkAt = (x: number) => seen.data[20 * 120 + x] === 0
    expect([13, 53, 93].map((paper) => [inkAt(paper - (paper % 8) + 1), inkAt(paper - (paper % 8) + 6)])).toEqual([
      [false, true],
      [false, true],
      [false, true],
    ])
  })

  test('there and back between grey and colour changes nothing', () => {
    fc.assert(fc.property(grey, (one) => expect(greyOf(rgbaOf(one)).data).toEqual(one.data)))
  })
})
