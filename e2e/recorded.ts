import type { Page } from '@playwright/test'
import { expect } from './expect.ts'

/** Whatever is recorded runs for so many seconds at least; a busy machine looks a little later. */
export const recordedFor = (page: Page, seconds: number): Promise<void> =>
  expect.poll(() => recordedSeconds(page), { intervals: [100] }).toBeGreaterThanOrEqual(seconds)

/**
 * Stops what is recorded once it ran for so many seconds.
 * @returns how long it is at least and at most: a busy machine stops late
 */
export async function stopAfter(page: Page, seconds: number): Promise<[number, number]> {
  await recordedFor(page, seconds)
  const [least, at] = [await recordedSeconds(page), Date.now()]
  await page.getByRole('button', { name: /^(Stop|Done)$/ }).click()
  return [least - 1, least + 2 + (Date.now() - at) / 1000]
}

export async function recordedSeconds(page: Page): Promise<number> {
  const [, minutes, rest] = /(\d+):(\d\d)/.exec(await page.getByRole('timer').innerText()) ?? []
  return 60 * Number(minutes) + Number(rest)
}
