import type { PupilName } from '@nibquill/contract'
import type { EntityManager } from 'typeorm'

type Flat = { id: string; firstName: string; lastName: string; symbol: never; colour: never }
const NAME = `u.id, u.first_name as "firstName", u.last_name as "lastName", u.peg_symbol as symbol, u.peg_colour as colour`
const nameOf = ({ id, firstName, lastName, symbol, colour }: Flat): PupilName => ({
  id,
  firstName,
  lastName,
  peg: { symbol, colour },
})

/** Those who make a piece now, by first name. */
export async function listMakers(manager: EntityManager, pieceId: string): Promise<PupilName[]> {
  const rows = await manager.query<Flat[]>(
    `select ${NAME} from piece_maker m join person u on u.id = m.person_id where m.piece_id = $1 order by u.first_name, u.id`,
    [pieceId],
  )
  return rows.map(nameOf)
}

/** Those who made each version of a piece, by first name. */
export async function listVersionMakers(
  manager: EntityManager,
  pieceId: string,
): Promise<Map<string, PupilName[]>> {
  const rows = await manager.query<(Flat & { versionId: string })[]>(
    `select m.version_id as "versionId", ${NAME} from piece_version w join version_maker m on m.version_id = w.id
       join person u on u.id = m.person_id where w.piece_id = $1 order by u.first_name, u.id`,
    [pieceId],
  )
  const byVersion = new Map<string, PupilName[]>()
  for (const row of rows)
    byVersion.set(row.versionId, [...(byVersion.get(row.versionId) ?? []), nameOf(row)])
  return byVersion
}
