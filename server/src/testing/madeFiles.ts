import { execFile } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import { openDocument, Pen } from '../print/pen.ts'

const run = promisify(execFile)

/** Works on a file in a folder of its own. */
async function withFile<T>(name: string, work: (file: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-made-'))
  try {
    return await work(path.join(folder, name))
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Sources of ffmpeg, and the codecs browsers and phones record with. */
const MADE: Record<string, string[]> = {
  webm: ['-c:a', 'libopus'],
  ogg: ['-c:a', 'libopus'],
  m4a: ['-c:a', 'aac'],
  mp3: ['-c:a', 'libmp3lame'],
}
const FILM = ['-f', 'lavfi', '-i', 'testsrc=s=64x48:r=5:d=1', '-c:v', 'libvpx', '-c:a', 'libopus']

/**
 * A second of a tone, made by ffmpeg; `film.webm` with pictures.
 * @param tell - What the file tells of its place, author and device.
 */
export const recording = (
  name = 'voice.webm',
  tell: Record<string, string> = {},
): Promise<Buffer> =>
  withFile(name, async (file) => {
    const ending = path.extname(name).slice(1)
    await run('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', 'sine=frequency=440:duration=1'],
      ...(name.startsWith('film') ? FILM : MADE[ending]!),
      ...Object.entries(tell).flatMap(([key, value]) => ['-metadata', `${key}=${value}`]),
      ...(ending === 'm4a' ? ['-movflags', 'use_metadata_tags'] : []),
      file,
    ])
    return readFile(file)
  })

/** How a film is made that a telephone or a browser might have made. */
export type FilmOf = {
  seconds?: number
  size?: `${number}x${number}`
  coder?: 'libx264' | 'libx265' | 'libvpx'
  /** As telephones keep a film held upright: lying, with a note to turn it. */
  turned?: boolean
  sound?: boolean
  /** As a browser's recorder leaves it: written from front to back, without its length. */
  unended?: boolean
  /** As telephones film in poor light, and browsers on a busy tablet: pictures come when they come. */
  uneven?: boolean
  tell?: Record<string, string>
}

/** A film of a test card that counts, made by ffmpeg: WebM by libvpx, MP4 by the others. */
export const film = ({
  seconds = 1,
  size = '64x48',
  coder = 'libvpx',
  turned = false,
  sound = true,
  unended = false,
  uneven = false,
  tell = {},
}: FilmOf = {}): Promise<Buffer> =>
  withFile(coder === 'libvpx' ? 'film.webm' : 'film.mp4', async (file) => {
    const made = await run(
      'ffmpeg',
      [
        ...[
          '-v',
          'error',
          '-f',
          'lavfi',
          '-i',
          `testsrc=s=${size}:r=${uneven ? 1000 : 10}:d=${seconds}`,
        ],
        ...(sound ? ['-f', 'lavfi', '-i', `sine=frequency=440:duration=${seconds}`] : []),
        ...(uneven ? ['-vf', `select='not(mod(n,139))+not(mod(n,233))'`, '-vsync', 'vfr'] : []),
        ...['-c:v', coder, '-pix_fmt', 'yuv420p'],
        ...(coder === 'libvpx' ? [] : ['-preset', 'ultrafast']),
        ...(coder === 'libx265' ? ['-x265-params', 'log-level=error', '-tag:v', 'hvc1'] : []),
        ...(sound ? ['-c:a', coder === 'libvpx' ? 'libopus' : 'aac'] : []),
        ...Object.entries(tell).flatMap(([key, value]) => ['-metadata', `${key}=${value}`]),
        ...(unended ? ['-f', 'webm', 'pipe:1'] : [file]),
      ],
      { encoding: 'buffer', maxBuffer: 50_000_000 },
    )
    if (unended) return made.stdout
    if (!turned) return readFile(file)
    const lying = `${file}.turned.mp4`
    await run('ffmpeg', [
      ...['-v', 'error', '-i', file, '-c', 'copy', '-map_metadata', '0'],
      ...['-metadata:s:v', 'rotate=90', lying],
    ])
    return readFile(lying)
  })

/** A paper of one page, made by our own pen. @param password - Without it nobody opens it. */
export async function paper(words = 'Rock pools', password?: string): Promise<Buffer> {
  const bytes = await papers([words])
  return password ? locked(bytes, password) : bytes
}

/** A paper with these words, each on a page of its own. */
export async function papers(pages: readonly string[]): Promise<Buffer> {
  const doc = await openDocument('Plan of our walk', 'Nobody')
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  for (const words of pages) {
    doc.addPage()
    new Pen(doc).text(words, { x: 60, y: 60, width: 300, size: 20 })
  }
  doc.end()
  await once(doc, 'end')
  return Buffer.concat(chunks)
}

const locked = (bytes: Buffer, password: string): Promise<Buffer> =>
  withFile('paper.pdf', async (file) => {
    await writeFile(file, bytes)
    await run('qpdf', ['--encrypt', password, password, '256', '--', '--replace-input', file])
    return readFile(file)
  })

/** Frame headers of JPEG: baseline and progressive. @see ITU-T T.81, B.2.2 */
const FRAMES = [Buffer.from([0xff, 0xc0]), Buffer.from([0xff, 0xc2])]

/** A JPEG that says it is larger than it is: for what is refused by its measure, without decoding. */
export function saidToBe(width: number, height: number, jpeg: Buffer): Buffer {
  const told = Buffer.from(jpeg)
  const at = Math.max(...FRAMES.map((frame) => told.indexOf(frame)))
  told.writeUInt16BE(height, at + 5)
  told.writeUInt16BE(width, at + 7)
  return told
}
