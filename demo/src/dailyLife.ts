import { ClassRow, PersonRow } from '@nibquill/server/school/rows'
import { TaskMediaRow, TaskRow, UnitRow } from '@nibquill/server/tasks/rows'
import { v7 as newId } from 'uuid'
import { Chance } from './chance.ts'
import { photograph } from './photograph.ts'
import type { ClassName, Place, Pupil, Shelf } from './place.ts'
import { DEMO_CARDS } from './signIns.ts'

/** Any number: which hand wrote the example of good work, and how it was photographed. */
const EXAMPLE_SEED = 11
const LATELY_SEED = 21
const NEVER_HERE = ['Petra', 'Daisuke']

/**
 * What a class in mid-term has around its work: units, a reminder, notices, a wish, a piece for
 * everyone, parents by mail.
 */
export async function makeDailyLife(
  place: Place,
  pupils: Pupil[],
  shelves: Record<ClassName, Shelf>,
  tasks: TaskRow[],
): Promise<void> {
  const { notices, classPieces, folders, guardians } = place.server.capabilities
  const heron = place.teacherOf('Heron')
  const plover = place.teacherOf('Plover')
  const homeOf = (name: ClassName) => pupils.find(({ className }) => className === name)!.classId
  await makeUnits(place, homeOf('Heron'), shelves.Heron.get('Out of class')!.id, tasks)
  place.clock.set(place.at(-1, 15))
  const wren = pupils.find(({ firstName }) => firstName === 'Wren')!
  const poem = tasks.findLast(({ classId }) => classId === homeOf('Heron'))
  if (poem) await nudge(place, poem, wren)
  const boots = newId()
  await notices.make(heron, boots, {
    classId: homeOf('Heron'),
    audience: 'class',
    words: 'Bring boots on Friday. We go to the shore.',
    mediaIds: [],
  })
  await notices.make(heron, newId(), {
    classId: homeOf('Heron'),
    audience: 'parents',
    words: 'Heron class walks to the shore on Friday. Please send boots and a warm coat.',
    mediaIds: [],
  })
  await readByMost(place, pupils, boots)
  await classPieces.start(plover, newId(), {
    classId: homeOf('Plover'),
    folderId: shelves.Plover.get('Out of class')!.id,
    title: 'Our walk to the mill',
    instructions: 'Take one photo of something round.',
  })
  await comeBackTo(place, homeOf('Heron'))
  const ifeoma = pupils.find(({ firstName }) => firstName === 'Ifeoma')!
  await folders.propose(place.asViewer(ifeoma.id, 'pupil'), newId(), {
    name: 'My kites',
    symbol: 'wind',
    colour: 'madder',
  })
  await guardians.inviteParent(
    heron,
    pupils.find(({ firstName }) => firstName === 'Tomasz')!.id,
    newId(),
    {
      firstName: 'Kasia',
      lastName: 'L.',
      email: 'kasia@saltmarsh.example',
    },
  )
}
/** What has to be taught again, as a teacher marks it while judging. */
const AGAIN = [
  ['Rock pools', 'Lines of labels end before the thing.'],
  ['Rock pools', 'Says what it is, and not yet how one knows.'],
  ['Number talks', 'Takes the small digit from the large one, whichever is on top.'],
  ['Wind poems', 'Where a line ends.'],
] as const

