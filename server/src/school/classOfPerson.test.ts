import { v7 as newId } from 'uuid'
import { ClassRow, EnrolmentRow, SchoolYearRow } from './rows.ts'
import { type SmallSchool, type TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

// The database counts in UTC; New Zealand is twelve hours ahead of it in August, London one.
test.each([
  {
    zone: 'Pacific/Auckland',
    at: '2027-08-31T11:30:00Z',
    className: 'heron',
    why: 'half past eleven at night: still the old year',
  },
  {
    zone: 'Pacific/Auckland',
    at: '2027-08-31T12:30:00Z',
    className: 'otter',
    why: 'half past midnight: the new year has begun',
  },
  {
    zone: 'Europe/London',
    at: '2027-08-31T22:30:00Z',
    className: 'heron',
    why: 'half past eleven in summer time',
  },
  {
    zone: 'Europe/London',
    at: '2027-08-31T23:30:00Z',
    className: 'otter',
    why: 'midnight by the school’s clock comes before UTC’s',
  },
])(
  'a pupil’s class turns at midnight of the school, $zone, $why',
  async ({ zone, at, className }) => {
    const { manager } = test_
    const year = {
      id: newId(),
      schoolId: school.ids.school,
      name: '2027/28',
      startsOn: '2027-09-01',
      endsOn: '2028-08-31',
    }
    const otter = {
      id: newId(),
      schoolYearId: year.id,
      name: 'otter',
      yearGroup: 'Year 4',
      idleMinutes: 10,
      pupilsPropose: true,
      young: false,
      sounds: false,
      version: 1,
    }
    await manager.insert(SchoolYearRow, year)
    await manager.insert(ClassRow, otter)
    await manager.insert(EnrolmentRow, { classId: otter.id, personId: school.ids.wren })
    await manager.query('update school set time_zone = $1', [zone])
    const before = test_.clock.now()
    test_.clock.set(new Date(at))
    const code = await test_.server.capabilities.nameCards.issue(manager, school.ids.wren)
    const { body } = await test_
      .visitor()
      .ask<{ person: { className: string } }>('POST', '/accounts/sign-in/card', { code })
    expect(body.person.className).toBe(className)
    test_.clock.set(before)
    await manager.delete(EnrolmentRow, { classId: otter.id, personId: school.ids.wren })
    await manager.delete(ClassRow, otter.id)
    await manager.delete(SchoolYearRow, year.id)
  },
)
