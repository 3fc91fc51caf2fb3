import type { Book, LinkedPiece, Peaks, Piece, TalkPart } from '@nibquill/contract'
import type { InkOfTalk } from '@nibquill/contract/ink'
import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { graveFaults } from './axe.ts'
import { goOn, putInTray } from './handIn.ts'
import { codesInPdf, pick, plain, scratch } from './materials.ts'
import { Paper, wave } from './paper.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { newestOf, pieceOf } from './pieces.ts'
import { recordedFor, recordedSeconds, stopAfter } from './recorded.ts'
import { expect, test } from './test.ts'

/** After a rest. */
const goOnDrawing = (page: Page) => page.getByRole('button', { name: 'Go on', exact: true }).click()
/** None before the school has heard of the piece. */
const talksAtSchool = async (page: Page, id: string) => {
  const { parts = [] }: Partial<Piece> = await pieceOf(page, id)
  return parts.filter((part): part is TalkPart => part.kind === 'talk')
}
const readInk = async (page: Page, { files }: TalkPart) =>
  (await (await page.request.get(`/api/media/${files.ink.mediaId}/full`)).json()) as InkOfTalk

/**
 * Puts a dot on the sheet, each beside the last, as often as the microphone begins to hear
 * something: Chromium's hears a short tone again and again.
 */
async function dotAtEachTone(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    const context = new AudioContext()
    const analyser = new AnalyserNode(context, { fftSize: 256 })
    context.createMediaStreamSource(stream).connect(analyser)
    const samples = new Float32Array(analyser.fftSize)
    const counted = Object.assign(window, { dots: 0 })
    let [still, lastHeard] = [0, 0]
    const press = (key: string) =>
      document
        .querySelector('[role="application"]')
        ?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
    setInterval(() => {
      analyser.getFloatTimeDomainData(samples)
      const heard = samples.some((one) => Math.abs(one) > 0.1)
      const begins = heard && still > 3 && performance.now() - lastHeard > 100
      still = heard ? 0 : still + 1
      if (heard) lastHeard = performance.now()
      if (!begins) return
      for (const key of ['ArrowRight', ' ', ' ']) press(key)
      counted.dots++
    }, 4)
  })
}
/** Until it has put so many more there: a busy machine hears fewer of them. */
async function dotsMore(page: Page, more: number): Promise<void> {
  const dots = () => page.evaluate(() => (window as unknown as { dots: number }).dots)
  const before = await dots()
  await expect.poll(dots).toBeGreaterThanOrEqual(before + more)
}

/** When tones begin in a file, in milliseconds; by ffmpeg. */
function tonesIn(file: string): number[] {
  const rate = 8000
  const pcm = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-f', 's16le', '-ac', '1', '-ar', String(rate), '-'],
    { maxBuffer: 1 << 28 },
  )
  const loud = Array.from({ length: pcm.length / 2 }, (_, i) => Math.abs(pcm.readInt16LE(2 * i)))
  const most = loud.reduce((a, b) => Math.max(a, b), 0)
  const begins: number[] = []
  let last = -Infinity
  loud.forEach((one, i) => {
    if (one < most / 5) return
    if (i - last > rate / 10) begins.push((1000 * i) / rate)
    last = i
  })
  return begins
}

/** A rest that counted where it should not, or the other way round, is what a clock gets wrong. */
const SHORTEST_REST_MS = 700
/**
 * Before, between and after the rests, about; each from the least on. A busy machine hears and draws
 * late, by a little or by much; a clock that goes wrong is wrong for all that follows.
 */
const thirds = (all: readonly number[]) =>
  [0, 1, 2].map((third) =>
    all.slice((third * all.length) / 3, ((third + 1) * all.length) / 3).sort((a, b) => a - b),
  )
const nearest = (at: number, among: readonly number[]) =>
  Math.min(...among.map((other) => Math.abs(at - other)))

