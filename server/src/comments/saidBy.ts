import type { SaidBy } from '@nibquill/contract'
import type { Colour, PegSymbol } from '@nibquill/core'

/** A person `u` as whoever reads their words is told of them. */
export const SAID_BY = `u.id as "byId", u.role as "byRole", u.first_name as "byFirst", u.last_name as "byLast", u.peg_symbol as "bySymbol", u.peg_colour as "byColour"`
export type FlatSaidBy = {
  byId: string
  byRole: SaidBy['role']
  byFirst: string
  byLast: string
  bySymbol: PegSymbol | null
  byColour: Colour | null
}

/** SQL: a pupil `o` as the contract names one. */
export const PUPIL = `json_build_object('id', o.id, 'firstName', o.first_name, 'lastName', o.last_name,
  'peg', json_build_object('symbol', o.peg_symbol, 'colour', o.peg_colour)) as pupil`

/** Pupils go by their first name, adults by all of it. */
export const saidBy = (
  { byId: id, byRole: role, byFirst, byLast, bySymbol, byColour }: FlatSaidBy,
  readerId: string,
): SaidBy => ({
  id,
  role,
  name: role === 'pupil' ? byFirst : `${byFirst} ${byLast}`.trim(),
  peg: role === 'pupil' && bySymbol && byColour ? { symbol: bySymbol, colour: byColour } : null,
  mine: id === readerId,
})
