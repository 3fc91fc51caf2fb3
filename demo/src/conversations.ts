import { v7 as newId } from 'uuid'
import type { Place, Pupil } from './place.ts'

/** What is said under work that hangs in its folder: some of it shown, some waiting, one on the list. */
export async function talkAboutWork(place: Place, pupils: readonly Pupil[]): Promise<void> {
  const { comments, privateWords } = place.server.capabilities
  const teacher = place.teacherOf('Heron')
  const of = (name: string) => pupils.find(({ firstName }) => firstName === name)!
  const as = (name: string) => place.asViewer(of(name).id, 'pupil')
  const [crab, poem] = await approvedOf(place, of('Wren').id)
  const [kite] = await approvedOf(place, of('Tomasz').id)
  const [other] = await approvedOf(place, of('Ifeoma').id)
  if (!crab || !poem || !kite || !other) return
  const at = (days: number, hour: number, minute = 0) =>
    place.clock.set(place.at(days, hour, minute))

  at(-2, 10)
  await comments.say(teacher, newId(), {
    ...{ pieceId: crab, words: 'I can tell where each leg begins. How did you see that?' },
  })
  at(-2, 13)
  const mine = newId()
  await comments.say(as('Wren'), mine, {
    ...{ pieceId: crab, words: 'I looked from below, through the glass.' },
  })
  at(-2, 14)
  await comments.decide(teacher, mine, 'show', { seenState: 'waiting' })

  at(-1, 11)
  await privateWords.say(as('Wren'), newId(), {
    ...{ pieceId: poem, withId: teacher.personId },
    words: 'May I read it to you and not to everybody?',
  })
  at(-1, 12)
  await privateWords.say(teacher, newId(), {
    ...{ pieceId: poem, withId: of('Wren').id, words: 'Of course. Come to me at break.' },
  })

  at(-1, 17, 40)
  const [parent] = await place.manager.query<{ id: string }[]>(
    'select parent_id as id from guardian where pupil_id = $1',
    [of('Wren').id],
  )
  if (parent)
    await comments.say(place.asViewer(parent.id, 'parent'), newId(), {
      ...{ pieceId: crab, words: 'We found one just like it under the harbour wall.' },
    })
  at(0, 9, 5)
  await comments.say(as('Tomasz'), newId(), {
    ...{ pieceId: kite, words: 'This is stupid, my line went wrong.' },
  })
  at(0, 9, 20)
  await comments.say(as('Ifeoma'), newId(), {
    ...{ pieceId: other, words: 'Can I put a kite on it next time?' },
  })
}

/** In a folder that families see, newest first. */
async function approvedOf(place: Place, pupilId: string): Promise<string[]> {
  const rows = await place.manager.query<{ id: string }[]>(
    `select p.id from piece p join folder f on f.id = p.approved_folder_id where p.pupil_id = $1 and f.parents_see and p.state = 'approved'
     order by p.approved_at desc, p.id`,
    [pupilId],
  )
  return rows.map(({ id }) => id)
}
