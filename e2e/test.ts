import { DEMO_CARDS } from '@nibquill/demo'
import {
  test as base,
  type APIRequestContext,
  type Page,
  type ViewportSize,
} from '@playwright/test'
import { startDemo } from './apart.ts'
import { Devices } from './devices.ts'
import { expect } from './expect.ts'

export { expect }

/** Opens a page on one more device, wide unless said otherwise. */
export type Another = (viewport?: ViewportSize) => Promise<Page>
/** Comes in as a pupil whose screen nobody looks at: they only ask the school. */
export type Asking = (name: keyof typeof DEMO_CARDS) => Promise<APIRequestContext>

/**
 * Playwright's test, on a school that the files of one worker share, and after which nothing stays
 * open: a page left behind goes on looking through its camera and asking the server. `page` and
 * `another` lie on devices that opened Nibquill before; `browser.newContext()` is one that never did.
 */
export const test = base.extend<
  { another: Another; asking: Asking; nothingLeftOpen: void },
  { schoolAt: string; devices: Devices }
>({
  schoolAt: [
    // Playwright reads from the first parameter what a fixture needs.
    async ({}, use) => {
      const school = await startDemo()
      await use(school.at)
      await school.stop()
    },
    { scope: 'worker', timeout: 300_000 },
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
  asking: async ({ playwright, schoolAt }, use) => {
    const opened: APIRequestContext[] = []
    await use(async (name) => {
      const headers = { Origin: schoolAt }
      const by = await playwright.request.newContext({
        baseURL: schoolAt,
        extraHTTPHeaders: headers,
      })
      opened.push(by)
      const data = { code: DEMO_CARDS[name] }
      expect((await by.post('/api/accounts/sign-in/card', { data })).status()).toBe(200)
      return by
    })
    for (const by of opened) await by.dispose()
  },
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
