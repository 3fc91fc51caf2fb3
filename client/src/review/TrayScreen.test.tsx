import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { act, fireEvent, screen } from '@testing-library/react'
import { HERON, ID, show } from '../testing'
import type * as Router from '../testing/router'
import { TrayScreen } from './TrayScreen'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const AT = '2026-11-27T09:00:00.000Z'
const pupil = {
  id: ID(2),
  firstName: 'Wren',
  lastName: 'A.',
  peg: { symbol: 'fish', colour: 'sea' },
}
const line = (n: number) => ({
  ...{ id: ID(n), title: `Piece ${n}`, state: 'submitted', goes: 1, folder: null, cover: null },
  ...{ pupil, task: null, partCount: 1, changedAt: AT, step: 'finished', submittedAt: AT },
  ...{ closed: false, nudgedAt: null, message: null, voice: null, late: false },
})
const card = (n: number, about: string) => ({
  ...{ id: ID(n), kind: 'name-card', by: 'Mrs Okafor', about, className: null },
  ...{ happenedAt: AT, seen: false },
})
let queries: QueryClient
const WithQueries = () => ((queries = useQueryClient()), (<TrayScreen />))
const answers = (more: Record<string, unknown> = {}) => ({
  'GET /review/tray': { waiting: 2, drafts: 3, pieces: [line(11), line(12)], next: null },
  'GET /school/classes': [HERON],
  'GET /comments/waiting': [],
  'GET /review/second-looks': [],
  'GET /notices/news': [card(31, 'Wren A.')] as unknown[],
  ...more,
})
const later = () => {
  let come: (body: unknown) => void = () => undefined
  const body = new Promise((resolve) => (come = resolve))
  return { body, come: (what: unknown) => act(async () => come(what)) }
}
const rows = () => screen.queryAllByRole('button', { name: /Piece 1\d/ })

test('what stands above the list is there when the list is: nothing moves under a finger', async () => {
  const news = later()
  show(<WithQueries />, answers({ 'GET /notices/news': news.body }))
  // All else has been answered.
  await act(() => new Promise((resolve) => setTimeout(resolve, 50)))
  expect(rows()).toHaveLength(0)
  await news.come([card(31, 'Wren A.')])
  await screen.findByText('2 waiting')
  expect(rows()).toHaveLength(2)
  expect(screen.getByText(/a new name card for Wren A\./)).toBeTruthy()
  expect(screen.getByRole('link', { name: '3 not handed in yet' })).toBeTruthy()
})

test('an answer that does not come keeps nobody from the tray', async () => {
  show(<WithQueries />, answers({ 'GET /comments/waiting': later().body }))
  expect(await screen.findByText('2 waiting', {}, { timeout: 10_000 })).toBeTruthy()
  expect(rows()).toHaveLength(2)
})

test('what one should know of comes later below the list, and above it by a tap', async () => {
  const all = answers()
  show(<WithQueries />, all)
  await screen.findByText(/a new name card for Wren A\./)
  all['GET /notices/news'] = [card(32, 'Tomasz L.'), card(31, 'Wren A.')]
  await act(() => queries.invalidateQueries({ queryKey: ['notices'] }))
  const line = await screen.findByRole('button', { name: '1 thing to know of, show' })
  expect(screen.queryByText(/Tomasz/)).toBeNull()
  // Below: the rows stay where they were.
  const [row] = rows()
  expect(row!.compareDocumentPosition(line)).toBe(Node.DOCUMENT_POSITION_FOLLOWING)
  fireEvent.click(line)
  const told = screen.getByText(/a new name card for Tomasz L\./)
  expect(row!.compareDocumentPosition(told)).toBe(Node.DOCUMENT_POSITION_PRECEDING)
  expect(screen.queryByRole('button', { name: /to know of/ })).toBeNull()
})

test('what is handed in meanwhile waits below the list, and comes into it by a tap', async () => {
  const all = answers()
  show(<WithQueries />, all)
  expect(await screen.findByText('2 waiting')).toBeTruthy()
  all['GET /review/tray'] = {
    ...{ waiting: 3, drafts: 2, pieces: [line(13), line(11), line(12)], next: null },
  }
  await act(() => queries.invalidateQueries({ queryKey: ['review'] }))
  const more = await screen.findByRole('button', { name: '1 new piece, show' })
  expect(rows()).toHaveLength(2)
  expect(rows()[0]!.compareDocumentPosition(more)).toBe(Node.DOCUMENT_POSITION_FOLLOWING)
  // In sight, wherever in the list it comes.
  const sought: (string | null)[] = []
  Element.prototype.scrollIntoView = function () {
    sought.push(this.textContent)
  }
  fireEvent.click(more)
  expect(rows()).toHaveLength(3)
  expect(sought).toEqual([expect.stringContaining('Piece 13')])
})
