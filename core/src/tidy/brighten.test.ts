import { brighten, looksLikePage, planBrighten } from './brighten.ts'
import type { Rgba } from './resample.ts'

const WIDTH = 640
const HEIGHT = 480

/** Cream paper with pencil lines and a painted patch, under light of a known shape. */
function page(light: (x: number, y: number) => number): Rgba {
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * 4)
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const shine = light(x / WIDTH, y / HEIGHT)
      const colour = isPencil(x, y) ? PENCIL : isPaint(x, y) ? PAINT : PAPER
      const at = (y * WIDTH + x) * 4
      for (let channel = 0; channel < 3; channel++) data[at + channel] = colour[channel]! * shine
      data[at + 3] = 255
    }
  return { data, width: WIDTH, height: HEIGHT }
}
const [PENCIL, PAINT, PAPER] = [
  [70, 66, 64],
  [160, 60, 50],
  [238, 230, 214],
]
const isPencil = (x: number, y: number) => y % 40 < 3 && x > 60 && x < 580
const isPaint = (x: number, y: number) => (x - 330) ** 2 + (y - 250) ** 2 < 55 ** 2

const GRADIENTS = {
  'from bright to half as bright': (x: number) => 1 - 0.55 * x,
  'a lamp in one corner': (x: number, y: number) => 0.35 + 0.65 * Math.exp(-2 * (x * x + y * y)),
  'a soft shadow across the middle': (x: number) => 1 - 0.45 / (1 + Math.exp(-(x - 0.5) * 14)),
}

/** Standard deviation over mean of the bare paper's brightness: 0 is perfectly even. */
function unevenness({ data }: Rgba): number {
  const values: number[] = []
  for (let y = 0; y < HEIGHT; y += 3)
    for (let x = 0; x < WIDTH; x += 3)
      if (!isPencil(x, y) && !isPaint(x, y) && !isPencil(x, y - 2) && !isPencil(x, y + 2))
        values.push(data[(y * WIDTH + x) * 4 + 1]!)
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length
  return (
    Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length) / mean
  )
}
const brightened = (picture: Rgba, way: 'page' | 'scene', strength: number): Rgba => {
  const copy = { ...picture, data: picture.data.slice() }
  brighten(copy, planBrighten(picture, way, strength))
  return copy
}
/** Told by the runtime at once, where the test runner would compare number by number. */
const isSame = (a: Uint8ClampedArray, b: Uint8ClampedArray): boolean =>
  Buffer.from(a).equals(Buffer.from(b))
const pixel = ({ data }: Rgba, x: number, y: number) => [
  ...data.slice((y * WIDTH + x) * 4, (y * WIDTH + x) * 4 + 3),
]

test.each(Object.entries(GRADIENTS))('a page lit %s is even afterwards, and white', (_, light) => {
  const before = page(light)
  const after = brightened(before, 'page', 1)
  expect(unevenness(before)).toBeGreaterThan(0.1)
  expect(unevenness(after)).toBeLessThan(0.035)
  for (const [x, y] of [
    [20, 20],
    [620, 20],
    [20, 460],
    [620, 460],
  ] as const) {
    const [r, g, b] = pixel(after, x, y) as [number, number, number]
    expect(Math.min(r, g, b)).toBeGreaterThan(220)
  }
})

test('pencil stays dark and paint stays red, in the light and in the shade', () => {
  const after = brightened(page(GRADIENTS['from bright to half as bright']), 'page', 1)
  for (const x of [80, 320, 560]) expect(Math.max(...pixel(after, x, 81))).toBeLessThan(90)
  const [r, g, b] = pixel(after, 330, 250) as [number, number, number]
  expect(r).toBeGreaterThan(g + 70)
  expect(r).toBeGreaterThan(b + 70)
})

test('a sea painted right across the foot of the page stays a sea', () => {
  const sea = page(GRADIENTS['from bright to half as bright'])
  for (let y = 380; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const shine = 1 - 0.55 * (x / WIDTH)
      for (const [channel, value] of [70, 110, 160].entries())
        sea.data[(y * WIDTH + x) * 4 + channel] = value * shine
    }
  const after = brightened(sea, 'page', 1)
  for (const x of [10, 320, 630]) {
    const [r, , b] = pixel(after, x, 460) as [number, number, number]
    expect(b - r).toBeGreaterThan(45)
    expect(r).toBeLessThan(150)
  }
})

test('strength none changes nothing, and more goes further', () => {
  const before = page(GRADIENTS['a lamp in one corner'])
  expect(isSame(brightened(before, 'page', 0).data, before.data)).toBe(true)
  const steps = [0, 0.35, 0.7, 1].map((strength) =>
    unevenness(brightened(before, 'page', strength)),
  )
  expect([...steps].sort((a, b) => b - a)).toEqual(steps)
})

test('a dark scene is lifted gently: colours keep their proportions, nothing that was told apart becomes one', () => {
  const dark: Rgba = page(() => 0.3)
  const after = brightened(dark, 'scene', 1)
  const [before, lifted] = [pixel(dark, 330, 250), pixel(after, 330, 250)] as [number[], number[]]
  expect(lifted[0]).toBeGreaterThan(before[0]! * 1.15)
  expect(lifted[0]! / lifted[1]!).toBeCloseTo(before[0]! / before[1]!, 0)
  expect(pixel(after, 20, 20)[0]).toBeGreaterThan(pixel(after, 80, 81)[0]! + 60)
})

test('a preview plans for the full picture: made in strips it is the same', () => {
  const before = page(GRADIENTS['a lamp in one corner'])
  const plan = planBrighten(before, 'page', 1)
  const whole = brightened(before, 'page', 1)
  const upper: Rgba = { data: before.data.slice(0, WIDTH * 200 * 4), width: WIDTH, height: 200 }
  const lower: Rgba = {
    data: before.data.slice(WIDTH * 200 * 4),
    width: WIDTH,
    height: HEIGHT - 200,
  }
  brighten(upper, plan, { from: 0, of: HEIGHT })
  brighten(lower, plan, { from: 200, of: HEIGHT })
  expect(isSame(upper.data, whole.data.subarray(0, upper.data.length))).toBe(true)
  expect(isSame(lower.data, whole.data.subarray(upper.data.length))).toBe(true)
})

test('a lit page looks like a page; a dark or many-coloured scene does not', () => {
  expect(looksLikePage(page(GRADIENTS['from bright to half as bright']))).toBe(true)
  const many: Rgba = {
    data: new Uint8ClampedArray(WIDTH * HEIGHT * 4),
    width: WIDTH,
    height: HEIGHT,
  }
  for (let i = 0; i < WIDTH * HEIGHT; i++)
    many.data.set([(i * 31) % 256, (i * 17) % 90, (i * 7) % 200, 255], i * 4)
  expect(looksLikePage(many)).toBe(false)
})
