import type { Locator, Page } from '@playwright/test'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 1280, height: 800 } })

const dialogOn = (page: Page) => page.getByRole('dialog')
const focusInside = (dialog: Locator) =>
  dialog.evaluate((element) => element.contains(document.activeElement))

/** Opened by keyboard: it has the focus, keeps it, goes by Escape, and gives the focus back. */
async function holdsTheFocus(opener: Locator, key = 'Enter'): Promise<void> {
  const page = opener.page()
  await opener.focus()
  await page.keyboard.press(key)
  const dialog = dialogOn(page)
  await expect(dialog).toBeVisible()
  await expect.poll(() => focusInside(dialog)).toBe(true)
  for (let i = 0; i < 12; i++) {
    await page.keyboard.press(i % 4 === 3 ? 'Shift+Tab' : 'Tab')
    expect(await focusInside(dialog)).toBe(true)
  }
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await expect(opener).toBeFocused()
}

test('a pupil’s dialogs', async ({ page }) => {
  await enterAsPupil(page, 'Wren')
  await holdsTheFocus(page.getByRole('button', { name: 'Let the next pupil in' }))
  await page
    .getByRole('button', { name: /not handed in yet/ })
    .first()
    .click()
  await holdsTheFocus(page.getByRole('button', { name: 'Throw away' }))
  await enterAsPupil(page, 'Tomasz')
  await page.getByRole('region', { name: 'In the tray' }).getByRole('button').first().click()
  await holdsTheFocus(page.getByRole('button', { name: 'Take it out of the tray' }))
})

test('the dialogs of judging', async ({ page }) => {
  await enterAsTeacher(page)
  await holdsTheFocus(page.getByRole('button', { name: 'Keys' }))
  await holdsTheFocus(page.getByRole('button', { name: 'Another folder' }))
  await holdsTheFocus(page.getByRole('button', { name: 'Send back' }))
})

test('the dialogs of a class and its folders', async ({ page }) => {
  await enterAsTeacher(page, 'heron', '/class')
  await holdsTheFocus(page.getByRole('button', { name: /name cards/i }).first())
  await follow(page, '/folders')
  await page.getByRole('button', { name: /^Wind poems/ }).click()
  await page.getByRole('button', { name: 'Change' }).click()
  await holdsTheFocus(page.getByRole('button', { name: 'Put it away' }))
})
