import type { Piece } from '@nibquill/contract'
import { v5 } from 'uuid'
import { Chance } from './chance.ts'
import { WIND_POEMS } from './drawings/index.ts'
import { drawInInk, drawWhileTalking } from './inInk.ts'
import { photograph } from './photograph.ts'
import type { Place } from './place.ts'
import type { Beside, PlannedPiece } from './planWork.ts'
import { filmed, spoken, typed } from './recordings.ts'
import { sortedRockPool } from './rockPoolSheet.ts'
import { NEXT_STEPS, PLAN_LINES, PRAISE, REASONS } from './scenario.ts'

const HOUR_MS = 3600 * 1000

/** Its photos. Drawing them is the slow part: it can begin while another piece is filed. */
export const drawPiece = ({
  drawing,
  seed,
  shots,
  inInk,
  onSheet,
}: PlannedPiece): Promise<Buffer[]> =>
  Promise.all(
    Array.from({ length: inInk || onSheet ? 0 : shots }, (_, i) =>
      // Each goes a little nearer to the same work.
      photograph(drawing, new Chance(seed), new Chance(seed + i), i),
    ),
  )

/**
 * Makes a piece as its pupil and its teacher would, at the hours they would. Begun before and cut
 * off, it goes on where it was.
 */
export async function makePiece(place: Place, plan: PlannedPiece, photos: Buffer[]): Promise<void> {
  const { pieces, parts, makers, media } = place.server.capabilities
  const own = new Chance(plan.seed)
  const viewer = place.asViewer(plan.pupilId, 'pupil')
  place.clock.set(
    place.at(plan.dayOffset, 9 + Math.floor(own.between(0, 4)), Math.floor(own.between(0, 59))),
  )
  let piece = await pieces.start(viewer, plan.id, { taskId: plan.taskId })
  if (piece.state !== 'draft') return judge(place, plan, piece, own)
  for (const [shot, photo] of photos.entries()) {
    const mediaId = v5(`photo ${shot}`, plan.id)
    const name = `photo ${shot + 1}`
    await media.arrive({ mediaId, ownerId: plan.pupilId, name, sha256: null, use: 'part' }, photo)
    await parts.add(viewer, plan.id, v5(`part ${shot}`, plan.id), {
      kind: 'photo',
      name: '',
      files: { picture: mediaId },
    })
  }
  if (plan.inInk || plan.onSheet) await addDrawing(place, plan)
  // Some write their poem as well, each by their own chance.
  const poem = plan.drawing === 'poem' && own.next() < 0.5 ? own.pick(WIND_POEMS) : null
  if (poem)
    await parts.add(viewer, plan.id, v5('writing', plan.id), {
      kind: 'writing',
      name: '',
      text: poem.join('\n'),
    })
  if (plan.beside) await addBeside(place, plan, plan.beside, poem ?? [plan.title, plan.thought])
  if (plan.friends.length > 0) await makers.set(viewer, plan.id, plan.friends)
  piece = await pieces.describe(plan.id)
  piece = await pieces.change(viewer, plan.id, {
    seenVersion: piece.version,
    title: plan.title,
    reflection: plan.thought,
    folderId: plan.folderId,
  })
  if (plan.to === 'draft') return
  piece = await pieces.handIn(viewer, plan.id, piece.version)
  await judge(place, plan, piece, own)
}

/** What was said, filmed or brought along, as the part it is. */
async function addBeside(
  place: Place,
  plan: PlannedPiece,
  beside: Beside,
  words: readonly string[],
): Promise<void> {
  const { parts, media } = place.server.capabilities
  const chance = new Chance(plan.seed + 3)
  const bytes = {
    // What it is and what one thinks of it, while it is drawn.
    talk: () => spoken([plan.title, ...words].join('.\n'), chance),
    voice: () => spoken(words.join('.\n'), chance),
    film: async () =>
      filmed(await photograph(plan.drawing, new Chance(plan.seed)), plan.thought, chance),
    page: () => typed(plan.title, PLAN_LINES),
  }
  const mediaId = v5(beside, plan.id)
  const sent = { mediaId, ownerId: plan.pupilId, name: beside, sha256: null, use: 'part' } as const
  await media.arrive(sent, await bytes[beside]())
  const part = { name: '' }
  const [viewer, partId] = [place.asViewer(plan.pupilId, 'pupil'), v5(`${beside} part`, plan.id)]
  if (beside === 'talk') {
    const talk = drawWhileTalking(plan.drawing, new Chance(plan.seed))
    return parts.addTalk(viewer, plan.id, partId, { ...part, sound: mediaId, talk })
  }
  await parts.add(
    viewer,
    plan.id,
    partId,
    beside === 'voice'
      ? { ...part, kind: beside, files: { sound: mediaId } }
      : beside === 'film'
        ? { ...part, kind: beside, files: { film: mediaId } }
        : { ...part, kind: beside, files: { paper: mediaId } },
  )
}

/** Drawn on a tablet, on an empty sheet or on its task's. */
async function addDrawing(place: Place, plan: PlannedPiece): Promise<void> {
  const { parts, media, tasks } = place.server.capabilities
  const mediaId = v5('ink', plan.id)
  const chance = new Chance(plan.seed)
  const sheet =
    plan.onSheet && plan.taskId
      ? (await tasks.describe(place.teacherOf(plan.className), plan.taskId)).sheet
      : null
  const drawn = sheet ? sortedRockPool(sheet.mediaId, chance) : drawInInk(plan.drawing, chance)
  const ink = Buffer.from(JSON.stringify(drawn))
  const sent = { mediaId, ownerId: plan.pupilId, name: 'drawing.json', sha256: null } as const
  await media.arrive({ ...sent, use: 'part' }, ink)
  await parts.add(place.asViewer(plan.pupilId, 'pupil'), plan.id, v5('drawing', plan.id), {
    ...{ kind: 'drawing', name: '', files: { ink: mediaId } },
  })
}

/** What the teacher says of it, and what the pupil does then. */
async function judge(
  place: Place,
  plan: PlannedPiece,
  handedIn: Piece,
  own: Chance,
): Promise<void> {
  if (plan.to === 'submitted' || handedIn.state !== 'submitted') return
  const { pieces, review, portfolio } = place.server.capabilities
  const viewer = place.asViewer(plan.pupilId, 'pupil')
  const teacher = place.teacherOf(plan.className)
  const decide = async (piece: Piece, move: 'approve' | 'send-back', message: string) => {
    place.clock.set(new Date(place.clock.now().getTime() + HOUR_MS))
    return review.decide(teacher, plan.id, { move, message, seenVersion: piece.version })
  }
  let piece = handedIn
  for (let n = 0; n < plan.sentBack; n++) {
    piece = await decide(piece, 'send-back', own.pick(NEXT_STEPS))
    piece = await pieces.handIn(viewer, plan.id, piece.version)
  }
  if (plan.to === 'returned')
    return void (await decide(
      piece,
      'send-back',
      plan.firstName === 'Wren' ? NEXT_STEPS[0]! : own.pick(NEXT_STEPS),
    ))
  await decide(piece, 'approve', own.pick(PRAISE))
  if (own.next() < 0.5)
    await portfolio.putPick(viewer, plan.pupilId, plan.id, { reason: own.pick(REASONS) })
}
