import type { ChildWork, MyPieces, Piece, Tray, Version } from '@nibquill/contract'
import { DomainError, movePiece, MOVES, WHO_MOVES, type Life, type Move } from '@nibquill/core'
import fc from 'fast-check'
import { type Person, type SmallSchool, useSmallSchool } from '../testing/testServer.ts'

/**
 * Sequences at random, by a pupil, their teacher and another teacher, with late and repeated requests,
 * against the state machine of core. After each step the rules that hold over time are looked at
 * through the eyes of everybody.
 */

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

type Step = { move: Move | 'rename'; by: 'pupil' | 'teacher' | 'stranger'; late: boolean }
const steps = fc.array(
  fc.record<Step>({
    move: fc.oneof(
      { weight: 4, arbitrary: fc.constantFrom<Move>('hand-in', 'approve') },
      { weight: 5, arbitrary: fc.constantFrom(...MOVES) },
      { weight: 1, arbitrary: fc.constant('rename' as const) },
    ),
    by: fc.oneof(
      { weight: 12, arbitrary: fc.constant('pupil' as const) },
      { weight: 1, arbitrary: fc.constant('stranger' as const) },
    ),
    late: fc.oneof(
      { weight: 6, arbitrary: fc.constant(false) },
      { weight: 1, arbitrary: fc.constant(true) },
    ),
  }),
  { minLength: 4, maxLength: 14 },
)

/** What the piece should be, kept beside the school. */
type Model = Life & {
  id: string
  title: string
  /** Each version as it was seen first; `withdrawn` and its decision may come later. */
  versions: Map<string, string>
  approved: string | null
  /** The approval before, which comes back with a decision that is taken back. */
  approvals: string[]
  decisions: { move: 'approve' | 'send-back'; version: string }[]
}

/** All of a version but how far the smaller forms of its files are, which are made meanwhile. */
const frozen = ({ id, number, title, reflection, parts, makers }: Version): string =>
  JSON.stringify({ id, number, title, reflection, parts, makers }, (key, value: unknown) =>
    key === 'state' ? undefined : value,
  )

const asked = (who: Person, model: Model, move: Step['move'], seenVersion: number) => {
  const { id } = model
  switch (move) {
    case 'rename':
      return who.ask('PATCH', `/pieces/${id}`, { seenVersion, title: `${model.title}.` })
    case 'hand-in':
    case 'withdraw':
    case 'another-go':
      return who.ask('POST', `/pieces/${id}/${move}`, { seenVersion })
    case 'approve':
    case 'send-back':
      return who.ask('POST', `/review/pieces/${id}`, { move, message: 'Hm.', seenVersion })
    case 'take-back':
      return who.ask('POST', `/review/pieces/${id}/take-back`, { seenVersion })
    case 'file-elsewhere':
      return who.ask('POST', `/review/pieces/${id}/file`, {
        ...{ folderId: school.ids.open, seenVersion },
      })
    case 'bin':
      return who.ask('DELETE', `/pieces/${id}`)
    case 'bin-handed-in':
      return who.ask('POST', `/review/pieces/${id}/bin`, { seenVersion })
    case 'restore':
      return who.ask(
        'POST',
        who === school.wren ? `/pieces/${id}/restore` : `/review/pieces/${id}/restore`,
      )
  }
}

/** Whether the machine lets it happen. */
function allowed(model: Model, { move, by, late }: Step): boolean {
  if (by === 'stranger') return false
  if (move === 'rename')
    return !late && !model.binnedAt && ['draft', 'returned'].includes(model.state)
  // Wanted a second time, each is there already.
  if ((move === 'bin' && model.binnedAt) || (move === 'restore' && !model.binnedAt)) return true
  // To a teacher it is not there any more.
  if (move === 'bin-handed-in' && model.binnedAt) return false
  if (move === 'take-back' && model.decisions.length === 0) return false
  const seen = late && move !== 'bin' && move !== 'restore' ? model.version - 1 : model.version
  try {
    movePiece(model, move, seen)
    return true
  } catch (error) {
    if (error instanceof DomainError) return false
    throw error
  }
}

