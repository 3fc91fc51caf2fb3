import { DomainError } from '../domainError.ts'
import {
  isOpen,
  movePiece,
  MOVES,
  PIECE_STATES,
  WHO_MOVES,
  type Life,
  type Move,
  type PieceState,
} from './movePiece.ts'

const life = (state: PieceState, more: Partial<Life> = {}): Life => ({
  ...{ state, version: 3, binnedAt: null, approvedVersionId: null },
  ...more,
})

const ALLOWED = [
  { from: 'draft', move: 'hand-in', to: 'submitted', why: 'a draft goes into the tray' },
  { from: 'returned', move: 'hand-in', to: 'submitted', why: 'another go goes back into the tray' },
  {
    from: 'submitted',
    move: 'withdraw',
    to: 'draft',
    why: 'taking it out of the tray undoes handing in',
  },
  { from: 'submitted', move: 'approve', to: 'approved', why: 'the teacher puts it in the folder' },
  { from: 'submitted', move: 'send-back', to: 'returned', why: 'the teacher asks for another go' },
  {
    from: 'approved',
    move: 'send-back',
    to: 'returned',
    why: 'the teacher asks later for another go at what is approved',
  },
  {
    from: 'approved',
    move: 'file-elsewhere',
    to: 'approved',
    why: 'what is approved goes into another folder',
  },
  {
    from: 'approved',
    move: 'another-go',
    to: 'draft',
    why: 'an approved piece may be bettered later',
  },
  {
    from: 'approved',
    move: 'take-back',
    to: 'submitted',
    why: 'an approval just made can be taken back',
  },
  {
    from: 'returned',
    move: 'take-back',
    to: 'submitted',
    why: 'what was just sent back lies in the tray again',
  },
] as const

test.each(ALLOWED)('$why', ({ from, move, to }) => {
  expect(movePiece(life(from), move, 3)).toEqual({ state: to, version: 4 })
})

const refused = MOVES.flatMap((move) =>
  PIECE_STATES.map((from): { from: PieceState; move: Move } => ({ from, move })),
).filter(
  ({ from, move }) =>
    !(move === 'bin' && from === 'draft') &&
    !(move === 'bin-handed-in' && ['submitted', 'returned'].includes(from)) &&
    !ALLOWED.some((row) => row.from === from && row.move === move),
)
test.each(refused)('$move is refused from $from, saying how it stands', ({ from, move }) => {
  expect(() => movePiece(life(from), move, 3)).toThrow(
    expect.objectContaining({ code: 'piece/move-refused', details: { state: from, move } }),
  )
})

test('whoever comes second is told how the piece stands now', () => {
  expect(() => movePiece(life('approved'), 'withdraw', 2)).toThrow(DomainError)
  expect(() => movePiece(life('approved'), 'withdraw', 2)).toThrow(
    expect.objectContaining({ code: 'piece/stale', details: { state: 'approved', version: 3 } }),
  )
})

test('its makers throw away a draft, its teachers what was handed in, and nobody what hangs in a folder', () => {
  for (const [from, move] of [
    ['draft', 'bin'],
    ['submitted', 'bin-handed-in'],
    ['returned', 'bin-handed-in'],
  ] as const) {
    expect(movePiece(life(from), move, 3)).toEqual({ state: from, version: 4 })
    expect(() => movePiece(life(from, { approvedVersionId: 'v' }), move, 3)).toThrow(
      expect.objectContaining({ code: 'piece/in-folder' }),
    )
  }
})

test('in the bin nothing can be done but bringing it back, and it comes back as it was', () => {
  for (const state of ['draft', 'submitted', 'returned'] as const)
    expect(movePiece(life(state, { binnedAt: new Date(0) }), 'restore', 3)).toEqual({
      ...{ state, version: 4 },
    })
  const binned = life('draft', { binnedAt: new Date(0) })
  for (const move of MOVES.filter((one) => one !== 'restore'))
    expect(() => movePiece(binned, move, 3)).toThrow(
      expect.objectContaining({ code: 'piece/not-found' }),
    )
})

test('its makers hand in, take out and begin anew; its teachers decide', () => {
  const of = (who: 'maker' | 'class-teacher') =>
    MOVES.filter((move) => WHO_MOVES[move].includes(who))
  expect(of('maker')).toEqual(['hand-in', 'withdraw', 'another-go', 'bin', 'restore'])
  expect(of('class-teacher')).toEqual([
    'approve',
    'send-back',
    'take-back',
    'file-elsewhere',
    'bin-handed-in',
    'restore',
  ])
})

test('a pupil changes drafts and returned pieces only', () => {
  expect(PIECE_STATES.filter(isOpen)).toEqual(['draft', 'returned'])
})
