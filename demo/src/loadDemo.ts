import type { SetClock } from '@nibquill/server'
import { MediaRow } from '@nibquill/server/media/rows'
import { setTimeout as sleep } from 'node:timers/promises'
import { talkAboutWork } from './conversations.ts'
import { inviteFamily, makeDailyLife } from './dailyLife.ts'
import { drawPiece, makePiece } from './makePiece.ts'
import { HERON, PLOVER } from './people.ts'
import { Place } from './place.ts'
import { writeOnCopies } from './markedUp.ts'
import { FIRST, planWork, type PlannedPiece } from './planWork.ts'
import { makeClass, makeSchool } from './school.ts'
import { makeFolders, makeTasks } from './shelves.ts'

/** What has still to be made, and what one must know to go on; plain data, kept in a file. */
export type DemoRest = Pick<Place, 'schoolId' | 'terms' | 'teacherIds'> & {
  begunAt: string
  pieces: PlannedPiece[]
}
export type BegunDemo = { parentAddress: string; rest: DemoRest }

type Tell = (line: string) => void
const DRAWN_AHEAD = 3

/**
 * Fills an empty school through the real services, with the clock set to when each thing happened:
 * everybody, their folders and tasks, and the work of the first few pupils.
 * @returns what is left for `fillDemo`
 */
export async function beginDemo(
  server: Place['server'],
  clock: SetClock,
  now: Date,
  tell: Tell,
): Promise<BegunDemo> {
  const place = new Place(server, clock, now)
  const years = await makeSchool(place)
  const pupils = [
    ...(await makeClass(place, 'Heron', 'Year 3', HERON, years)),
    ...(await makeClass(place, 'Plover', 'Year 1', PLOVER, years)),
  ]
  const shelves = await makeFolders(place, pupils)
  const tasks = await makeTasks(place, shelves, pupils)
  const plans = pupils.flatMap((pupil, i) => {
    const classmates = pupils.filter(({ className }) => className === pupil.className)
    return planWork(pupil, i, shelves[pupil.className], tasks, classmates)
  })
  const isFirst = ({ firstName }: PlannedPiece) => FIRST.includes(firstName)
  await makeAll(place, plans.filter(isFirst), tell, () => undefined)
  await makeDailyLife(place, pupils, shelves, tasks)
  clock.set(now)
  const parentAddress = await inviteFamily(place, pupils)
  await talkAboutWork(place, pupils)
  await writeOnCopies(place, pupils)
  clock.set(now)
  const { schoolId, terms, teacherIds } = place
  const rest = plans.filter((plan) => !isFirst(plan)).sort(waitingFirst)
  return {
    parentAddress,
    rest: { schoolId, terms, teacherIds, begunAt: now.toISOString(), pieces: rest },
  }
}

/**
 * Makes the rest of the school's work, while people are looking already.
 * @param onMade - Told of each piece that stands: it need not be made again.
 * @param stop - After the piece that is being made.
 */
export async function fillDemo(
  server: Place['server'],
  clock: SetClock,
  rest: DemoRest,
  tell: Tell,
  onMade: (pieceId: string) => void,
  stop: AbortSignal,
): Promise<void> {
  const place = new Place(server, clock, new Date(rest.begunAt))
  place.schoolId = rest.schoolId
  place.terms.push(...rest.terms)
  Object.assign(place.teacherIds, rest.teacherIds)
  await makeAll(place, rest.pieces, tell, onMade, stop)
}

/** Waits until every picture that was taken in has its smaller sizes. */
export async function untilPrepared({ manager }: Pick<Place, 'manager'>): Promise<void> {
  while (await manager.existsBy(MediaRow, { state: 'arrived' })) await sleep(100)
}

async function makeAll(
  place: Place,
  plans: readonly PlannedPiece[],
  tell: Tell,
  onMade: (pieceId: string) => void,
  stop?: AbortSignal,
): Promise<void> {
  const drawn = new Map<string, Promise<Buffer[]>>()
  for (const [i, plan] of plans.entries()) {
    if (stop?.aborted) return
    if (i % 20 === 0) tell(`the school's work: ${i} of ${plans.length} pieces`)
    // The next pictures are drawn while this one is filed.
    for (const ahead of plans.slice(i, i + DRAWN_AHEAD))
      if (!drawn.has(ahead.id)) drawn.set(ahead.id, drawPiece(ahead))
    await makePiece(place, plan, await drawn.get(plan.id)!)
    drawn.delete(plan.id)
    onMade(plan.id)
  }
}

/** What a teacher would look for first: work that waits for a decision. */
const waitingFirst = (a: PlannedPiece, b: PlannedPiece) =>
  Number(b.to === 'submitted') - Number(a.to === 'submitted')
