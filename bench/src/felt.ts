import type { Piece, PieceLine } from '@nibquill/contract'
import {
  DEMO_CARDS,
  DEMO_PASSWORD,
  DEMO_STAFF,
  photographSheet,
  sheetOfDifficulty,
} from '@nibquill/demo'
import type { Browser, Page } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import { line, median, type Line } from './measure.ts'
import { onSmallDemo, visit } from './smallDemo.ts'

const ROUNDS = 3
/** What was promised to who waits, in ms. */
const PROMISED = { nextPicture: 100, goOn: 400, tidied: 1500 }
/** In a row; the slowest but one counts, which is the 95th of a hundred. */
const DECISIONS = 20

/**
 * What a teacher and a pupil wait for, in Chromium over the small demo school, each against the time
 * that was promised: from a decision to the next picture, from the shutter to *Go on*, from keeping a
 * tidied photo of twelve megapixels to seeing it in its piece.
 */
export async function benchFelt(): Promise<Line[]> {
  return onSmallDemo(async (browser, at, folder) => [
    held(
      'from a decision to the next picture, p95',
      await nextPicture(browser, at),
      PROMISED.nextPicture,
    ),
    held('from the shutter to Go on', await shutterToGoOn(browser, at), PROMISED.goOn),
    held(
      'a tidied photo of 12 megapixels is kept',
      await tidiedKept(browser, at, folder),
      PROMISED.tidied,
    ),
  ])
}

const held = (name: string, ms: number, promised: number): Line =>
  line(`${name} (ms, of those promised)`, ms, promised, 'ms', '<=', 1)

/** From a key to the moment another picture stands whole where the last one stood. */
async function nextPicture(browser: Browser, at: string): Promise<number> {
  await handInPhotos(browser, at, DECISIONS + 1)
  const page = await visit(browser, at, 'password', {
    email: DEMO_STAFF.heron,
    password: DEMO_PASSWORD,
  })
  await page.goto('/tray')
  await page.getByRole('button', { name: /^Approve into/ }).waitFor()
  const times: number[] = []
  for (let round = 0; round < DECISIONS; round++) {
    // As long as a glance: the next one is fetched meanwhile.
    await page.waitForTimeout(1500)
    times.push(
      await page.evaluate(async () => {
        const shown = () =>
          // The next one is drawn out of sight already.
          Array.from(document.querySelectorAll('img'))
            .filter((image) => image.checkVisibility())
            .reduce<HTMLImageElement | null>(
              (largest, image) =>
                image.width * image.height > (largest ? largest.width * largest.height : 0)
                  ? image
                  : largest,
              null,
            )
        const before = shown()?.currentSrc
        const began = performance.now()
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }))
        for (;;) {
          await new Promise(requestAnimationFrame)
          const now = shown()
          if (now && now.currentSrc !== before && now.complete) return performance.now() - began
          if (performance.now() - began > 10_000) throw new Error('no other picture came')
        }
      }),
    )
  }
  await page.context().close()
  return times.sort((a, b) => a - b)[Math.ceil(0.95 * times.length) - 1]!
}

/** Pieces of Wren's, each with one of her photos that are at school already, another one each time. */
async function handInPhotos(browser: Browser, at: string, count: number): Promise<void> {
  const page = await visit(browser, at, 'card', { code: DEMO_CARDS.Wren })
  const ask = async <T>(
    method: 'get' | 'put' | 'patch' | 'post',
    address: string,
    data?: object,
  ) => {
    const answer = await page.request[method](`/api${address}`, {
      ...{ headers: { Origin: at }, ...(data ? { data } : {}) },
    })
    if (!answer.ok()) throw new Error(`${address}: ${await answer.text()}`)
    return (await answer.json()) as T
  }
  const folders = await ask<{ id: string }[]>('get', '/folders')
  const photos: string[] = []
  for (const { id } of folders) {
    const { pieces } = await ask<{ pieces: PieceLine[] }>('get', `/folders/${id}`)
    for (const { cover, pupil } of pieces)
      if (cover?.kind === 'photo' && pupil.firstName === 'Wren')
        photos.push(cover.files.picture.mediaId)
  }
  const [folder] = folders
  if (new Set(photos).size < 2) throw new Error('there are no two photos')
  for (let i = 0; i < count; i++) {
    const id = newId()
    await ask('put', `/pieces/${id}`, { taskId: null })
    const { version } = await ask<Piece>('put', `/pieces/${id}/parts/${newId()}`, {
      ...{ kind: 'photo', name: '', files: { picture: photos[i % photos.length] } },
    })
    const named = await ask<Piece>('patch', `/pieces/${id}`, {
      ...{ seenVersion: version, title: `Rock pool ${i}`, folderId: folder!.id },
    })
    await ask('post', `/pieces/${id}/hand-in`, { seenVersion: named.version })
  }
  await page.context().close()
}

async function shutterToGoOn(browser: Browser, at: string): Promise<number> {
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const page = await visit(browser, at, 'card', { code: DEMO_CARDS.Wren })
    await page.goto('/make')
    await page.getByRole('button', { name: 'Take the photo', disabled: false }).waitFor()
    await page.waitForTimeout(800)
    times.push(await fromTapTo(page, 'Take the photo', 'Go on'))
    await page.context().close()
  }
  return median(times)
}

async function tidiedKept(browser: Browser, at: string, folder: string): Promise<number> {
  const photo = path.join(folder, 'desk.jpg')
  const size = { width: 4000, height: 3000 }
  writeFileSync(photo, (await photographSheet(sheetOfDifficulty(0.3, 61), 61, size)).jpeg)
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const page = await visit(browser, at, 'card', { code: DEMO_CARDS.Wren })
    await page.goto('/make')
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Pick pictures' }).click()
    await (await chooser).setFiles(photo)
    await page.getByRole('button', { name: 'Look at Photo 1' }).click({ timeout: 60_000 })
    await page.getByRole('button', { name: 'Tidy', exact: true }).click()
    await page.getByRole('button', { name: 'Make it flat' }).click({ timeout: 60_000 })
    await page.waitForTimeout(1500)
    times.push(await fromTapTo(page, 'Keep it', 'Undo', 'Tidied. What the camera saw is kept.'))
    await page.context().close()
  }
  return median(times)
}

/** Between a tap and the moment something else is on screen, by the page's own clock. */
const fromTapTo = (page: Page, tapped: string, appears: string, words = ''): Promise<number> =>
  page.evaluate(
    async ([tapped, appears, words]) => {
      const button = (name: string) =>
        Array.from(document.querySelectorAll<HTMLElement>('[role="button"]')).find(
          (one) =>
            (one.getAttribute('aria-label') ?? one.innerText).trim() === name &&
            one.ariaDisabled !== 'true',
        )
      const began = performance.now()
      button(tapped)!.click()
      for (;;) {
        await new Promise(requestAnimationFrame)
        const there = words ? document.body.innerText.includes(words) : button(appears)
        if (there) return performance.now() - began
        if (performance.now() - began > 30_000) throw new Error(`${appears} did not come`)
      }
    },
    [tapped, appears, words] as const,
  )
