import { COLOURS, PEG_SYMBOLS, type Colour, type PegSymbol } from '../folders/looks.ts'

export type PegLook = { symbol: PegSymbol; colour: Colour }
const keyOf = ({ symbol, colour }: PegLook): string => `${symbol}/${colour}`

/** As many pupils as one class can hold: each symbol in each colour once. */
export const MOST_PEGS = PEG_SYMBOLS.length * COLOURS.length

/**
 * Pegs for newcomers to a class: no two alike, and no symbol twice while one is free.
 * Colours go round, so that neighbours differ.
 * @param taken - The pegs that hang there already.
 * @throws RangeError when a class would hold more pegs than there are (48 symbols in 8 colours)
 */
export function givePegs(taken: readonly PegLook[], count: number): PegLook[] {
  if (taken.length + count > MOST_PEGS) throw new RangeError('there are not so many pegs')
  const used = new Set(taken.map(keyOf))
  const hanging = new Map<string, number>()
  for (const { symbol } of taken) hanging.set(symbol, (hanging.get(symbol) ?? 0) + 1)
  const given: PegLook[] = []
  for (let n = 0; n < count; n++) {
    const fewest = Math.min(...PEG_SYMBOLS.map((symbol) => hanging.get(symbol) ?? 0))
    const symbol =
      PEG_SYMBOLS.find(
        (candidate) =>
          (hanging.get(candidate) ?? 0) === fewest && freeColour(candidate, used, taken.length + n),
      ) ?? PEG_SYMBOLS.find((candidate) => freeColour(candidate, used, taken.length + n))!
    const peg = { symbol, colour: freeColour(symbol, used, taken.length + n)! }
    used.add(keyOf(peg))
    hanging.set(symbol, (hanging.get(symbol) ?? 0) + 1)
    given.push(peg)
  }
  return given
}

function freeColour(
  symbol: PegSymbol,
  used: ReadonlySet<string>,
  start: number,
): Colour | undefined {
  for (let i = 0; i < COLOURS.length; i++) {
    const colour = COLOURS[(start * 3 + i) % COLOURS.length]!
    if (!used.has(keyOf({ symbol, colour }))) return colour
  }
  return undefined
}

/**
 * What stands beside a peg and on a card: the first name; where classmates share it, with the first
 * letter of the surname.
 */
export const pegName = (firstName: string, lastName: string, isShared: boolean): string =>
  isShared && lastName ? `${firstName} ${[...lastName][0]}.` : firstName
