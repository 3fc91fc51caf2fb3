import type { CardSheet, Problem } from '@nibquill/contract'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  until,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const issue = (pupilId = school.ids.wren) =>
  test_.server.capabilities.nameCards.issue(test_.manager, pupilId)
const enter = async (
  code: string,
): Promise<{ status: number; name: string | undefined; person: Person }> => {
  const person = test_.visitor()
  const { status, body } = await person.ask<{ person?: { firstName: string } }>(
    'POST',
    '/accounts/sign-in/card',
    { code },
  )
  return { status, name: body.person?.firstName, person }
}
const order = (what: object, who = school.teacher) =>
  who.ask<CardSheet & Problem>('POST', '/accounts/cards', what)
const drawn = (id: string, who = school.teacher): Promise<CardSheet> =>
  until(async () => {
    const { body } = await who.ask<CardSheet>('GET', `/accounts/cards/${id}`)
    return body.state === 'ready' && body
  })
const fetchPdf = async (id: string, who = school.teacher) => {
  const response = await who.fetch('GET', `/accounts/cards/${id}/file`)
  const file = path.join(test_.config.dataFolder, `${id}.pdf`)
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  return { response, file }
}
const textOf = (file: string) =>
  execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
const codesIn = (text: string) => text.match(/([A-Z]{4} ){3}[A-Z]{4}/g) ?? []
const pagesOf = (file: string) =>
  Number(/Pages:\s+(\d+)/.exec(execFileSync('pdfinfo', [file], { encoding: 'utf8' }))![1])
/** What the QR codes say, by a decoder that shares nothing with their writer. @see ISO/IEC 18004 */
async function qrCodesIn(pdf: string, dpi: number): Promise<string[]> {
  const wasm = createRequire(import.meta.url).resolve('zxing-wasm/reader/zxing_reader.wasm')
  prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(readFileSync(wasm)).buffer } })
  const folder = mkdtempSync(path.join(test_.config.dataFolder, 'pages-'))
  execFileSync('pdftoppm', ['-r', String(dpi), '-gray', pdf, path.join(folder, 'page')])
  const found = await Promise.all(
    readdirSync(folder).map((page) =>
      readBarcodes(new Uint8Array(readFileSync(path.join(folder, page))), { formats: ['QRCode'] }),
    ),
  )
  return found.flat().map(({ text }) => text)
}

test('eight to a page; the typed code lets its pupil in, and cards printed before stop with what they opened', async () => {
  const pupils = Array.from({ length: 7 }, (_, i) => ({
    firstName: i === 0 ? 'Maximiliana-Theodora' : `Pupil${i}`,
    lastName: 'Ünal',
    externalId: null,
  }))
  await test_.manager.transaction((manager) =>
    test_.server.capabilities.school.addPupils(
      manager,
      school.ids.school,
      school.ids.heron,
      pupils,
    ),
  )
  const old = await issue()
  const { person: before } = await enter(old)
  const asked = await order({ classId: school.ids.heron })
  expect(asked.status).toBe(202)
  expect(asked.body).toMatchObject({ classId: school.ids.heron, pupilId: null, cardCount: 9 })
  const sheet = await drawn(asked.body.id)
  expect(sheet).toMatchObject({ cardsDone: 9, goneAt: '2026-11-23T10:30:00.000Z' })
  const { response, file } = await fetchPdf(sheet.id)
  expect(response.headers.get('content-type')).toBe('application/pdf')
  expect(response.headers.get('cache-control')).toBe('private, no-store')
  execFileSync('qpdf', ['--check', file])
  expect(pagesOf(file)).toBe(2)
  expect((await before.ask('GET', '/pieces')).status).toBe(401)
  expect((await enter(old)).status).toBe(401)

  const text = textOf(file)
  expect(codesIn(text)).toHaveLength(9)
  const addresses = codesIn(text).map(
    (code) => `http://nibquill.example/sign-in#${code.replaceAll(' ', '')}`,
  )
  for (const dpi of [150, 300])
    expect((await qrCodesIn(file, dpi)).sort()).toEqual([...addresses].sort())
  const names = []
  for (const code of codesIn(text)) names.push((await enter(code)).name)
  expect(names.sort()).toEqual([
    'Maximiliana-Theodora',
    ...[1, 2, 3, 4, 5, 6].map((i) => `Pupil${i}`),
    'tomasz',
    'wren',
  ])
  expect(text).toContain('Maximiliana-Theodora')
  // Who finds a lost card learns no surname.
  expect(text).not.toMatch(/Ünal/)
})

test('the database holds no card that could be used: the sheet lies there sealed', async () => {
  const { body } = await order({ pupilId: school.ids.tomasz })
  await drawn(body.id)
  const [code] = codesIn(textOf((await fetchPdf(body.id)).file))
  const [{ dump, sealed }] = await test_.manager.query<[{ dump: string; sealed: Buffer }]>(
    'select (select json_agg(n)::text from name_card n) as dump, sealed from card_sheet where id = $1',
    [body.id],
  )
  expect(dump).not.toContain(code!.replaceAll(' ', ''))
  expect(sealed.includes('%PDF')).toBe(false)
  expect(test_.server.platform.secrets.unsealBytes(sealed).subarray(0, 4).toString()).toBe('%PDF')
})

