import { fireEvent, screen, waitFor } from '@testing-library/react'
import { AUTUMN, BOOK, ID, show } from '../testing'
import { TakeHome } from './TakeHome'

const AUTUMN_WORK = { term: AUTUMN, pieces: [] }
const SUMMER_WORK = { term: { ...AUTUMN, id: ID(6), name: 'Summer term 2026' }, pieces: [] }
const TAKEN = { ...BOOK, byFamily: true }
const open = () => fireEvent.click(screen.getByRole('button', { name: 'Take it all home' }))

test('with one term, its book is asked for as the question opens', async () => {
  const asked = show(<TakeHome pupilId={ID(1)} chapters={[AUTUMN_WORK]} />, {
    'POST /book/take-home': TAKEN,
    'GET /book/': TAKEN,
  })
  open()
  expect(await screen.findByRole('button', { name: 'Save the book' })).toBeTruthy()
  expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(1)
})

test('what may not be shown any more since it was made is made again, not handed over', async () => {
  const asked = show(<TakeHome pupilId={ID(1)} chapters={[AUTUMN_WORK, SUMMER_WORK]} />, {
    'POST /book/take-home': TAKEN,
    'GET /book/': { ...TAKEN, stopped: true },
  })
  open()
  expect(screen.queryByRole('button', { name: 'Save the book' })).toBeNull()
  fireEvent.click(screen.getAllByRole('button', { name: 'Make the book' })[0]!)
  fireEvent.click(await screen.findByRole('button', { name: 'Save the book' }))
  await waitFor(() => expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(2))
  expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({
    pupilId: ID(1),
    termId: ID(5),
  })
})
