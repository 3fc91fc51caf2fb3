import { MEDIA, MEDIA_KINDS, type MediaKind, type MediaType } from '@nibquill/core'
import { INK_FORMAT } from '@nibquill/core/ink/document'
import { fileTypeFromFile } from 'file-type'
import { open } from 'node:fs/promises'
import * as v from 'valibot'
import { ProgramFailed, runProgram } from '../platform/runProgram.ts'

/** What a file is. `turned`: it is kept as another type of its kind. */
export type Sniffed = { kind: MediaKind; type: MediaType; turned: boolean }

/** Containers that hold a film or only its sound: what they hold says which. */
const CONTAINERS: Readonly<Record<string, { film: MediaType; sound: MediaType }>> = {
  'video/mp4': { film: 'video/mp4', sound: 'audio/mp4' },
  'audio/mp4': { film: 'video/mp4', sound: 'audio/mp4' },
  'audio/x-m4a': { film: 'video/mp4', sound: 'audio/mp4' },
  'video/x-m4v': { film: 'video/mp4', sound: 'audio/mp4' },
  'video/quicktime': { film: 'video/quicktime', sound: 'audio/mp4' },
  'video/webm': { film: 'video/webm', sound: 'audio/webm' },
  'audio/webm': { film: 'video/webm', sound: 'audio/webm' },
}

/** Tells what a file is from its bytes, never from its name. @returns null for what is not taken */
export async function sniff(file: string): Promise<Sniffed | null> {
  const mime = (await fileTypeFromFile(file))?.mime.split(';')[0]
  if (!mime)
    return (await isInk(file)) ? { kind: 'ink', type: 'application/json', turned: false } : null
  const container = CONTAINERS[mime]
  if (container) {
    const held = await probe(file)
    if (!held) return null
    const kind = held.film ? 'film' : 'sound'
    return { kind, type: container[kind], turned: false }
  }
  for (const kind of MEDIA_KINDS) {
    if (mime in MEDIA[kind].types) return { kind, type: mime as MediaType, turned: false }
    const [first] = Object.keys(MEDIA[kind].types) as MediaType[]
    if ((MEDIA[kind].turned as readonly string[]).includes(mime) && first)
      return { kind, type: first, turned: true }
  }
  return null
}

/** What every ink document says near its beginning, as we write it. */
const INK_BEGINS = new RegExp(`^\\s*\\{\\s*"format"\\s*:\\s*"${INK_FORMAT}"`)
const BEGINNING_BYTES = 64

async function isInk(file: string): Promise<boolean> {
  const handle = await open(file)
  try {
    const { buffer, bytesRead } = await handle.read({ buffer: Buffer.alloc(BEGINNING_BYTES) })
    return INK_BEGINS.test(buffer.toString('utf8', 0, bytesRead))
  } finally {
    await handle.close()
  }
}

const Probed = v.object({
  streams: v.array(
    v.object({
      codec_type: v.optional(v.string()),
      disposition: v.optional(v.object({ attached_pic: v.optional(v.number()) })),
    }),
  ),
})

/** What ffmpeg may open: files of these formats, and nothing they point to. */
export const ONLY_FILES = [
  ...['-format_whitelist', 'mov,mp4,m4a,matroska,webm,ogg'],
  ...['-protocol_whitelist', 'file'],
]

async function probe(file: string): Promise<{ film: boolean } | null> {
  const said = await runProgram(
    'ffprobe',
    [
      ...['-v', 'error', ...ONLY_FILES],
      ...['-show_entries', 'stream=codec_type:stream_disposition=attached_pic', '-of', 'json'],
      file,
    ],
    { seconds: 10, memoryMb: 1024 },
  ).catch((error: unknown) => {
    if (error instanceof ProgramFailed) return '{"streams":[]}'
    throw error
  })
  const { streams } = v.parse(Probed, JSON.parse(said))
  const film = streams.some(
    ({ codec_type, disposition }) => codec_type === 'video' && !disposition?.attached_pic,
  )
  return film || streams.some(({ codec_type }) => codec_type === 'audio') ? { film } : null
}
