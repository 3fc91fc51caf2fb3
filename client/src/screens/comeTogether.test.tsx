import { act, screen } from '@testing-library/react'
import type { ReactElement } from 'react'
import { ClassScreen } from '../classes/ClassScreen'
import { DeskScreen } from '../desk/DeskScreen'
import type { Outbox } from '../outbox/outbox'
import { OutboxProvider } from '../outbox/OutboxContext'
import { TasksScreen } from '../tasks/TasksScreen'
import { HERON, ID, show } from '../testing'
import type * as Router from '../testing/router'
import { YearScreen } from '../year/YearScreen'

jest.mock('expo-router', () => jest.requireActual<typeof Router>('../testing/router').routerAt())

const person = (role: 'pupil' | 'teacher') => ({
  ...{ firstRun: false, door: null },
  school: { name: 'Saltmarsh', timeZone: 'Europe/London', address: 'http://here', mails: false },
  person: {
    ...{ id: ID(1), role, firstName: 'Wren', lastName: 'A.', leads: role === 'teacher' },
    idleMinutes: null,
    ...{ peg: null, className: null, mayPropose: false, young: false, sounds: false },
  },
})
const NONE: never[] = []
const NOTHING_WAITS = {
  subscribe: () => () => undefined,
  getSnapshot: () => NONE,
  keepsWork: () => Promise.resolve(true),
} as unknown as Outbox
const OF_CLASS = { ...HERON, pupils: [], notPrintable: [], left: [] }

/** A screen, what it is called once it is here, and what it is told; the last of it comes late. */
const SCREENS: [name: string, screen: ReactElement, title: string, late: string, told: object][] = [
  [
    'a class, and what one should know of it',
    <ClassScreen key="" />,
    'Heron, Year 3',
    'GET /notices/news',
    { 'GET /school/classes': [HERON], [`GET /school/classes/${ID(5)}`]: OF_CLASS },
  ],
  [
    'a class, and its door',
    <ClassScreen key="" />,
    'Nobody in this class yet',
    `GET /accounts/classes/${ID(5)}/door`,
    {
      ...{ 'GET /notices/news': NONE, 'GET /school/classes': [HERON] },
      [`GET /school/classes/${ID(5)}`]: OF_CLASS,
    },
  ],
  [
    'tasks, and their units',
    <TasksScreen key="" />,
    'Tasks',
    'GET /tasks/units',
    { 'GET /tasks': NONE },
  ],
  [
    'the year, and the first steps',
    <YearScreen key="" />,
    'Year',
    'GET /tasks',
    {
      'GET /school/years': { runningTermId: null, years: NONE },
      ...{ 'GET /school/classes': NONE, 'GET /folders': NONE },
    },
  ],
  ...['GET /notices', 'GET /notices/news'].map((late): (typeof SCREENS)[number] => [
    `a desk, and ${late}`,
    <OutboxProvider key="" value={NOTHING_WAITS}>
      <DeskScreen />
    </OutboxProvider>,
    'Wren’s desk',
    late,
    {
      'GET /pieces': { pieces: NONE, trayCount: 0, approvedCount: 0 },
      'GET /accounts/session': person('pupil'),
      ...{ 'GET /tasks': NONE, 'GET /notices': NONE, 'GET /notices/news': NONE },
    },
  ]),
]

test.each(SCREENS)('%s come together', async (_, one, title, late, told) => {
  let come = () => undefined as void
  const answer = new Promise((resolve) => (come = () => resolve(NONE)))
  show(one, { 'GET /accounts/session': person('teacher'), ...told, [late]: answer })
  // All else has been answered.
  await act(() => new Promise((resolve) => setTimeout(resolve, 100)))
  expect(screen.getByRole('status', { name: 'Just a moment' })).toBeTruthy()
  expect(screen.queryByText(title)).toBeNull()
  await act(async () => come())
  expect(await screen.findByText(title)).toBeTruthy()
})
