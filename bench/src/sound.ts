import { makeSoundForms, surveySound } from '@nibquill/server/media/kinds/sound'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { ffmpeg } from './ffmpeg.ts'
import { inTurn, line, type Line } from './measure.ts'

const MINUTES = 5
const ROUNDS = 3

/**
 * Five minutes of something like speech: measured and evened out, against ffmpeg measuring by its
 * own meter and then evening out; and the measuring alone.
 */
export async function benchSound(): Promise<Line[]> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const file = path.join(folder, 'said.webm')
  const voice = `anoisesrc=c=pink:r=48000:d=${MINUTES * 60}:seed=7,volume='if(lt(mod(t,0.9),0.55),0.4,0.01)':eval=frame`
  await ffmpeg('-f', 'lavfi', '-i', voice, '-ac', '1', '-c:a', 'libopus', file)
  const measure = () => ffmpeg('-i', file, '-ac', '1', '-af', 'ebur128', '-f', 'null', '-')
  const whole = await inTurn(
    ROUNDS,
    () => makeSoundForms(file, folder),
    async () => {
      await measure()
      await ffmpeg(
        ...['-i', file, '-af', 'volume=4dB,alimiter=limit=0.891:level=0', '-ac', '1'],
        ...['-c:a', 'aac', '-b:a', '64k', path.join(folder, 'alone.m4a')],
      )
    },
  )
  const measured = await inTurn(ROUNDS, () => surveySound(file), measure)
  await rm(folder, { recursive: true, force: true })
  return [
    line('five minutes of sound (s)', whole.value / 1000, whole.floor / 1000, 's', '<=', 1.2),
    line(
      'its loudness and peaks alone, against ffmpeg’s meter (s)',
      measured.value / 1000,
      measured.floor / 1000,
      's',
      '<=',
      1.5,
    ),
  ]
}
