import type { MakeTask, Peaks, Piece, SchoolClass, Task } from '@nibquill/contract'
import { EVEN_LUFS } from '@nibquill/core/sound/loudness'
import type { Page } from '@playwright/test'
import { execFileSync, spawnSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import { launchHearing } from './fakeCamera.ts'
import { goOn, putInTray } from './handIn.ts'
import { scratch } from './materials.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { newestOf, pieceOf } from './pieces.ts'
import { recordedFor, stopAfter } from './recorded.ts'
import { expect, test } from './test.ts'

// What the microphone hears is Chromium's: a short tone every second.
const say = (page: Page) => page.getByRole('button', { name: 'Speak', exact: true }).click()
const stop = (page: Page) => page.getByRole('button', { name: 'Stop', exact: true }).click()
/**
 * Keeps what was said. A tap where another was within the last second is not meant, should the button
 * have moved there: a person takes longer than a test.
 */
async function keep(page: Page): Promise<void> {
  const before = page.url()
  await page.waitForTimeout(1100)
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page).not.toHaveURL(before)
}
/** None before the school has heard of the piece. */
const voicesAtSchool = async (page: Page, id: string) => {
  const { parts = [] }: Partial<Piece> = await pieceOf(page, id)
  return parts.filter(({ kind }) => kind === 'voice')
}

test('what a child says goes from the shelf to the tray, and the teacher hears it as long as it was', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  await page.getByRole('button', { name: 'Say', exact: true }).click()
  await say(page)
  await recordedFor(page, 3)
  // A rest does not count.
  await page.getByRole('button', { name: 'Wait a moment' }).click()
  await page.waitForTimeout(2000)
  await page.getByRole('button', { name: 'Go on speaking' }).click()
  const [least, most] = await stopAfter(page, 5)
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect(page.getByRole('button', { name: 'Stop it' })).toBeVisible()
  // Said again, it can be taken back.
  await page.getByRole('button', { name: 'Say it again' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await keep(page)
  await page.getByLabel('Name of my piece').fill('What the sea says')
  await goOn(page)
  await goOn(page)
  await putInTray(page, /Rock pools/)
  await expect.poll(async () => (await newestOf(page))?.state).toBe('submitted')

  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', `/tray/${(await newestOf(page))!.id}`)
  const place = teacher.getByRole('slider', { name: 'Where it is heard' })
  await expect(place).toBeVisible()
  const seconds = Number(await place.getAttribute('aria-valuemax'))
  expect(seconds).toBeGreaterThanOrEqual(least)
  expect(seconds).toBeLessThanOrEqual(most)
  await teacher.getByRole('button', { name: 'Hear it' }).click()
  await expect(teacher.getByRole('button', { name: 'Stop it' })).toBeVisible()
  await expect
    .poll(async () => Number(await place.getAttribute('aria-valuenow')))
    .toBeGreaterThan(0)
})

test('without a network it is said as another part; who leaves in the middle loses nothing', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  await page.getByRole('button', { name: 'Say', exact: true }).click()
  await say(page)
  await recordedFor(page, 2)
  // Left while it runs: what was said is kept.
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await expect(page.getByRole('heading', { name: 'Aoife’s desk' })).toBeVisible()
  const newest = async () => {
    const line = await newestOf(page)
    return `${line?.state} ${line?.cover?.kind}`
  }
  await expect.poll(newest).toBe('draft voice')
  const { id } = (await newestOf(page))!
  await follow(page, `/my-pieces/${id}`)
  await expect(page.getByRole('button', { name: 'Say', exact: true })).toBeVisible()
  await page.context().setOffline(true)
  await page.getByRole('button', { name: 'Say', exact: true }).click()
  await say(page)
  await recordedFor(page, 1)
  await stop(page)
  await keep(page)
  await expect(page.getByLabel('Name of my piece')).toBeVisible()
  await page.context().setOffline(false)
  await expect.poll(async () => (await voicesAtSchool(page, id)).length).toBe(2)
})

