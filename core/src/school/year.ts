import type { FaultCode } from '../faults.ts'

/** A run of school days as `YYYY-MM-DD`, both ends included, in the school's own time zone. */
export type Span = { startsOn: string; endsOn: string }
export type TermDates = Span & { id: string }
export type NamedSpan = Span & { name: string }
/**
 * A school year as it is set up: `closedDays` are half-terms, staff days and holidays inside terms.
 */
export type YearDates = Span & { terms: readonly NamedSpan[]; closedDays: readonly NamedSpan[] }

/** A year and a half. */
const MOST_DAYS = 550
const daysBetween = (from: string, to: string): number =>
  (Date.parse(to) - Date.parse(from)) / (24 * 3600 * 1000)

/** Whether a name is a time zone this system knows. @see IANA time zone database */
export function isTimeZone(zone: string): boolean {
  if (!zone.includes('/') && zone !== 'UTC') return false
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }))
  } catch {
    return false
  }
}

/**
 * What is wrong with a school year, by path (`terms.0.endsOn`), by their codes. Empty: nothing.
 */
export function faultsOfYear(year: YearDates): Record<string, FaultCode[]> {
  const faults: Record<string, FaultCode[]> = {}
  const add = (path: string, fault: FaultCode) => (faults[path] ??= []).push(fault)
  if (year.endsOn < year.startsOn) add('endsOn', 'ends-before-it-starts')
  else if (daysBetween(year.startsOn, year.endsOn) > MOST_DAYS) add('endsOn', 'longer-than-a-year')
  for (const list of ['terms', 'closedDays'] as const) {
    const spans = year[list]
    spans.forEach((span, i) => {
      if (span.endsOn < span.startsOn) add(`${list}.${i}.endsOn`, 'ends-before-it-starts')
      else if (span.startsOn < year.startsOn || span.endsOn > year.endsOn)
        add(`${list}.${i}.startsOn`, 'outside-the-year')
    })
  }
  year.terms.forEach((term, i) => {
    const overlaps = year.terms
      .slice(0, i)
      .some((earlier) => earlier.startsOn <= term.endsOn && term.startsOn <= earlier.endsOn)
    if (overlaps) add(`terms.${i}.startsOn`, 'overlaps')
  })
  return faults
}

export type Season = 'autumn' | 'spring' | 'summer'
/**
 * Three terms as a first guess for a school year that starts on a day: to be changed, not to be
 * believed.
 */
export function guessYear(
  startsOn: string,
  nameOf: (season: Season, year: number) => string,
): YearDates & { name: string } {
  const year = Number(startsOn.slice(0, 4))
  const at = (years: number, month: number, date: number) =>
    new Date(Date.UTC(year + years, month - 1, date)).toISOString().slice(0, 10)
  return {
    name: `${year}/${String(year + 1).slice(2)}`,
    startsOn,
    endsOn: at(1, 8, 31),
    terms: [
      { name: nameOf('autumn', year), startsOn, endsOn: at(0, 12, 18) },
      { name: nameOf('spring', year + 1), startsOn: at(1, 1, 4), endsOn: at(1, 3, 26) },
      { name: nameOf('summer', year + 1), startsOn: at(1, 4, 12), endsOn: at(1, 7, 21) },
    ],
    closedDays: [],
  }
}
