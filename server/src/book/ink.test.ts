import type { Book } from '@nibquill/contract'
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import sharp, { type Sharp } from 'sharp'
import { EVERYTHING, inkFile } from '../testing/ink.ts'
import { type SmallSchool, type TestServer, until, useSmallSchool } from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

/** A millimetre is ten dots then. */
const DPI = 254
const SHEET = { width: 1600, height: 1200 }

/** The approved drawing as poppler puts it on paper. */
async function printed(ink: Buffer): Promise<{ file: string; picture: Buffer; mediaId: string }> {
  const { mediaId } = await school.wren.upload(ink, { filename: 'drawing.json' })
  await school.approved({ part: { kind: 'drawing', name: '', files: { ink: mediaId } } })
  const asked = await school.teacher.ask<Book>('POST', '/book', {
    ...{ pupilId: school.ids.wren, termId: school.ids.term, madeFor: 'home' },
  })
  await until(
    async () =>
      (await school.teacher.ask<Book>('GET', `/book/${asked.body.id}`)).body.state === 'ready',
  )
  const response = await school.teacher.fetch('GET', `/book/${asked.body.id}/file`)
  const file = path.join(test_.config.dataFolder, `${newId()}.pdf`)
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  // The newest piece stands last.
  const about = execFileSync('pdfinfo', [file], { encoding: 'utf8' })
  const last = /Pages:\s+(\d+)/.exec(about)![1]!
  const one = ['-f', last, '-l', last, '-singlefile']
  execFileSync('pdftoppm', ['-r', String(DPI), ...one, '-tiff', file, file])
  return { file, mediaId, picture: readFileSync(`${file}.tif`) }
}

test('a centimetre on squared paper is a centimetre in the book', async () => {
  const { file, picture } = await printed(inkFile('squared', []))
  // Lines, not a picture of them.
  const pictures = execFileSync('pdfimages', ['-list', file], { encoding: 'utf8' })
  expect(pictures.trim().split('\n')).toHaveLength(2)
  const { data, info } = await sharp(picture)
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  // A row of dots in the middle of the sheet, between two of its level lines.
  const rows = Array.from({ length: 90 }, (_, i) => Math.round(info.height * 0.35) + i)
  const darkIn = (y: number) =>
    Array.from({ length: info.width }, (_, x) => x).filter((x) => data[y * info.width + x]! < 225)
  const crossed = rows.map(darkIn).reduce((least, row) => (row.length < least.length ? row : least))
  const lines = crossed.filter((x, i) => i === 0 || x - crossed[i - 1]! > 20)
  expect(lines.length).toBeGreaterThan(12)
  // Sixteen centimetres across: edge, fifteen lines, edge.
  for (const [i, x] of lines.slice(1).entries())
    expect(Math.abs(x - lines[i]! - 100)).toBeLessThanOrEqual(2)
})

test('the picture the server makes and the page of the book agree, for everything there is to draw with', async () => {
  const { picture, mediaId } = await printed(inkFile('isometric', EVERYTHING))
  const made = await school.wren.fetch('GET', `/media/${mediaId}/2048`)
  const onScreen = sharp(Buffer.from(await made.arrayBuffer()))
  const onPaper = sharp(picture).extract({ ...(await placeOfSheet(picture)), ...SHEET })
  const [screen, paper] = await Promise.all([small(onScreen), small(onPaper)])
  const differing = screen.filter((value, i) => !standsThere(value, paper, i)).length
  // Measured 0.07 %.
  expect(differing / screen.length).toBeLessThan(0.003)
  // And there is something to agree on.
  expect(screen.filter((value) => value < 160).length / screen.length).toBeGreaterThan(0.05)
})

const SMALL = { width: 480, height: 360 }
const small = async (picture: Sharp): Promise<Buffer> => {
  const whole = await picture.png().toBuffer()
  return sharp(whole)
    .resize(SMALL.width, SMALL.height, { fit: 'fill' })
    .greyscale()
    .raw()
    .toBuffer()
}

/** Two renderers put an edge up to a dot apart: within a quarter as dark, there or beside it. */
const standsThere = (value: number, other: Buffer, at: number): boolean =>
  [-1, 0, 1].some((down) =>
    [-1, 0, 1].some((right) => {
      const beside = other[at + down * SMALL.width + right]
      return beside !== undefined && Math.abs(value - beside) <= 64
    }),
  )

/** Where the sheet lies: its upper edge is the first row that is dark for most of its width. */
async function placeOfSheet(picture: Buffer): Promise<{ left: number; top: number }> {
  const { data, info } = await sharp(picture)
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const left = Math.round((info.width - SHEET.width) / 2)
  for (let top = 0; top < info.height; top++) {
    let dark = 0
    for (let x = left; x < left + SHEET.width; x++) if (data[top * info.width + x]! < 250) dark++
    if (dark > SHEET.width * 0.95) return { left, top }
  }
  throw new Error('there is no sheet on this page')
}
