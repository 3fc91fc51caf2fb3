import type { Book, ChildWork, Part, Piece } from '@nibquill/contract'
import { PART_KINDS, type PartKind } from '@nibquill/core'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import { inkFile, talkOf } from '../testing/ink.ts'
import { film, papers, recording } from '../testing/madeFiles.ts'
import {
  picture,
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

type Sample = {
  /** Where below its part it is sent to, where that has a way of its own. */
  at?: string
  /** What is sent to add one. */
  add: (person: Person) => Promise<Record<string, unknown>>
  /** What everyone who may see the piece is told of it. */
  told: Partial<Part>
  /** What the book holds of it, as poppler reads it. */
  inBook: (file: string) => void
}
const poppler = (program: string, ...words: string[]) =>
  execFileSync(program, words, { encoding: 'utf8' })

/** One of each kind. A new kind fails here until it is complete everywhere. */
const SAMPLES: Record<PartKind, Sample> = {
  photo: {
    add: async (person) => ({
      ...{ kind: 'photo', name: 'claw' },
      files: { picture: (await person.upload(await picture(300, 200, '#2f5e8c'))).mediaId },
    }),
    told: { kind: 'photo', name: 'claw', width: 300, height: 200 },
    inBook: (file) => expect(poppler('pdfimages', '-list', file)).toMatch(/image +300 +200/),
  },
  drawing: {
    add: async (person) => ({
      ...{ kind: 'drawing', name: 'the crab' },
      files: { ink: (await person.upload(inkFile(), { filename: 'drawing.json' })).mediaId },
    }),
    told: { kind: 'drawing', name: 'the crab', width: 16_000, height: 12_000 },
    inBook: (file) =>
      expect(poppler('qpdf', '--qdf', '--object-streams=disable', file, '-')).toContain(
        '(Drawing 1 of 1: One of its kind)',
      ),
  },
  writing: {
    add: async () => ({
      ...{ kind: 'writing', name: 'The wind' },
      text: 'The wind walks\nround the house.\n\nIt knocks.',
    }),
    told: { kind: 'writing', text: 'The wind walks\nround the house.\n\nIt knocks.' },
    inBook: (file) => {
      const text = poppler('pdftotext', '-layout', file, '-')
      // In the child's own lines.
      expect(text).toMatch(/The wind walks\n\s*round the house\.\n\s*\n?\s*It knocks\./)
    },
  },
  voice: {
    add: async (person) => ({
      ...{ kind: 'voice', name: 'what the sea says', heard: { fromMs: 100, toMs: 900 } },
      files: { sound: (await person.upload(await recording(), { filename: 'said.webm' })).mediaId },
    }),
    // Without the silence at its ends, also once somebody has typed what is said.
    told: { kind: 'voice', name: 'what the sea says', heard: { fromMs: 100, toMs: 900 } },
    // What paper cannot hold is a word, and the code that leads there.
    inBook: (file) => expect(poppler('pdftotext', '-layout', file, '-')).toContain('Voice'),
  },
  talk: {
    at: 'talk',
    add: async (person) => ({
      name: 'how it walks',
      sound: (await person.upload(await recording(), { filename: 'said.webm' })).mediaId,
      talk: talkOf(),
    }),
    told: { kind: 'talk', name: 'how it walks', width: 16_000, height: 12_000 },
    // The sheet as it was left, and the code that plays how it came.
    inBook: (file) => {
      expect(poppler('qpdf', '--qdf', '--object-streams=disable', file, '-')).toContain(
        '(Drawing 1 of 1: One of its kind)',
      )
      expect(poppler('pdftotext', '-layout', file, '-')).toContain('Talk-through')
    },
  },
  film: {
    add: async (person) => ({
      ...{ kind: 'film', name: 'it moves' },
      files: { film: (await person.upload(await film(), { filename: 'it.webm' })).mediaId },
    }),
    told: { kind: 'film', name: 'it moves', width: 64, height: 48 },
    // A moment of it, and the code that plays it.
    inBook: (file) => {
      expect(poppler('pdfimages', '-list', file)).toMatch(/image +64 +48/)
      expect(poppler('pdftotext', '-layout', file, '-')).toContain('Film')
    },
  },
  page: {
    add: async (person) => ({
      ...{ kind: 'page', name: 'our walk' },
      files: {
        paper: (await person.upload(await papers(['Out', 'Home']), { filename: 'w.pdf' })).mediaId,
      },
    }),
    told: { kind: 'page', name: 'our walk', pages: 2 },
    inBook: (file) => expect(poppler('pdfimages', '-list', file).match(/ 2048 /g)).toHaveLength(2),
  },
  link: {
    add: async () => ({ kind: 'link', name: 'Tides', address: 'saltmarsh.example/tides' }),
    told: { kind: 'link', name: 'Tides', address: 'https://saltmarsh.example/tides' },
    inBook: (file) => expect(poppler('pdftotext', '-layout', file, '-')).toContain('Tides'),
  },
}

describe.each(PART_KINDS)('a part of kind %s', (kind) => {
  const { add, told, inBook, at = '' } = SAMPLES[kind]
  const partAt = (pieceId: string, partId: string) =>
    `/pieces/${pieceId}/parts/${partId}${at ? `/${at}` : ''}`

  test('is added once, handed in, judged, shared, printed and exported', async () => {
    const id = newId()
    await school.wren.ask('PUT', `/pieces/${id}`, { taskId: null })
    const body = await add(school.wren)
    const part = partAt(id, newId())
    await school.wren.ask('PUT', part, body)
    const twice = await school.wren.ask<Piece>('PUT', part, body)
    expect(twice.body.parts).toHaveLength(1)
    const draft = (
      await school.wren.ask<Piece>('PATCH', `/pieces/${id}`, {
        ...{ seenVersion: twice.body.version, title: 'One of its kind', reflection: '' },
        folderId: school.ids.open,
      })
    ).body
    expect(draft.parts).toMatchObject([told])
    expect(draft.cover).toMatchObject(told)
    const handedIn = (
      await school.wren.ask<Piece>('POST', `/pieces/${id}/hand-in`, { seenVersion: draft.version })
    ).body
    expect(handedIn.versions[0]!.parts).toMatchObject([told])

    // Whoever judges it sees it in the tray and on the desk.
    const { body: tray } = await school.teacher.ask<{ pieces: Piece[] }>('GET', '/review/tray')
    expect(tray.pieces.find((line) => line.id === id)?.cover).toMatchObject(told)
    await school.teacher.ask('POST', `/review/pieces/${id}`, {
      ...{ move: 'approve', message: '', seenVersion: handedIn.version },
    })

    // Its family sees it, and may read its files.
    const { body: work } = await school.parent.ask<ChildWork>(
      'GET',
      `/sharing/children/${school.ids.wren}`,
    )
    const shared = work.chapters.flatMap(({ pieces }) => pieces).find((piece) => piece.id === id)!
    expect(shared.parts).toMatchObject([told])
    for (const { mediaId } of Object.values(shared.parts[0]!.files))
      expect((await school.parent.fetch('GET', `/media/${mediaId}/full`)).status).toBe(200)

    // The book holds it, and its code opens it for whoever holds the page.
    await until(async () => {
      const rows = await test_.manager.query<unknown[]>(
        "select 1 from media where state = 'arrived'",
      )
      return rows.length === 0
    })
    const asked = await school.teacher.ask<Book>('POST', '/book', {
      ...{ pupilId: school.ids.wren, termId: school.ids.term, madeFor: 'home' },
    })
    await until(
      async () =>
        (await school.teacher.ask<Book>('GET', `/book/${asked.body.id}`)).body.state === 'ready',
    )
    const response = await school.teacher.fetch('GET', `/book/${asked.body.id}/file`)
    const file = path.join(test_.config.dataFolder, `${kind}.pdf`)
    writeFileSync(file, Buffer.from(await response.arrayBuffer()))
    execFileSync('qpdf', ['--check', file])
    inBook(file)
  })

  test('a handed-in version keeps what it had, whatever is done to the draft', async () => {
    const piece = await school.draft()
    const partId = newId()
    await school.wren.ask('PUT', partAt(piece.id, partId), await add(school.wren))
    const { version } = (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body
    await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, { seenVersion: version })
    const again = (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body
    await school.wren.ask('POST', `/pieces/${piece.id}/withdraw`, { seenVersion: again.version })
    const { body } = await school.wren.ask<Piece>('DELETE', `/pieces/${piece.id}/parts/${partId}`)
    expect(body.parts.some(({ id }) => id === partId)).toBe(false)
    expect(body.versions[0]!.parts.find(({ id }) => id === partId)).toMatchObject(told)
  })
})

describe('a writing', () => {
  const begin = async (text = 'The wind.') => {
    const piece = await school.draft()
    const at = `/pieces/${piece.id}/parts/${newId()}`
    await school.wren.ask('PUT', at, { kind: 'writing', name: '', text })
    const write = (next: string, seenText: string, who = school.wren) =>
      who.ask<Piece>('PUT', `${at}/text`, { text: next, seenText })
    return { piece, write, textOf: (body: Piece) => textIn(body.parts) }
  }
  const textIn = (parts: Part[]) =>
    parts.flatMap((part) => (part.kind === 'writing' ? [part.text] : []))

  test('goes on where it stood; the same again changes nothing', async () => {
    const { write, textOf } = await begin()
    const { body } = await write('The wind.\n It blows. ', 'The wind.')
    expect(textOf(body)).toEqual(['The wind.\n It blows. '])
    const lost = await write('The wind.\n It blows. ', 'The wind.')
    expect(lost.body.version).toBe(body.version)
  })

  test('what somebody else wrote meanwhile is not written over, and told', async () => {
    const { write, textOf } = await begin()
    await write('The sea.', 'The wind.')
    const refused = await write('The rain.', 'The wind.')
    expect(refused.status).toBe(409)
    expect(refused.body).toMatchObject({ type: '/problems/piece/part-changed', text: 'The sea.' })
    expect(textOf((await write('The rain.', 'The sea.')).body)).toEqual(['The rain.'])
  })

  test('a version keeps what was handed in while the writer goes on', async () => {
    const { piece, write } = await begin()
    const { version } = (await school.wren.ask<Piece>('GET', `/pieces/${piece.id}`)).body
    const { body: handedIn } = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/hand-in`, {
      seenVersion: version,
    })
    expect((await write('Not now.', 'The wind.')).status).toBe(409)
    await school.wren.ask('POST', `/pieces/${piece.id}/withdraw`, {
      seenVersion: handedIn.version,
    })
    const { body } = await write('Better.', 'The wind.')
    expect(textIn(body.parts)).toEqual(['Better.'])
    expect(textIn(body.versions[0]!.parts)).toEqual(['The wind.'])
  })

  test('an empty page is nothing to hand in', async () => {
    const id = newId()
    await school.wren.ask('PUT', `/pieces/${id}`, { taskId: null })
    await school.wren.ask('PUT', `/pieces/${id}/parts/${newId()}`, {
      ...{ kind: 'writing', name: '', text: ' \n ' },
    })
    const { body } = await school.wren.ask<Piece>('GET', `/pieces/${id}`)
    await school.wren.ask('PATCH', `/pieces/${id}`, {
      ...{ seenVersion: body.version, folderId: school.ids.open },
    })
    const refused = await school.wren.ask('POST', `/pieces/${id}/hand-in`, {
      seenVersion: body.version + 1,
    })
    expect(refused.body).toMatchObject({ type: '/problems/piece/empty' })
  })

  test('only who makes the piece writes in it, and no more than it holds', async () => {
    const { write } = await begin()
    expect((await write('Mine.', 'The wind.', school.tomasz)).body).toMatchObject({
      ...{ status: 404, type: '/problems/piece/not-found' },
    })
    expect((await write('Mine.', 'The wind.', school.teacher)).status).toBe(404)
    expect((await write('a'.repeat(20_001), 'The wind.')).status).toBe(400)
    expect((await write('\u0007', 'The wind.')).status).toBe(400)
  })

  test('twenty thousand letters go on over pages, told before the book is made', async () => {
    const long = Array.from({ length: 400 }, (_, i) => `Line ${i} of what the wind did.`).join('\n')
    const id = newId()
    await school.tomasz.ask('PUT', `/pieces/${id}`, { taskId: null })
    await school.tomasz.ask('PUT', `/pieces/${id}/parts/${newId()}`, {
      ...{ kind: 'writing', name: '', text: long },
    })
    const { body } = await school.tomasz.ask<Piece>('GET', `/pieces/${id}`)
    const { body: named } = await school.tomasz.ask<Piece>('PATCH', `/pieces/${id}`, {
      ...{ seenVersion: body.version, title: 'Long', folderId: school.ids.open },
    })
    const { body: handedIn } = await school.tomasz.ask<Piece>('POST', `/pieces/${id}/hand-in`, {
      seenVersion: named.version,
    })
    await school.teacher.ask('POST', `/review/pieces/${id}`, {
      ...{ move: 'approve', message: '', seenVersion: handedIn.version },
    })
    const order = { pupilId: school.ids.tomasz, termId: school.ids.term, madeFor: 'school' }
    const query = new URLSearchParams(order).toString()
    const { body: plan } = await school.teacher.ask<{ pages: number }>('GET', `/book/plan?${query}`)
    const { body: asked } = await school.teacher.ask<Book>('POST', '/book', order)
    await until(
      async () =>
        (await school.teacher.ask<Book>('GET', `/book/${asked.id}`)).body.state === 'ready',
    )
    const response = await school.teacher.fetch('GET', `/book/${asked.id}/file`)
    const file = path.join(test_.config.dataFolder, 'long.pdf')
    writeFileSync(file, Buffer.from(await response.arrayBuffer()))
    expect(poppler('pdfinfo', file)).toMatch(new RegExp(`Pages:\\s+${plan.pages}\\n`))
    const text = poppler('pdftotext', '-layout', file, '-')
    for (const i of [0, 13, 14, 200, 399]) expect(text).toContain(`Line ${i} of what`)
  })
})

test.each(['voice', 'talk', 'film'] as const)(
  'what is said in a %s is typed under it; a version keeps what stood there',
  async (kind) => {
    const piece = await school.draft()
    const partId = newId()
    const at = `/pieces/${piece.id}/parts/${partId}`
    const sample: Sample = SAMPLES[kind]
    const to = sample.at ? `${at}/${sample.at}` : at
    await school.wren.ask('PUT', to, await sample.add(school.wren))
    const write = (text: string, seenText: string) =>
      school.wren.ask<Piece>('PUT', `${at}/text`, { text, seenText })
    const said = ({ parts }: Pick<Piece, 'parts'>) => parts.find(({ id }) => id === partId)
    const { body } = await write('It goes sideways.', '')
    expect(said(body)).toMatchObject({ ...sample.told, kind, text: 'It goes sideways.' })
    expect((await write('It hides.', '')).body).toMatchObject({
      ...{ type: '/problems/piece/part-changed', text: 'It goes sideways.' },
    })
    const { body: handedIn } = await school.wren.ask<Piece>('POST', `/pieces/${piece.id}/hand-in`, {
      seenVersion: body.version,
    })
    expect(said(handedIn.versions[0]!)).toMatchObject({ text: 'It goes sideways.' })
    await school.wren.ask('POST', `/pieces/${piece.id}/withdraw`, { seenVersion: handedIn.version })
    const { body: later } = await write('It hides.', 'It goes sideways.')
    expect(said(later)).toMatchObject({ text: 'It hides.' })
    expect(said(later.versions[0]!)).toMatchObject({ text: 'It goes sideways.' })
    // A photo has no words of its own.
    const photo = later.parts.find((part) => part.kind === 'photo')!
    const none = await school.wren.ask('PUT', `/pieces/${piece.id}/parts/${photo.id}/text`, {
      ...{ text: 'Words', seenText: '' },
    })
    expect(none.body).toMatchObject({ type: '/problems/piece/part-gone' })
  },
)
