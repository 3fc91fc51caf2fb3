import fc from 'fast-check'
import { project, type Quad } from './projective.ts'
import { resample, type Rgba } from './resample.ts'
import { planTidying } from './planTidying.ts'
import { AS_IT_WAS, isAsItWas, turnQuarter, type Tidying } from './tidying.ts'

const picture = (width: number, height: number): Rgba => {
  const data = new Uint8ClampedArray(width * height * 4)
  for (let i = 0; i < width * height; i++)
    data.set([(i * 7) % 256, (i * 13) % 256, (i * 29) % 256, 255], i * 4)
  return { data, width, height }
}
const tidied = (original: Rgba, tidying: Tidying) =>
  resample(original, planTidying(original, tidying))

test('as it was is as it was, pixel for pixel', () => {
  const original = picture(31, 17)
  expect(tidied(original, AS_IT_WAS)).toEqual(original)
  expect(isAsItWas(AS_IT_WAS)).toBe(true)
  expect(isAsItWas({ ...AS_IT_WAS, quarters: 1 })).toBe(false)
})

test('a quarter turn takes the first row down the right-hand side; four make none', () => {
  const original = picture(5, 3)
  const once = tidied(original, turnQuarter(AS_IT_WAS))
  expect([once.width, once.height]).toEqual([3, 5])
  const pixel = ({ data, width }: Rgba, x: number, y: number) => [
    ...data.slice((y * width + x) * 4, (y * width + x) * 4 + 3),
  ]
  for (let x = 0; x < 5; x++) expect(pixel(once, 2, x)).toEqual(pixel(original, x, 0))
  const round = [1, 2, 3, 4].reduce(turnQuarter, AS_IT_WAS)
  expect(round).toEqual(AS_IT_WAS)
})

test('a trimmed rectangle keeps to the same part of the picture when it is turned', () => {
  const original = picture(40, 20)
  const trimmed: Tidying = { ...AS_IT_WAS, trim: { left: 0.25, top: 0.5, right: 0.75, bottom: 1 } }
  const [before, after] = [tidied(original, trimmed), tidied(original, turnQuarter(trimmed))]
  expect([before.width, before.height]).toEqual([20, 10])
  const turnedAfterwards = tidied(before, turnQuarter(AS_IT_WAS))
  expect(after).toEqual(turnedAfterwards)
})

test('turning a little leaves no empty corner, and keeps the proportions', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 200, max: 4000 }),
      fc.integer({ min: 200, max: 4000 }),
      fc.double({ min: -15, max: 15, noNaN: true }),
      (width, height, degrees) => {
        const plan = planTidying({ width, height }, { ...AS_IT_WAS, degrees })
        for (const corner of [
          [0, 0],
          [plan.width, 0],
          [plan.width, plan.height],
          [0, plan.height],
        ] as const) {
          const { x, y } = project(plan.toOriginal, { x: corner[0], y: corner[1] })
          expect(x).toBeGreaterThan(-2)
          expect(y).toBeGreaterThan(-2)
          expect(x).toBeLessThan(width + 2)
          expect(y).toBeLessThan(height + 2)
        }
        expect(plan.width / plan.height / (width / height)).toBeCloseTo(1, 1)
      },
    ),
  )
})

test('a preview shows the same as the full picture, only smaller', () => {
  const recipe: Tidying = {
    ...AS_IT_WAS,
    degrees: 5,
    trim: { left: 0.1, top: 0.1, right: 0.8, bottom: 0.9 },
  }
  const [full, preview] = [
    planTidying({ width: 4000, height: 3000 }, recipe),
    planTidying({ width: 4000, height: 3000 }, recipe, 900),
  ]
  expect(Math.max(preview.width, preview.height)).toBe(900)
  const middle = project(preview.toOriginal, { x: preview.width / 2, y: preview.height / 2 })
  const fullMiddle = project(full.toOriginal, { x: full.width / 2, y: full.height / 2 })
  expect(middle.x).toBeCloseTo(fullMiddle.x, 3)
  expect(middle.y).toBeCloseTo(fullMiddle.y, 3)
})

test('made in strips, a picture is the same', () => {
  const original = picture(60, 50)
  const plan = planTidying(original, { ...AS_IT_WAS, degrees: -7 })
  const whole = resample(original, plan)
  const strips = [0, 10, 20, 30, 40].map(
    (from) => resample(original, plan, { from, to: Math.min(plan.height, from + 10) }).data,
  )
  expect(Uint8ClampedArray.from(strips.flatMap((strip) => [...strip]))).toEqual(whole.data)
})

test('corners that cross are refused with a sentence', () => {
  const corners: Quad = [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ]
  expect(() => planTidying({ width: 100, height: 100 }, { ...AS_IT_WAS, corners })).toThrow(
    'do not go round a page',
  )
})
