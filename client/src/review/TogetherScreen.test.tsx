import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { TogetherScreen } from './TogetherScreen'

jest.mock('expo-router', () =>
  jest
    .requireActual<typeof Router>('../testing/router')
    .routerAt({ by: 'task', group: '01890000-0000-7000-8000-000000000009' }),
)

const AT = '2026-11-27T09:00:00.000Z'
const LATER = '2026-11-27T09:05:00.000Z'
const pupil = (n: number) => ({
  ...{ id: ID(20 + n), firstName: `Pupil ${n}`, lastName: 'S.' },
  peg: { symbol: 'fish', colour: 'sea' },
})
const line = (n: number, task = ID(9)) => ({
  ...{ id: ID(n), title: `Piece ${n}`, state: 'submitted', goes: 1, folder: null, cover: null },
  ...{ pupil: pupil(n), task: { id: task, title: 'Shore poem' }, partCount: 1, changedAt: AT },
  step: 'finished',
  ...{ submittedAt: AT, closed: false, nudgedAt: null, message: null, voice: null, late: false },
})
const piece = (n: number, submittedAt = AT, version = 4) => ({
  ...line(n),
  ...{ version, reflection: '', step: 'finished', classPiece: null, makers: [pupil(n)] },
  ...{ mayChange: true, suggestedTitle: '', parts: [], term: null, classId: ID(30) },
  ...{ className: 'Heron', approved: false, pick: null },
  task: {
    ...{ id: ID(9), title: 'Shore poem', folderChangeable: true, asksThoughts: false, asks: [] },
  },
  versions: [
    {
      ...{ id: ID(40 + n), number: 1, title: `Piece ${n}`, reflection: '', step: 'finished' },
      ...{ submittedAt, withdrawnAt: null, parts: [], makers: [pupil(n)], decision: null },
    },
  ],
})
const tray = (...pieces: object[]) => ({ waiting: pieces.length, drafts: 0, pieces, next: null })

test('only what was seen is decided: one of another task, one left out and one handed in anew are not', async () => {
  const asked = show(<TogetherScreen />, {
    'GET /review/tray': tray(line(1), { ...line(2), partCount: 3 }, line(3), line(4, ID(8))),
    [`GET /pieces/${ID(1)}`]: piece(1),
    [`GET /pieces/${ID(3)}`]: piece(3, LATER),
    [`POST /review/pieces/${ID(1)}`]: piece(1, AT, 5),
  })
  expect(await screen.findAllByRole('checkbox')).toHaveLength(3)
  // Whoever says aloud what stands there opens it.
  const { textContent } = screen.getByRole('link', { name: 'Open · 3 parts: Pupil 2 S., Piece 2' })
  expect(textContent).toBe('Open · 3 parts')
  fireEvent.click(screen.getByRole('checkbox', { name: /Piece 2/ }))
  // However fast it is tapped.
  for (let i = 0; i < 2; i++) fireEvent.click(screen.getByRole('button', { name: /^Approve/ }))
  await screen.findByText(/Piece 3: The pupil has taken it out/)
  const decided = asked.filter(({ method }) => method === 'POST')
  expect(decided).toEqual([
    {
      ...{ method: 'POST', path: `/review/pieces/${ID(1)}` },
      body: { move: 'approve', message: '', seenVersion: 4 },
    },
  ])
})
test('the same words go to each; without words nothing is sent', async () => {
  const asked = show(<TogetherScreen />, {
    'GET /review/tray': tray(line(1), line(2)),
    [`GET /pieces/${ID(1)}`]: piece(1),
    [`GET /pieces/${ID(2)}`]: piece(2),
    'POST /review/pieces/': piece(1, AT, 5),
  })
  fireEvent.click(await screen.findByRole('button', { name: 'Send back 2' }))
  expect(screen.getByRole('button', { name: 'Send it back' }).getAttribute('aria-disabled')).toBe(
    'true',
  )
  fireEvent.change(screen.getByLabelText('What to do next'), { target: { value: 'Aloud, once.' } })
  fireEvent.click(screen.getByRole('button', { name: 'Send it back' }))
  await waitFor(() => {
    const said = asked.filter(({ method }) => method === 'POST').map(({ body }) => body)
    expect(said).toEqual(
      Array(2).fill({ move: 'send-back', message: 'Aloud, once.', seenVersion: 4 }),
    )
  })
})
