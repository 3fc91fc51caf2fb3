import type { Peaks } from '@nibquill/contract'
import { DomainError, LONGEST_FILM_MS, type MediaType } from '@nibquill/core'
import { evenGainDb } from '@nibquill/core/sound/loudness'
import { stat, writeFile } from 'node:fs/promises'
import path from 'node:path'
import * as v from 'valibot'
import { ProgramFailed, runProgram } from '../../platform/runProgram.ts'
import { ONLY_FILES } from '../sniff.ts'
import type { Kept, MadeForm } from './kinds.ts'
import { makeSizes } from './makeSizes.ts'
import { copyStreams, EVEN_SOUND, READ, surveySound } from './sound.ts'

/** Two minutes from a telephone's largest camera take about four of one processor. */
const BOUNDS = { seconds: 600, memoryMb: 2048 }
const LOOK = { seconds: 20, memoryMb: 1024 }
/** A tablet stops a moment after it was told to. */
const GRACE_MS = 3000
/** What a screen in a classroom or a telephone shows. */
const PLAYABLE_EDGE_PX = 1280
/**
 * Pictures that come unevenly, as from a busy tablet, are taken for a thousand a second: three seconds
 * took as long as a minute.
 */
const MOST_PICTURES_A_SECOND = 30
/** What is as small as this already is not coded anew. */
const SMALL_BITS_PER_S = 3_000_000
/** What stands for a film is the picture most like the others about so far into it. */
const POSTER_AFTER_S = 1

const Probed = v.object({
  format: v.object({ duration: v.optional(v.string()) }),
  streams: v.array(
    v.object({
      codec_type: v.string(),
      codec_name: v.optional(v.string()),
      pix_fmt: v.optional(v.string()),
      width: v.optional(v.number()),
      height: v.optional(v.number()),
      side_data_list: v.optional(v.array(v.object({ rotation: v.optional(v.number()) }))),
    }),
  ),
})
/** `width`, `height`: upright, in pixels. `plays`: every browser plays its pictures as they are. */
type About = { durationMs: number; width: number; height: number; sound: boolean; plays: boolean }

/**
 * Copies a film without what tells of place, device and moment.
 * @throws DomainError `media/file-unreadable`, `media/film-too-long`
 */
export async function takeFilm(file: string, type: MediaType, scratch: string): Promise<Kept> {
  const clean = path.join(scratch, 'clean')
  await copyStreams(file, type, clean)
  const { durationMs, width, height } = await lookAt(clean).catch((error: unknown) => {
    if (error instanceof ProgramFailed) throw new DomainError('media/file-unreadable')
    throw error
  })
  if (!(durationMs > 0)) throw new DomainError('media/file-unreadable')
  if (durationMs > LONGEST_FILM_MS + GRACE_MS) throw new DomainError('media/film-too-long')
  return { file: clean, type, width, height }
}

/**
 * Makes what every browser plays, its sound as loud as every voice; what is drawn of the sound; and
 * pictures of a moment in it.
 * @param into - A folder for what is made.
 * @param onPercent - How far it is, now and then.
 * @throws ProgramFailed
 */
