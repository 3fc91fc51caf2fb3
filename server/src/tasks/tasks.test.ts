import { v7 as newId } from 'uuid'
import type { DueAdvice, MakeTask, Problem, Standing, Task, Unit } from '@nibquill/contract'
import {
  type Person,
  picture,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'
import { paper, recording } from '../testing/madeFiles.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const input = (change: Partial<MakeTask> = {}): MakeTask => ({
  classId: school.ids.heron,
  folderId: school.ids.open,
  unitId: null,
  strandId: null,
  title: 'Shore poem',
  instructions: 'Write four lines.',
  media: [],
  steps: ['plan', 'finished'],
  asks: [{ kind: 'photo', count: 2 }],
  opens: null,
  due: { day: '2026-12-01', time: '15:00' },
  folderChangeable: false,
  asksThoughts: false,
  pupilIds: null,
  ...change,
})
const make = (change: Partial<MakeTask> = {}, who: Person = school.teacher, id = newId()) =>
  who.ask<Task & Problem>('PUT', `/tasks/${id}`, input(change))
const listOf = async (who: Person) =>
  (await who.ask<Task[]>('GET', '/tasks')).body.map(({ id }) => id)

test('a task is set once however often it is sent, in school time', async () => {
  const id = newId()
  for (let i = 0; i < 2; i++)
    expect((await make({}, school.teacher, id)).body).toMatchObject({
      id,
      dueAt: '2026-12-01T15:00:00.000Z',
      steps: ['plan', 'finished'],
      version: 1,
    })
  expect(await listOf(school.wren)).toContain(id)
  expect(await listOf(school.aoife)).not.toContain(id)
})

test('summer time, and the night the clocks change', async () => {
  expect((await make({ due: { day: '2027-06-01', time: '15:00' } })).body.dueAt).toBe(
    '2027-06-01T14:00:00.000Z',
  )
  expect((await make({ due: { day: '2027-03-28', time: '01:30' } })).body.dueAt).toBe(
    '2027-03-28T01:30:00.000Z',
  )
  const advice = async (day: string, time: string) =>
    (
      await school.teacher.ask<DueAdvice>(
        'GET',
        `/tasks/due?classId=${school.ids.heron}&day=${day}&time=${time}`,
      )
    ).body.warning
  expect(await advice('2027-03-28', '01:30')).toEqual({ code: 'clocks-change', about: '02:30' })
  expect(await advice('2026-12-05', '15:00')).toMatchObject({ code: 'no-lessons' })
  expect(await advice('2026-11-20', '15:00')).toMatchObject({ code: 'past' })
  expect(await advice('2026-12-01', '15:00')).toBeNull()
})

test.each([
  { why: 'no title', change: { title: '  ' }, status: 400 },
  { why: 'no step', change: { steps: [] }, status: 400 },
  {
    why: 'a time that is none',
    change: { due: { day: '2026-12-01', time: '25:00' } },
    status: 400,
  },
  {
    why: 'due before it opens',
    change: { opens: { day: '2026-12-02', time: '08:00' } },
    status: 400,
  },
  { why: 'a folder of another class', change: { folderId: newId() }, status: 404 },
  { why: 'a unit of another class', change: { unitId: newId() }, status: 404 },
  {
    why: 'a file of somebody else',
    change: { media: [{ mediaId: newId(), role: 'example' as const }] },
    status: 404,
  },
  { why: 'for nobody', change: { pupilIds: [] }, status: 400 },
])('$why is refused', async ({ change, status }) =>
  expect((await make(change)).status).toBe(status),
)

test('it is for all or for some, now or from a later moment', async () => {
  const some = (await make({ pupilIds: [school.ids.wren, school.ids.aoife] })).body
  expect(await listOf(school.wren)).toContain(some.id)
  expect(await listOf(school.tomasz)).not.toContain(some.id)
  expect((await school.tomasz.ask('GET', `/tasks/${some.id}`)).status).toBe(404)
  expect((await school.tomasz.ask('PUT', `/pieces/${newId()}`, { taskId: some.id })).status).toBe(
    404,
  )
  // Aoife is in another class, so she is not among them.
  expect((await school.teacher.ask<Task>('GET', `/tasks/${some.id}`)).body.pupilIds).toEqual([
    school.ids.wren,
  ])

  const later = (await make({ opens: { day: '2026-11-24', time: '08:00' } })).body
  expect(await listOf(school.wren)).not.toContain(later.id)
  expect((await school.wren.ask('GET', `/tasks/${later.id}`)).status).toBe(404)
  const now = test_.clock.now()
  test_.clock.set(new Date('2026-11-24T08:00:00Z'))
  await school.wren.ask('POST', '/accounts/sign-in/card', {
    code: await test_.server.capabilities.nameCards.issue(test_.manager, school.ids.wren),
  })
  expect(await listOf(school.wren)).toContain(later.id)
  test_.clock.set(now)
})

