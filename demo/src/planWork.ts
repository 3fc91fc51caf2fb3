import type { PieceState } from '@nibquill/core'
import type { TaskRow } from '@nibquill/server/tasks/rows'
import { v7 as newId } from 'uuid'
import { Chance } from './chance.ts'
import type { DrawingName } from './drawings/index.ts'
import { canBeInk } from './inInk.ts'
import type { ClassName, Pupil, Shelf } from './place.ts'
import { TASKS, WORKS } from './scenario.ts'

/**
 * One piece of work that is to be made; plain data, so that what is left can wait in a file.
 * `dayOffset`: days before today, negative. `sentBack`: how often it came back before. `friends`:
 * who made it as well.
 */
export type PlannedPiece = {
  id: string
  pupilId: string
  firstName: string
  className: ClassName
  folderId: string
  taskId: string | null
  dayOffset: number
  to: PieceState
  sentBack: number
  friends: string[]
  drawing: DrawingName
  title: string
  thought: string
  shots: number
  /** Drawn on a tablet, not on paper. */
  inInk: boolean
  /** Made on a copy of the task's starter sheet. */
  onSheet: boolean
  /** What was said, filmed or brought along beside it. */
  beside: Beside | null
  seed: number
}
export type Beside = 'voice' | 'talk' | 'film' | 'page'

/** Whose work is made first, and all there is of the small demo. */
export const FIRST = ['Wren', 'Tomasz', 'Ifeoma', 'Bilal', 'Aoife']
/** Of what can be drawn on a tablet. */
const SHARE_IN_INK = 0.6
const EARLIER_IN_YEAR = ['Bread and clay', 'Our village map', 'Rock pools', 'Number talks']

/** What a pupil made this year and last. @param i - Their place in the register. */
export function planWork(
  pupil: Pupil,
  i: number,
  shelf: Shelf,
  tasks: readonly TaskRow[],
  classmates: readonly Pupil[],
): PlannedPiece[] {
  const chance = new Chance(2026 + i * 7919 + (pupil.className === 'Plover' ? 101 : 0))
  const wren = pupil.firstName === 'Wren'
  const heron = pupil.className === 'Heron'
  const whole = [...shelf.keys()].filter((name) => shelf.get(name)!.wholeSchool)
  const make = (
    folder: string,
    task: TaskRow | null,
    dayOffset: number,
    to: PieceState,
  ): PlannedPiece => {
    const set = TASKS[pupil.className].find(({ title }) => title === task?.title)
    const fits = set?.drawings
    const work = chance.pick(
      WORKS[folder]!.filter(({ drawing }) => fits?.includes(drawing) ?? true),
    )
    const alone = wren || to === 'draft' || to === 'returned' || chance.next() > 0.12
    const [sentBack, friend, title, thought] = [
      to === 'approved' && task && !wren ? chance.pick([0, 0, 1, 2]) : 0,
      alone ? null : chance.pick(classmates).id,
      chance.pick(work.titles),
      chance.pick(work.thoughts),
    ]
    const shots = chance.pick([1, 1, 1, 1, 1, 2, 3])
    const seed = Math.floor(chance.between(0, 1e9))
    return {
      id: newId(),
      pupilId: pupil.id,
      firstName: pupil.firstName,
      className: pupil.className,
      folderId: shelf.get(folder)!.id,
      taskId: task?.id ?? null,
      dayOffset,
      to,
      sentBack,
      friends: friend && friend !== pupil.id ? [friend] : [],
      drawing: work.drawing,
      title,
      thought,
      shots,
      seed,
      beside: FIRST.includes(pupil.firstName) ? null : besideOf(work.drawing, new Chance(seed + 2)),
      onSheet: set?.withSheet === true && !FIRST.includes(pupil.firstName),
      // By a chance of their own: the rest of the school stays as it was.
      inInk:
        canBeInk(work.drawing) &&
        !FIRST.includes(pupil.firstName) &&
        new Chance(seed + 1).next() < SHARE_IN_INK,
    }
  }
  const earlier = Array.from({ length: wren ? 5 : heron ? 2 : 1 }, (_, n) =>
    make(whole[(i + n) % whole.length]!, null, -100 - 45 * n - (i % 20), 'approved'),
  )
  const lately = EARLIER_IN_YEAR.slice(0, wren ? 3 : 1 + (i % 2)).map((_, n) =>
    make(EARLIER_IN_YEAR[(i + n) % (heron ? 4 : 1)]!, null, -28 + n * 6 - (i % 5), 'approved'),
  )
  const tasked = tasks
    .filter(({ classId }) => classId === pupil.classId)
    .flatMap((task, n) => {
      const state = stateFor(pupil, i, n)
      const folder = [...shelf.keys()].find((name) => shelf.get(name)!.id === task.folderId)!
      return state ? [make(folder, task, -1 - ((i + n) % 4), state)] : []
    })
  return [...earlier, ...lately, ...tasked]
}

/** Poems are read aloud, bridges filmed while they bend and planned on paper; some explain the rest. */
function besideOf(drawing: DrawingName, chance: Chance): Beside | null {
  const draw = chance.next()
  if (drawing === 'poem') return draw < 0.4 ? 'voice' : null
  if (drawing === 'bridge') return draw < 0.3 ? 'film' : draw < 0.5 ? 'page' : null
  return draw < 0.08 ? 'voice' : draw < 0.25 && canBeInk(drawing) ? 'talk' : null
}

/** Wren: one to do, one on the go, one sent back. The others: some of everything. */
function stateFor(pupil: Pupil, i: number, task: number): PieceState | null {
  if (pupil.firstName === 'Wren') return (['returned', 'draft', null] as const)[task] ?? null
  const states = [
    'submitted',
    'approved',
    null,
    'submitted',
    'draft',
    'approved',
    'submitted',
    'returned',
  ] as const
  return states[(i * 3 + task * 5) % 8] ?? null
}
