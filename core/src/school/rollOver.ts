import type { FaultCode } from '../faults.ts'

/** One pupil's next step: into a class of the next year, or out of the school. */
export type RollOverMove = { pupilId: string; toClassId: string | null }

export type OldClass = { id: string; name: string; yearGroup: string; pupilIds: readonly string[] }
export type NewClass = { id: string; name: string; yearGroup: string }

/**
 * A first proposal for the year's turn: every class goes up together into a class of the next year
 * group,
 * by the same name where there is one; the oldest leave. To be reviewed, never to be done unseen.
 */
export function proposeRollOver(
  old: readonly OldClass[],
  next: readonly NewClass[],
): RollOverMove[] {
  return old.flatMap((from) => {
    const fitting = next.filter((to) => nextYearGroup(from.yearGroup) === to.yearGroup)
    const to = fitting.find(({ name }) => name === from.name) ?? fitting[0] ?? null
    return from.pupilIds.map((pupilId) => ({ pupilId, toClassId: to?.id ?? null }))
  })
}

/**
 * `Year 3` is followed by `Year 4`, `Reception` by `Year 1`; another name with a number by that
 * number and one.
 */
export function nextYearGroup(yearGroup: string): string | null {
  if (/^reception$/i.test(yearGroup.trim())) return 'Year 1'
  const found = /\d+/.exec(yearGroup)
  return found ? yearGroup.replace(found[0], String(Number(found[0]) + 1)) : null
}

/**
 * Who stands in no class of the plan, or in more than one, and moves into classes that are not
 * there. Empty: the plan can be done.
 */
export function faultsOfRollOver(
  moves: readonly RollOverMove[],
  old: readonly OldClass[],
  next: readonly NewClass[],
): string[] {
  const pupils = new Set(old.flatMap(({ pupilIds }) => pupilIds))
  const classes = new Set(next.map(({ id }) => id))
  const faults: FaultCode[] = []
  const seen = new Set<string>()
  for (const { pupilId, toClassId } of moves) {
    if (!pupils.has(pupilId)) faults.push('unknown-pupil')
    if (seen.has(pupilId)) faults.push('pupil-twice')
    if (toClassId !== null && !classes.has(toClassId)) faults.push('unknown-class')
    seen.add(pupilId)
  }
  if (seen.size < pupils.size) faults.push('pupil-left-out')
  return [...new Set(faults)]
}
