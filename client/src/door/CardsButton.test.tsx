import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { CardsButton } from './CardsButton'

const sheet = (change: object) => ({
  id: ID(9),
  classId: ID(1),
  pupilId: null,
  state: 'ready',
  cardCount: 30,
  cardsDone: 30,
  finishedAt: '2026-11-23T10:00:00.000Z',
  goneAt: '2026-11-23T10:30:00.000Z',
  ...change,
})
const button = (answers: Record<string, unknown>) =>
  show(<CardsButton label="Name cards (PDF)" order={{ classId: ID(1) }} />, answers)

test('asks first, then orders a sheet for the class', async () => {
  const asked = button({
    'GET /accounts/cards': [],
    'POST /accounts/cards': { status: 202, body: sheet({ state: 'waiting', cardsDone: 0 }) },
  })
  fireEvent.click(screen.getByRole('button', { name: 'Name cards (PDF)' }))
  expect(asked.filter(({ method }) => method === 'POST')).toEqual([])
  fireEvent.click(await screen.findByRole('button', { name: 'Print them' }))
  await waitFor(() =>
    expect(asked).toContainEqual({
      method: 'POST',
      path: '/accounts/cards',
      body: { classId: ID(1) },
    }),
  )
})

test('while it is drawn, says how far it is, and cannot be asked for again', async () => {
  button({
    'GET /accounts/cards': [
      sheet({ state: 'drawing', cardsDone: 11, finishedAt: null, goneAt: null }),
    ],
  })
  expect(await screen.findByText('Drawing card 12 of 30')).toBeTruthy()
  expect(screen.getByRole('progressbar', { name: 'Drawing card 12 of 30' })).toBeTruthy()
  expect(
    screen.getByRole('button', { name: 'Name cards (PDF)' }).getAttribute('aria-disabled'),
  ).toBe('true')
})

test('a page opened later finds the sheet, and does not save it by itself', async () => {
  const asked = button({
    'GET /accounts/cards': [sheet({ pupilId: ID(3), classId: null, id: ID(8) }), sheet({})],
  })
  expect(await screen.findByText('30 new cards are drawn. Here until 10:30.')).toBeTruthy()
  expect(asked.some(({ path }) => path.endsWith('/file'))).toBe(false)
  fireEvent.click(screen.getByRole('button', { name: 'Save the PDF again' }))
  await waitFor(() =>
    expect(asked.map(({ path }) => path)).toContain(`/accounts/cards/${ID(9)}/file`),
  )
})

test('cards that could not be drawn leave the old ones in use, and one may ask again', async () => {
  button({ 'GET /accounts/cards': [sheet({ state: 'failed', finishedAt: null, goneAt: null })] })
  expect(await screen.findByText(/The old ones still work/)).toBeTruthy()
  expect(
    screen.getByRole('button', { name: 'Name cards (PDF)' }).getAttribute('aria-disabled'),
  ).not.toBe('true')
})
