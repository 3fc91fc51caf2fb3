import { v7 as newId } from 'uuid'
import type { Folder, MakeFolder, Problem, Strand } from '@nibquill/contract'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const input = (change: Partial<MakeFolder> = {}): MakeFolder => ({
  name: 'Bridges',
  symbol: 'bridge',
  colour: 'ochre',
  strandId: null,
  classIds: [school.ids.heron],
  wholeSchool: false,
  parentsSee: true,
  pupilsFile: true,
  ...change,
})
const make = (change: Partial<MakeFolder> = {}, who: Person = school.teacher, id = newId()) =>
  who.ask<Folder & Problem>('PUT', `/folders/${id}`, input(change))
const names = async (who: Person, away = false) =>
  (await who.ask<Folder[]>('GET', `/folders${away ? '?away=1' : ''}`)).body.map(({ name }) => name)

test('a folder is made once, changed by one at a time, and stands where it is for', async () => {
  const id = newId()
  for (let i = 0; i < 2; i++)
    expect((await make({}, school.teacher, id)).body).toMatchObject({
      id,
      version: 1,
      className: 'heron',
    })
  expect(await names(school.wren)).toContain('Bridges')
  expect(await names(school.aoife)).not.toContain('Bridges')
  const both = {
    ...input({ name: 'Bridges and beams', classIds: [school.ids.heron, school.ids.plover] }),
    seenVersion: 1,
  }
  expect((await school.teacher.ask('PATCH', `/folders/${id}`, both)).body).toMatchObject({
    className: 'heron, plover',
  })
  expect((await school.teacher.ask('PATCH', `/folders/${id}`, both)).body).toMatchObject({
    type: '/problems/folder/stale',
  })
  expect(await names(school.aoife)).toContain('Bridges and beams')
})

test.each([
  { why: 'without a name', change: { name: ' ' }, status: 400 },
  { why: 'for no class', change: { classIds: [] }, status: 400 },
  { why: 'with a symbol there is not', change: { symbol: 'skull' as never }, status: 400 },
])('a folder $why is refused', async ({ change, status }) =>
  expect((await make(change)).status).toBe(status),
)

test('teachers make folders for their own classes; the whole school’s are the lead’s', async () => {
  expect((await make({}, school.otherTeacher)).status).toBe(404)
  expect((await make({ wholeSchool: true, classIds: [] }, school.otherTeacher)).status).toBe(404)
  expect((await make({ wholeSchool: true, classIds: [], name: 'For all' })).status).toBe(200)
  expect((await make({ classIds: [school.ids.plover] }, school.otherTeacher)).status).toBe(200)
  const at = `/folders/${school.ids.whole}`
  const change = {
    ...input({ wholeSchool: true, classIds: [], name: 'Out and about' }),
    seenVersion: 1,
  }
  expect((await school.otherTeacher.ask('GET', at)).status).toBe(200)
  expect((await school.otherTeacher.ask('PATCH', at, change)).status).toBe(404)
  expect((await school.teacher.ask('PATCH', at, change)).status).toBe(200)
  expect((await make({}, school.wren)).status).toBe(404)
  expect((await make({}, test_.visitor())).status).toBe(401)
})

test('put away while a pupil files into it: the pupil is told, and it can be taken out again', async () => {
  const folder = (await make({ name: 'Kites' })).body
  const draft = await school.draft({ folderId: folder.id })
  await school.teacher.ask('POST', `/folders/${folder.id}/put-away`)
  expect(
    (await school.wren.ask('POST', `/pieces/${draft.id}/hand-in`, { seenVersion: draft.version }))
      .body,
  ).toMatchObject({
    type: '/problems/folder/put-away',
  })
  expect(await names(school.wren)).not.toContain('Kites')
  expect(await names(school.teacher, true)).toContain('Kites')
  await school.teacher.ask('POST', `/folders/${folder.id}/take-out`)
  expect(
    (await school.wren.ask('POST', `/pieces/${draft.id}/hand-in`, { seenVersion: draft.version }))
      .status,
  ).toBe(200)
})

test('an id that is somebody else’s folder shows nothing of it', async () => {
  const theirs = (await make({ name: 'Secret' })).body.id
  expect((await make({ classIds: [school.ids.plover] }, school.otherTeacher, theirs)).status).toBe(
    404,
  )
  expect(
    (
      await school.wren.ask('PUT', `/folders/proposals/${theirs}`, {
        name: 'x',
        symbol: 'star',
        colour: 'sea',
      })
    ).status,
  ).toBe(404)
})

test('the order is kept, and nobody moves folders they do not see', async () => {
  const ids = []
  for (const name of ['One', 'Two', 'Three']) ids.push((await make({ name })).body.id)
  await school.teacher.ask('POST', '/folders/order', { ids: [ids[2], ids[0], ids[1], newId()] })
  expect(
    (await names(school.wren)).filter((name) => ['One', 'Two', 'Three'].includes(name)),
  ).toEqual(['Three', 'One', 'Two'])
  await school.otherTeacher.ask('POST', '/folders/order', { ids: [ids[1], ids[2]] })
  expect(
    (await names(school.wren)).filter((name) => ['One', 'Two', 'Three'].includes(name)),
  ).toEqual(['Three', 'One', 'Two'])
})

