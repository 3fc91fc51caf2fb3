import type { Piece } from '@nibquill/contract'
import { codeOf, ProblemError, UnreachableError } from '../api/problems'
import { ID } from '../testing'
import { Drafts, wordsOf, type School } from './drafts'

const PUPIL = {
  id: ID(1),
  firstName: 'Wren',
  lastName: '',
  peg: { symbol: 'fish', colour: 'aubergine' },
} as const
const piece = (more: Partial<Piece> = {}): Piece => ({
  id: ID(9),
  title: '',
  state: 'draft',
  goes: 0,
  folder: null,
  pupil: PUPIL,
  taskTitle: null,
  cover: null,
  partCount: 0,
  changedAt: '',
  submittedAt: null,
  message: null,
  version: 1,
  reflection: '',
  step: 'finished',
  task: null,
  classPiece: null,
  mayChange: true,
  makers: [PUPIL],
  suggestedTitle: 'Week 2',
  parts: [],
  versions: [],
  term: null,
  className: 'Heron',
  approved: false,
  pick: null,
  ...more,
})
const refused = (type: string, status: number) =>
  new ProblemError({ type: `/problems/${type}`, title: 'Not like this.', status })

/** A school that keeps one piece, whose answers can be made to fail. */
function schoolOf(first: Piece) {
  const said: string[] = []
  const state = { piece: first, failure: null as Error | null, coming: false }
  const answer = (what: string, change: Partial<Piece> = {}) => {
    said.push(what)
    if (state.failure) return Promise.reject(state.failure)
    if (Object.keys(change).length > 0)
      state.piece = { ...state.piece, ...change, version: state.piece.version + 1 }
    return Promise.resolve(state.piece)
  }
  const school: School = {
    start: () => answer('start'),
    change: (_id, seenVersion, { folderId: _f, ...words }) =>
      seenVersion === state.piece.version
        ? answer('change', words)
        : Promise.reject(refused('piece/stale', 409)),
    handIn: () => answer('hand in', { state: 'submitted' }),
    isComing: () => state.coming,
    onPiece: () => undefined,
    onFailed: (error) => void said.push(`failed: ${codeOf(error)}`),
  }
  return { school, state, said }
}
function shelfOf() {
  const kept = new Map<string, unknown>()
  return {
    kept,
    put: (draft: { pieceId: string }) => Promise.resolve(void kept.set(draft.pieceId, draft)),
    drop: (pieceId: string) => Promise.resolve(void kept.delete(pieceId)),
  }
}
const about = (shown: Piece) => ({
  pieceId: shown.id,
  ownerId: ID(1),
  taskId: null,
  base: wordsOf(shown),
})

test('words are on the shelf before they are sent, and leave it when the school has them', async () => {
  const { school, state, said } = schoolOf(piece())
  const shelf = shelfOf()
  const order: string[] = []
  const drafts = new Drafts(
    { ...shelf, put: (draft) => (order.push('kept'), shelf.put(draft)) },
    { ...school, start: (...words) => (order.push('sent'), school.start(...words)) },
  )
  await drafts.write(about(state.piece), { title: ' Crab ' })
  expect(order).toEqual(['kept', 'sent'])
  expect(state.piece.title).toBe('Crab')
  expect(said).toEqual(['start', 'change'])
  expect([shelf.kept.size, drafts.getSnapshot().size]).toEqual([0, 0])
})

test('nothing changed, nothing sent', async () => {
  const { school, state, said } = schoolOf(piece({ title: 'Crab' }))
  await new Drafts(shelfOf(), school).write(about(state.piece), { title: 'Crab' })
  expect(said).toEqual([])
})

test('without a network they wait, kept; later they go, with what was written since', async () => {
  const { school, state } = schoolOf(piece())
  const shelf = shelfOf()
  const drafts = new Drafts(shelf, school)
  state.failure = new UnreachableError('away')
  await drafts.write(about(state.piece), { title: 'Crab' })
  await drafts.write(about(state.piece), { reflection: 'It pinches.' })
  expect([...drafts.getSnapshot().values()]).toMatchObject([{ state: 'stuck', kept: true }])
  await expect(drafts.settle()).resolves.toBeUndefined()
  state.failure = null
  drafts.retry()
  await drafts.settle()
  expect(state.piece).toMatchObject({ title: 'Crab', reflection: 'It pinches.' })
  expect(shelf.kept.size).toBe(0)
})

