import { LANGUAGE } from '../words'
import { schoolNow } from './clock'
import { t } from './words'

/** Dates as people say them, in the school's time zone. */
function fmt(options: Intl.DateTimeFormatOptions, timeZone?: string, language = LANGUAGE) {
  const key = JSON.stringify([language, timeZone, options])
  const format = formats.get(key) ?? new Intl.DateTimeFormat(language, { ...options, timeZone })
  formats.set(key, format)
  return format
}
/** Making one takes longer than a hundred dates. */
const formats = new Map<string, Intl.DateTimeFormat>()

let zone: string | undefined
/** Set once the school is known. */
export const setSchoolZone = (timeZone: string) => {
  zone = timeZone
}

/** Its date at school as `YYYY-MM-DD`, whatever the language of the page. */
const dateOf = (at: Date): string => fmt({ dateStyle: 'short' }, zone, 'en-CA').format(at)
const dayNumber = (at: Date) => Math.floor(Date.parse(dateOf(at)) / 86_400_000)
const weekdayOf = (at: Date): string => fmt({ weekday: 'long' }, zone).format(at)

/** `today 9:12`, `yesterday`, `Tuesday`, else `6 October`. */
export function whenWasIt(moment: string, now = schoolNow()): string {
  const at = new Date(moment)
  const days = dayNumber(now) - dayNumber(at)
  if (days === 0) return t('when.todayAt', { time: timeOf(at) })
  if (days === 1) return t('when.yesterday')
  if (days > 1 && days < 7) return weekdayOf(at)
  return dayOf(moment)
}

/** `by today 15:00`, `by Wednesday 14:00`, `was due on Friday`. */
export function whenIsItDue(moment: string, now = schoolNow()): string {
  const at = new Date(moment)
  if (at >= now) return t('when.dueBy', { when: whenItOpens(moment, now) })
  return dayNumber(at) === dayNumber(now)
    ? t('when.wasDueAt', { time: timeOf(at) })
    : t('when.wasDueOn', { day: weekdayOf(at) })
}

/** `tomorrow 9:00`, `Monday 9:00`, `6 December 9:00`: when something to come will be there. */
export function whenItOpens(moment: string, now = schoolNow()): string {
  const at = new Date(moment)
  const days = dayNumber(at) - dayNumber(now)
  const time = timeOf(at)
  if (days === 0) return t('when.todayAt', { time })
  if (days === 1) return t('when.tomorrowAt', { time })
  return t('when.dayAt', { day: days < 7 ? weekdayOf(at) : dayOf(moment), time })
}

export const dayOf = (moment: string): string =>
  fmt({ day: 'numeric', month: 'long' }, zone).format(new Date(moment))
export const fullDayOf = (moment: string): string =>
  fmt({ day: 'numeric', month: 'long', year: 'numeric' }, zone).format(new Date(moment))
/** `November 2026`. @param month - `YYYY-MM` */
export const monthOf = (month: string): string =>
  fmt({ month: 'long', year: 'numeric' }, 'UTC').format(new Date(`${month}-15T12:00:00Z`))
export const timeOf = (at: Date): string =>
  fmt({ hour: 'numeric', minute: '2-digit' }, zone).format(at)
export const sizeOf = (bytes: number): string =>
  bytes < 1_000_000
    ? t('size.kilobytes', { size: Math.max(1, Math.round(bytes / 1000)) })
    : t('size.megabytes', { size: bytes / 1_000_000 })
/** Today at school, as `YYYY-MM-DD`. */
export const schoolToday = (now = schoolNow()): string => schoolDayAndTime(now.toISOString()).day
/** The school's day and time of a moment, as date and time fields take them. */
export function schoolDayAndTime(moment: string): { day: string; time: string } {
  const at = new Date(moment)
  return {
    day: dateOf(at),
    // As a time field takes it.
    time: fmt({ timeStyle: 'short' }, zone, 'en-GB').format(at),
  }
}
