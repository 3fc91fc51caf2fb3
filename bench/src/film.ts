import { makeFilmForms } from '@nibquill/server/media/kinds/film'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { ffmpeg } from './ffmpeg.ts'
import { inTurn, line, type Line } from './measure.ts'

const SECONDS = 120

/**
 * Two minutes with the grain a telephone's camera has, larger than any screen shows: made playable, with its bars
 * and its picture, against ffmpeg by itself making the same of it; and one that plays already,
 * against ffmpeg copying it.
 */
export async function benchFilm(): Promise<Line[]> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const [large, small] = [path.join(folder, 'large.mp4'), path.join(folder, 'small.mp4')]
  const seen = (size: string) => `testsrc2=s=${size}:r=25:d=${SECONDS},noise=alls=6:allf=t`
  const heard = `anoisesrc=c=pink:d=${SECONDS}:a=0.2:seed=7`
  const filmed = ['-pix_fmt', 'yuv420p', '-preset', 'ultrafast', '-c:a', 'aac', '-shortest']
  const source = ['-f', 'lavfi', '-i', seen('1920x1080'), '-f', 'lavfi', '-i', heard]
  await ffmpeg(...source, '-c:v', 'libx264', '-crf', '24', ...filmed, large)
  const alone = path.join(folder, 'alone.mp4')
  const coded = ['-vf', 'scale=1280:-2', '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '26']
  const held = ['-maxrate', '2.5M', '-bufsize', '5M', '-ac', '1', '-c:a', 'aac', '-b:a', '64k']
  const anew = await inTurn(
    1,
    () => makeFilmForms(large, folder, () => undefined),
    () => ffmpeg('-i', large, ...coded, ...held, '-threads', '1', alone),
  )
  await ffmpeg('-i', alone, '-c', 'copy', small)
  const copied = await inTurn(
    3,
    () => makeFilmForms(small, folder, () => undefined),
    () => ffmpeg('-i', small, '-c:v', 'copy', '-ac', '1', '-c:a', 'aac', alone),
  )
  await rm(folder, { recursive: true, force: true })
  return [
    line('two minutes of film (s)', anew.value / 1000, anew.floor / 1000, 's', '<=', 1.3),
    line(
      'two minutes that every browser plays already (s)',
      ...([copied.value / 1000, copied.floor / 1000, 's', '<=', 6] as const),
    ),
  ]
}
