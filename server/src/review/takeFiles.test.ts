import { strFromU8, unzipSync } from 'fflate'
import { createHash } from 'node:crypto'
import {
  picture,
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const take = async (id: string, who: Person = school.teacher) => {
  const response = await who.fetch('GET', `/review/pieces/${id}/files`)
  return { response, bytes: new Uint8Array(await response.arrayBuffer()) }
}
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

test('what was handed in comes as a bundle: files as they are kept, words as text', async () => {
  const piece = await school.submitted({ bytes: await picture(900, 600, '#336699') })
  const { response, bytes } = await take(piece.id)
  expect(response.headers.get('Content-Type')).toBe('application/zip')
  const files = unzipSync(bytes)
  expect(Object.keys(files)).toEqual(['1 photo.jpg', 'thoughts.txt'])
  expect(strFromU8(files['thoughts.txt']!)).toBe('It walks sideways.')
  const [kept] = await test_.manager.query<{ hash: string }[]>(
    'select m.kept_sha256 as hash from media m join version_file f on f.media_id = m.id where f.version_id = $1',
    [piece.versions[0]!.id],
  )
  expect(sha256(files['1 photo.jpg']!)).toBe(kept!.hash)
})

test('writing, and names no system takes', async () => {
  const part = { kind: 'writing', name: 'wind: a/poem?', text: 'The wind walks.' }
  const piece = await school.submitted({ part })
  const files = unzipSync((await take(piece.id)).bytes)
  expect(Object.keys(files)).toEqual(['1 wind a poem.txt', 'thoughts.txt'])
  expect(strFromU8(files['1 wind a poem.txt']!)).toBe('The wind walks.')
})

test('a large file streams: more than one chunk, whole', async () => {
  const piece = await school.submitted({ bytes: await noise() })
  const files = unzipSync((await take(piece.id)).bytes)
  expect(files['1 photo.jpg']!.length).toBeGreaterThan(300_000)
})

test('is for the teachers of the piece, and each time is noted', async () => {
  const piece = await school.submitted()
  for (const who of [school.otherTeacher, school.wren, school.parent])
    expect((await take(piece.id, who)).response.status).toBe(404)
  // What was never handed in, or taken out again, is not there to be taken.
  const draft = await school.draft()
  const out = await school.submitted()
  await school.wren.ask('POST', `/pieces/${out.id}/withdraw`, { seenVersion: out.version })
  for (const { id } of [draft, out]) expect((await take(id)).response.status).toBe(404)
  await take(piece.id)
  const notes = await test_.manager.query<unknown[]>(
    `select 1 from audit where action = 'piece.take-files' and subject_id = $1`,
    [piece.id],
  )
  expect(notes).toHaveLength(1)
})

/** A photo nothing makes small. */
async function noise(): Promise<Buffer> {
  const { default: sharp } = await import('sharp')
  const raw = Buffer.alloc(900 * 700 * 3)
  for (let i = 0; i < raw.length; i++) raw[i] = (i * 2_654_435_761) >>> 24
  return sharp(raw, { raw: { width: 900, height: 700, channels: 3 } })
    .jpeg({ quality: 95 })
    .toBuffer()
}
