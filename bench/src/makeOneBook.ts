// One book in one process: prints how long it took and the most memory the process held. Arguments:
// book|alone, pages.
import { Chance, photograph } from '@nibquill/demo'
import { drawBook } from '@nibquill/server/book/drawBook'
import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { pipeline } from 'node:stream/promises'
import PDFDocument from 'pdfkit'
import sharp from 'sharp'

const [what, count] = [process.argv[2], Number(process.argv[3])]
const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-bench-book-'))
const base = sharp(await photograph('map', new Chance(3))).resize(2048, 1536)
for (let i = 0; i < 10; i++)
  writeFileSync(
    path.join(folder, `${i}.jpg`),
    await base
      .clone()
      .modulate({ hue: i * 10 })
      .jpeg({ quality: 80 })
      .toBuffer(),
  )
const readPhoto = (i: number) => readFileSync(path.join(folder, `${i % 10}.jpg`))

const start = performance.now()
if (what === 'book') {
  await drawBook({
    title: 'Bench',
    pupilName: 'Wren',
    termName: 'Autumn term',
    schoolName: 'Saltmarsh Primary School',
    pages: Array.from({ length: count }, (_, i) => ({
      title: `Rock pool crab ${i}`,
      folderName: 'Rock pools',
      termName: 'Autumn term',
      reflection: 'I learned that it walks sideways. Next I would draw the eyes on stalks.',
      reason: 'I picked this because it took two goes.',
      foot: 'Wren · second go · 20 November 2026',
      printed: [{ as: 'picture', word: 'Photo', key: String(i), width: 2048, height: 1536 }],
      link: `http://nibquill.example/p/${'x'.repeat(22)}`,
    })),
    readFile: (key) => Promise.resolve(readPhoto(Number(key))),
    onPage: () => Promise.resolve(),
    out: createWriteStream(path.join(folder, 'out.pdf')),
  })
} else {
  const doc = new PDFDocument({ size: 'A4', margin: 0, autoFirstPage: false })
  const written = pipeline(doc, createWriteStream(path.join(folder, 'out.pdf')))
  for (let i = 0; i < count; i++) doc.addPage().image(readPhoto(i), 68, 130, { width: 459 })
  doc.end()
  await written
}
const ms = performance.now() - start
rmSync(folder, { recursive: true, force: true })
process.stdout.write(JSON.stringify({ ms, mb: process.resourceUsage().maxRSS / 1024 }))
