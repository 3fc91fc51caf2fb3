import { DateTime } from 'luxon'
import { isSchoolDay, schoolDay, schoolMoment, schoolTime } from '../school/calendar.ts'
import type { YearDates } from '../school/year.ts'
import type { DoorSwitch } from './doorSwitches.ts'

/**
 * How a class's door is set. Times are `HH:mm` on the school's clock; `switchedOn` is the school
 * day of the last switching by hand.
 */
export type DoorSettings = {
  switch: DoorSwitch
  switchedOn: string | null
  opensAt: string
  closesAt: string
}

/** Why a door is as it is. */
export type DoorReason = 'hours' | 'by-hand' | 'no-lessons' | 'too-early' | 'too-late'
/** `until`: when it shuts by itself; null while it is shut. */
export type DoorState = { open: boolean; until: Date | null; reason: DoorReason }

/**
 * Whether pupils can come in by their pegs at a moment.
 * What a teacher switched by hand holds until midnight of the same school day, so that nothing
 * stays open, or shut, by being forgotten.
 * @param zone - The school's IANA time zone.
 * @param year - The school year of the class.
 */
export function doorState(
  settings: DoorSettings,
  at: Date,
  zone: string,
  year: YearDates,
): DoorState {
  const today = schoolDay(at, zone)
  const byHand = settings.switchedOn === today ? settings.switch : 'hours'
  if (byHand === 'shut') return shut('by-hand')
  if (byHand === 'open')
    return { open: true, until: schoolMoment(dayAfter(today), '00:00', zone), reason: 'by-hand' }
  if (!isSchoolDay(today, year)) return shut('no-lessons')
  const time = schoolTime(at, zone)
  if (time < settings.opensAt) return shut('too-early')
  if (time >= settings.closesAt) return shut('too-late')
  return { open: true, until: schoolMoment(today, settings.closesAt, zone), reason: 'hours' }
}

const shut = (reason: DoorReason): DoorState => ({ open: false, until: null, reason })
const dayAfter = (day: string): string =>
  DateTime.fromISO(day, { zone: 'utc' }).plus({ days: 1 }).toISODate()!
