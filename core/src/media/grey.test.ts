import fc from 'fast-check'
import { average, double, greyOf, halve, rgbaOf, type Grey } from './grey.ts'

const picture = (width: number, height: number, at: (x: number, y: number) => number): Grey => ({
  width,
  height,
  data: Uint8ClampedArray.from({ length: width * height }, (_, i) =>
    at(i % width, Math.floor(i / width)),
  ),
})
const grey = fc
  .record({
    width: fc.integer({ min: 2, max: 24 }),
    height: fc.integer({ min: 2, max: 24 }),
    seed: fc.integer(),
  })
  .map(({ width, height, seed }) =>
    picture(width, height, (x, y) => Math.abs((x * 7919 + y * 104_729 + seed) % 256)),
  )

describe('pictures in grey', () => {
  test('a neighbourhood’s mean is what adding up by hand gives, also at the edges', () => {
    fc.assert(
      fc.property(grey, fc.integer({ min: 0, max: 6 }), ({ data, width, height }, radius) => {
        const means = average({ data, width, height }, radius)
        for (const [x, y] of [
          [0, 0],
          [width - 1, height - 1],
          [width >> 1, height >> 1],
        ] as const) {
          let [sum, count] = [0, 0]
          for (let j = Math.max(0, y - radius); j <= Math.min(height - 1, y + radius); j++)
            for (let i = Math.max(0, x - radius); i <= Math.min(width - 1, x + radius); i++) {
              sum += data[j * width + i]!
              count++
            }
          expect(Math.abs(means.data[y * width + x]! - sum / count)).toBeLessThanOrEqual(0.5)
        }
      }),
    )
  })

  test('there and back between grey and colour changes nothing', () => {
    fc.assert(fc.property(grey, (one) => expect(greyOf(rgbaOf(one)).data).toEqual(one.data)))
  })

  test('halved after doubling, a picture keeps its size and its mean', () => {
    fc.assert(
      fc.property(grey, (one) => {
        const back = halve(double(one))
        const mean = ({ data }: Grey) => data.reduce((sum, value) => sum + value, 0) / data.length
        expect([back.width, back.height]).toEqual([one.width, one.height])
        expect(Math.abs(mean(back) - mean(one))).toBeLessThan(2)
      }),
    )
  })
})
