import { act, fireEvent, screen, within } from '@testing-library/react'
import type { PupilLine } from '@nibquill/contract'
import { ID, show } from '../testing'
import { PupilTable } from './PupilTable'

const pupil = (
  n: number,
  firstName: string,
  toDo: number,
  approved: number,
  returned = 0,
): PupilLine => ({
  id: ID(n),
  firstName,
  lastName: 'S.',
  peg: { symbol: 'fish', colour: 'sea' },
  counts: { draft: 0, submitted: 0, returned, approved },
  toDo,
  lastSeenAt: null,
})
const PUPILS = [pupil(1, 'Wren', 0, 9), pupil(2, 'Aoife', 3, 1), pupil(3, 'Tomasz', 0, 4, 1)]
const names = () => screen.getAllByRole('link').map((link) => link.getAttribute('aria-label'))

test('pupils stand by name, and a name is found by some of its letters', () => {
  show(<PupilTable pupils={PUPILS} onOpen={() => undefined} />, {})
  expect(names()).toEqual(['Aoife S.', 'Tomasz S.', 'Wren S.'])
  fireEvent.change(screen.getByLabelText('Look for a pupil'), { target: { value: ' wr ' } })
  expect(names()).toEqual(['Wren S.'])
  fireEvent.change(screen.getByLabelText('Look for a pupil'), { target: { value: 'xyz' } })
  expect(screen.getByText('Nobody fits.')).toBeTruthy()
})

test('those with nothing to do can be left out; another go counts as something to do', () => {
  show(<PupilTable pupils={PUPILS} onOpen={() => undefined} />, {})
  fireEvent.click(screen.getByRole('switch', { name: 'Only those with something to do' }))
  expect(names()).toEqual(['Aoife S.', 'Tomasz S.'])
})

test('a row opens its pupil', () => {
  const opened: string[] = []
  show(<PupilTable pupils={PUPILS} onOpen={(id) => opened.push(id)} />, {})
  fireEvent.click(screen.getByRole('link', { name: 'Wren S.' }))
  expect(opened).toEqual([ID(1)])
})

test('a list without a table’s room can be sorted all the same', () => {
  show(<PupilTable pupils={PUPILS} onOpen={() => undefined} />, {})
  fireEvent.change(screen.getByRole('combobox'), { target: { value: 'approved' } })
  expect(names()).toEqual(['Wren S.', 'Tomasz S.', 'Aoife S.'])
})

test('a table sorts by its headings', () => {
  Object.defineProperty(document.documentElement, 'clientWidth', {
    value: 1200,
    configurable: true,
  })
  act(() => void window.dispatchEvent(new Event('resize')))
  show(<PupilTable pupils={PUPILS} onOpen={() => undefined} />, {})
  fireEvent.click(screen.getByRole('button', { name: 'In folders' }))
  expect(names()).toEqual(['Wren S.', 'Tomasz S.', 'Aoife S.'])
  fireEvent.click(
    within(screen.getByRole('table')).getByRole('button', { name: 'In folders, largest first' }),
  )
  expect(names()).toEqual(['Aoife S.', 'Tomasz S.', 'Wren S.'])
})
