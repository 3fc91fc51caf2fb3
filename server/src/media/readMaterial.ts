import { fileTypeFromBuffer } from 'file-type'
import type { MediaRow } from './rows.ts'

type Material = { bytes: Uint8Array; type: MediaRow['type']; width: 0; height: 0 }

/**
 * Reads what arrived as a recording or a paper, by its bytes. Recordings come from browsers: WebM
 * or Ogg with Opus, or MPEG-4.
 * @returns null for anything else
 */
export async function readMaterial(sent: Uint8Array): Promise<Material | null> {
  const type = await typeOf(sent)
  if (!type) return null
  return { bytes: type === 'audio/mp4' ? withoutUserData(sent) : sent, type, width: 0, height: 0 }
}

async function typeOf(sent: Uint8Array): Promise<MediaRow['type'] | null> {
  const mime = (await fileTypeFromBuffer(sent))?.mime
  switch (mime) {
    case 'application/pdf':
      return 'application/pdf'
    case 'audio/ogg':
    case 'audio/ogg; codecs=opus':
      return 'audio/ogg'
    case 'audio/mp4':
    case 'audio/x-m4a':
      return 'audio/mp4'
    case 'audio/webm':
    case 'video/webm': {
      // The container is the same; a film names the codec of its pictures (Matroska CodecID,
      // `V_...`).
      const head = Buffer.from(sent.subarray(0, 4096)).toString('latin1')
      return /A_OPUS|A_VORBIS/.test(head) && !/V_(VP8|VP9|AV1|MPEG)/.test(head)
        ? 'audio/webm'
        : null
    }
    default:
      return null
  }
}

/**
 * Place and device stand in `udta` and `meta` boxes: they become `free`, of the same length, so
 * that nothing moves.
 * @see ISO/IEC 14496-12, 8.1.2
 */
function withoutUserData(sent: Uint8Array): Uint8Array {
  const bytes = Buffer.from(sent)
  const clean = (from: number, to: number) => {
    for (let at = from; at + 8 <= to;) {
      const size = bytes.readUInt32BE(at) || to - at
      const kind = bytes.toString('latin1', at + 4, at + 8)
      if (size < 8 || at + size > to) return
      if (kind === 'udta' || kind === 'meta') {
        bytes.write('free', at + 4, 'latin1')
        bytes.fill(0, at + 8, at + size)
      } else if (kind === 'moov' || kind === 'trak') clean(at + 8, at + size)
      at += size
    }
  }
  clean(0, bytes.length)
  return bytes
}
