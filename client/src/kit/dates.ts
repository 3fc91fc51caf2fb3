import { schoolNow } from './clock'

/** Dates as people say them, in the school's time zone. */
const fmt = (options: Intl.DateTimeFormatOptions, timeZone?: string) =>
  new Intl.DateTimeFormat('en-GB', { ...options, timeZone })

let zone: string | undefined
/** Set once the school is known. */
export const setSchoolZone = (timeZone: string) => {
  zone = timeZone
}

const dayNumber = (at: Date) =>
  Math.floor(
    Date.parse(
      fmt({ year: 'numeric', month: '2-digit', day: '2-digit' }, zone)
        .format(at)
        .split('/')
        .reverse()
        .join('-'),
    ) / 86_400_000,
  )

/** `today 9:12`, `yesterday`, `Tuesday`, else `6 October`. */
export function whenWasIt(moment: string, now = schoolNow()): string {
  const at = new Date(moment)
  const days = dayNumber(now) - dayNumber(at)
  if (days === 0) return `today ${timeOf(at)}`
  if (days === 1) return 'yesterday'
  if (days > 1 && days < 7) return fmt({ weekday: 'long' }, zone).format(at)
  return dayOf(moment)
}

/** `by today 15:00`, `by Wednesday 14:00`, `was due on Friday`. */
export function whenIsItDue(moment: string, now = schoolNow()): string {
  const at = new Date(moment)
  const days = dayNumber(at) - dayNumber(now)
  if (at < now)
    return days === 0
      ? `was due at ${timeOf(at)}`
      : `was due on ${fmt({ weekday: 'long' }, zone).format(at)}`
  const day =
    days === 0
      ? 'today'
      : days === 1
        ? 'tomorrow'
        : days < 7
          ? fmt({ weekday: 'long' }, zone).format(at)
          : dayOf(moment)
  return `by ${day} ${timeOf(at)}`
}

export const dayOf = (moment: string): string =>
  fmt({ day: 'numeric', month: 'long' }, zone).format(new Date(moment))
export const fullDayOf = (moment: string): string =>
  fmt({ day: 'numeric', month: 'long', year: 'numeric' }, zone).format(new Date(moment))
export const timeOf = (at: Date): string =>
  fmt({ hour: 'numeric', minute: '2-digit' }, zone).format(at)
export const sizeOf = (bytes: number): string =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1000))} KB`
    : `${(bytes / 1_000_000).toFixed(1)} MB`
/** `tomorrow 9:00`, `Monday 9:00`, `6 December 9:00`: when something to come will be there. */
export function whenItOpens(moment: string, now = schoolNow()): string {
  return whenIsItDue(moment, now).replace(/^by /, '')
}
/** Today at school, as `YYYY-MM-DD`. */
export const schoolToday = (now = schoolNow()): string => schoolDayAndTime(now.toISOString()).day
/** The school's day and time of a moment, as date and time fields take them. */
export function schoolDayAndTime(moment: string): { day: string; time: string } {
  const at = new Date(moment)
  const day = fmt({ year: 'numeric', month: '2-digit', day: '2-digit' }, zone)
    .format(at)
    .split('/')
    .reverse()
    .join('-')
  return {
    day,
    time: fmt({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }, zone).format(at),
  }
}
