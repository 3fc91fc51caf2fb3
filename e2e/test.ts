import { test as base } from '@playwright/test'
import { startDemo } from './apart.ts'

export { expect } from '@playwright/test'

/**
 * Playwright's test, on a school that the files of one worker share, and after which nothing stays
 * open: a page left behind goes on
 * looking through its camera and asking the server.
 */
export const test = base.extend<{ nothingLeftOpen: void }, { schoolAt: string }>({
  schoolAt: [
    // Playwright reads from the first parameter what a fixture needs.
    async ({}, use) => {
      const school = await startDemo()
      await use(school.at)
      await school.stop()
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: ({ schoolAt }, use) => use(schoolAt),
  nothingLeftOpen: [
    async ({ browser }, use) => {
      const before = new Set(browser.contexts())
      await use()
      await Promise.all(browser.contexts().map((context) => before.has(context) || context.close()))
    },
    { auto: true },
  ],
})
