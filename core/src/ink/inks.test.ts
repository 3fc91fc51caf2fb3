import {
  colourOf,
  contrastOf,
  isFaint,
  laidOver,
  luminanceOf,
  WELL_NAMES,
  WELLS,
  type Ink,
} from './inks.ts'
import { mixPigments } from './spectral.ts'

test('the library mixes as its own published examples say', () => {
  const mixed = (...colours: string[]) => mixPigments(colours.map((colour) => [colour, 1]))
  // spectral.js 3.0.0, README, "Usage".
  expect(mixed('#002185', '#FCD200')).toBe('#3D933E')
  expect(mixed('#FCF046', '#E53166', '#3375DA')).toBe('#8D7964')
})

test('blue and yellow make green, whichever drop falls first', () => {
  expect(colourOf(['sea', 'straw'])).toBe('#6D9C5C')
  expect(colourOf(['straw', 'sea'])).toBe('#6D9C5C')
})

test.each(WELL_NAMES)('%s alone stays as it is, however many drops', (well) => {
  expect(colourOf([well])).toBe(WELLS[well])
  expect(colourOf([well, well, well])).toBe(WELLS[well])
})

test('chalk is the lightest of all, mixed or not, and lightens what it falls into', () => {
  for (const well of WELL_NAMES.filter((name) => name !== 'chalk')) {
    expect(luminanceOf(WELLS.chalk)).toBeGreaterThan(luminanceOf(WELLS[well]))
    expect(luminanceOf(colourOf([well, 'chalk']))).toBeGreaterThan(luminanceOf(WELLS[well]))
    expect(luminanceOf(colourOf([well, 'chalk']))).toBeLessThan(luminanceOf(WELLS.chalk))
  }
})

test.each([[['clay', 'verdigris']], [['ochre', 'indigo']], [['heather', 'moss']]] as Ink[][])(
  'complementary inks go dull and dark: %j',
  (ink) => {
    const spread = (colour: string) => {
      const channels = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16))
      return Math.max(...channels) - Math.min(...channels)
    }
    const mixed = colourOf(ink)
    expect(spread(mixed)).toBeLessThan(Math.max(...ink.map((well) => spread(WELLS[well]))))
    expect(luminanceOf(mixed)).toBeLessThan(
      Math.max(...ink.map((well) => luminanceOf(WELLS[well]))),
    )
  },
)

test.each([
  // WCAG 2.2: black on white is 21 to 1; #767676 is the lightest grey at 4.5 to 1 on white.
  ['#000000', '#FFFFFF', 21],
  ['#FFFFFF', '#FFFFFF', 1],
  ['#767676', '#FFFFFF', 4.54],
])('contrast of %s on %s is %f', (one, other, ratio) => {
  expect(contrastOf(one, other)).toBeCloseTo(ratio, 2)
  expect(contrastOf(other, one)).toBeCloseTo(ratio, 2)
})

test('half of an ink over white is half way to white', () => {
  expect(laidOver('#000000', '#FFFFFF', 0.5)).toBe('#808080')
  expect(laidOver('#2F5E8C', '#FFFFFF', 1)).toBe('#2F5E8C')
})

test('what hardly shows is told: straw and chalk, and dark inks with much water', () => {
  const faint = WELL_NAMES.filter((well) => isFaint([well], 0))
  expect(faint).toEqual(['straw', 'chalk'])
  expect(isFaint(['soot'], 2)).toBe(true)
  expect(isFaint(['soot'], 1)).toBe(false)
})
