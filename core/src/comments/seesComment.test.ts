import fc from 'fast-check'
import { COMMENT_STATES } from './moveComment.ts'
import { seesComment, type CommentReader, type SeenComment } from './seesComment.ts'

const teacher = { personId: 'mr', role: 'teacher', makes: false, childIds: [] } as const
const wren = { personId: 'wren', role: 'pupil', makes: true, childIds: [] } as const
const tomasz = { personId: 'tomasz', role: 'pupil', makes: true, childIds: [] } as const
const mum = { personId: 'mum', role: 'parent', makes: false, childIds: ['wren'] } as const
const dad = { personId: 'dad', role: 'parent', makes: false, childIds: ['tomasz'] } as const

const said = (by: CommentReader, more: Partial<SeenComment> = {}): SeenComment => ({
  byId: by.personId,
  byRole: by.role,
  state: 'shown',
  answers: null,
  pupilsOfBy: by.childIds,
  thoughts: false,
  ...more,
})
const answering = (to: CommentReader) =>
  said(teacher, { answers: { byId: to.personId, byRole: to.role } })
const thinking = (state: SeenComment['state']) => said(wren, { thoughts: true, state })

test.each([
  ['what a teacher says', said(teacher), [teacher, wren, tomasz]],
  ['what a pupil says, once it is shown', said(wren), [teacher, wren, tomasz]],
  ['what a maker thinks of it', said(wren, { thoughts: true }), [teacher, wren, tomasz, mum]],
  ['a maker’s thoughts that wait', thinking('waiting'), [teacher, wren]],
  ['a maker’s thoughts that were hidden', thinking('hidden'), [teacher, wren]],
  ['what waits', said(wren, { state: 'waiting' }), [teacher, wren]],
  ['what was hidden', said(wren, { state: 'hidden' }), [teacher, wren]],
  ['what a parent says', said(mum), [teacher, wren, mum]],
  ['an answer to a parent', answering(mum), [teacher, mum]],
  ['an answer to a pupil', answering(wren), [teacher, wren, tomasz]],
  ['an answer that was hidden', { ...answering(mum), state: 'hidden' as const }, [teacher]],
])('%s is seen by those it is for', (_what, comment, readers) => {
  expect(
    [teacher, wren, tomasz, mum, dad].filter((reader) => seesComment(reader, comment)),
  ).toEqual(readers)
})

test('whoever is nobody’s parent any more says nothing to that child', () => {
  expect(seesComment(wren, said(mum, { pupilsOfBy: [] }))).toBe(false)
})

test('whoever was left out of the next go sees their own and what answers it', () => {
  const left = { ...tomasz, makes: false }
  expect(seesComment(left, said(tomasz))).toBe(true)
  expect(seesComment(left, answering(tomasz))).toBe(true)
  expect(seesComment(left, said(wren))).toBe(false)
  expect(seesComment(left, said(teacher))).toBe(false)
})

const people = [teacher, wren, tomasz, mum, dad]
const comments = fc.record({
  byId: fc.constantFrom(...people.map(({ personId }) => personId)),
  byRole: fc.constantFrom('pupil', 'teacher', 'parent'),
  state: fc.constantFrom(...COMMENT_STATES),
  answers: fc.option(
    fc.record({
      byId: fc.constantFrom(...people.map(({ personId }) => personId)),
      byRole: fc.constantFrom('pupil', 'teacher', 'parent'),
    }),
  ),
  pupilsOfBy: fc.subarray(['wren', 'tomasz']),
  thoughts: fc.boolean(),
}) as fc.Arbitrary<SeenComment>

test('a parent sees what they said, what answers it and what their own child thinks: nothing else', () => {
  fc.assert(
    fc.property(comments, (comment) => {
      if (!seesComment(mum, comment)) return
      const childThinks = comment.thoughts && comment.byId === 'wren' && comment.state === 'shown'
      expect(childThinks || [comment.byId, comment.answers?.byId].includes('mum')).toBe(true)
    }),
  )
})

test('nobody but its author and teachers sees what is not shown', () => {
  fc.assert(
    fc.property(comments, fc.constantFrom(wren, tomasz, mum, dad), (comment, reader) => {
      if (seesComment(reader, comment) && comment.byId !== reader.personId)
        expect(comment.state).toBe('shown')
    }),
  )
})
