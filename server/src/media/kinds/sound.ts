import { DomainError, type MediaType } from '@nibquill/core'
import { evenGainDb, METER_RATE_HZ } from '@nibquill/core/sound/loudness'
import { Survey, type Peaks, type Surveyed } from '@nibquill/core/sound/peaks'
import { writeFile } from 'node:fs/promises'
import path from 'node:path'
import { ProgramFailed, runProgram } from '../../platform/runProgram.ts'
import { ONLY_FILES } from '../sniff.ts'
import type { MadeForm } from './kinds.ts'

/** ffmpeg's own names of the containers. */
const MUXER: Partial<Record<MediaType, string>> = {
  'audio/webm': 'webm',
  'audio/ogg': 'ogg',
  'audio/mp4': 'ipod',
  'video/webm': 'webm',
  'video/mp4': 'mp4',
  'video/quicktime': 'mov',
}

/**
 * Copies sound and pictures of a recording into a new file and leaves everything else behind:
 * place, device, author, titles, covers, chapters. Nothing is coded anew.
 * @throws DomainError `media/file-unreadable`
 */
export async function copyStreams(file: string, type: MediaType, into: string): Promise<void> {
  await runProgram(
    'ffmpeg',
    [
      ...['-nostdin', '-v', 'error', '-threads', '1', ...ONLY_FILES, '-i', file],
      ...['-map', '0:V:0?', '-map', '0:a:0?', '-c', 'copy', '-map_metadata', '-1'],
      ...['-map_chapters', '-1', '-fflags', '+bitexact', '-flags', '+bitexact'],
      ...['-movflags', '+faststart', '-f', MUXER[type]!, '-y', into],
    ],
    { seconds: 120, memoryMb: 1024 },
  ).catch((error: unknown) => {
    if (error instanceof ProgramFailed) throw new DomainError('media/file-unreadable')
    throw error
  })
}

const BOUNDS = { seconds: 120, memoryMb: 1024 }
const SAMPLE_BYTES = 4
/** Nothing gets louder than one decibel below what a loudspeaker can. */
const LIMIT = 0.891

/**
 * Makes what every browser plays, brought to one loudness by one gain and a limiter; and the bars
 * it is drawn as.
 * @param into - A folder for what is made.
 * @throws ProgramFailed
 */
export async function makeSoundForms(file: string, into: string): Promise<MadeForm[]> {
  const { loudness, durationMs, peaks } = await surveySound(file)
  const bars = path.join(into, 'peaks.json')
  await writeFile(bars, JSON.stringify({ durationMs, peaks } satisfies Peaks))
  const playable = path.join(into, 'playable.m4a')
  await runProgram(
    'ffmpeg',
    [
      ...[...READ, file, '-map', '0:a:0', '-map_metadata', '-1'],
      ...['-af', EVEN_SOUND(evenGainDb(loudness))],
      ...['-ac', '1', '-ar', `${METER_RATE_HZ}`, '-c:a', 'aac', '-b:a', '64k'],
      ...['-movflags', '+faststart', '-f', 'ipod', '-y', playable],
    ],
    BOUNDS,
  )
  const about = { width: null, height: null, durationMs }
  return [
    { form: 'playable', file: playable, type: 'audio/mp4', ending: 'm4a', ...about },
    { form: 'peaks', file: bars, type: 'application/json', ending: 'json', ...about },
  ]
}
/**
 * ffmpeg's filter that lets each sound begin when it was recorded: where a busy tablet lost some of
 * it, there is silence. What was drawn or filmed meanwhile stays on its clock.
 */
const ON_TIME = 'aresample=async=1'
/** ffmpeg's filter for one gain and a limiter. */
export const EVEN_SOUND = (gainDb: number): string =>
  `${ON_TIME},volume=${gainDb.toFixed(2)}dB,alimiter=limit=${LIMIT}:level=0`
/** Words before the name of a file ffmpeg is to read. */
export const READ = ['-nostdin', '-v', 'error', '-threads', '1', ...ONLY_FILES, '-i']

/** Looks through a recording while ffmpeg decodes it: an hour of it is never whole in memory. */
export async function surveySound(file: string): Promise<Surveyed> {
  const survey = new Survey()
  let rest = Buffer.alloc(0)
  const take = (chunk: Buffer) => {
    const bytes = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk
    const whole = bytes.length - (bytes.length % SAMPLE_BYTES)
    // Copied: a number may not begin between two places of four bytes.
    survey.add(new Float32Array(new Uint8Array(bytes.subarray(0, whole)).buffer))
    rest = Buffer.from(bytes.subarray(whole))
  }
  await runProgram(
    'ffmpeg',
    [
      ...[...READ, file, '-map', '0:a:0', '-af', ON_TIME],
      ...['-ac', '1', '-ar', `${METER_RATE_HZ}`, '-f', 'f32le', '-'],
    ],
    BOUNDS,
    [0],
    take,
  )
  return survey.end(evenGainDb)
}
