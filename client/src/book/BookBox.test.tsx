import { fireEvent, screen, waitFor } from '@testing-library/react'
import { AUTUMN, BOOK, ID, show } from '../testing'
import { BookBox } from './BookBox'

const CHAPTERS = [{ term: AUTUMN, running: true, picks: [], others: [] }]
const LEFT_OUT = [
  { pieceId: ID(2), title: 'Kites', reason: 'folder', withoutConsent: [] },
  { pieceId: ID(3), title: 'Crab', reason: 'consent', withoutConsent: ['Tomasz'] },
]
const PLAN = `GET /book/plan?pupilId=${ID(1)}&termId=${AUTUMN.id}`

test('what stays out of a book for home is named with the reason; one for school holds everything', async () => {
  const asked = show(<BookBox pupilId={ID(1)} chapters={CHAPTERS} />, {
    'GET /book?': [],
    [`${PLAN}&madeFor=home`]: { pieces: 1, pages: 3, leftOut: LEFT_OUT },
    [`${PLAN}&madeFor=school`]: { pieces: 3, pages: 5, leftOut: [] },
    'POST /book': BOOK,
  })
  expect(await screen.findByText('2 pieces stay out of this book')).toBeTruthy()
  expect(screen.getByText('Kites: its folder is not open to parents')).toBeTruthy()
  expect(screen.getByText('Crab: no consent to share for Tomasz')).toBeTruthy()
  expect(screen.getByText('1 piece, 3 pages')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'For school' }))
  expect(await screen.findByText('3 pieces, 5 pages')).toBeTruthy()
  expect(screen.queryByText(/stay out of this book/)).toBeNull()
  fireEvent.click(screen.getByRole('radio', { name: 'In the book' }))
  fireEvent.click(screen.getByRole('button', { name: 'Make the book' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({
      pupilId: ID(1),
      termId: AUTUMN.id,
      madeFor: 'school',
      marked: true,
    }),
  )
})

test('a book that may not go home any more says so and is not handed out', async () => {
  show(<BookBox pupilId={ID(1)} chapters={CHAPTERS} />, {
    'GET /book?': [{ ...BOOK, stopped: true, openLinks: 0, linksEndAt: null }],
    [PLAN]: { pieces: 0, pages: 0, leftOut: LEFT_OUT },
  })
  expect(await screen.findByText(/may not be shown at home any more/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Download' })).toBeNull()
  expect(screen.getByRole('button', { name: 'Make the book' }).getAttribute('aria-disabled')).toBe(
    'true',
  )
})

test('a ready one can be taken away, and its codes can be ended', async () => {
  const asked = show(<BookBox pupilId={ID(1)} chapters={CHAPTERS} />, {
    'GET /book?': [BOOK],
    [PLAN]: { pieces: 2, pages: 4, leftOut: [] },
    'POST /book/': { done: true },
  })
  expect(await screen.findByRole('button', { name: 'Download' })).toBeTruthy()
  expect(screen.getByText('2 page codes open until 6 December 2027')).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'End its page codes' }))
  fireEvent.click((await screen.findAllByRole('button', { name: 'End its page codes' })).at(-1)!)
  await waitFor(() =>
    expect(asked.some(({ path }) => path === `/book/${BOOK.id}/links/withdraw`)).toBe(true),
  )
})
