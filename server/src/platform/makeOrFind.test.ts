import { v7 as newId } from 'uuid'
import { type SmallSchool, type TestServer, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

/** Each thing that is made under an id its client chose, with the table it stands in. */
const MADE = [
  {
    what: 'folder',
    table: 'folder',
    at: '/folders',
    body: () => ({
      name: 'Kites',
      symbol: 'wind',
      colour: 'sea',
      strandId: null,
      classIds: [school.ids.heron],
      wholeSchool: false,
      parentsSee: true,
      pupilsFile: true,
    }),
  },
  {
    what: 'notice',
    table: 'notice',
    at: '/notices',
    body: () => ({ classId: school.ids.heron, audience: 'class', words: 'Tomorrow', mediaIds: [] }),
  },
  {
    what: 'unit',
    table: 'unit',
    at: '/tasks/units',
    body: () => ({ classId: school.ids.heron, title: 'Bridges' }),
  },
  {
    what: 'task',
    table: 'task',
    at: '/tasks',
    body: () => ({
      classId: school.ids.heron,
      folderId: school.ids.open,
      title: 'Sums',
      instructions: '',
      unitId: null,
      strandId: null,
      steps: ['finished'],
      asks: [],
      opens: null,
      due: null,
      folderChangeable: true,
      asksThoughts: false,
      media: [],
      pupilIds: null,
    }),
  },
  {
    what: 'parent',
    table: 'person',
    at: () => `/sharing/pupils/${school.ids.wren}/parents`,
    body: (n: number) => ({ firstName: 'B', lastName: 'C', email: `four${n}@saltmarsh.example` }),
  },
  {
    what: 'member of staff',
    table: 'person',
    at: '/school/staff',
    body: (n: number) => ({
      firstName: 'D',
      lastName: 'E',
      email: `staff${n}@saltmarsh.example`,
      role: 'teacher',
      classIds: [],
    }),
  },
  {
    what: 'piece for everyone',
    table: 'class_piece',
    at: '/pieces/for-everyone',
    body: () => ({
      classId: school.ids.heron,
      folderId: school.ids.open,
      title: 'Walk',
      instructions: '',
    }),
  },
  {
    what: 'class',
    table: 'class',
    at: '/school/classes',
    body: (_n: number, yearId: string) => ({
      schoolYearId: yearId,
      name: 'Egret',
      yearGroup: 'Year 2',
    }),
  },
] as const

test.each(MADE)(
  'the same $what asked for four times at once is one, and none of the four is refused',
  async ({ at, body, table }) => {
    const [year] = await test_.manager.query<{ id: string }[]>('select id from school_year limit 1')
    for (let round = 0; round < 3; round++) {
      const id = newId()
      const address = `${typeof at === 'string' ? at : at()}/${id}`
      const sent = body(round, year!.id)
      const answers = await Promise.all(
        [0, 1, 2, 3].map(() => school.teacher.ask('PUT', address, sent)),
      )
      expect(answers.map(({ status, body: said }) => [status, said.type])).toEqual(
        Array(4).fill([200, undefined]),
      )
      expect(await test_.manager.query(`select 1 from ${table} where id = $1`, [id])).toHaveLength(
        1,
      )
    }
  },
)

test('two parents with one e-mail address, invited at once under two ids, are one', async () => {
  const invite = () =>
    school.teacher.ask('PUT', `/sharing/pupils/${school.ids.wren}/parents/${newId()}`, {
      firstName: 'F',
      lastName: '',
      email: 'twice@saltmarsh.example',
    })
  const answers = await Promise.all([invite(), invite(), invite()])
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200])
  expect(
    await test_.manager.query("select 1 from person where email = 'twice@saltmarsh.example'"),
  ).toHaveLength(1)
})

test('a pupil’s piece and proposed folder as well', async () => {
  for (const [address, body] of [
    ['/pieces', { taskId: null }],
    ['/folders/proposals', { name: 'Mine', symbol: 'wind', colour: 'sea' }],
  ] as const) {
    const id = newId()
    const answers = await Promise.all(
      [0, 1, 2, 3].map(() => school.wren.ask('PUT', `${address}/${id}`, body)),
    )
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200])
  }
})
