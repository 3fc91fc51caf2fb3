import fc from 'fast-check'
import { schoolDay } from '../school/calendar.ts'
import { doorState, type DoorSettings } from './door.ts'

const ZONE = 'Europe/London'
const YEAR = {
  startsOn: '2026-09-01',
  endsOn: '2027-08-31',
  terms: [{ name: 'Autumn term', startsOn: '2026-09-01', endsOn: '2026-12-18' }],
  closedDays: [{ name: 'Half-term', startsOn: '2026-10-26', endsOn: '2026-10-30' }],
}
const HOURS: DoorSettings = {
  switch: 'hours',
  switchedOn: null,
  opensAt: '08:30',
  closesAt: '15:30',
}
const at = (iso: string, settings: Partial<DoorSettings> = {}) =>
  doorState({ ...HOURS, ...settings }, new Date(iso), ZONE, YEAR)

describe('a class’s door', () => {
  test.each([
    { moment: '2026-11-23T08:30:00Z', open: true, reason: 'hours', why: 'opens on the minute' },
    {
      moment: '2026-11-23T08:29:59Z',
      open: false,
      reason: 'too-early',
      why: 'not a second before',
    },
    {
      moment: '2026-11-23T15:29:59Z',
      open: true,
      reason: 'hours',
      why: 'is open to the last second',
    },
    { moment: '2026-11-23T15:30:00Z', open: false, reason: 'too-late', why: 'shuts on the minute' },
    {
      moment: '2026-09-14T07:30:00Z',
      open: true,
      reason: 'hours',
      why: 'goes by the school’s clock, in summer an hour ahead',
    },
    {
      moment: '2026-11-22T10:00:00Z',
      open: false,
      reason: 'no-lessons',
      why: 'stays shut on a Sunday',
    },
    {
      moment: '2026-10-28T10:00:00Z',
      open: false,
      reason: 'no-lessons',
      why: 'stays shut in the half-term',
    },
    {
      moment: '2027-01-11T10:00:00Z',
      open: false,
      reason: 'no-lessons',
      why: 'stays shut outside the terms',
    },
  ])('$why', ({ moment, open, reason }) => {
    expect(at(moment)).toMatchObject({ open, reason })
  })

  test('says when it shuts', () => {
    expect(at('2026-11-23T10:00:00Z').until).toEqual(new Date('2026-11-23T15:30:00Z'))
    expect(at('2026-09-14T10:00:00Z').until).toEqual(new Date('2026-09-14T14:30:00Z'))
    expect(at('2026-11-23T17:00:00Z').until).toBeNull()
  })

  test('opened by hand it is open for the rest of that day, also on a Saturday, and goes by the hours again on the next', () => {
    const byHand = { switch: 'open', switchedOn: '2026-11-21' } as const
    expect(at('2026-11-21T19:00:00Z', byHand)).toEqual({
      open: true,
      until: new Date('2026-11-22T00:00:00Z'),
      reason: 'by-hand',
    })
    expect(at('2026-11-22T10:00:00Z', byHand)).toMatchObject({ open: false, reason: 'no-lessons' })
    expect(at('2026-11-23T10:00:00Z', byHand)).toMatchObject({ open: true, reason: 'hours' })
  })

  test('shut by hand it is shut for the rest of that day only', () => {
    const byHand = { switch: 'shut', switchedOn: '2026-11-23' } as const
    expect(at('2026-11-23T10:00:00Z', byHand)).toMatchObject({ open: false, reason: 'by-hand' })
    expect(at('2026-11-24T10:00:00Z', byHand)).toMatchObject({ open: true })
  })

  test('whenever it is open it shuts by itself, later than now and by midnight', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2026-09-01'), max: new Date('2027-08-31'), noInvalidDate: true }),
        fc.constantFrom('hours', 'open', 'shut'),
        fc.boolean(),
        (moment, position, today) => {
          const state = doorState(
            { ...HOURS, switch: position, switchedOn: today ? schoolDay(moment, ZONE) : null },
            moment,
            ZONE,
            YEAR,
          )
          if (!state.open) return state.until === null
          const lasts = state.until!.getTime() - moment.getTime()
          // The day the clocks go back has 25 hours.
          return lasts > 0 && lasts <= 25 * 3600 * 1000
        },
      ),
    )
  })
})