async function comeBackTo(place: Place, classId: string): Promise<void> {
  const { secondLooks } = place.server.capabilities
  const marked = new Set<string>()
  for (const [folder, reason] of AGAIN) {
    const found = await place.manager.query<{ id: string }[]>(
      `select p.id from piece p join folder f on f.id = p.folder_id
       where p.class_id = $1 and f.name = $2 and p.state in ('submitted', 'approved') order by p.submitted_at desc, p.id`,
      [classId, folder],
    )
    const piece = found.find(({ id }) => !marked.has(id))
    if (!piece) continue
    marked.add(piece.id)
    await secondLooks.ask(place.teacherOf('Heron'), piece.id, reason)
  }
}
/** Most have been here lately and read what there is; two have never come. */
async function readByMost(place: Place, pupils: Pupil[], noticeId: string): Promise<void> {
  const chance = new Chance(LATELY_SEED)
  for (const [i, pupil] of pupils.entries()) {
    if (NEVER_HERE.includes(pupil.firstName)) continue
    const daysAgo = chance.pick([0, 0, 0, 1, 1, 2, 5])
    const seenAt = place.at(-daysAgo, 9 + (i % 6), (i * 7) % 60)
    await place.manager.update(PersonRow, pupil.id, { lastSeenAt: seenAt })
    // The three who can be entered find it unread.
    if (pupil.className !== 'Heron' || pupil.firstName in DEMO_CARDS || daysAgo > 0) continue
    place.clock.set(seenAt)
    await place.server.capabilities.notices.read(place.asViewer(pupil.id, 'pupil'), noticeId)
  }
}

/** A unit that runs, and one of the year before to use again. */
async function makeUnits(
  place: Place,
  classId: string,
  folderId: string,
  tasks: TaskRow[],
): Promise<void> {
  const { units } = place.server.capabilities
  const heron = place.teacherOf('Heron')
  place.clock.set(place.at(-9, 9))
  const unitId = newId()
  await units.put(heron, unitId, { classId, title: 'Life on the shore' })
  const [survey] = tasks.filter((task) => task.classId === classId)
  if (survey) await place.manager.update(TaskRow, survey.id, { unitId })
  const before = newId()
  const earlier = await place.manager.findOneByOrFail(ClassRow, { name: 'Sandpiper' })
  await place.manager.insert(UnitRow, {
    id: before,
    classId: earlier.id,
    title: 'Small animals',
    createdAt: place.at(-400, 9),
  })
  await place.manager.insert(TaskRow, {
    id: newId(),
    classId: earlier.id,
    unitId: before,
    folderId,
    strandId: null,
    title: 'Find a small animal',
    instructions: 'Draw what you found and where it lives.',
    steps: ['finished'],
    asks: [{ kind: 'photo', count: 1 }],
    opensAt: null,
    dueAt: place.at(-380, 15),
    folderChangeable: true,
    asksThoughts: false,
    sheetExpected: null,
    sheetOffered: false,
    forAll: true,
    position: 0,
    version: 1,
    createdAt: place.at(-400, 9),
    closedAt: place.at(-370, 9),
  })
}
/** Somebody is reminded of a task that shows an example. */
async function nudge(place: Place, poem: TaskRow, wren: Pupil): Promise<void> {
  const { tasks: tasking, media } = place.server.capabilities
  const heron = place.teacherOf('Heron')
  await tasking.nudge(heron, poem.id, [wren.id])
  const mediaId = newId()
  const page = await photograph('poem', new Chance(EXAMPLE_SEED))
  await media.arrive(
    { mediaId, ownerId: heron.personId, name: 'a wind poem', sha256: null, use: 'attachment' },
    page,
  )
  await place.manager.insert(TaskMediaRow, {
    taskId: poem.id,
    mediaId,
    role: 'example',
    position: 0,
  })
}
/** The family of two children, with an address that is printed at the start. @returns it */
export async function inviteFamily(place: Place, pupils: Pupil[]): Promise<string> {
  const { guardians, invitations } = place.server.capabilities
  const teacher = place.teacherOf('Heron')
  const family = pupils.filter(({ firstName }) => firstName === 'Wren' || firstName === 'Aoife')
  const parentId = await guardians.addParent(
    place.manager,
    place.schoolId,
    { firstName: 'Bryn', lastName: 'A.' },
    family.map(({ id }) => id),
  )
  return (await invitations.invite(place.manager, teacher.personId, parentId)).address
}
