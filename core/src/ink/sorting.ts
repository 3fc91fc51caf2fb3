import { covers } from './arrange.ts'
import { isPlaced, type At, type InkDocument, type Spot, type Thing } from './document.ts'

/**
 * What a teacher expects on a starter sheet: kept beside it, where no pupil reads it. `lies`: a
 * thing of the sheet and the spot it belongs on; `says`: a spot and the words expected there.
 */
export type Expected = {
  lies: readonly { thingId: string; spotId: string }[]
  says: readonly { spotId: string; words: string }[]
}
export const NOTHING_EXPECTED: Expected = { lies: [], says: [] }

/** Where a thing that can be moved lies; `spotId` null: on no spot. `words`: of a label, else null. */
export type Lying = { thingId: string; spotId: string | null; words: string | null }

export const spotsOf = (ink: InkDocument): Spot[] =>
  ink.sheets.flatMap(({ things }) => things.filter((thing) => thing.kind === 'spot'))

/** A thing that pupils may move on their copy of a starter sheet, or that they put down themselves. */
const canBeMoved = (thing: Thing) =>
  isPlaced(thing) && thing.kind !== 'spot' && !thing.fixed && !thing.locked
/** What can be sorted on a starter sheet as its teacher made it. */
export const sortablesOf = (ink: InkDocument) =>
  ink.sheets.flatMap(({ things }) => things.filter(isPlaced).filter(canBeMoved))

/** The uppermost spot that a place lies on. */
function spotAt(spots: readonly Spot[], at: At): string | null {
  return spots.findLast((spot) => covers(spot, at, 0))?.id ?? null
}

/**
 * What lies where on a drawing, by the middle of each thing. What its pupil locked counts as well;
 * what the teacher fixed does not.
 */
export const whatLiesWhere = (ink: InkDocument): Lying[] =>
  ink.sheets.flatMap(({ things }) => {
    const spots = things.filter((thing) => thing.kind === 'spot')
    if (spots.length === 0) return []
    return things
      .filter(isPlaced)
      .filter((thing) => thing.kind !== 'spot' && !thing.fixed)
      .map((thing) => ({
        thingId: thing.id,
        spotId: spotAt(spots, thing.at),
        words: thing.kind === 'label' ? thing.lines.join(' ') : null,
      }))
  })

/** Words are the same however they are spaced and whichever letters are large. */
const plainly = (words: string) => words.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim()

/** Whether a thing lies, or says, what was expected; null where nothing was. */
export function isAsExpected(
  { thingId, spotId, words }: Lying,
  expected: Expected,
): boolean | null {
  const belongs = expected.lies.find((one) => one.thingId === thingId)
  if (belongs) return belongs.spotId === spotId
  const awaited = expected.says.find((one) => one.spotId === spotId)
  if (!awaited || words === null) return null
  return plainly(awaited.words) === plainly(words)
}

/** What of it a sheet still has a thing or a spot for. */
export function stillExpected(expected: Expected, ink: InkDocument): Expected {
  const spots = new Set(spotsOf(ink).map(({ id }) => id))
  const things = new Set(sortablesOf(ink).map(({ id }) => id))
  return {
    lies: expected.lies.filter(({ thingId, spotId }) => things.has(thingId) && spots.has(spotId)),
    says: expected.says.filter(({ spotId, words }) => spots.has(spotId) && words.trim() !== ''),
  }
}

/** How many lie on a spot, or say something there. */
export type Tally<Of> = { of: Of; count: number }

/** For a thing, on how many copies it lies where: most first. Copies that lost it do not count. */
export function tallyOf(
  thingId: string,
  copies: readonly (readonly Lying[])[],
): Tally<string | null>[] {
  return counted(
    copies.flatMap((lies) =>
      lies.filter((lying) => lying.thingId === thingId).map(({ spotId }) => spotId),
    ),
  )
}

/** What pupils put words of their own on a spot, alike ones together: most first. */
export function wordsOn(spotId: string, copies: readonly (readonly Lying[])[]): Tally<string>[] {
  return counted(
    copies.flatMap((lies) => {
      const said = lies.flatMap((lying) =>
        lying.spotId === spotId && lying.words !== null ? [plainly(lying.words)] : [],
      )
      return [...new Set(said)]
    }),
  )
}

function counted<Of>(found: readonly Of[]): Tally<Of>[] {
  const counts = new Map<Of, number>()
  for (const one of found) counts.set(one, (counts.get(one) ?? 0) + 1)
  return [...counts].map(([of, count]) => ({ of, count })).sort((a, b) => b.count - a.count)
}