/** The model after a step that happened. */
function after(model: Model, move: Step['move'], now: Piece | null): void {
  if (move === 'rename') return void (model.title = `${model.title}.`)
  if (move === 'bin' || move === 'bin-handed-in') return void (model.binnedAt = new Date(0))
  if (move === 'restore') return void (model.binnedAt = null)
  const newest = now!.versions[0]?.id ?? ''
  if (move === 'approve') {
    model.decisions.push({ move, version: newest })
    model.approvals.push(newest)
  }
  if (move === 'send-back') model.decisions.push({ move, version: newest })
  if (move === 'take-back' && model.decisions.pop()?.move === 'approve') model.approvals.pop()
  model.approved = model.approvals.at(-1) ?? null
  model.approvedVersionId = model.approved
}

const ids = (lines: readonly { id: string }[]) => lines.map(({ id }) => id)

/** What holds whatever happened, as everybody sees it. */
async function look(model: Model, piece: Piece): Promise<void> {
  // No version ever changes after it was handed in, and none goes.
  for (const version of piece.versions) {
    const before = model.versions.get(version.id)
    if (before) expect(frozen(version)).toBe(before)
    else model.versions.set(version.id, frozen(version))
  }
  expect(piece.versions).toHaveLength(model.versions.size)
  expect(piece.approved).toBe(model.approved !== null)
  // Neither lost nor doubled: on the desk or in the tray, once, as it stands.
  const mine = (await school.wren.ask<MyPieces>('GET', '/pieces')).body.pieces
  const open = model.state !== 'approved' && !model.binnedAt
  expect(ids(mine).filter((id) => id === model.id)).toHaveLength(open ? 1 : 0)
  const tray = (await school.teacher.ask<Tray>('GET', '/review/tray')).body.pieces
  const waits = model.state === 'submitted' && !model.binnedAt
  expect(ids(tray).filter((id) => id === model.id)).toHaveLength(waits ? 1 : 0)
  // Nothing reaches a parent without an approval, and only what was approved.
  const home = (
    await school.parent.ask<ChildWork>('GET', `/sharing/children/${school.ids.wren}`)
  ).body.chapters.flatMap(({ pieces }) => pieces)
  const shown = home.filter(({ id }) => id === model.id)
  expect(shown).toHaveLength(model.approved && !model.binnedAt ? 1 : 0)
  const version = piece.versions.find(({ id }) => id === model.approved)
  for (const one of shown) expect(one.title).toBe(version?.title)
}

test('whatever a pupil and teachers do, in whatever order: versions stand, nothing is lost, and nobody at home sees what was not approved', async () => {
  await fc.assert(
    fc.asyncProperty(steps, async (wanted) => {
      const begun = await school.draft()
      const model: Model = {
        ...{ id: begun.id, title: begun.title, state: begun.state, version: begun.version },
        ...{ binnedAt: null, approvedVersionId: null, approved: null },
        ...{ versions: new Map(), approvals: [], decisions: [] },
      }
      for (const wish of wanted) {
        const move = wish.move
        const who = move === 'rename' ? (['maker'] as const) : WHO_MOVES[move]
        const isTeachers = who[wish.late ? 0 : who.length - 1] === 'class-teacher'
        const by = wish.by === 'stranger' ? 'stranger' : isTeachers ? 'teacher' : 'pupil'
        const step: Step = { ...wish, by }
        const person = {
          pupil: school.wren,
          teacher: school.teacher,
          stranger: school.otherTeacher,
        }
        const may = allowed(model, step)
        const seen = step.late ? model.version - 1 : model.version
        const answer = await asked(person[by], model, move, Math.max(1, seen))
        expect([move, by, answer.status === 200]).toEqual([move, by, may])
        // Sent again because its answer was lost: it happens once.
        if (may && move !== 'bin' && move !== 'restore') {
          const twice = await asked(person[by], model, move, Math.max(1, seen))
          expect(twice.status).toBe(move === 'bin-handed-in' ? 404 : 409)
        }
        const piece = model.binnedAt && move !== 'restore' ? null : answer
        if (may) after(model, move, piece?.body ?? null)
        if (model.binnedAt) {
          expect((await school.wren.ask('GET', `/pieces/${model.id}`)).status).toBe(404)
          continue
        }
        const stands = (await school.wren.ask<Piece>('GET', `/pieces/${model.id}`)).body
        model.state = stands.state
        model.version = stands.version
        await look(model, stands)
      }
    }),
    { numRuns: 12, endOnFailure: true },
  )
})