test('until the sheet is ready the old card works; a job that runs again changes nothing', async () => {
  const old = await issue()
  const sheets = test_.server.capabilities.cardSheets
  const id = newId()
  await test_.manager.query(
    `insert into card_sheet (id, pupil_id, state, card_count, cards_done, requested_by, requested_at)
     select $1, $2, 'drawing', 1, 0, id, now() from person where email = 'a@saltmarsh.example'`,
    [id, school.ids.wren],
  )
  expect((await enter(old)).name).toBe('wren')
  // Asked again meanwhile: the same sheet, or the cards of the first would stop with the second.
  expect((await order({ pupilId: school.ids.wren })).body.id).toBe(id)
  expect((await fetchPdf(id)).response.status).toBe(409)
  // As after a restart: twice at once, and once more.
  await Promise.all([sheets.draw(id), sheets.draw(id)])
  const [code] = codesIn(textOf((await fetchPdf(id)).file))
  expect((await enter(code!)).name).toBe('wren')
  await sheets.draw(id)
  expect((await enter(code!)).name).toBe('wren')
  expect((await enter(old)).status).toBe(401)
})

test('a drawing that fails says so and leaves the old card in use; tried again it is drawn', async () => {
  const old = await issue(school.ids.tomasz)
  await test_.manager.query(
    `create function refuse() returns trigger language plpgsql as $$ begin raise exception 'no room'; end $$`,
  )
  await test_.manager.query(
    'create trigger refuse before insert on name_card for each row execute function refuse()',
  )
  const { body } = await order({ pupilId: school.ids.tomasz })
  await until(
    async () =>
      (await school.teacher.ask<CardSheet>('GET', `/accounts/cards/${body.id}`)).body.state ===
      'failed',
  )
  expect((await enter(old)).name).toBe('tomasz')
  await test_.manager.query('drop function refuse cascade')
  await test_.server.capabilities.cardSheets.draw(body.id)
  expect((await drawn(body.id)).cardsDone).toBe(1)
})

test('a failed drawing asked for again is the same sheet; once newer cards were made it is given up', async () => {
  await test_.manager.query(
    `create function refuse() returns trigger language plpgsql as $$ begin raise exception 'no room'; end $$`,
  )
  await test_.manager.query(
    'create trigger refuse before insert on name_card for each row execute function refuse()',
  )
  const what = { pupilId: school.ids.tomasz }
  const failed = async () => {
    const { body } = await order(what)
    await until(
      async () =>
        (await school.teacher.ask<CardSheet>('GET', `/accounts/cards/${body.id}`)).body.state ===
        'failed',
    )
    return body.id
  }
  const id = await failed()
  expect(await failed()).toBe(id)
  await test_.manager.query('drop function refuse cascade')
  test_.clock.set(new Date(test_.clock.now().getTime() + 1000))
  const newer = await issue(school.ids.tomasz)
  await test_.server.capabilities.cardSheets.draw(id)
  expect((await enter(newer)).name).toBe('tomasz')
  expect((await fetchPdf(id)).response.status).toBe(404)
})

test('a sheet is there for half an hour, and for nobody but who asked for it', async () => {
  const { body } = await order({ pupilId: school.ids.wren })
  await drawn(body.id)
  const list = async (who: Person) => (await who.ask<CardSheet[]>('GET', '/accounts/cards')).body
  expect((await list(school.teacher)).map(({ id }) => id)).toContain(body.id)
  expect(await list(school.otherTeacher)).toEqual([])
  for (const [who, status] of [
    [school.otherTeacher, 404],
    [school.wren, 401],
    [school.parent, 404],
    [test_.visitor(), 401],
  ] as const)
    for (const address of [`/accounts/cards/${body.id}`, `/accounts/cards/${body.id}/file`])
      expect((await who.fetch('GET', address)).status).toBe(status)
  const then = test_.clock.now()
  test_.clock.set(new Date(then.getTime() + 31 * 60_000))
  expect((await fetchPdf(body.id)).response.status).toBe(404)
  expect(await list(school.teacher)).toEqual([])
  test_.clock.set(then)
  await test_.server.capabilities.cardSheets.forget(body.id)
  expect((await fetchPdf(body.id)).response.status).toBe(404)
})

test('a teacher who left the class meanwhile gets no cards of it', async () => {
  const { body } = await order({ classId: school.ids.plover }, school.otherTeacher)
  await drawn(body.id, school.otherTeacher)
  const taken = await test_.manager.query<{ person_id: string }[]>(
    `delete from enrolment where class_id = $1 and person_id = (select id from person where email = 'o@saltmarsh.example') returning person_id`,
    [school.ids.plover],
  )
  expect((await fetchPdf(body.id, school.otherTeacher)).response.status).toBe(404)
  await test_.manager.query(
    `insert into enrolment (class_id, person_id) select $1, id from person where email = 'o@saltmarsh.example'`,
    [school.ids.plover],
  )
  expect(taken.flat()).not.toHaveLength(0)
  expect((await fetchPdf(body.id, school.otherTeacher)).response.status).toBe(200)
})

test('for one pupil, by the class’s teachers, and for nobody there is none', async () => {
  expect((await order({ pupilId: school.ids.tomasz })).status).toBe(202)
  for (const [who, status] of [
    [school.otherTeacher, 404],
    [school.wren, 401],
    [school.parent, 404],
    [test_.visitor(), 401],
  ] as const)
    for (const what of [{ pupilId: school.ids.tomasz }, { classId: school.ids.heron }])
      expect((await order(what, who)).status).toBe(status)
  await test_.manager.query('update person set left_at = now() where id = $1', [school.ids.aoife])
  const empty = await order({ classId: school.ids.plover }, school.otherTeacher)
  expect(empty.body.type).toBe('/problems/accounts/no-cards')
  await test_.manager.query('update person set left_at = null where id = $1', [school.ids.aoife])
})
