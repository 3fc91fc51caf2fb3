import { average, type Grey } from './grey.ts'
import { photoFault } from './photoFaults.ts'

const picture = (at: (x: number, y: number) => number): Grey => ({
  width: 320,
  height: 240,
  data: Uint8ClampedArray.from({ length: 320 * 240 }, (_, i) => at(i % 320, Math.floor(i / 320))),
})
/** A page of ruled writing on a table: paper 230, ink 60. */
const page = picture((x, y) =>
  x > 60 && x < 260 && y > 30 && y < 210 ? (y % 12 < 2 && (x * 7 + y) % 11 < 8 ? 60 : 230) : 150,
)
const blur = (grey: Grey, times: number): Grey =>
  times === 0 ? grey : blur(average(grey, 3), times - 1)
const dim = (grey: Grey, share: number): Grey => ({
  ...grey,
  data: grey.data.map((value) => value * share),
})

test.each([
  { what: 'a sharp page on a smooth table', grey: page, fault: null },
  { what: 'the same in a dim room', grey: dim(page, 0.5), fault: null },
  { what: 'a lens under a thumb', grey: picture((x, y) => 6 + ((x * y) % 9)), fault: 'black' },
  { what: 'a page that was moved', grey: blur(page, 3), fault: 'blurred' },
  { what: 'nothing but a wall', grey: picture((x) => 120 + x / 20), fault: 'blurred' },
])('$what: $fault', ({ grey, fault }) => expect(photoFault(grey)).toBe(fault))

test('blurring more never makes a photo sharp again', () => {
  const faults = [0, 1, 2, 3, 4, 5].map((times) => photoFault(blur(page, times)))
  expect(faults.lastIndexOf(null)).toBeLessThan(faults.indexOf('blurred'))
})
