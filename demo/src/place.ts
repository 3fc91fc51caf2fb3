import type { FolderRow } from '@nibquill/server/folders/rows'
import type { SignedIn } from '@nibquill/server/platform/routes'
import type { OpenNibquill, SetClock } from '@nibquill/server'
import { DateTime } from 'luxon'
import { v7 as newId } from 'uuid'
import { ZONE } from './signIns.ts'

export type ClassName = 'Heron' | 'Plover'
export const CLASS_NAMES = ['Heron', 'Plover'] as const satisfies readonly ClassName[]
export type Pupil = { id: string; firstName: string; classId: string; className: ClassName }
/** The folders a class files into, by name. */
export type Shelf = Map<string, FolderRow>

/** The school that is being filled, through its real services, and what one needs to fill it. */
export class Place {
  readonly server: Pick<OpenNibquill, 'platform' | 'capabilities'>
  readonly clock: SetClock
  /** When it is filled: the demo's days are told from here. */
  readonly now: Date
  schoolId = ''
  /** The terms of both years: nothing was made in the holidays. */
  readonly terms: { startsOn: string; endsOn: string }[] = []
  readonly teacherIds: Record<ClassName, string> = { Heron: '', Plover: '' }

  constructor(server: Place['server'], clock: SetClock, now: Date) {
    this.server = server
    this.clock = clock
    this.now = now
  }

  get manager() {
    return this.server.platform.db.manager
  }

  teacherOf(name: ClassName): SignedIn {
    return this.asViewer(this.teacherIds[name], 'teacher')
  }

  asViewer(personId: string, role: SignedIn['role']): SignedIn {
    return { sessionId: newId(), personId, role, schoolId: this.schoolId, leads: false }
  }

  /**
   * A moment of a day before (or after) today, by the school's clock; where that was no school day,
   * of the last one before it.
   */
  at(days: number, hour: number, minute = 0): Date {
    let day = DateTime.fromJSDate(this.now, { zone: ZONE }).plus({ days }).startOf('day')
    if (days < 0) while (!this.#isSchoolDay(day)) day = day.minus({ days: 1 })
    // Nothing of the demo happened after this moment, but for what is due.
    const at = day.set({ hour, minute }).toJSDate()
    return days <= 0 && at > this.now ? new Date(this.now.getTime() - 60_000) : at
  }

  #isSchoolDay(day: DateTime): boolean {
    const date = day.toISODate()!
    const [first] = this.terms
    if (!first || date < first.startsOn) return true
    const inTerm = this.terms.some(({ startsOn, endsOn }) => date >= startsOn && date <= endsOn)
    return inTerm && day.weekday <= 5
  }
}