test('the ready set makes what is missing, with the first strands', async () => {
  const set = async () =>
    (
      await school.otherTeacher.ask<Folder[]>('POST', '/folders/ready-set', {
        classId: school.ids.plover,
      })
    ).body
  const first = await set()
  expect(first.find(({ name }) => name === 'Number work')).toMatchObject({
    strand: 'Numbers',
    className: 'plover',
  })
  expect(await set()).toHaveLength(first.length)
  expect(
    (await school.otherTeacher.ask('POST', '/folders/ready-set', { classId: school.ids.heron }))
      .status,
  ).toBe(404)
})

test('strands are a list to change; one that goes leaves its folders without', async () => {
  const before = (await school.teacher.ask<Strand[]>('GET', '/folders/strands')).body
  const list = [
    { id: newId(), name: 'Science' },
    ...before.filter(({ name }) => name !== 'Numbers'),
  ]
  expect((await school.otherTeacher.ask('PUT', '/folders/strands', list)).status).toBe(404)
  expect((await school.teacher.ask('PUT', '/folders/strands', list)).body).toEqual(list)
  const { body } = await school.otherTeacher.ask<Folder[]>('GET', '/folders')
  expect(body.find(({ name }) => name === 'Number work')).toMatchObject({
    strand: null,
    strandId: null,
  })
})

test('a pupil wishes for a folder; only a teacher of the class agrees, and until then nothing goes in', async () => {
  const id = newId()
  const look = { name: 'My dinosaurs', symbol: 'snake', colour: 'moss' }
  expect((await school.wren.ask('PUT', `/folders/proposals/${id}`, look)).body).toMatchObject({
    owner: { id: school.ids.wren, agreed: false },
  })
  expect(await names(school.tomasz)).not.toContain('My dinosaurs')
  const draft = await school.draft()
  const file = () =>
    school.wren.ask('PATCH', `/pieces/${draft.id}`, { seenVersion: draft.version, folderId: id })
  expect((await file()).status).toBe(404)
  for (const who of [school.wren, school.otherTeacher, school.parent])
    expect((await who.ask('POST', `/folders/${id}/agree`)).status).toBe(404)
  expect((await school.teacher.ask('POST', `/folders/${id}/agree`)).status).toBe(200)
  expect((await file()).status).toBe(200)
  expect(await names(school.tomasz)).not.toContain('My dinosaurs')
  // Where the teacher does not allow it, it cannot be asked for.
  await test_.manager.query('update class set pupils_propose = false where id = $1', [
    school.ids.heron,
  ])
  expect((await school.wren.ask('PUT', `/folders/proposals/${newId()}`, look)).status).toBe(404)
})

describe('a folder shared by two classes', () => {
  let id: string
  let both: Record<string, unknown>
  const change = (who: Person, changes: Record<string, unknown>, seenVersion: number) =>
    who.ask('PATCH', `/folders/${id}`, { ...both, ...changes, seenVersion })
  beforeAll(async () => {
    id = newId()
    both = {
      name: 'Shells',
      symbol: 'waves',
      colour: 'sea',
      strandId: null,
      classIds: [school.ids.heron, school.ids.plover],
      wholeSchool: false,
      parentsSee: false,
      pupilsFile: true,
    }
    // Mr Adeyemi leads, so he may make it for both; Mrs Okafor teaches Plover alone.
    expect((await school.teacher.ask('PUT', `/folders/${id}`, both)).status).toBe(200)
  })

  test('is not taken from a class, nor opened to its parents, by somebody who teaches only the other one', async () => {
    for (const changes of [{ classIds: [school.ids.plover] }, { parentsSee: true }]) {
      const answer = await change(school.otherTeacher, changes, 1)
      expect([answer.status, answer.body.type]).toEqual([403, '/problems/folder/shared'])
    }
    expect((await change(school.otherTeacher, { name: 'Shells and stones' }, 1)).status).toBe(200)
    const taken = await change(school.otherTeacher, { wholeSchool: true, classIds: [] }, 2)
    expect([403, 404]).toContain(taken.status)
    const [row] = await test_.manager.query<{ classes: number; open: boolean }[]>(
      'select (select count(*)::int from folder_class where folder_id = $1) as classes, parents_see as open from folder where id = $1',
      [id],
    )
    expect(row).toEqual({ classes: 2, open: false })
  })

  test('is by whoever has the right over both, and that is noted with what was and what is', async () => {
    expect((await change(school.teacher, { parentsSee: true }, 2)).status).toBe(200)
    expect(
      (await change(school.teacher, { parentsSee: true, classIds: [school.ids.heron] }, 3)).status,
    ).toBe(200)
    const notes = await test_.manager.query<{ details: { before: object; after: object } }[]>(
      "select details from audit where action = 'folder.change' and subject_id = $1 order by id desc limit 1",
      [id],
    )
    expect(notes[0]!.details).toMatchObject({
      before: {
        parentsSee: true,
        classIds: expect.arrayContaining([school.ids.heron, school.ids.plover]),
      },
      after: { parentsSee: true, classIds: [school.ids.heron] },
    })
  })
})