test('taken up again after a closed page, they are sent; already there, they are let go', async () => {
  const { school, state } = schoolOf(piece({ title: 'Crab' }))
  const shelf = shelfOf()
  const drafts = new Drafts(shelf, school)
  const words = { title: 'Crab', reflection: '', step: 'finished' as const, folderId: null }
  drafts.restore({
    pieceId: ID(9),
    ownerId: ID(1),
    taskId: null,
    words,
    base: { ...words, title: '' },
    handIn: false,
    keptAt: 1,
  })
  await drafts.settle()
  expect(drafts.getSnapshot().size).toBe(0)
  expect(state.piece.version).toBe(1)
})

test('fields written in two places come together; the same field written twice is asked about', async () => {
  const { school, state } = schoolOf(piece())
  const drafts = new Drafts(shelfOf(), school)
  const before = about(state.piece)
  state.piece = piece({ reflection: 'From the other tablet.', version: 2 })
  await drafts.write(before, { title: 'Crab' })
  expect(state.piece).toMatchObject({ title: 'Crab', reflection: 'From the other tablet.' })

  const again = about(state.piece)
  state.piece = { ...state.piece, title: 'Rock crab', version: 9 }
  await drafts.write(again, { title: 'Shore crab' })
  expect(drafts.getSnapshot().get(ID(9))).toMatchObject({
    state: 'asks',
    theirs: { title: 'Rock crab' },
  })
  await drafts.choose(ID(9), 'mine')
  expect(state.piece.title).toBe('Shore crab')
  expect(drafts.getSnapshot().size).toBe(0)
})

test('the other tablet’s words can be taken', async () => {
  const { school, state } = schoolOf(piece())
  const drafts = new Drafts(shelfOf(), school)
  const before = about(state.piece)
  state.piece = piece({ title: 'Rock crab', version: 2 })
  await drafts.write(before, { title: 'Shore crab' })
  await drafts.choose(ID(9), 'theirs')
  expect(state.piece.title).toBe('Rock crab')
  expect(drafts.getSnapshot().size).toBe(0)
})

test('handing in waits for the parts, and can be taken back until then', async () => {
  const { school, state, said } = schoolOf(piece())
  const drafts = new Drafts(shelfOf(), school)
  state.coming = true
  await drafts.write(about(state.piece), {}, { handIn: true })
  expect(drafts.getSnapshot().get(ID(9))).toMatchObject({ handIn: true, state: 'waiting' })
  await drafts.keepOut(ID(9))
  expect([said.includes('hand in'), drafts.getSnapshot().size]).toEqual([false, 0])
  await drafts.write(about(state.piece), {}, { handIn: true })
  state.coming = false
  drafts.retry()
  await drafts.settle()
  expect(state.piece.state).toBe('submitted')
  expect(drafts.getSnapshot().size).toBe(0)
})

test('what the school refuses is said, kept, and tried again only when the pupil wants it', async () => {
  const { school, state } = schoolOf(piece())
  const shelf = shelfOf()
  const drafts = new Drafts(shelf, school)
  state.failure = refused('folder/put-away', 409)
  await drafts.write(about(state.piece), {}, { handIn: true })
  expect(drafts.getSnapshot().get(ID(9))).toMatchObject({
    state: 'refused',
    sentence: 'Not like this.',
  })
  expect(shelf.kept.size).toBe(1)
  state.failure = null
  await drafts.keepOut(ID(9))
  expect(drafts.getSnapshot().size).toBe(0)
})

test('a pupil who left takes nothing back into memory; a tablet that keeps nothing holds the pupil', async () => {
  const { school, state } = schoolOf(piece())
  const drafts = new Drafts(
    { put: () => Promise.reject(new Error('full')), drop: () => Promise.resolve() },
    school,
  )
  state.failure = new UnreachableError('away')
  await drafts.write(about(state.piece), { title: 'Crab' })
  expect(drafts.getSnapshot().get(ID(9))).toMatchObject({ kept: false })
  await expect(drafts.settle()).rejects.toThrow()
  drafts.clear()
  expect(drafts.getSnapshot().size).toBe(0)
})