test('what is drawn and what is said are on one clock, also after rests; the teacher sees it so', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  await page.getByRole('button', { name: 'Show', exact: true }).click()
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('application').focus()
  await dotAtEachTone(page)
  await dotsMore(page, 4)
  await page.getByRole('button', { name: 'Wait a moment' }).click()
  // Nothing is drawn while the clock stands.
  await page.waitForTimeout(1500)
  await goOnDrawing(page)
  await dotsMore(page, 4)
  await page.getByRole('button', { name: 'Wait a moment' }).click()
  await page.waitForTimeout(SHORTEST_REST_MS)
  await goOnDrawing(page)
  await dotsMore(page, 4)
  const [least, most] = await stopAfter(page, 2)
  await page.getByRole('button', { name: 'Keep it' }).click()
  await page.getByLabel('Name of my piece').fill('How a crab walks')
  await goOn(page)
  await goOn(page)
  await putInTray(page, /Rock pools/)
  await expect.poll(async () => (await newestOf(page))?.state).toBe('submitted')
  const { id } = (await newestOf(page))!
  const [talk] = await talksAtSchool(page, id)
  const { steps } = (await readInk(page, talk!)).talk
  expect(steps.length).toBeGreaterThan(8)

  // The sound as every browser plays it: each dot is where a tone begins.
  await expect.poll(async () => (await talksAtSchool(page, id))[0]!.files.sound.state).toBe('ready')
  const sound = path.join(scratch(), 'said.m4a')
  const { mediaId } = talk!.files.sound
  writeFileSync(sound, await (await page.request.get(`/api/media/${mediaId}/playable`)).body())
  const tones = tonesIn(sound)
  const apart = steps.map(({ atMs }) => nearest(atMs, tones))
  for (const third of thirds(apart)) expect(third[0]).toBeLessThan(SHORTEST_REST_MS / 4)
  const peaks = (await (await page.request.get(`/api/media/${mediaId}/peaks`)).json()) as Peaks
  expect(peaks.durationMs).toBeGreaterThan(1000 * least)
  expect(peaks.durationMs).toBeLessThan(1000 * most)

  // Played: each dot stands on the sheet when its sound has come that far.
  const teacher = await another()
  await teacher.addInitScript(() => {
    const Plain = window.Audio
    window.Audio = class extends Plain {
      constructor() {
        super()
        Object.assign(window, { sounding: this })
      }
    } as typeof Audio
  })
  await enterAsTeacher(teacher, 'plover', `/tray/${id}`)
  await teacher.getByRole('button', { name: 'Watch it' }).waitFor()
  expect(await graveFaults(teacher)).toEqual([])
  // A busy machine may miss what comes just before it ends.
  const played = steps.filter(({ atMs }) => atMs < peaks.durationMs - 1500)
  const shownAt = teacher.evaluate(async (count) => {
    const canvas = document.querySelector('canvas')!
    const context = canvas.getContext('2d')!
    const { sounding } = window as unknown as { sounding: HTMLAudioElement }
    const dark = () => {
      const { data } = context.getImageData(0, canvas.height / 2, canvas.width, 1)
      let runsOfInk = 0
      for (let x = 4; x < data.length; x += 4)
        if (data[x]! < 128 && data[x + 3] === 255 && data[x - 4]! >= 128) runsOfInk++
      return runsOfInk
    }
    const seen: { lookBeforeMs: number; ms: number }[] = []
    let [drawn, lookBeforeMs] = [0, 0]
    while (seen.length < count && !sounding.ended) {
      await new Promise(requestAnimationFrame)
      if (sounding.paused) continue
      const [now, ms] = [dark(), sounding.currentTime * 1000]
      for (; drawn < now; drawn++) seen.push({ lookBeforeMs, ms })
      lookBeforeMs = ms
    }
    return seen
  }, played.length)
  await teacher.getByRole('button', { name: 'Watch it' }).click()
  const shown = await shownAt
  // What was due in the machine's last long breath stands there only once the sound has ended.
  expect(shown.length).toBeGreaterThan((played.length * 2) / 3)
  // However long a frame takes here: what was due at the look before is there at this one.
  const late = shown.map(({ lookBeforeMs }, i) => lookBeforeMs - steps[i]!.atMs)
  for (const third of thirds(late)) expect(third[0]).toBeLessThan(50)
  const early = shown.map(({ ms }, i) => steps[i]!.atMs - ms)
  expect(Math.max(...early)).toBeLessThanOrEqual(5)

  // As a film it can be kept elsewhere.
  const saved = teacher.waitForEvent('download')
  await teacher.getByRole('button', { name: 'Save as a film' }).click()
  const film = await (await saved).path()
  const length = execFileSync(
    'ffprobe',
    ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', film],
    { encoding: 'utf8' },
  )
  expect(Math.abs(Number(length) * 1000 - peaks.durationMs)).toBeLessThan(100)

  // On paper it is its sheet and a code; whoever holds the page hears and sees it on a phone.
  await teacher.getByRole('button', { name: /^Approve into Rock pools/ }).click()
  await expect.poll(async () => (await pieceOf(page, id)).state).toBe('approved')
  const phone = await another({ width: 390, height: 844 })
  await phone.goto(await pageInBook(teacher, await pieceOf(page, id)))
  await expect(phone.getByRole('article').getByRole('heading')).toHaveText('How a crab walks')
  await phone.getByRole('button', { name: 'Watch it' }).click()
  const place = phone.getByRole('slider', { name: 'Where it is heard' })
  await expect
    .poll(async () => Number(await place.getAttribute('aria-valuenow')))
    .toBeGreaterThan(0)
})

