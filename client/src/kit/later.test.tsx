import { fireEvent, screen } from '@testing-library/react'
import { show } from '../testing'
import { laterFrom } from './later'

type Module = {
  Letter: (props: { to: string }) => React.JSX.Element
  Stamp: () => React.JSX.Element
}
const MODULE: Module = {
  Letter: ({ to }) => <p>a letter to {to}</p>,
  Stamp: () => <p>a stamp</p>,
}

test('what is fetched later stands in its place when it comes, and is fetched once', async () => {
  const load = jest.fn(() => Promise.resolve(MODULE))
  const later = laterFrom(load, <p>on its way</p>)
  const [Letter, Stamp] = [later('Letter'), later('Stamp')]
  expect(load).not.toHaveBeenCalled()
  show(<Letter to="Wren" />)
  expect(screen.getByText('on its way')).toBeTruthy()
  expect(await screen.findByText('a letter to Wren')).toBeTruthy()
  show(<Stamp />)
  expect(screen.getByText('a stamp')).toBeTruthy()
  expect(load).toHaveBeenCalledTimes(1)
})

test('what could not be reached is fetched again when asked', async () => {
  let there = false
  const load = jest.fn(() => (there ? Promise.resolve(MODULE) : Promise.reject(new Error('away'))))
  const Stamp = laterFrom(load, null)('Stamp')
  show(<Stamp />)
  const again = await screen.findByRole('button', { name: 'Try again' })
  there = true
  fireEvent.click(again)
  expect(await screen.findByText('a stamp')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Try again' })).toBeNull()
})
