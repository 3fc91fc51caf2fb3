import { expect, type Page } from '@playwright/test'

/** Whatever is recorded runs for so many seconds at least; a busy machine looks a little later. */
export const recordedFor = (page: Page, seconds: number): Promise<void> =>
  expect
    .poll(() => recordedSeconds(page), { timeout: 20_000, intervals: [100] })
    .toBeGreaterThanOrEqual(seconds)

export async function recordedSeconds(page: Page): Promise<number> {
  const [, minutes, rest] = /(\d+):(\d\d)/.exec(await page.getByRole('timer').innerText()) ?? []
  return 60 * Number(minutes) + Number(rest)
}
