import { openDocument, Pen } from '@nibquill/server/print/pen'
import { execFile } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import type { Chance } from './chance.ts'

const run = promisify(execFile)
/** Voices of Debian's espeak-ng, set higher and slower so that they stand in for children. */
const VOICES = ['en-gb+f2', 'en-gb+f3', 'en-gb+f4', 'en-gb+m3'] as const
const FILM_SECONDS = { least: 5, most: 12 }
/** Where a hand that holds a tablet drifts to and back, in pixels of the photo. */
const DRIFT_PX = 24

async function inFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-demo-'))
  try {
    return await work(folder)
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Says words into a file, as no particular child. */
async function sayInto(file: string, words: string, chance: Chance): Promise<void> {
  const voice = ['-v', chance.pick(VOICES), '-p', `${Math.floor(chance.between(66, 84))}`]
  const pace = ['-s', `${Math.floor(chance.between(120, 150))}`]
  await run('espeak-ng', [...voice, ...pace, '-w', file, words])
}

/** What a tablet records where somebody says these words: Opus in WebM. */
export const spoken = (words: string, chance: Chance): Promise<Buffer> =>
  inFolder(async (folder) => {
    const [said, kept] = [path.join(folder, 'said.wav'), path.join(folder, 'said.webm')]
    await sayInto(said, words, chance)
    const louder = `volume=${chance.between(-14, 2).toFixed(1)}dB`
    const coded = ['-ac', '1', '-ar', '48000', '-c:a', 'libopus', '-b:a', '48k']
    await run('ffmpeg', ['-v', 'error', '-i', said, '-af', louder, ...coded, kept])
    return readFile(kept)
  })

/** A model filmed by hand while somebody says these words: H.264 and AAC in MP4. */
export const filmed = (photo: Buffer, words: string, chance: Chance): Promise<Buffer> =>
  inFolder(async (folder) => {
    const [seen, said, kept] = ['seen.jpg', 'said.wav', 'film.mp4'].map((name) =>
      path.join(folder, name),
    ) as [string, string, string]
    await writeFile(seen, photo)
    await sayInto(said, words, chance)
    const pace = chance.between(0.5, 0.9).toFixed(2)
    const drift = (wave: string) => `${DRIFT_PX}+${DRIFT_PX}*${wave}(t*${pace})`
    const held = `scale=1008:756,crop=960:708:${drift('sin')}:${drift('cos')}`
    const { least, most } = FILM_SECONDS
    await run('ffmpeg', [
      ...['-v', 'error', '-loop', '1', '-framerate', '12', '-i', seen, '-i', said],
      ...['-vf', `${held},scale=640:472,format=yuv420p`, '-af', `apad=whole_dur=${least}`],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '28', '-c:a', 'aac', '-ac', '1'],
      ...['-t', `${most}`, '-shortest', kept],
    ])
    return readFile(kept)
  })

/** A plan typed at home, a line a thing, on two pages. */
export async function typed(title: string, lines: readonly string[]): Promise<Buffer> {
  const doc = await openDocument(title, 'Saltmarsh Primary School')
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const half = Math.ceil(lines.length / 2)
  for (const [i, page] of [lines.slice(0, half), lines.slice(half)].entries()) {
    doc.addPage()
    const pen = new Pen(doc)
    pen.text(i === 0 ? title : `${title}, the other side`, { x: 60, y: 70, width: 470, size: 30 })
    page.forEach((line, n) =>
      pen.text(`${half * i + n + 1}. ${line}`, { x: 60, y: 150 + 60 * n, width: 470, size: 22 }),
    )
  }
  doc.end()
  await once(doc, 'end')
  return Buffer.concat(chunks)
}
