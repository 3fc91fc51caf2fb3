import { isInside } from './inside.ts'

const point = (x: number, y: number) => ({ x, y })

test('inside is inside, also of a ring with a dent', () => {
  const dented = [point(0, 0), point(100, 0), point(100, 100), point(50, 20), point(0, 100)]
  expect([isInside(dented, { x: 50, y: 10 }), isInside(dented, { x: 50, y: 60 })]).toEqual([
    true,
    false,
  ])
})
