import { fireEvent, screen, waitFor } from '@testing-library/react'
import { HERON, ID, show } from '../testing'
import type * as Router from '../testing/router'
import { TaskEditScreen } from './TaskEditScreen'

jest.mock('expo-router', () =>
  jest.requireActual<typeof Router>('../testing/router').routerAt({ id: 'new' }),
)

const PUPIL = {
  id: ID(11),
  firstName: 'Wren',
  lastName: 'S.',
  peg: { symbol: 'fish', colour: 'sea' },
  counts: { draft: 0, submitted: 0, returned: 0, approved: 0 },
  toDo: 0,
  lastSeenAt: null,
}
const folder = (n: number, name: string, change: object = {}) => ({
  id: ID(n),
  name,
  symbol: 'pen',
  colour: 'sea',
  strand: null,
  strandId: null,
  parentsSee: true,
  pupilsFile: true,
  wholeSchool: false,
  classIds: [ID(5)],
  className: 'Heron',
  owner: null,
  putAway: false,
  member: true,
  mayChange: true,
  pieceCount: 0,
  version: 1,
  ...change,
})
const at = (change: Record<string, unknown> = {}) => ({
  'GET /school/classes': [HERON],
  [`GET /school/classes/${ID(5)}`]: { ...HERON, pupils: [PUPIL], left: [], notPrintable: [] },
  'GET /tasks/units': [],
  'GET /folders/strands': [],
  'GET /folders': [
    folder(2, 'Poems'),
    folder(3, 'Elsewhere', { classIds: [ID(99)] }),
    folder(4, 'Wish', { owner: { id: ID(11), name: 'Wren', agreed: true } }),
  ],
  'GET /tasks/due': { at: '2026-12-05T15:00:00.000Z', warning: { code: 'no-lessons', about: '' } },
  ...change,
})

test('a task is sent as it was written: folders of the class only, days in school time, what is asked for', async () => {
  const asked = show(<TaskEditScreen />, at())
  fireEvent.change(await screen.findByLabelText('Title'), { target: { value: 'Shore poem' } })
  fireEvent.change(screen.getByLabelText('What to do'), { target: { value: 'Four lines.' } })
  fireEvent.click(screen.getByRole('button', { name: /^More: / }))
  fireEvent.click(screen.getByRole('button', { name: 'More photos' }))
  fireEvent.click(screen.getByRole('button', { name: 'More photos' }))
  fireEvent.click(screen.getByRole('button', { name: 'Fewer photos' }))
  fireEvent.click(screen.getByRole('checkbox', { name: 'plan' }))
  fireEvent.click(screen.getByRole('radio', { name: 'on a day' }))
  fireEvent.change(screen.getByLabelText('Day'), { target: { value: '2026-12-05' } })
  expect(await screen.findByText('There are no lessons that day.')).toBeTruthy()
  fireEvent.click(screen.getByRole('radio', { name: 'some pupils' }))
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Wren S.' }))
  expect(
    [...screen.getByLabelText<HTMLSelectElement>('Folder').options].map(({ text }) => text),
  ).toEqual(['Poems'])
  fireEvent.click(screen.getByRole('button', { name: 'Set the task' }))
  await waitFor(() =>
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({
      classId: ID(5),
      folderId: ID(2),
      unitId: null,
      strandId: null,
      title: 'Shore poem',
      instructions: 'Four lines.',
      media: [],
      steps: ['plan', 'finished'],
      asks: [{ kind: 'photo', count: 1 }],
      opens: null,
      due: { day: '2026-12-05', time: '15:00' },
      folderChangeable: true,
      asksThoughts: false,
      pupilIds: [ID(11)],
    }),
  )
})

test('without a title or without a folder nothing can be set, and it says what is missing', async () => {
  show(<TaskEditScreen />, at({ 'GET /folders': [] }))
  expect(await screen.findByText(/Make a folder for the class first/)).toBeTruthy()
  fireEvent.change(screen.getByLabelText('Title'), { target: { value: 'Shore poem' } })
  expect(screen.getByRole('button', { name: 'Set the task' }).getAttribute('aria-disabled')).toBe(
    'true',
  )
})

test('of several folders none is chosen silently', async () => {
  show(<TaskEditScreen />, at({ 'GET /folders': [folder(2, 'Poems'), folder(3, 'Maps')] }))
  fireEvent.change(await screen.findByLabelText('Title'), { target: { value: 'Shore poem' } })
  const set = screen.getByRole('button', { name: 'Set the task' })
  expect(set.getAttribute('aria-disabled')).toBe('true')
  fireEvent.change(screen.getByLabelText('Folder'), { target: { value: ID(3) } })
  await waitFor(() => expect(set.getAttribute('aria-disabled')).not.toBe('true'))
})

test('what the server finds wrong stands in the form, and nothing is lost', async () => {
  const body = {
    type: '/problems/request/invalid',
    title: 'Something is not right.',
    status: 400,
    fields: { due: ['due-before-it-opens'] },
  }
  show(<TaskEditScreen />, at({ 'PUT /tasks': { status: 400, body } }))
  fireEvent.change(await screen.findByLabelText('Title'), { target: { value: 'Shore poem' } })
  fireEvent.click(screen.getByRole('button', { name: 'Set the task' }))
  expect(await screen.findByText('It is due before it opens.')).toBeTruthy()
  expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Shore poem')
})
