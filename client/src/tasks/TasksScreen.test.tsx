import { fireEvent, screen, waitFor } from '@testing-library/react'
import { ID, show } from '../testing'
import { TasksScreen } from './TasksScreen'

const TASK = {
  id: ID(1),
  title: 'Plan your bridge',
  instructions: 'Draw it.',
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
  unit: null as null | { id: string; title: string },
  pupilIds: null,
  myPieces: [],
  ticked: false,
  sheet: null,
  nudgedAt: null,
  version: 1,
  folder: { id: ID(2), name: 'Bridges', symbol: 'bridge', colour: 'ochre' },
  counts: { pupils: 24, ticked: 0, draft: 3, submitted: 8, returned: 1, approved: 2 },
}
const UNIT = {
  id: ID(7),
  title: 'Life on the shore',
  classId: ID(5),
  className: 'Heron',
  yearName: '2026/27',
  running: true,
  taskCount: 1,
}
const at = (tasks: unknown, units: unknown[] = []) => ({
  'GET /tasks': tasks,
  'GET /tasks/units': units,
  'GET /school/classes': [],
})

test('while it waits it says so', () => {
  show(<TasksScreen />, at([]))
  expect(screen.getByRole('status', { name: 'Just a moment' })).toBeTruthy()
})
test('a refusal is worded from its code, with a way to try again', async () => {
  const body = {
    type: '/problems/service/unavailable',
    title: 'Unavailable.',
    status: 503,
  }
  show(<TasksScreen />, at({ status: 503, body }))
  expect(await screen.findByText(/cannot reach its records just now/)).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Try again' })).toBeTruthy()
})
test('an answer of another kind, as a proxy gives it, is not taken for one', async () => {
  show(<TasksScreen />, at({ page: '<html>' }))
  expect(await screen.findByText(/cannot be reached just now/)).toBeTruthy()
})
test('without tasks it says what will be here', async () => {
  show(<TasksScreen />, at([]))
  expect(await screen.findByText('No tasks yet')).toBeTruthy()
})
test('each task says how many pupils stand where', async () => {
  show(<TasksScreen />, at([TASK]))
  expect(await screen.findByRole('article', { name: 'Plan your bridge' })).toBeTruthy()
  for (const words of [
    '2 in the folder',
    '8 in the tray',
    '1 another go',
    '3 on the go',
    '10 not begun',
  ])
    expect(screen.getByText(words)).toBeTruthy()
})
test('tasks stand under their unit, the others on their own', async () => {
  show(
    <TasksScreen />,
    at(
      [{ ...TASK, id: ID(3), title: 'Shore poem', unit: { id: UNIT.id, title: UNIT.title } }, TASK],
      [UNIT],
    ),
  )
  const unit = await screen.findByRole('region', { name: 'Life on the shore' })
  expect(unit.textContent).toContain('Shore poem')
  expect(unit.textContent).not.toContain('Plan your bridge')
  expect(screen.getByRole('heading', { name: 'On their own' })).toBeTruthy()
})
test('closed tasks are asked for when they are wanted', async () => {
  const asked = show(<TasksScreen />, at([TASK]))
  fireEvent.click(await screen.findByRole('switch', { name: 'Closed tasks' }))
  await waitFor(() => expect(asked.some(({ path }) => path === '/tasks?closed=1')).toBe(true))
})
