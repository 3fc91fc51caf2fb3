import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { StaffNewsBox } from './StaffNewsBox'

const ITEM = {
  id: ID(1),
  kind: 'name-card',
  by: 'Mrs Okafor',
  about: 'Wren A.',
  className: null,
  happenedAt: '2026-11-01T10:00:00.000Z',
  seen: false,
}

test('what other staff did stands there in a sentence until it was seen', async () => {
  const news: unknown[] = [
    ITEM,
    { ...ITEM, id: ID(2), about: null, className: 'Heron' },
    { ...ITEM, id: ID(3), kind: 'letter-opened', about: 'Bryn A.' },
  ]
  const asked = show(<StaffNewsBox only={new Set([ID(1), ID(2), ID(3)])} />, {
    'GET /notices/news': [...news, { ...ITEM, id: ID(4), about: 'Who came later' }],
    'POST /notices/news/seen': { done: true },
  })
  expect(
    await screen.findByText(
      /^Mrs Okafor made a new name card for Wren A\., .*The old one no longer works\.$/,
    ),
  ).toBeTruthy()
  expect(screen.getByText(/a new name card for everybody in Heron/)).toBeTruthy()
  expect(
    screen.getByText(/^Mrs Okafor opened the letter with the way in for Bryn A\./),
  ).toBeTruthy()
  expect(screen.queryByText(/Who came later/)).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'I have seen it' }))
  // What came later is not put away with it.
  await waitFor(() => {
    const put = asked.find(({ path }) => path === '/notices/news/seen')
    expect(put?.body).toEqual({ ids: [ID(1), ID(2), ID(3)] })
  })
})

test('without news there is nothing', async () => {
  const asked = show(<StaffNewsBox only={new Set([ID(1)])} />, {
    'GET /notices/news': [{ ...ITEM, seen: true }],
  })
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(screen.queryByText('For you to know')).toBeNull()
})