test('the tablet gives out in the middle: what was said is there, but for two seconds at most', async ({
  page,
  context,
}) => {
  await enterAsPupil(page, 'Aoife', '/say')
  const before = (await newestOf(page))?.id
  await say(page)
  await recordedFor(page, 6)
  // Nothing is told that it ends.
  await page.close()
  const again = await context.newPage()
  await enterAsPupil(again, 'Aoife', '/desk')
  const cover = async () => {
    const line = await newestOf(again)
    return line?.cover?.kind === 'voice' && line.id !== before ? line.cover.files.sound : null
  }
  await expect.poll(async () => (await cover())?.state).toBe('ready')
  const { mediaId } = (await cover())!
  const peaks = (await (await again.request.get(`/api/media/${mediaId}/peaks`)).json()) as Peaks
  expect(peaks.durationMs).toBeGreaterThan(4000)
  // It is taken up once.
  await again.reload()
  await expect(again.getByRole('heading', { name: 'Aoife’s desk' })).toBeVisible()
  await again.waitForTimeout(1500)
  expect(await voicesAtSchool(again, (await newestOf(again))!.id)).toHaveLength(1)
})

test('back on the screen, more is said for the same piece', async ({ page }) => {
  await enterAsPupil(page, 'Aoife', '/say')
  for (const more of [false, true]) {
    if (more) await page.goBack()
    const again = page.getByRole('button', { name: 'Say it again' })
    const speak = page.getByRole('button', { name: 'Speak', exact: true })
    await expect(again.or(speak)).toBeVisible()
    if (await again.isVisible()) await again.click()
    await say(page)
    await recordedFor(page, 1)
    await stop(page)
    await keep(page)
    await expect(page.getByLabel('Name of my piece')).toBeVisible()
  }
  const id = /my-pieces\/([^/]+)\//.exec(page.url())![1]!
  await expect.poll(async () => (await voicesAtSchool(page, id)).length).toBe(2)
})

test('a microphone that may not be used says what to do', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('no', 'NotAllowedError'))
  })
  await enterAsPupil(page, 'Aoife', '/say')
  await say(page)
  await expect(page.getByText('The microphone may not be used.')).toBeVisible()
})

test('what a task asks for is asked after, kindly, before it goes in without', async ({
  page,
  another,
}) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover')
  const listOf = async <T>(at: string) => (await (await teacher.request.get(at)).json()) as T[]
  const [mine] = (await listOf<SchoolClass>('/api/school/classes')).filter(({ mine }) => mine)
  const tasks = await listOf<Task>('/api/tasks')
  const taskId = newId()
  const task: MakeTask = {
    ...{ classId: mine!.id, folderId: tasks[0]!.folder.id, unitId: null, strandId: null },
    ...{ title: 'Tell us about it', instructions: 'Show it, and say what it is.', media: [] },
    ...{ steps: ['finished'], opens: null, due: null, folderChangeable: false },
    ...{ asksThoughts: false, pupilIds: null },
    asks: [
      { kind: 'photo', count: 1 },
      { kind: 'voice', count: 1 },
    ],
  }
  const origin = new URL(teacher.url()).origin
  const set = await teacher.request.put(`/api/tasks/${taskId}`, {
    ...{ data: task, headers: { Origin: origin } },
  })
  expect(set.ok()).toBe(true)

  await enterAsPupil(page, 'Aoife', `/make?taskId=${taskId}`)
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await goOn(page)
  const handIn = page.getByRole('button', { name: 'Put it in the tray' })
  await handIn.click()
  const asked = page.getByRole('dialog', { name: 'Hand it in without?' })
  await expect(asked).toContainText('Your teacher asked for your voice.')
  await asked.getByRole('button', { name: 'Make it now' }).click()
  await say(page)
  await recordedFor(page, 1)
  await stop(page)
  await keep(page)
  // Nothing is asked where nothing is wanting.
  await handIn.click()
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()

  await follow(page, `/write?taskId=${taskId}`)
  await page.getByLabel('Write here').fill('It is a crab.')
  await goOn(page)
  await handIn.click()
  await expect(asked).toContainText('Your teacher asked for a photo.')
  await asked.getByRole('button', { name: 'Hand it in without' }).click()
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
})

test('what one thinks is said instead of written, heard again, and handed in with the piece', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/write')
  await page.getByLabel('Write here').fill('The wind walks round the house.')
  await goOn(page)
  await page.getByLabel('Name of my piece').fill('The wind')
  await goOn(page)
  await page.getByRole('button', { name: 'Say it instead' }).click()
  await say(page)
  await recordedFor(page, 1)
  await stop(page)
  await keep(page)
  await expect(page.getByRole('heading', { name: 'What do you think?' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Hear it' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Say more' })).toBeVisible()
  await goOn(page)
  const id = /my-pieces\/([^/]+)\//.exec(page.url())![1]!
  await putInTray(page, /Wind poems/)
  await expect.poll(async () => (await pieceOf(page, id)).state).toBe('submitted')
  const { parts } = (await pieceOf(page, id)).versions[0]!
  expect(parts.map(({ kind, name }) => `${kind} ${name}`)).toEqual([
    'writing ',
    'voice What I think',
  ])
})

