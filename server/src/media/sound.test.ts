import { Peaks } from '@nibquill/contract'
import { EVEN_LUFS } from '@nibquill/core/sound/loudness'
import { execFile, execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import * as v from 'valibot'
import { type SmallSchool, until, useSmallSchool } from '../testing/testServer.ts'
import { makeSoundForms, surveySound } from './kinds/sound.ts'

let school: SmallSchool
useSmallSchool((opened) => ({ school } = opened))

const run = promisify(execFile)
let folder = ''
beforeAll(() => (folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-sound-'))))
afterAll(() => rmSync(folder, { recursive: true }))

/** Something like a voice: noise in syllables, with rests. @param db - How loud. */
function clip(name: string, db: number, seconds = 6): string {
  const file = path.join(folder, name)
  const voice = `anoisesrc=c=pink:r=48000:d=${seconds}:seed=7,volume='if(lt(mod(t,0.9),0.55),1,0.02)':eval=frame`
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', `${voice},volume=${db}dB`],
    ...['-ac', '1', '-c:a', name.endsWith('m4a') ? 'aac' : 'libopus', '-y', file],
  ])
  return file
}
/** What ffmpeg's own meter reads, in LUFS. @see ebur128 of libavfilter, after EBU R 128 */
async function readByOther(file: string): Promise<number> {
  const { stderr } = await run('ffmpeg', [
    '-nostats',
    '-i',
    file,
    '-af',
    'ebur128',
    '-f',
    'null',
    '-',
  ])
  return Number(/Integrated loudness:\s+I:\s+(-?[\d.]+) LUFS/.exec(stderr)![1])
}

test.each([
  ['voice.webm', -6],
  ['voice.m4a', -18],
])('our meter and ffmpeg’s ebur128 agree within 0.1 LU on %s at %d dB', async (name, db) => {
  const file = clip(name, db)
  expect(Math.abs((await surveySound(file)).loudness! - (await readByOther(file)))).toBeLessThan(
    0.1,
  )
})
test('a quiet clip and a loud one are as loud afterwards; neither is louder than a loudspeaker can', async () => {
  for (const db of [-14, 6]) {
    const forms = await makeSoundForms(clip(`even${db}.webm`, db), folder)
    const { file } = forms.find(({ form }) => form === 'playable')!
    // The limiter takes a little of the loud one.
    expect(Math.abs((await readByOther(file)) - EVEN_LUFS)).toBeLessThan(1)
    expect((await surveySound(file)).peak).toBeLessThan(0.95)
  }
})
test('where a busy tablet lost some of it there is silence: what comes after is heard when it was said', async () => {
  const [whole, torn] = [clip('whole.webm', -10), path.join(folder, 'torn.webm')]
  // Of its packets of 20 ms those of one second are gone.
  const lost = "noise=drop='between(n,150,199)'"
  execFileSync('ffmpeg', ['-v', 'error', '-i', whole, '-c', 'copy', '-bsf:a', lost, '-y', torn])
  const survey = await surveySound(torn)
  expect(Math.abs(survey.durationMs - 6000)).toBeLessThan(60)
  const forms = await makeSoundForms(torn, folder)
  const { file } = forms.find(({ form }) => form === 'playable')!
  const played = await surveySound(file)
  expect(Math.abs(played.durationMs - 6000)).toBeLessThan(100)
  const [before, after] = [await surveySound(whole), played]
  const at = ({ peaks }: typeof played, seconds: number) => peaks[Math.round((seconds / 6) * 160)]!
  expect(at(after, 3.75)).toBe(0)
  for (const seconds of [0.3, 2.1, 4.7, 5.5])
    expect(at(after, seconds) / at(before, seconds)).toBeCloseTo(1, 0)
})
test('silence stays silence', async () => {
  const file = path.join(folder, 'silence.webm')
  execFileSync('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', 'anullsrc=r=48000:d=2', '-y', file])
  const survey = await surveySound(file)
  expect([survey.loudness, Math.max(...survey.peaks)]).toEqual([null, 0])
  await makeSoundForms(file, folder)
})
test('what a teacher said is played by every browser, and drawn as it was said', async () => {
  const bytes = await import('node:fs/promises').then((fs) => fs.readFile(clip('said.webm', -10)))
  const { mediaId } = await school.teacher.upload(bytes, { filename: 'said.webm' })
  const form = (name: string) => school.teacher.fetch('GET', `/media/${mediaId}/${name}`)
  // Until then it is heard as it was sent, and nothing is drawn of it.
  await until(async () => (await form('peaks')).status === 200)
  const peaks = v.parse(Peaks, await (await form('peaks')).json())
  expect(Math.abs(peaks.durationMs - 6000)).toBeLessThan(60)
  // Rests between syllables are low, syllables high: 6 s in 160 bars, a syllable every 0.9 s.
  const at = (seconds: number) => peaks.peaks[Math.round((seconds / 6) * 160)]!
  expect(at(0.3)).toBeGreaterThan(4 * at(0.75))
  expect(at(1.2)).toBeGreaterThan(4 * at(1.65))
  const playable = await form('playable')
  expect(playable.headers.get('content-type')).toBe('audio/mp4')
  const file = path.join(folder, 'served.m4a')
  writeFileSync(file, Buffer.from(await playable.arrayBuffer()))
  expect(statSync(file).size).toBeGreaterThan(10_000)
  const { stdout } = await run('ffprobe', [
    ...['-v', 'error', '-show_entries', 'stream=codec_name', '-of', 'csv=p=0', file],
  ])
  expect(stdout.trim()).toBe('aac')
  // The recording itself stays.
  expect((await form('full')).headers.get('content-type')).toBe('audio/webm')
})