test('two teachers changing one task at once: the second is told, and nothing is lost', async () => {
  const task = (await make()).body
  const { classId: _classId, ...rest } = input({ title: 'Changed' })
  expect(
    (await school.teacher.ask('PATCH', `/tasks/${task.id}`, { ...rest, seenVersion: 1 })).status,
  ).toBe(200)
  expect(
    (
      await school.teacher.ask('PATCH', `/tasks/${task.id}`, {
        ...rest,
        title: 'Mine',
        seenVersion: 1,
      })
    ).body,
  ).toMatchObject({ type: '/problems/task/stale', version: 2 })
  expect((await school.teacher.ask<Task>('GET', `/tasks/${task.id}`)).body.title).toBe('Changed')
})

test('pictures, a PDF and a voice hang on it; pupils of the class read them, others do not; films and texts are refused', async () => {
  const files = [
    { bytes: await picture(), filename: 'pool.jpg', role: 'material', kind: 'picture' },
    {
      bytes: await paper(),
      filename: 'sheet.pdf',
      role: 'material',
      kind: 'paper',
    },
    { bytes: await recording(), filename: 'voice.webm', role: 'voice', kind: 'sound' },
  ] as const
  const media = []
  for (const { bytes, filename, role } of files) {
    const sent = await school.teacher.upload(bytes, { filename })
    expect({ filename, status: sent.status }).toEqual({ filename, status: 200 })
    media.push({ mediaId: sent.mediaId, role })
  }
  const task = (await make({ media })).body
  expect(task.media.map(({ kind }) => kind)).toEqual(files.map(({ kind }) => kind))
  for (const { mediaId } of media) {
    expect((await school.wren.fetch('GET', `/media/${mediaId}/full`)).status).toBe(200)
    for (const other of [school.aoife, school.parent, school.otherTeacher])
      expect((await other.fetch('GET', `/media/${mediaId}/full`)).status).toBe(404)
  }
  expect((await school.teacher.upload(await recording('song.mp3'))).status).toBe(415)
  expect((await school.teacher.upload(Buffer.from('just words'))).status).toBe(415)
  // What hangs there stays when another teacher of the class changes the task.
  const { classId: _classId, ...rest } = input({ media, title: 'With files' })
  expect(
    (await school.teacher.ask('PATCH', `/tasks/${task.id}`, { ...rest, seenVersion: 1 })).body,
  ).toMatchObject({
    title: 'With files',
  })
})

test('who stands where; a tick counts as done; a nudge reaches those who owe something, and nobody else', async () => {
  const task = (await make()).body
  const at = `/tasks/${task.id}`
  expect((await school.tomasz.ask('POST', `${at}/tick`)).body).toMatchObject({ ticked: true })
  const standings = async () =>
    (await school.teacher.ask<Standing[]>('GET', `${at}/standings`)).body
  const of = async (id: string) => (await standings()).find(({ pupil }) => pupil.id === id)!
  expect([(await of(school.ids.wren)).standing, (await of(school.ids.tomasz)).standing]).toEqual([
    'none',
    'ticked',
  ])
  await school.teacher.ask('POST', `${at}/nudge`, {
    pupilIds: [school.ids.wren, school.ids.tomasz],
  })
  expect([(await of(school.ids.wren)).nudgedAt, (await of(school.ids.tomasz)).nudgedAt]).toEqual([
    expect.any(String),
    null,
  ])
  expect((await school.wren.ask<Task>('GET', at)).body.nudgedAt).toEqual(expect.any(String))
  expect((await school.teacher.ask<Task>('GET', at)).body.counts).toMatchObject({
    pupils: 2,
    ticked: 1,
    submitted: 0,
  })
  await school.tomasz.ask('DELETE', `${at}/tick`)
  expect((await of(school.ids.tomasz)).standing).toBe('none')
  await school.teacher.ask('POST', `${at}/close`)
  expect((await school.tomasz.ask('POST', `${at}/tick`)).body).toMatchObject({
    type: '/problems/task/closed',
  })
  expect(await listOf(school.tomasz)).not.toContain(task.id)
  await school.teacher.ask('POST', `${at}/open`)
  expect(await listOf(school.tomasz)).toContain(task.id)
})

