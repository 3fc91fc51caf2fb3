import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { TaskScreen } from './TaskScreen'

const mockPush = jest.fn()
jest.mock('expo-router', () =>
  jest
    .requireActual<typeof Router>('../testing/router')
    .routerAt(
      { id: '01890000-0000-7000-8000-000000000001' },
      { push: (...to: unknown[]) => void mockPush(...to) },
    ),
)

const TASK = {
  id: ID(1),
  title: 'Shore poem',
  instructions: 'Four lines.',
  media: [],
  steps: ['finished'],
  asks: [],
  opensAt: null,
  dueAt: null,
  closed: false,
  folderChangeable: true,
  asksThoughts: false,
  strandId: null,
  classId: ID(5),
  className: 'Heron',
  unit: null,
  pupilIds: null,
  myPieces: [],
  ticked: false,
  sheet: null,
  nudgedAt: null,
  version: 3,
  folder: { id: ID(2), name: 'Poems', symbol: 'pen', colour: 'sea' },
  counts: { pupils: 4, ticked: 1, draft: 0, submitted: 1, returned: 1, approved: 0 },
}
const standing = (n: number, firstName: string, state: string, pieceId: string | null = null) => ({
  pupil: { id: ID(10 + n), firstName, lastName: 'S.', peg: { symbol: 'fish', colour: 'sea' } },
  standing: state,
  pieceId,
  nudgedAt: null,
})
const STANDINGS = [
  standing(1, 'Wren', 'none'),
  standing(2, 'Tomasz', 'returned', ID(50)),
  standing(3, 'Aoife', 'submitted', ID(51)),
  standing(4, 'Bo', 'ticked'),
]
const at = {
  [`GET /tasks/${ID(1)}`]: TASK,
  [`GET /tasks/${ID(1)}/standings`]: STANDINGS,
  [`POST /tasks/${ID(1)}/nudge`]: STANDINGS,
}

test('who owes something stands apart from who has handed in or done it elsewhere', async () => {
  show(<TaskScreen />, at)
  const owing = await screen.findByRole('region', { name: 'Not handed in 2' })
  expect(
    within(owing)
      .getAllByRole('checkbox')
      .map((box) => box.getAttribute('aria-label')),
  ).toEqual(['Wren S.', 'Tomasz S.'])
  expect(screen.getByRole('region', { name: 'Handed in 2' }).textContent).toMatch(
    /Aoife S\.in the tray.*Bo S\.done elsewhere/,
  )
})

test('those who are ticked are reminded, and only those', async () => {
  const asked = show(<TaskScreen />, at)
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Tomasz S.' }))
  fireEvent.click(screen.getByRole('button', { name: 'Remind 1 pupil' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ pupilIds: [ID(11)] }),
  )
})

test('a closed task reminds nobody, and can be opened again', async () => {
  const asked = show(<TaskScreen />, {
    ...at,
    [`GET /tasks/${ID(1)}`]: { ...TASK, closed: true },
    [`POST /tasks/${ID(1)}/open`]: TASK,
  })
  await screen.findByRole('region', { name: 'Not handed in 2' })
  expect(screen.queryByRole('checkbox')).toBeNull()
  expect(screen.queryByRole('button', { name: /^Remind/ })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Open it again' }))
  await waitFor(() =>
    expect(asked.some(({ method, path }) => method === 'POST' && path.endsWith('/open'))).toBe(
      true,
    ),
  )
})

test('a copy opens to be changed', async () => {
  show(<TaskScreen />, { ...at, [`POST /tasks/${ID(1)}/duplicate`]: { ...TASK, id: ID(9) } })
  fireEvent.click(await screen.findByRole('button', { name: 'Copy' }))
  await waitFor(() => expect(mockPush).toHaveBeenCalledWith(`/tasks/edit/${ID(9)}`))
})
