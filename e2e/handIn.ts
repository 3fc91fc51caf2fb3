import type { Page } from '@playwright/test'
import { expect } from './test.ts'

/** A step further. On a busy machine the screen before stands a while: its button is not tapped twice. */
export async function goOn(page: Page): Promise<void> {
  const before = page.url()
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await expect(page).not.toHaveURL(before)
}

/** From what was made to the last step: a piece of the pupil's own gets a name, and thoughts. */
export async function nameIt(page: Page, name: string, thoughts = ''): Promise<void> {
  await goOn(page)
  await page.getByLabel('Name of my piece').fill(name)
  await goOn(page)
  if (thoughts) await page.getByLabel('I think...').fill(thoughts)
  await goOn(page)
  await expect(page.getByRole('heading', { name: 'Into the tray' })).toBeVisible()
}

/** The last step: the folder is tapped where none stands there yet, and in it goes. */
export async function putInTray(page: Page, folder?: string | RegExp): Promise<void> {
  if (folder) {
    await page.getByRole('radio', { name: folder }).first().click()
    await expect(page.getByRole('radio', { name: folder }).first()).toBeChecked()
  }
  await page.getByRole('button', { name: 'Put it in the tray' }).click()
}

/** Out of the tray again, after the question. */
export async function takeOutOfTray(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Take it out of the tray' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Take it out' }).click()
  await expect(page.getByRole('button', { name: 'Go on with it' })).toBeVisible()
}

/** Looked at large, a part is taken out. */
export async function takeOutPart(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: `Look at ${name}` }).click()
  await page.getByRole('button', { name: `Take out ${name}` }).click()
}
