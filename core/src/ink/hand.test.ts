import fc from 'fast-check'
import { Hand } from './hand.ts'

const drawn = (speed: number) => {
  const hand = new Hand()
  for (let i = 0; i < 40; i++)
    hand.add({ x: i * 16 * speed, y: 0, timeMs: 1000 + i * 16, pressure: null })
  return hand.points
}

test('time begins with the line', () => {
  expect(
    drawn(1)
      .slice(0, 2)
      .map(({ timeMs }) => timeMs),
  ).toEqual([0, 16])
})
test('a hurried line is thinner than a slow one, and never jumps', () => {
  const [slow, fast] = [drawn(1), drawn(60)]
  expect(slow.at(-1)!.pressure).toBeGreaterThan(0.6)
  expect(fast.at(-1)!.pressure).toBeLessThan(0.4)
  for (const [i, { pressure }] of fast.entries())
    if (i > 0) expect(Math.abs(pressure - fast[i - 1]!.pressure)).toBeLessThan(0.08)
})
test('what a device feels is taken as it is', () => {
  const hand = new Hand()
  hand.add({ x: 0, y: 0, timeMs: 0, pressure: 0.9 })
  hand.add({ x: 5000, y: 0, timeMs: 1, pressure: 0.1 })
  expect(hand.points.map(({ pressure }) => pressure)).toEqual([0.9, 0.1])
})
test('a hand that rests, or a clock that goes back, adds nothing; pressure stays between 0 and 1', () => {
  const sample = fc.record({
    ...{ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -500, max: 500 }) },
    ...{ timeMs: fc.nat(5000), pressure: fc.constant(null) },
  })
  fc.assert(
    fc.property(fc.array(sample), (samples) => {
      const hand = new Hand()
      samples.forEach((one) => hand.add(one))
      for (const [i, point] of hand.points.entries()) {
        expect(point.pressure).toBeGreaterThanOrEqual(0)
        expect(point.pressure).toBeLessThanOrEqual(1)
        const last = hand.points[i - 1]
        if (!last) continue
        expect(point.timeMs).toBeGreaterThanOrEqual(last.timeMs)
        expect([point.x, point.y]).not.toEqual([last.x, last.y])
      }
    }),
  )
})
