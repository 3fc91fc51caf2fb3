import { Chance, filmed, photograph, spoken } from '@nibquill/demo'
import { surveySound } from '@nibquill/server/media/kinds/sound'
import { spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { scratch } from './materials.ts'
import { enterAsPupil } from './people.ts'
import { pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

/** Loudness by another meter, in LUFS. @see ebur128 of ffmpeg's libavfilter, after EBU R 128 */
function loudness(file: string): number {
  const words = ['-i', file, '-af', 'ebur128', '-f', 'null', '-']
  const { stderr } = spawnSync('ffmpeg', words, { encoding: 'utf8' })
  return Number(/Integrated loudness:\s+I:\s+(-?[\d.]+)/.exec(stderr)![1])
}

test('clips as the demo’s pupils make them play from their served form; our meter and ffmpeg’s hear the same', async ({
  page,
}) => {
  const poem = ['The wind walks round the house.', 'It knocks at every door.']
  const made: [string, Buffer][] = [
    ...(await Promise.all(
      [1, 2, 3].map(async (seed): Promise<[string, Buffer]> => [
        `said ${seed}.webm`,
        await spoken(poem.join('\n'), new Chance(seed)),
      ]),
    )),
    [
      'bridge.mp4',
      await filmed(await photograph('bridge', new Chance(4)), poem[0]!, new Chance(5)),
    ],
  ]
  const folder = scratch()
  const files = made.map(([name, bytes]) => {
    writeFileSync(path.join(folder, name), bytes)
    return path.join(folder, name)
  })
  await enterAsPupil(page, 'Aoife', '/desk')
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Pick', exact: true }).click()
  await (await chooser).setFiles(files)
  await expect(page.getByRole('button', { name: 'Look at Film 4' })).toBeVisible()
  await page.waitForURL(/[?&]id=/)
  const id = new URL(page.url()).searchParams.get('id')!
  const clips = async () => {
    const { parts = [] } = await pieceOf(page, id)
    return parts.flatMap((part) =>
      part.kind === 'voice' ? [part.files.sound] : part.kind === 'film' ? [part.files.film] : [],
    )
  }
  await expect
    .poll(async () => (await clips()).filter(({ state }) => state === 'ready').length)
    .toBe(made.length)
  const file = path.join(folder, 'clip')
  for (const { mediaId } of await clips()) {
    const at = `/api/media/${mediaId}/playable`
    const played = await page.evaluate(async (src) => {
      const clip = Object.assign(document.createElement('video'), { src, muted: true })
      await clip.play()
      await new Promise((heard) => clip.addEventListener('timeupdate', heard))
      clip.pause()
      return { seconds: clip.duration, error: clip.error?.message ?? null }
    }, at)
    expect(played.error).toBeNull()
    expect(played.seconds).toBeGreaterThan(2)
    writeFileSync(file, await (await page.request.get(at)).body())
    const { loudness: ours } = await surveySound(file)
    expect(Math.abs(ours! - loudness(file))).toBeLessThan(0.1)
  }
})
