import { createCanvas, loadImage, Path2D, type Image, type SKRSContext2D } from '@napi-rs/canvas'
import { showThing, type Shown, type ShownPath } from '@nibquill/core/ink/display'
import type { InkSheet } from '@nibquill/core/ink/document'
import { isBegunBy, paintOn } from '@nibquill/core/ink/paintOn'
import { paperLines } from '@nibquill/core/ink/papers'
import { picturesInTalk, TalkReplay, type Talk } from '@nibquill/core/ink/talk'
import path from 'node:path'
import type { Writable } from 'node:stream'
import { setImmediate } from 'node:timers/promises'
import { runProgram } from '../../platform/runProgram.ts'
import type { MadeForm, PictureOf } from './kinds.ts'

export const TALK_FRAMES_A_SECOND = 15
const EDGE_PX = 1280
/** Five minutes of it take about two of the processor. */
const BOUNDS = { seconds: 900, memoryMb: 2048 }

/**
 * A talk-through as a film that plays everywhere: each picture is what one sees at its moment.
 * @param sound - What was said, AAC in MP4, `durationMs` long.
 * @param into - A folder for what is made.
 * @throws ProgramFailed
 */
export async function filmTalk(
  talk: Talk,
  { sound, durationMs }: { sound: string; durationMs: number },
  pictureOf: PictureOf,
  into: string,
): Promise<MadeForm> {
  const screen = new TalkScreen(talk, await pictures(talk, pictureOf))
  const { width, height } = screen
  const film = path.join(into, 'film.mp4')
  const count = Math.ceil((durationMs / 1000) * TALK_FRAMES_A_SECOND)
  const feed = async (pipe: Writable) => {
    for (let frame = 0; frame < count && pipe.writable; frame++) {
      // The last one holds whatever was drawn until the voice ended.
      const ms = frame === count - 1 ? Infinity : (frame * 1000) / TALK_FRAMES_A_SECOND
      if (!pipe.write(screen.at(ms))) await room(pipe)
      // Others are answered in between.
      await setImmediate()
    }
  }
  await runProgram(
    'ffmpeg',
    [
      ...['-v', 'error', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-video_size', `${width}x${height}`],
      ...['-framerate', `${TALK_FRAMES_A_SECOND}`, '-i', 'pipe:0'],
      ...['-protocol_whitelist', 'file,pipe', '-i', sound, '-map', '0:v', '-map', '1:a'],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '24', '-threads', '1'],
      ...['-pix_fmt', 'yuv420p', '-c:a', 'copy', '-map_metadata', '-1'],
      ...['-movflags', '+faststart', '-f', 'mp4', '-y', film],
    ],
    BOUNDS,
    [0],
    undefined,
    feed,
  )
  return {
    ...{ form: 'as-film', file: film, type: 'video/mp4', ending: 'mp4' },
    ...{ width, height, durationMs },
  }
}

/** There is room for more, or nobody takes any more. */
const room = (pipe: Writable): Promise<void> =>
  new Promise((resolve) => {
    const done = () => {
      pipe.off('drain', done).off('close', done)
      resolve()
    }
    pipe.on('drain', done).on('close', done)
  })

async function pictures(talk: Talk, pictureOf: PictureOf): Promise<Map<string, Image>> {
  const found = new Map<string, Image>()
  for (const mediaId of new Set(picturesInTalk(talk))) {
    const jpeg = await pictureOf(mediaId)
    if (jpeg) found.set(mediaId, await loadImage(jpeg))
  }
  return found
}

const even = (px: number): number => Math.max(2, 2 * Math.round(px / 2))

/** A sheet as it comes to be, as pixels. What lies there is painted once. */
class TalkScreen {
  readonly width: number
  readonly height: number
  readonly #replay: TalkReplay
  readonly #pictures: ReadonlyMap<string, Image>
  readonly #scale: number
  readonly #kept: SKRSContext2D
  readonly #shown: SKRSContext2D
  #painted: InkSheet | null = null
  /** What stands there while nothing moves. */
  #still: Buffer | null = null

  constructor(talk: Talk, pictures: ReadonlyMap<string, Image>) {
    const { width, height } = talk.start
    this.#scale = EDGE_PX / Math.max(width, height)
    this.width = even(width * this.#scale)
    this.height = even(height * this.#scale)
    this.#replay = new TalkReplay(talk)
    this.#pictures = pictures
    this.#kept = createCanvas(this.width, this.height).getContext('2d')
    this.#shown = createCanvas(this.width, this.height).getContext('2d')
  }

  /** @returns RGBA */
  at(ms: number): Buffer {
    const { sheet, growing } = this.#replay.at(ms)
    if (growing.length === 0 && this.#still && sheet === this.#painted) return this.#still
    this.#keep(sheet)
    if (growing.length === 0) return (this.#still = dataOf(this.#kept))
    this.#still = null
    this.#shown.setTransform(1, 0, 0, 1, 0, 0)
    this.#shown.drawImage(this.#kept.canvas, 0, 0)
    this.#paint(this.#shown, growing.flatMap(showThing))
    return dataOf(this.#shown)
  }

  #keep(sheet: InkSheet): void {
    if (sheet === this.#painted) return
    const begun = this.#painted !== null && isBegunBy(this.#painted, sheet)
    if (!begun) {
      this.#kept.setTransform(1, 0, 0, 1, 0, 0)
      this.#kept.fillStyle = '#FFFFFF'
      this.#kept.fillRect(0, 0, this.width, this.height)
      this.#paint(this.#kept, paperLines(sheet))
    }
    const from = begun ? this.#painted!.things.length : 0
    this.#paint(this.#kept, sheet.things.slice(from).flatMap(showThing))
    this.#painted = sheet
  }

  #paint(canvas: SKRSContext2D, list: readonly Shown[]): void {
    canvas.setTransform(this.#scale, 0, 0, this.#scale, 0, 0)
    paintOn(canvas, list, {
      pathOf,
      pictureOf: (mediaId) => this.#pictures.get(mediaId) ?? null,
      aside: (paintThere, cover) => {
        const there = createCanvas(this.width, this.height).getContext('2d')
        there.setTransform(this.#scale, 0, 0, this.#scale, 0, 0)
        paintThere(there)
        canvas.setTransform(1, 0, 0, 1, 0, 0)
        canvas.globalAlpha = cover
        canvas.drawImage(there.canvas, 0, 0)
        canvas.globalAlpha = 1
        canvas.setTransform(this.#scale, 0, 0, this.#scale, 0, 0)
      },
    })
  }
}

const pathOf = ({ path: data }: ShownPath): Path2D => new Path2D(data)
const dataOf = ({ canvas }: SKRSContext2D): Buffer => Buffer.from(canvas.data())
