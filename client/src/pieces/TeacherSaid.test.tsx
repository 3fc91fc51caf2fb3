import type { Version } from '@nibquill/contract'
import { screen } from '@testing-library/react'
import { show } from '../testing'
import { TeacherSaid } from './TeacherSaid'

const DECISION: NonNullable<Version['decision']> = {
  ...{ move: 'approve', message: '', voice: null, decidedBy: 'Ms Plover', filed: null },
  decidedAt: '2026-11-23T10:00:00.000Z',
}

test('where it was filed instead is said with the reason; without a word there is nothing', () => {
  show(<TeacherSaid decision={DECISION} />, {})
  expect(screen.queryByText('Ms Plover says')).toBeNull()
  const filed = { from: 'Rock pools', into: 'Wind poems', because: 'It is about the wind.' }
  show(<TeacherSaid decision={{ ...DECISION, filed }} />, {})
  expect(screen.getByText('Ms Plover says')).toBeTruthy()
  expect(
    screen.getByText(
      'You put it in Rock pools. Your teacher put it in Wind poems. It is about the wind.',
    ),
  ).toBeTruthy()
})
