import fc from 'fast-check'
import { displayOf, halfWidthAt, halfWidthOf, lineOutline, type ShownPath } from './display.ts'
import { emptySheet, NIB_WIDTHS, PAPERS, SHEET_SIZE, type Pen, type Thing } from './document.ts'
import { packPoints, type Point } from './points.ts'
import { inkToSvg } from './svg.ts'

const PEN: Pen = { ink: ['sea'], water: 0, edge: null, width: 90 }
const sheetOf = (...things: Thing[]) => ({ ...emptySheet('s'), things })
const numbersIn = (path: string) => [...path.matchAll(/-?\d+(\.\d+)?/g)].map(([one]) => Number(one))
const aLine: fc.Arbitrary<Point[]> = fc.array(
  fc.record({
    x: fc.integer({ min: 2000, max: 20_000 }),
    y: fc.integer({ min: 2000, max: 16_000 }),
    timeMs: fc.constant(0),
    pressure: fc.integer({ min: 0, max: 255 }).map((of) => of / 255),
  }),
  { minLength: 1, maxLength: 40 },
)

test('the outline of a line stays within half its width of where the hand was', () => {
  fc.assert(
    fc.property(aLine, fc.constantFrom(...NIB_WIDTHS), (line, width) => {
      const numbers = numbersIn(lineOutline(line, width))
      expect(numbers.length).toBeGreaterThan(4)
      // Of two points the library makes more, half pressed.
      const half = Math.max(halfWidthOf(width, line), halfWidthAt(width, 0.5)) + 3
      const beyond = (places: number[], from: number[]) => {
        expect(Math.min(...places)).toBeGreaterThanOrEqual(Math.min(...from) - half)
        expect(Math.max(...places)).toBeLessThanOrEqual(Math.max(...from) + half)
      }
      beyond(
        numbers.filter((_, i) => i % 2 === 0),
        line.map(({ x }) => x),
      )
      beyond(
        numbers.filter((_, i) => i % 2 === 1),
        line.map(({ y }) => y),
      )
    }),
  )
})

test('things lie in the order they were put down, above the paper', () => {
  const points = packPoints([
    { x: 100, y: 100, timeMs: 0, pressure: 0.5 },
    { x: 900, y: 100, timeMs: 9, pressure: 0.5 },
    { x: 900, y: 900, timeMs: 19, pressure: 0.5 },
  ])
  const sheet = {
    ...sheetOf(
      { kind: 'patch', id: 'a', pen: { ...PEN, ink: ['moss'], water: 2 }, points },
      { kind: 'line', id: 'b', pen: { ...PEN, edge: ['soot'] }, points },
      {
        kind: 'ruled',
        id: 'c',
        pen: { ...PEN, edge: ['soot'] },
        shape: 'circle',
        from: { x: 5000, y: 5000 },
        to: { x: 5300, y: 5400 },
      },
    ),
    paper: 'squared' as const,
  }
  const [paper, patch, line, edge, circle] = displayOf(sheet)
  expect(paper).toMatchObject({ fill: null, cover: 1 })
  expect(patch).toEqual({
    path: 'M100 100L900 100L900 900Z',
    fill: '#5F6B2D',
    line: null,
    cover: 0.4,
  })
  expect(line).toMatchObject({ fill: '#2F5E8C', line: { colour: '#2B2118', width: 25 } })
  expect(edge).toMatchObject({ fill: null, line: { colour: '#2B2118', width: 115 } })
  // Three and four make five: the radius is 500 units, 5 mm.
  expect(circle).toEqual({
    path: 'M4500 5000A500 500 0 1 1 5500 5000A500 500 0 1 1 4500 5000Z',
    fill: null,
    line: { colour: '#2F5E8C', width: 90 },
    cover: 1,
  })
})

test.each(PAPERS)('%s paper is printed within the sheet’s height', (paper) => {
  const lines = displayOf({ ...emptySheet('s'), paper })
  expect(lines.length > 0).toBe(paper !== 'plain')
  for (const { path } of lines as ShownPath[]) {
    const ys = numbersIn(path).filter((_, i) => i % 2 === 1)
    expect(Math.min(...ys)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...ys)).toBeLessThanOrEqual(SHEET_SIZE.height)
  }
})

test('a square is a centimetre, and a sheet as a picture says its real size', () => {
  const [squares] = displayOf({ ...emptySheet('s'), paper: 'squared' }) as ShownPath[]
  const downs = [...squares!.path.matchAll(/M(\d+) 0L/g)].map(([, x]) => Number(x))
  expect(new Set(downs.slice(1).map((x, i) => x - downs[i]!))).toEqual(new Set([1000]))
  const svg = inkToSvg({ ...emptySheet('s'), paper: 'squared' })
  expect(svg).toMatch(/^<svg xmlns="[^"]+" width="160mm" height="120mm" viewBox="0 0 16000 12000">/)
})

test('a picture lies round its middle, turned; one that is not to be had is grey', () => {
  const picture: Thing = {
    ...{ kind: 'picture', id: 'p', mediaId: 'crab', at: { x: 8000, y: 6000 }, turn: 30 },
    ...{ width: 4000, height: 3000, locked: false },
  }
  const place =
    'x="-2000" y="-1500" width="4000" height="3000" transform="translate(8000 6000) rotate(30)"'
  expect(inkToSvg(sheetOf(picture), { hrefOf: (id) => `/${id}.jpg` })).toContain(
    `<image ${place} preserveAspectRatio="none" href="/crab.jpg"/>`,
  )
  expect(inkToSvg(sheetOf(picture))).toContain(`<rect ${place} fill="#E5DCCB"/>`)
})