test('a copy waits a week, and a unit is used again in the next year with its dates shifted by school weeks', async () => {
  const unitId = newId()
  await school.teacher.ask('PUT', `/tasks/units/${unitId}`, {
    classId: school.ids.heron,
    title: 'Life on the shore',
  })
  const task = (await make({ unitId, due: { day: '2026-09-10', time: '15:00' } })).body
  const copy = (await school.teacher.ask<Task>('POST', `/tasks/${task.id}/duplicate`)).body
  expect(copy).toMatchObject({ title: 'Shore poem (copy)', dueAt: null, unit: { id: unitId } })
  expect(await listOf(school.wren)).not.toContain(copy.id)

  const [yearId, classId, fresh] = [newId(), newId(), newId()]
  await school.teacher.ask('PUT', `/school/years/${yearId}`, {
    name: '2027/28',
    startsOn: '2027-09-01',
    endsOn: '2028-08-31',
    closedDays: [{ id: newId(), name: 'Staff day', startsOn: '2027-09-16', endsOn: '2027-09-16' }],
    terms: [{ id: newId(), name: 'Autumn 27', startsOn: '2027-09-06', endsOn: '2027-12-17' }],
  })
  await school.teacher.ask('PUT', `/school/classes/${classId}`, {
    schoolYearId: yearId,
    name: 'Egret',
    yearGroup: 'Year 4',
  })
  const reuse = () =>
    school.teacher.ask<Unit[]>('POST', `/tasks/units/${fresh}/reuse`, { unitId, classId })
  // The class has no folder but the whole school's, which is taken.
  expect((await reuse()).status).toBe(200)
  expect((await reuse()).body.find(({ id }) => id === fresh)).toMatchObject({
    taskCount: 2,
    className: 'Egret',
    running: true,
  })
  const tasks = (await school.teacher.ask<Task[]>('GET', '/tasks')).body.filter(
    ({ unit }) => unit?.id === fresh,
  )
  // Thursday of the second school week is a staff day next year, so it is the Friday.
  expect(tasks.map(({ dueAt }) => dueAt)).toContain('2027-09-17T14:00:00.000Z')
  expect(
    (
      await school.otherTeacher.ask('POST', `/tasks/units/${newId()}/reuse`, {
        unitId,
        classId: school.ids.plover,
      })
    ).status,
  ).toBe(404)
  await school.teacher.ask('DELETE', `/tasks/units/${unitId}`)
  expect((await school.teacher.ask<Task>('GET', `/tasks/${task.id}`)).body.unit).toBeNull()
})

test('nobody but the class’s teachers sets, changes or watches a task', async () => {
  const task = (await make()).body
  const { classId: _classId, ...change } = input()
  for (const [who, status] of [
    [school.otherTeacher, 404],
    [school.wren, 404],
    [school.parent, 404],
    [test_.visitor(), 401],
  ] as const) {
    expect((await make({}, who)).status).toBe(status)
    for (const [method, address, body] of [
      ['PATCH', '', { ...change, seenVersion: 1 }],
      ['POST', '/close', {}],
      ['POST', '/duplicate', {}],
      ['GET', '/standings', undefined],
      ['POST', '/nudge', { pupilIds: [school.ids.wren] }],
    ] as const)
      expect({
        address,
        status: (await who.ask(method, `/tasks/${task.id}${address}`, body)).status,
      }).toEqual({ address, status })
  }
  expect((await school.teacher.ask('POST', `/tasks/${task.id}/tick`)).status).toBe(404)
  expect((await school.aoife.ask('POST', `/tasks/${task.id}/tick`)).status).toBe(404)
})

test('an id that is another class’s task shows nothing of it', async () => {
  const theirs = (await make()).body.id
  const input_ = { ...input(), classId: school.ids.plover, folderId: school.ids.whole }
  expect((await school.otherTeacher.ask('PUT', `/tasks/${theirs}`, input_)).status).toBe(404)
})

test('a change is on the pupils’ open pages at once', async () => {
  const events: string[] = []
  const stream = await school.wren.fetch('GET', '/live')
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
  void (async () => {
    for (;;) {
      const { value, done } = await reader.read().catch(() => ({ value: undefined, done: true }))
      if (done) return
      events.push(value ?? '')
    }
  })()
  await make()
  await until(() => Promise.resolve(events.some((text) => text.includes('"tasks"'))))
  await reader.cancel()
})
