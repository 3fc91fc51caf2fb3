import { test as base } from '@playwright/test'

export { expect } from '@playwright/test'

/** Playwright's test, after which nothing stays open: a page left behind goes on looking through its camera and asking the server. */
export const test = base.extend<{ nothingLeftOpen: void }>({
  nothingLeftOpen: [
    async ({ browser }, use) => {
      const before = new Set(browser.contexts())
      await use()
      await Promise.all(browser.contexts().map((context) => before.has(context) || context.close()))
    },
    { auto: true },
  ],
})
