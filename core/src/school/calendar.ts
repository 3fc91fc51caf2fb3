import { DateTime } from 'luxon'
import type { Span, TermDates, YearDates } from './year.ts'

const day = (iso: string): DateTime => DateTime.fromISO(iso, { zone: 'utc' })
const isoDay = (at: DateTime): string => at.toFormat('yyyy-MM-dd')
const contains = (span: Span, iso: string): boolean => span.startsOn <= iso && iso <= span.endsOn

/** The school's calendar day (`YYYY-MM-DD`) at a moment. @param zone - An IANA time zone. */
export function schoolDay(at: Date, zone: string): string {
  return DateTime.fromJSDate(at, { zone }).toISODate() ?? at.toISOString().slice(0, 10)
}

/** The school's clock (`HH:mm`) at a moment. */
export function schoolTime(at: Date, zone: string): string {
  return DateTime.fromJSDate(at, { zone }).toFormat('HH:mm')
}

/**
 * The moment at which a wall clock of the school shows a day and a time.
 * A time the spring change leaves out is read as if the clock had not changed yet, so it comes out
 * an hour later;
 * of a time the autumn change shows twice, the first is taken. @see RFC 5545, section 3.3.5
 */
export function schoolMoment(onDay: string, time: string, zone: string): Date {
  const wall = DateTime.fromISO(`${onDay}T${time}`, { zone: 'utc' })
  const read = (offset: number) => wall.minus({ minutes: offset })
  // The rules in force half a day either side are the only ones that can apply at a change.
  const before = read(0).minus({ hours: 14 }).setZone(zone).offset
  const after = read(0).plus({ hours: 14 }).setZone(zone).offset
  for (const offset of [before, after]) {
    const moment = read(offset)
    if (moment.setZone(zone).offset === offset) return moment.toJSDate()
  }
  return read(before).toJSDate()
}

/**
 * The term that runs on a day; in the holidays the one that ended last, so that holiday work has a
 * place;
 * before the first term, the first.
 * @param terms - In any order.
 * @returns `undefined` only when there are no terms.
 */
export function termOn<T extends TermDates>(onDay: string, terms: readonly T[]): T | undefined {
  const inOrder = [...terms].sort((a, b) => a.startsOn.localeCompare(b.startsOn))
  return inOrder.findLast((term) => term.startsOn <= onDay) ?? inOrder[0]
}

/**
 * The week of the term a day falls in, from 1; weeks start on Monday (ISO 8601), so the first may
 * be a short one.
 * Days before the term count as week 1.
 */
export function weekOfTerm(onDay: string, term: Pick<TermDates, 'startsOn'>): number {
  const first = day(term.startsOn).startOf('week')
  const weeks = day(onDay).startOf('week').diff(first, 'weeks').weeks
  return Math.max(1, Math.round(weeks) + 1)
}

/** Whether lessons are held: Monday to Friday, in a term, not on a closed day. */
export function isSchoolDay(onDay: string, year: YearDates): boolean {
  if (day(onDay).weekday > 5) return false
  return (
    year.terms.some((term) => contains(term, onDay)) &&
    !year.closedDays.some((closed) => contains(closed, onDay))
  )
}

/**
 * The Mondays of the weeks in which there is at least one school day, in order: the year's school
 * weeks.
 */
export function schoolWeeks(year: YearDates): string[] {
  const weeks: string[] = []
  const end = day(year.endsOn)
  for (
    let monday = day(year.startsOn).startOf('week');
    monday <= end;
    monday = monday.plus({ weeks: 1 })
  )
    if ([0, 1, 2, 3, 4].some((days) => isSchoolDay(isoDay(monday.plus({ days })), year)))
      weeks.push(isoDay(monday))
  return weeks
}

/**
 * The day in another year that lies in the same school week, on the same weekday; where that is
 * closed, the next school day.
 * A day in a holiday counts with the school week before it. Weeks beyond the other year's last
 * count as its last.
 * @returns the day unchanged when either year has no school week
 */
export function shiftBySchoolWeeks(onDay: string, from: YearDates, to: YearDates): string {
  const [own, theirs] = [schoolWeeks(from), schoolWeeks(to)]
  if (own.length === 0 || theirs.length === 0) return onDay
  const monday = isoDay(day(onDay).startOf('week'))
  const index = Math.max(
    0,
    own.findLastIndex((week) => week <= monday),
  )
  const target = day(theirs[Math.min(index, theirs.length - 1)]!).plus({
    days: day(onDay).weekday - 1,
  })
  return nextSchoolDay(isoDay(target), to)
}

/**
 * The day itself or the first school day after it; the last school day of the year when none is
 * left.
 */
export function nextSchoolDay(onDay: string, year: YearDates): string {
  for (let at = day(onDay); isoDay(at) <= year.endsOn; at = at.plus({ days: 1 }))
    if (isSchoolDay(isoDay(at), year)) return isoDay(at)
  for (let at = day(year.endsOn); isoDay(at) >= year.startsOn; at = at.minus({ days: 1 }))
    if (isSchoolDay(isoDay(at), year)) return isoDay(at)
  return onDay
}