/** Has the pupil's book made, and reads the code beside a piece as a phone does. @returns its path */
async function pageInBook(teacher: Page, { pupil, term, title }: Piece): Promise<string> {
  const headers = { Origin: new URL(teacher.url()).origin }
  const order = { pupilId: pupil.id, termId: term!.id, madeFor: 'home' }
  const asked = (await (
    await teacher.request.post('/api/book', { data: order, headers })
  ).json()) as Book
  const book = async () =>
    (await (await teacher.request.get(`/api/book/${asked.id}`)).json()) as Book
  await expect.poll(async () => (await book()).state).toBe('ready')
  const pdf = path.join(scratch(), 'book.pdf')
  writeFileSync(pdf, await (await teacher.request.get(`/api/book/${asked.id}/file`)).body())
  for (const code of new Set(await codesInPdf(pdf, 150))) {
    const { pathname } = new URL(code)
    const shared = (await (
      await teacher.request.get(`/api/sharing/links/${pathname.split('/').at(-1)}`)
    ).json()) as LinkedPiece
    if (shared.piece.title === title) return pathname
  }
  throw new Error('the book has no such page')
}

test('a photo is talked about, without a network; who leaves in the middle loses nothing', async ({
  page,
  context,
}) => {
  await enterAsPupil(page, 'Aoife')
  await follow(page, '/make')
  await pick(page, [await plain(scratch(), 'shore.jpg', '#2f6e8c')])
  await page.getByRole('button', { name: 'Look at Photo 1' }).click()
  await page.getByRole('button', { name: 'Talk about it' }).click()
  const id = /my-pieces\/([\w-]+)/.exec(page.url())![1]!
  await expect.poll(async () => (await pieceOf(page, id)).parts?.length).toBe(1)
  await page.getByRole('button', { name: 'Begin' }).click()
  await context.setOffline(true)
  const paper = new Paper(page)
  await expect(paper.canvas).toBeVisible()
  await paper.draw(wave(40))
  await paper.draw(wave(70))
  await page.getByRole('button', { name: 'Undo' }).click()
  // Straight to the desk, with nothing said about it.
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await expect(page.getByRole('heading', { name: 'Aoife’s desk' })).toBeVisible()
  await context.setOffline(false)
  await expect.poll(async () => (await talksAtSchool(page, id)).length).toBe(1)
  const { sheets, talk } = await readInk(page, (await talksAtSchool(page, id))[0]!)
  expect(talk.start.things.map(({ kind }) => kind)).toEqual(['picture'])
  expect(sheets[0]!.things.map(({ kind }) => kind)).toEqual(['picture', 'line'])
  // Drawn, drawn, and taken back.
  expect(talk.steps.map(({ changes }) => changes[0]!.kind)).toEqual(['put', 'put', 'take'])
})

test('the tablet gives out in the middle: what was drawn and said is there, but for two seconds at most', async ({
  page,
  context,
}) => {
  await enterAsPupil(page, 'Aoife', '/talk')
  const before = (await newestOf(page))?.id
  await page.getByRole('button', { name: 'Begin' }).click()
  const paper = new Paper(page)
  await expect(paper.canvas).toBeVisible()
  await paper.draw(wave(30))
  await recordedFor(page, 3)
  await paper.draw(wave(80))
  // Two seconds, and what a busy machine takes longer.
  await recordedFor(page, (await recordedSeconds(page)) + 4)
  // Nothing is told that it ends.
  await page.close()
  const again = await context.newPage()
  await enterAsPupil(again, 'Aoife', '/desk')
  await expect.poll(async () => (await newestOf(again))?.cover?.kind).toBe('talk')
  const { id } = (await newestOf(again))!
  expect(id).not.toBe(before)
  const [talk] = await talksAtSchool(again, id)
  expect((await readInk(again, talk!)).sheets[0]!.things).toHaveLength(2)
})
