import { DomainError } from '../domainError.ts'
import { isOpen, movePiece, MOVES, PIECE_STATES, type Move, type PieceState } from './movePiece.ts'

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
  expect(movePiece({ state: from, version: 3 }, move, 3)).toEqual({ state: to, version: 4 })
})

const refused = MOVES.flatMap((move) =>
  PIECE_STATES.map((from): { from: PieceState; move: Move } => ({ from, move })),
).filter(({ from, move }) => !ALLOWED.some((row) => row.from === from && row.move === move))
test.each(refused)('$move is refused from $from, saying how it stands', ({ from, move }) => {
  expect(() => movePiece({ state: from, version: 1 }, move, 1)).toThrow(
    expect.objectContaining({ code: 'piece/move-refused', details: { state: from, move } }),
  )
})

test('whoever comes second is told how the piece stands now', () => {
  expect(() => movePiece({ state: 'approved', version: 5 }, 'withdraw', 4)).toThrow(DomainError)
  expect(() => movePiece({ state: 'approved', version: 5 }, 'withdraw', 4)).toThrow(
    expect.objectContaining({ code: 'piece/stale', details: { state: 'approved', version: 5 } }),
  )
})

test('a pupil changes drafts and returned pieces only', () => {
  expect(PIECE_STATES.filter(isOpen)).toEqual(['draft', 'returned'])
})
