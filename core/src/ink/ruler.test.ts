import { measureOf, snapRuler } from './ruler.ts'

const at = (x: number, y: number) => ({ x, y })

test.each([
  ['a hand near five centimetres means five', at(4930, 40), at(5000, 0)],
  ['and near two and a half, upwards', at(30, -2560), at(0, -2500)],
  ['near forty-five degrees it means forty-five', at(2860, -2800), at(2828, -2828)],
  ['far from any mark it means what it says', at(4730, -900), at(4730, -900)],
])('%s', (_why, to, snapped) => {
  expect(snapRuler('line', at(0, 0), to)).toEqual(snapped)
})

test('a circle snaps in its radius and lets the hand be where it is', () => {
  const to = snapRuler('circle', at(0, 0), at(1900, 700))
  expect(measureOf({ from: at(0, 0), to }).cm).toBe(2)
  expect(to.y / to.x).toBeCloseTo(700 / 1900, 2)
})

test.each([
  [at(6500, 0), { cm: 6.5, degrees: 0 }],
  [at(-6500, 0), { cm: 6.5, degrees: 0 }],
  [at(0, -1000), { cm: 1, degrees: 90 }],
  [at(3000, -4000), { cm: 5, degrees: 53 }],
  // The same line from its other end.
  [at(-3000, 4000), { cm: 5, degrees: 53 }],
])('to %j it says %j', (to, said) => {
  expect(measureOf({ from: at(0, 0), to })).toEqual(said)
})
