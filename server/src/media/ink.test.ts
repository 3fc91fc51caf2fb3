import sharp from 'sharp'
import { inkFile, SEA_LINE } from '../testing/ink.ts'
import { type SmallSchool, type TestServer, until, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const send = (bytes: Uint8Array) => school.wren.upload(bytes, { filename: 'drawing.json' })
/** Hung on a piece, so that it may be looked at. */
async function arrived(bytes: Uint8Array): Promise<string> {
  const { mediaId } = await send(bytes)
  const piece = await school.draft()
  await school.wren.ask('PUT', `/pieces/${piece.id}/parts/${mediaId}`, {
    ...{ kind: 'drawing', name: '', files: { ink: mediaId } },
  })
  await until(async () => {
    const [row] = await test_.manager.query<{ state: string }[]>(
      'select state from media where id = $1',
      [mediaId],
    )
    return row?.state === 'ready'
  })
  return mediaId
}
const bytesOf = async (mediaId: string, form: string) => {
  const response = await school.wren.fetch('GET', `/media/${mediaId}/${form}`)
  return {
    type: response.headers.get('content-type'),
    bytes: Buffer.from(await response.arrayBuffer()),
  }
}

test('what was drawn comes back as it was sent, and as pictures of it', async () => {
  const id = await arrived(inkFile('plain'))
  const full = await bytesOf(id, 'full')
  expect(full.type).toMatch(/^application\/json/)
  expect(JSON.parse(full.bytes.toString())).toEqual(JSON.parse(inkFile('plain').toString()))
  for (const form of ['320', '960', '2048']) {
    const { type, bytes } = await bytesOf(id, form)
    expect(type).toBe('image/jpeg')
    const { width, height } = await sharp(bytes).metadata()
    expect([width, height]).toEqual([Number(form), Number(form) * 0.75])
  }
  // Sea where the hand went, white where it did not.
  const { data, info } = await sharp((await bytesOf(id, '960')).bytes)
    .raw()
    .toBuffer({ resolveWithObject: true })
  const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 3).subarray(0, 3)]
  const sea = [0x2f, 0x5e, 0x8c]
  at(480, 360).forEach((value, i) => expect(Math.abs(value - sea[i]!)).toBeLessThan(6))
  at(800, 100).forEach((value) => expect(value).toBeGreaterThan(250))
})

test.each([
  ['of a later version', { ...JSON.parse(inkFile().toString()), version: 9 }],
  ['of sixty centimetres', later({ width: 60_000 })],
  ['with a script for a name', later({ id: '<script>' })],
  ['with more than a document says', { ...JSON.parse(inkFile().toString()), author: 'Wren' }],
])('ink %s is refused in plain words', async (_why, document) => {
  const { status, body } = await send(Buffer.from(JSON.stringify(document)))
  expect([status, (JSON.parse(body) as { type: string }).type]).toEqual([
    422,
    '/problems/media/ink-unreadable',
  ])
})

function later(change: object): object {
  const ink = JSON.parse(inkFile().toString()) as { sheets: object[] }
  return { ...ink, sheets: [{ ...ink.sheets[0], ...change }] }
}

test('JSON that is no ink is no part of a piece', async () => {
  const { body } = await send(Buffer.from(JSON.stringify({ things: [SEA_LINE] })))
  expect((JSON.parse(body) as { type: string }).type).toBe('/problems/media/not-opened')
})

test('ink does not hang on as a photo, and a photo not as a drawing', async () => {
  const { mediaId } = await send(inkFile('dotted'))
  const piece = await school.draft()
  const { status } = await school.wren.ask('PUT', `/pieces/${piece.id}/parts/${mediaId}`, {
    ...{ kind: 'photo', name: '', files: { picture: mediaId } },
  })
  expect(status).toBeGreaterThanOrEqual(400)
})
