import { forgetOrder, inFrozenOrder } from './frozenOrder'

const pieces = (...ids: string[]) => ids.map((id) => ({ id }))
const order = (...ids: string[]) => inFrozenOrder('wren', pieces(...ids)).map(({ id }) => id)

beforeEach(forgetOrder)

test('what is decided stays where it was; what came since stands last; what went is gone', () => {
  expect(order('a', 'b', 'c')).toEqual(['a', 'b', 'c'])
  expect(order('new', 'b', 'c', 'a')).toEqual(['a', 'b', 'c', 'new'])
  expect(order('c', 'a')).toEqual(['a', 'c'])
})

test('another pupil, or the page again, begins anew', () => {
  order('a', 'b')
  expect(inFrozenOrder('tomasz', pieces('b', 'a')).map(({ id }) => id)).toEqual(['b', 'a'])
  forgetOrder()
  expect(order('b', 'a')).toEqual(['b', 'a'])
})