export async function makeFilmForms(
  file: string,
  into: string,
  onPercent: (percent: number) => void,
): Promise<MadeForm[]> {
  const about = await lookAt(file)
  const { durationMs } = about
  const survey = about.sound ? await surveySound(file) : null
  const bars = path.join(into, 'peaks.json')
  await writeFile(
    bars,
    JSON.stringify({ durationMs, peaks: [...(survey?.peaks ?? [])] } satisfies Peaks),
  )
  const playable = path.join(into, 'playable.mp4')
  await runProgram(
    'ffmpeg',
    [
      ...[...READ, file, '-map', '0:V:0', '-map_metadata', '-1', '-map_chapters', '-1'],
      ...(about.plays ? ['-c:v', 'copy'] : CODED_ANEW),
      ...(survey
        ? ['-map', '0:a:0', '-af', EVEN_SOUND(evenGainDb(survey.loudness)), ...SOUND]
        : ['-an']),
      ...['-movflags', '+faststart', '-f', 'mp4', '-progress', 'pipe:1', '-y', playable],
    ],
    BOUNDS,
    [0],
    percentsOf(durationMs, onPercent),
  )
  const { width, height } = await lookAt(playable)
  const sizes = await makeSizes(await poster(playable, durationMs, into), into)
  return [
    {
      form: 'playable',
      file: playable,
      type: 'video/mp4',
      ending: 'mp4',
      width,
      height,
      durationMs,
    },
    {
      ...{ form: 'peaks', file: bars, type: 'application/json', ending: 'json' },
      ...{ width: null, height: null, durationMs },
    },
    ...sizes,
  ]
}
/** What ffmpeg says of itself, as percents; not more often than anybody looks. */
function percentsOf(durationMs: number, onPercent: (percent: number) => void) {
  let last = 0
  return (chunk: Buffer) => {
    const done = /out_time_us=(\d+)/.exec(chunk.toString())?.[1]
    if (done === undefined || Date.now() - last < SAY_EVERY_MS) return
    last = Date.now()
    onPercent(Math.min(99, Math.round(Number(done) / 10 / durationMs)))
  }
}
const SAY_EVERY_MS = 1000

const SOUND = ['-ac', '1', '-c:a', 'aac', '-b:a', '64k']
const fit = (edge: string, other: string) =>
  `trunc(if(gte(${edge},${other}),min(${PLAYABLE_EDGE_PX},${edge}),${edge}*min(${PLAYABLE_EDGE_PX},${other})/${other})/2)*2`
const CODED_ANEW = [
  ...['-vf', `scale=w='${fit('iw', 'ih')}':h='${fit('ih', 'iw')}',format=yuv420p`],
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '26', '-threads', '1'],
  ...['-maxrate', '2.5M', '-bufsize', '5M', '-fpsmax', String(MOST_PICTURES_A_SECOND)],
]

/** The picture most like its neighbours: not the one where somebody's hand is before the lens. */
async function poster(file: string, durationMs: number, into: string): Promise<string> {
  const picture = path.join(into, 'poster.jpg')
  const after = Math.min(POSTER_AFTER_S, durationMs / 2000)
  await runProgram(
    'ffmpeg',
    [
      ...['-nostdin', '-v', 'error', '-threads', '1', ...ONLY_FILES, '-ss', after.toFixed(3)],
      ...['-i', file, '-map', '0:V:0', '-vf', 'thumbnail=25', '-frames:v', '1'],
      ...['-q:v', '2', '-y', picture],
    ],
    LOOK,
  )
  // Past its last picture there is none.
  await stat(picture).catch(() => {
    throw new ProgramFailed('ffmpeg', 'input', 0, 'no picture in it')
  })
  return picture
}

async function lookAt(file: string): Promise<About> {
  const said = await runProgram(
    'ffprobe',
    [
      ...['-v', 'error', ...ONLY_FILES, '-of', 'json', '-show_entries'],
      'format=duration:stream=codec_type,codec_name,pix_fmt,width,height:stream_side_data=rotation',
      file,
    ],
    LOOK,
  )
  const { format, streams } = v.parse(Probed, JSON.parse(said))
  const pictures = streams.find(({ codec_type }) => codec_type === 'video')
  if (!pictures) throw new ProgramFailed('ffprobe', 'input', 0, 'no pictures in it')
  const { width = 0, height = 0, codec_name: codec, pix_fmt: pixels } = pictures
  const turned = pictures.side_data_list?.some(({ rotation = 0 }) => rotation % 180 !== 0)
  const durationMs = Math.round(1000 * Number(format.duration))
  const { size } = await stat(file)
  const plays =
    codec === 'h264' &&
    pixels === 'yuv420p' &&
    Math.max(width, height) <= PLAYABLE_EDGE_PX &&
    (8 * size) / (durationMs / 1000) <= SMALL_BITS_PER_S
  const upright = turned ? { width: height, height: width } : { width, height }
  const sound = streams.some(({ codec_type }) => codec_type === 'audio')
  return { durationMs, ...upright, sound, plays }
}
