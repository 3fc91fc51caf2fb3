import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { NoticesFor } from './NoticesFor'

const notice = (n: number, seen: boolean) => ({
  id: ID(n),
  classId: ID(90),
  className: 'Heron',
  audience: 'class',
  words: `Notice ${n}`,
  media: [],
  from: 'Mr Adeyemi',
  createdAt: '2026-11-01T10:00:00.000Z',
  seen,
  seenBy: null,
})

test('a pupil sees what is new, and it goes once it is seen', async () => {
  const asked = show(<NoticesFor title="From my teacher" keepSeen={false} />, {
    'GET /notices': [notice(1, false), notice(2, true)],
    'POST /notices': { done: true },
  })
  expect(await screen.findByText('Notice 1')).toBeTruthy()
  expect(screen.queryByText('Notice 2')).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'I have seen it' }))
  await waitFor(() =>
    expect(
      asked.some(({ method, path }) => method === 'POST' && path === `/notices/${ID(1)}/seen`),
    ).toBe(true),
  )
})

test('a parent keeps what was seen', async () => {
  show(<NoticesFor title="From the school" keepSeen />, { 'GET /notices': [notice(2, true)] })
  expect(await screen.findByText('Notice 2')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'I have seen it' })).toBeNull()
})

test('with nothing to say there is nothing', async () => {
  const asked = show(<NoticesFor title="From my teacher" keepSeen={false} />, {
    'GET /notices': [],
  })
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(screen.queryByRole('region')).toBeNull()
})
