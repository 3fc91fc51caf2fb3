import { fireEvent, screen } from '@testing-library/react'
import { ProblemError } from '../kit/problems'
import { show } from '../testing'
import { SecretPad } from './SecretPad'

const PEG = { symbol: 'fish', colour: 'sea' } as const
const refusal = (retryAfterSeconds: number) =>
  new ProblemError({
    type: '/problems/accounts/secret-wrong',
    title: 'Those are not your three pictures.',
    status: 401,
    retryAfterSeconds,
  })
const pad = (error: Error | null, onSecret = jest.fn()) => {
  show(
    <SecretPad
      peg={PEG}
      name="Wren"
      busy={false}
      error={error}
      onSecret={onSecret}
      onLeave={() => undefined}
    />,
    {},
  )
  return onSecret
}
const tap = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

test('the third picture opens, with the three in the order they were tapped', () => {
  const onSecret = pad(null)
  for (const picture of ['moon', 'cat', 'moon']) tap(picture)
  expect(onSecret.mock.calls).toEqual([[['moon', 'cat', 'moon']]])
})

test('what was tapped cannot be read by those who look on', () => {
  pad(null)
  tap('moon')
  expect(screen.getByRole('img', { name: 'Picture 1' }).textContent).toBe('1')
})

test('beginning again forgets what was tapped', () => {
  const onSecret = pad(null)
  tap('moon')
  tap('Begin again')
  for (const picture of ['key', 'hat', 'bell']) tap(picture)
  expect(onSecret.mock.calls).toEqual([[['key', 'hat', 'bell']]])
})

test('a peg that waits says how long, and takes no pictures meanwhile', async () => {
  const onSecret = pad(refusal(30))
  expect((await screen.findByRole('alert')).textContent).toContain('Try again in 30 seconds.')
  tap('moon')
  tap('moon')
  tap('moon')
  expect(onSecret).not.toHaveBeenCalled()
})
