import { test as base, type Page, type ViewportSize } from '@playwright/test'
import { startDemo } from './apart.ts'
import { Devices } from './devices.ts'

export { expect } from '@playwright/test'

/** Opens a page on one more device, wide unless said otherwise. */
export type Another = (viewport?: ViewportSize) => Promise<Page>

/**
 * Playwright's test, on a school that the files of one worker share, and after which nothing stays
 * open: a page left behind goes on looking through its camera and asking the server. `page` and
 * `another` lie on devices that opened Nibquill before; `browser.newContext()` is one that never did.
 */
export const test = base.extend<
  { another: Another; nothingLeftOpen: void },
  { schoolAt: string; devices: Devices }
>({
  schoolAt: [
    // Playwright reads from the first parameter what a fixture needs.
    async ({}, use) => {
      const school = await startDemo()
      await use(school.at)
      await school.stop()
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  devices: [
    async ({ playwright, schoolAt }, use) => {
      const devices = new Devices(playwright.chromium, schoolAt)
      await use(devices)
      await devices.close()
    },
    { scope: 'worker' },
  ],
  baseURL: ({ schoolAt }, use) => use(schoolAt),
  another: ({ devices }, use) =>
    use((viewport = { width: 1280, height: 800 }) => devices.open(viewport)),
  page: async ({ browser, another, hasTouch, locale, viewport }, use) => {
    const ordinary = !hasTouch && locale === 'en-GB'
    await use(ordinary ? await another(viewport ?? undefined) : await browser.newPage())
  },
  context: ({ page }, use) => use(page.context()),
  nothingLeftOpen: [
    async ({ browser, devices }, use) => {
      const before = new Set(browser.contexts())
      await use()
      await Promise.all(browser.contexts().map((context) => before.has(context) || context.close()))
      await devices.giveBack()
    },
    { auto: true },
  ],
})
