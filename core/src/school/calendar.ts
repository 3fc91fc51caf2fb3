import { DateTime } from 'luxon'

/** A term's days as `YYYY-MM-DD`, both included, in the school's own time zone. */
export type TermDates = { id: string; startsOn: string; endsOn: string }

/** The school's calendar day (`YYYY-MM-DD`) at a moment. @param zone - An IANA time zone. */
export function schoolDay(at: Date, zone: string): string {
  return DateTime.fromJSDate(at, { zone }).toISODate() ?? at.toISOString().slice(0, 10)
}

/**
 * The term that runs on a day; in the holidays the one that ended last, so that holiday work has a place;
 * before the first term, the first.
 * @param terms - In any order.
 * @returns `undefined` only when there are no terms.
 */
export function termOn<T extends TermDates>(day: string, terms: readonly T[]): T | undefined {
  const inOrder = [...terms].sort((a, b) => a.startsOn.localeCompare(b.startsOn))
  return inOrder.findLast((term) => term.startsOn <= day) ?? inOrder[0]
}

/**
 * The week of the term a day falls in, from 1; weeks start on Monday (ISO 8601), so the first may be a short one.
 * Days before the term count as week 1.
 */
export function weekOfTerm(day: string, term: Pick<TermDates, 'startsOn'>): number {
  const first = DateTime.fromISO(term.startsOn, { zone: 'utc' }).startOf('week')
  const weeks = DateTime.fromISO(day, { zone: 'utc' }).startOf('week').diff(first, 'weeks').weeks
  return Math.max(1, Math.round(weeks) + 1)
}

/** Whether a name is a time zone this system knows. @see IANA time zone database */
export function isTimeZone(zone: string): boolean {
  return DateTime.utc().setZone(zone).isValid && (zone.includes('/') || zone === 'UTC')
}