/** How loud it is, for a tenth of a second each, beginning every so many milliseconds. */
function loudness(file: string, everyMs: number): number[] {
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-ac', '1', '-ar', '8000', '-f', 's16le', '-'],
    { maxBuffer: 50_000_000 },
  )
  const samples = new Int16Array(raw.buffer, raw.byteOffset, raw.length >> 1)
  const [window, step] = [800, 8 * everyMs]
  return Array.from(
    { length: Math.floor((samples.length - window) / step) },
    (_, i) =>
      // As it is heard: the power law of Stevens 1957, of sound pressure.
      samples.subarray(i * step, i * step + window).reduce((sum, one) => sum + one ** 2, 0) ** 0.3,
  )
}
/** Pearson's correlation. */
function alike(a: readonly number[], b: readonly number[]): number {
  const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / all.length
  const [ma, mb] = [mean(a), mean(b)]
  const sum = (of: (i: number) => number) => a.reduce((all, _, i) => all + of(i), 0)
  return (
    sum((i) => (a[i]! - ma) * (b[i]! - mb)) /
    Math.sqrt(sum((i) => (a[i]! - ma) ** 2) * sum((i) => (b[i]! - mb) ** 2))
  )
}

test('spoken words come out as long as they were, in their rhythm, and at the one level', async ({
  schoolAt,
}) => {
  // Debian's espeak-ng before the microphone.
  const folder = scratch()
  const said = path.join(folder, 'said.wav')
  const words = 'The crab goes sideways. It looks at me. Then it hides under the weed, and waits.'
  execFileSync('espeak-ng', ['-v', 'en-gb+f3', '-s', '130', '-a', '60', '-w', said, words])
  const browser = await launchHearing(said)
  try {
    const page = await browser.newPage({ baseURL: schoolAt, serviceWorkers: 'block' })
    const asked: string[] = []
    page.on('response', (answer) => {
      const method = answer.request().method()
      if (method !== 'GET' || answer.status() >= 400)
        asked.push(`${method} ${new URL(answer.url()).pathname} ${answer.status()}`)
    })
    page.on('requestfailed', (request) => asked.push(`${request.method()} ${request.url()} failed`))
    page.on('pageerror', (error) => asked.push(error.message))
    // From the desk: an address opened first lays the desk below itself, which takes a moment here.
    await enterAsPupil(page, 'Aoife')
    await page.getByRole('button', { name: 'Say', exact: true }).click()
    const before = (await newestOf(page))?.id
    await say(page)
    const [least, most] = await stopAfter(page, 5)
    await keep(page)
    const sound = async () => {
      const line = await newestOf(page)
      return line?.cover?.kind === 'voice' && line.id !== before ? line.cover.files.sound : null
    }
    const atSchool = async () =>
      (await sound())?.state ?? `not there; asked so far: ${asked.join(', ')}`
    await expect.poll(atSchool).toBe('ready')
    const at = `/api/media/${(await sound())!.mediaId}/playable`
    const heard = path.join(folder, 'heard.m4a')
    writeFileSync(heard, await (await page.request.get(at)).body())

    const [spokenAt, heardAt] = [loudness(said, 10), loudness(heard, 100)]
    expect(heardAt.length / 10).toBeGreaterThan(least)
    expect(heardAt.length / 10).toBeLessThan(most)
    // It may have begun anywhere in what was said over and over.
    const over = [...spokenAt, ...spokenAt, ...spokenAt]
    const mostAlike = (tenths: readonly number[]) =>
      Math.max(
        ...spokenAt.map((_, i) =>
          alike(
            tenths,
            tenths.map((_, tenth) => over[i + 10 * tenth]!),
          ),
        ),
      )
    // Three seconds on end: on a busy machine the microphone itself leaves something out here and
    // there.
    const best = (tenths: readonly number[]) =>
      Math.max(...tenths.slice(29).map((_, i) => mostAlike(tenths.slice(i, i + 30))))
    expect(best(heardAt)).toBeGreaterThan(0.9)
    // Backwards, or a tenth faster, it is another rhythm: what is measured tells one from the other.
    expect(best([...heardAt].reverse())).toBeLessThan(0.85)
    expect(best(heardAt.filter((_, tenth) => tenth % 10 > 0))).toBeLessThan(0.85)
    // @see ebur128 of ffmpeg's libavfilter, after EBU R 128
    const { stderr } = spawnSync('ffmpeg', ['-i', heard, '-af', 'ebur128', '-f', 'null', '-'], {
      encoding: 'utf8',
    })
    const lufs = Number(/Integrated loudness:\s+I:\s+(-?[\d.]+)/.exec(stderr)![1])
    expect(Math.abs(lufs - EVEN_LUFS)).toBeLessThan(1)
  } finally {
    await browser.close()
  }
})

