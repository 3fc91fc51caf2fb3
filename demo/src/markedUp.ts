import { INK_FORMAT, INK_VERSION, UNITS_PER_MM } from '@nibquill/core/ink/document'
import { sheetToMark } from '@nibquill/core/ink/markUp'
import { Chance } from './chance.ts'
import { Child, round } from './inInk.ts'
import type { Place, Pupil } from './place.ts'

/** Any number: how steady the hand is. */
const HAND_SEED = 37
/** A ring has so many corners that nobody sees them. */
const RING = 40

/** What Wren's teacher sent back has something written on a copy of it: a ring, and an arrow to it. */
export async function writeOnCopies(place: Place, pupils: readonly Pupil[]): Promise<void> {
  const wren = pupils.find(({ firstName }) => firstName === 'Wren')!
  const [found] = await place.manager.query<
    {
      pieceId: string
      versionId: string
      partId: string
      mediaId: string
      width: number
      height: number
    }[]
  >(
    `select p.id as "pieceId", v.id as "versionId", f.part_id as "partId", m.id as "mediaId", m.width, m.height
     from piece p join piece_version v on v.piece_id = p.id join version_file f on f.version_id = v.id and f.role = 'picture'
       join version_part w on w.version_id = v.id and w.part_id = f.part_id join media m on m.id = f.media_id
     where p.pupil_id = $1 and p.state = 'returned' order by v.number desc, w.position limit 1`,
    [wren.id],
  )
  if (!found) return
  const { pieceId, versionId, partId, mediaId } = found
  const sheet = sheetToMark({ sheetId: 'sheet', thingId: 'copy' }, mediaId, found)
  const [wide, high] = [sheet.width / UNITS_PER_MM, sheet.height / UNITS_PER_MM]
  const ring = round(wide * 0.68, high * 0.37, wide * 0.11, high * 0.14, RING)
  const hand = new Child(new Chance(HAND_SEED))
    .line(['madder'], 2, ...ring)
    .line(['madder'], 2, [wide * 0.9, high * 0.72], [wide * 0.76, high * 0.53])
    .line(
      ['madder'],
      2,
      [wide * 0.76, high * 0.6],
      [wide * 0.76, high * 0.53],
      [wide * 0.81, high * 0.55],
    )
  const things = [...sheet.things, ...hand.things]
  await place.server.capabilities.markUps.put(
    place.teacherOf('Heron'),
    { pieceId, versionId, partId },
    {
      ink: {
        ...{ format: INK_FORMAT, version: INK_VERSION },
        sheets: [{ ...sheet, things }],
      },
      seenMediaId: null,
    },
  )
}
