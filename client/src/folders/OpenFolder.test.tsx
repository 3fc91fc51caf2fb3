import { fireEvent, screen } from '@testing-library/react'
import { ID, show } from '../testing'
import type * as Router from '../testing/router'
import { OpenFolder } from './OpenFolder'

jest.mock('expo-router', () =>
  jest
    .requireActual<typeof Router>('../testing/router')
    .routerAt({ id: '01890000-0000-7000-8000-000000000001' }, { setParams: jest.fn() }),
)
const { router, useLocalSearchParams: paramsNow } =
  jest.requireMock<ReturnType<typeof Router.routerAt>>('expo-router')
/** Of the address the screen is at. */
const params: Record<string, string> = paramsNow()
afterEach(() => delete params.by)

const pupil = {
  ...{ id: ID(20), firstName: 'Wren', lastName: 'A.' },
  peg: { symbol: 'fish', colour: 'sea' },
}
const look = { id: ID(1), name: 'Bridges', symbol: 'bridge', colour: 'ochre' }
const piece = (n: number, title: string, step: string, taskId: string | null) => ({
  ...{ id: ID(n), title, state: 'approved', step, goes: 1, folder: look, pupil, cover: null },
  ...{ task: taskId ? { id: taskId, title: 'A bridge that holds' } : null, partCount: 1 },
  ...{ changedAt: '2026-11-20T09:00:00.000Z', submittedAt: '2026-11-20T09:00:00.000Z' },
  ...{ closed: false, nudgedAt: null, message: null, voice: null },
})
/** Two pages, newest on top. */
const PAGES = [
  [piece(2, 'It holds', 'finished', ID(9)), piece(3, 'My own tower', 'finished', null)],
  [piece(4, 'How it shall be', 'plan', ID(9))],
] as const
const folder = (page: 0 | 1) => ({
  ...look,
  ...{ strand: null, strandId: null, parentsSee: true, pupilsFile: true, wholeSchool: false },
  ...{ classIds: [ID(30)], className: 'Heron', owner: null, putAway: false, member: true },
  ...{ mayChange: false, pieceCount: 3, version: 1, months: ['2026-11'] },
  ...{ pieces: PAGES[page], next: page === 0 ? 'more' : null },
})
const open = (withNames = false) =>
  show(<OpenFolder shelf="/my-folders" withNames={withNames} onOpen={jest.fn()} />, {
    [`GET /folders/${ID(1)}`]: folder(0),
    [`GET /folders/${ID(1)}?after=more`]: folder(1),
    'GET /folders': [],
  })
const shown = () =>
  screen
    .getAllByText(/^(It holds|My own tower|How it shall be|A bridge that holds|My own ideas)$/)
    .map(({ textContent }) => textContent)

test('newest on top, as far as it was asked for; another way is chosen by a tap', async () => {
  open()
  await screen.findByText('It holds')
  expect(shown()).toEqual(['It holds', 'My own tower'])
  fireEvent.click(screen.getByRole('radio', { name: 'By task' }))
  expect((router as { setParams?: unknown }).setParams).toHaveBeenCalledWith({ by: 'task' })
})

test('by task all of it is fetched, and stands step by step', async () => {
  params.by = 'task'
  open()
  await screen.findByText('How it shall be')
  expect(shown()).toEqual([
    ...['A bridge that holds', 'How it shall be', 'It holds'],
    ...['My own ideas', 'My own tower'],
  ])
  expect(screen.getByText(/^a plan · /)).toBeTruthy()
})

test('in a class’s folder everybody has one of a task: it stays as it is', async () => {
  params.by = 'task'
  open(true)
  await screen.findByText('It holds')
  expect(screen.queryByRole('radio', { name: 'By task' })).toBeNull()
  expect(shown()).toEqual(['It holds', 'My own tower'])
})