test('a teacher says what to do next; its pupil hears it on the desk and beside the work', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/write')
  await page.getByLabel('Write here').fill('The wind walks.')
  await goOn(page)
  await page.getByLabel('Name of my piece').fill('Wind')
  await goOn(page)
  await goOn(page)
  await putInTray(page, /Rock pools/)
  await expect.poll(async () => (await newestOf(page))?.state).toBe('submitted')
  const { id } = (await newestOf(page))!

  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', `/tray/${id}`)
  await teacher.getByRole('button', { name: /^Send back/ }).click()
  const dialog = teacher.getByRole('dialog')
  const send = dialog.getByRole('button', { name: /^Send it back/ })
  await expect(send).toBeDisabled()
  await dialog.getByRole('button', { name: 'Say it' }).click()
  await expect(dialog.getByRole('button', { name: /^Stop, 0:0[2-9]/ })).toBeVisible()
  await dialog.getByRole('button', { name: /^Stop, / }).click()
  // Heard, taken out and brought back before it is sent.
  await expect(dialog.getByRole('button', { name: 'Hear it' })).toBeVisible()
  await dialog.getByRole('button', { name: 'Take out what I say' }).click()
  await expect(send).toBeDisabled()
  await dialog.getByRole('button', { name: 'Bring it back' }).click()
  // What was said waits with its piece while one looks at the work again.
  await dialog.getByRole('button', { name: 'Leave it' }).click()
  await teacher.getByRole('button', { name: /^Send back/ }).click()
  await send.click()
  await expect.poll(async () => (await pieceOf(page, id)).state).toBe('returned')

  await follow(page, '/desk')
  await expect(page.getByText('Your teacher says something to you. Listen.')).toBeVisible()
  await page
    .getByRole('link', { name: /Wind/ })
    .or(page.getByText('Wind', { exact: true }))
    .first()
    .click()
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect(page.getByRole('button', { name: 'Stop it' })).toBeVisible()
  const place = page.getByRole('slider', { name: 'Where it is heard' })
  await expect
    .poll(async () => Number(await place.getAttribute('aria-valuenow')))
    .toBeGreaterThan(0)
})

test('a voice is added straight from the folder to a piece that is still open; what waits says so', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await enterAsPupil(page, 'Aoife', '/write')
  await page.getByLabel('Write here').fill('The wind walks.')
  await goOn(page)
  await page.getByLabel('Name of my piece').fill('Not in it yet')
  await goOn(page)
  await goOn(page)
  await page
    .getByRole('radio', { name: /Wind poems/ })
    .first()
    .click()
  await expect(page.getByRole('radio', { name: /Wind poems/ }).first()).toBeChecked()
  const id = /my-pieces\/([^/]+)\//.exec(page.url())![1]!
  await expect.poll(async () => (await pieceOf(page, id)).folder?.name).toBe('Wind poems')
  const folderId = (await pieceOf(page, id)).folder!.id
  await follow(page, `/my-folders/${folderId}`)
  const here = page.getByRole('region', { name: 'Not in it yet' })
  await expect(here).toContainText('not handed in yet')
  await here.getByRole('button', { name: 'Say', exact: true }).first().click()
  await say(page)
  await recordedFor(page, 1)
  await stop(page)
  await keep(page)
  await expect.poll(async () => (await voicesAtSchool(page, id)).length).toBe(1)
  const { version } = await pieceOf(page, id)
  const origin = new URL(page.url()).origin
  await page.request.post(`/api/pieces/${id}/hand-in`, {
    ...{ data: { seenVersion: version }, headers: { Origin: origin } },
  })
  await follow(page, `/my-folders/${folderId}`)
  await expect(here).toContainText('waits for your teacher')
})
