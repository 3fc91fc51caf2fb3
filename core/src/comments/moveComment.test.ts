import fc from 'fast-check'
import {
  COMMENT_MOVES,
  COMMENT_STATES,
  firstState,
  moveComment,
  type CommentState,
} from './moveComment.ts'

test('what a teacher says is seen at once, what a pupil or a parent says waits', () => {
  expect(firstState('teacher')).toBe('shown')
  expect(firstState('pupil')).toBe('waiting')
  expect(firstState('parent')).toBe('waiting')
})

test.each([
  ['waiting', 'show', 'shown'],
  ['waiting', 'hide', 'hidden'],
  ['hidden', 'show', 'shown'],
  ['shown', 'hide', 'hidden'],
] as const)('what is %s leads by "%s" to %s', (from, move, to) => {
  expect(moveComment(from, move, from)).toBe(to)
})

test('two teachers at once: the second is told how it stands, whatever both do', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...COMMENT_STATES),
      fc.constantFrom(...COMMENT_MOVES),
      fc.constantFrom(...COMMENT_MOVES),
      (from, first, second) => {
        const state: CommentState = moveComment(from, first, from)
        if (state === from) return
        expect(() => moveComment(state, second, from)).toThrow(
          expect.objectContaining({ code: 'comment/decided-already', details: { state } }),
        )
      },
    ),
  )
})
