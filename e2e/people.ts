import { DEMO_CARDS, DEMO_DOORS, DEMO_PASSWORD, DEMO_STAFF } from '@nibquill/demo'
import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { DATA } from './playwright.config.ts'

/** Brings people in the way they come. */
export async function enterAsPupil(page: Page, name: keyof typeof DEMO_CARDS): Promise<void> {
  await typeCard(page, DEMO_CARDS[name].toLowerCase())
  await page.waitForURL('**/desk')
}

export async function typeCard(page: Page, letters: string): Promise<void> {
  await page.goto('/sign-in')
  await typeLetters(page, letters)
}

/** On the door page, without leaving it. */
export async function typeLetters(page: Page, letters: string): Promise<void> {
  await page.getByRole('button', { name: 'Type the letters' }).click()
  await page.getByLabel('Letters on my card').fill(letters)
  await page.getByRole('button', { name: 'Go to my desk' }).click()
}

/** A tablet sees the door card of a class, whose door has to be open. */
export async function showDoorCard(page: Page, className: keyof typeof DEMO_DOORS): Promise<void> {
  await typeCard(page, DEMO_DOORS[className])
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()
}

export async function enterAsTeacher(page: Page, who: keyof typeof DEMO_STAFF = 'heron'): Promise<void> {
  await page.goto('/sign-in')
  await page.getByRole('link', { name: 'I am a teacher' }).click()
  await page.getByLabel('E-mail address').fill(DEMO_STAFF[who])
  await page.getByLabel('Password').fill(DEMO_PASSWORD)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('**/tray**')
}

/** The parent of Wren and Aoife. */
export async function enterAsParent(page: Page): Promise<void> {
  const { parentAddress } = JSON.parse(readFileSync(path.join(DATA, 'demo.json'), 'utf8')) as { parentAddress: string }
  await page.goto(new URL(parentAddress).pathname)
  await page.getByRole('button', { name: 'Open' }).click()
  await page.waitForURL('**/family')
}
