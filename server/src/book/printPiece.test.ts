import type { Book, MarkUp, Piece } from '@nibquill/contract'
import { newInk, type InkDocument, type Thing } from '@nibquill/core/ink/document'
import { sheetToMark } from '@nibquill/core/ink/markUp'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import {
  pictureOf,
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

/** A PDF as poppler reads it: its words, how many pages it has, and whether a teacher wrote on it. */
async function onPaper(response: Response) {
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/pdf'])
  const file = path.join(test_.config.dataFolder, `${newId()}.pdf`)
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  const say = (command: string, ...words: string[]) =>
    execFileSync(command, words, { encoding: 'utf8', maxBuffer: 1e8 })
  const pixels = execFileSync('pdftoppm', ['-r', '40', file], { maxBuffer: 1e8 })
  return {
    words: say('pdftotext', '-layout', file, '-').replaceAll(/\s+/g, ' '),
    pages: Number(/Pages:\s+(\d+)/.exec(say('pdfinfo', file))![1]),
    // Nothing else that is printed is of this red.
    isMarked: reds(pixels) > 20,
  }
}
/** Dots of a teacher's ink in pictures as pdftoppm writes them, one after the other (PPM, P6). */
function reds(pictures: Buffer): number {
  let count = 0
  for (let at = 0; at < pictures.length;) {
    const [head, width, height] = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(
      pictures.toString('latin1', at, at + 40),
    )!
    const end = at + head.length + 3 * Number(width) * Number(height)
    for (let i = at + head.length; i < end; i += 3)
      if (pictures[i]! > 130 && pictures[i + 1]! < 70 && pictures[i + 2]! < 90) count++
    at = end
  }
  return count
}

const page = (id: string, marked = false, who: Person = school.teacher) =>
  who.fetch('GET', `/book/pieces/${id}?marked=${marked}`)

/** Writes on a copy of the photo. */
async function writeOn(piece: Piece): Promise<void> {
  const version = piece.versions[0]!
  const photo = pictureOf(version.parts[0])
  const sheet = sheetToMark({ sheetId: 's', thingId: 'p' }, photo, { width: 640, height: 480 })
  const line: Thing = {
    ...{ kind: 'ruled', shape: 'line', from: { x: 900, y: 900 }, to: { x: 15_000, y: 9000 } },
    ...{ id: newId(), pen: { ink: ['madder'], water: 0, edge: null, width: 300 } },
  }
  const ink: InkDocument = {
    ...newInk('s'),
    sheets: [{ ...sheet, things: [...sheet.things, line] }],
  }
  const { status } = await school.teacher.ask<MarkUp[]>(
    'PUT',
    `/review/pieces/${piece.id}/mark-ups/${version.id}/${version.parts[0]!.id}`,
    { ink, seenMediaId: null },
  )
  expect(status).toBe(200)
}

test('what lies in the tray stands on a page: whose it is, what they thought, which go, with a code for teachers', async () => {
  const piece = await school.submitted()
  const { words, pages, isMarked } = await onPaper(await page(piece.id))
  expect(pages).toBe(1)
  for (const said of [piece.title, 'It walks sideways.', piece.className, 'handed in'])
    expect(words).toContain(said)
  expect(words).toMatch(/wren \w+/i)
  expect(isMarked).toBe(false)
})

test('long writing goes on, on pages of its own', async () => {
  const text = Array.from({ length: 90 }, (_, i) => `Line ${i} of the wind.`).join('\n')
  const piece = await school.submitted({ part: { kind: 'writing', name: '', text } })
  const { words, pages } = await onPaper(await page(piece.id))
  expect(pages).toBeGreaterThan(1)
  expect(words).toContain('Line 89 of the wind.')
})

test('with what was written on it only where that is asked for', async () => {
  const piece = await school.submitted()
  await writeOn(piece)
  expect((await onPaper(await page(piece.id))).isMarked).toBe(false)
  expect((await onPaper(await page(piece.id, true))).isMarked).toBe(true)
})

test('is for the teachers of the piece, of what was handed in, and each time is noted', async () => {
  const piece = await school.submitted()
  for (const who of [school.otherTeacher, school.wren, school.parent])
    expect((await page(piece.id, false, who)).status).toBe(404)
  const draft = await school.draft()
  expect((await page(draft.id)).status).toBe(404)
  await page(piece.id)
  const notes = await test_.manager.query<unknown[]>(
    `select 1 from audit where action = 'piece.print' and subject_id = $1`,
    [piece.id],
  )
  expect(notes).toHaveLength(1)
})

test('a book for school holds what teachers wrote where they want it; one for home never does', async () => {
  const piece = await school.submitted({ person: school.tomasz })
  await writeOn(piece)
  await school.teacher.ask('POST', `/review/pieces/${piece.id}`, {
    ...{ move: 'approve', message: '', seenVersion: piece.version },
  })
  const about = { pupilId: school.ids.tomasz, termId: school.ids.term }
  const book = async (order: object) => {
    const { body } = await school.teacher.ask<Book>('POST', '/book', { ...about, ...order })
    await until(
      async () =>
        (await school.teacher.ask<Book>('GET', `/book/${body.id}`)).body.state === 'ready',
    )
    const file = await school.teacher.fetch('GET', `/book/${body.id}/file`)
    return { ...body, ...(await onPaper(file)) }
  }
  const plain = await book({ madeFor: 'school' })
  const marked = await book({ madeFor: 'school', marked: true })
  expect([plain.isMarked, marked.isMarked, plain.id === marked.id]).toEqual([false, true, false])
  // Something more written makes another book; nothing more, the same one.
  expect((await book({ madeFor: 'school', marked: true })).id).toBe(marked.id)
  expect((await book({ madeFor: 'home' })).isMarked).toBe(false)
  const refused = await school.teacher.ask('POST', '/book', {
    ...{ ...about, madeFor: 'home', marked: true },
  })
  expect([refused.status, refused.body.type]).toEqual([400, '/problems/request/invalid'])
})
