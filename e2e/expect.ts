import { expect as plain, type Locator } from '@playwright/test'
import config from './playwright.config.ts'

/**
 * At each look that does not find what it waits for, Playwright's own writes down all there is on the
 * page, for its report. Here it does so once, where it was waited for in vain.
 */
export const expect = plain.extend({
  async toBeVisible(locator: Locator, options: { timeout?: number } = {}) {
    const timeout = options.timeout ?? config.expect!.timeout!
    const waited = this.isNot ? 'hidden' : 'visible'
    try {
      await locator.waitFor({ state: waited, timeout })
    } catch {
      const looked = this.isNot ? plain(locator).not : plain(locator)
      try {
        await looked.toBeVisible({ timeout: 1 })
      } catch (error) {
        return { pass: this.isNot, message: () => (error as Error).message }
      }
    }
    return { pass: !this.isNot, message: () => '' }
  },
})
