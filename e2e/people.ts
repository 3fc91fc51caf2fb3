import { DEMO_CARDS, DEMO_DOORS, DEMO_PASSWORD, DEMO_STAFF } from '@nibquill/demo'
import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { expect } from './expect.ts'

/**
 * Comes in without the door's pages, which have tests of their own: the same request, and the first
 * page is already the right one.
 */
async function comeIn(
  page: Page,
  way: 'card' | 'password' | 'invitation',
  data: object,
): Promise<void> {
  const origin = new URL((await page.request.get('/api/health')).url()).origin
  const answer = await page.request.post(`/api/accounts/sign-in/${way}`, {
    data,
    headers: { Origin: origin },
  })
  expect(answer.status()).toBe(200)
}

/**
 * @param at - The first page, where it is another than the desk: each page opened anew costs a
 *   second.
 */
export async function enterAsPupil(
  page: Page,
  name: keyof typeof DEMO_CARDS,
  at?: string,
): Promise<void> {
  await comeIn(page, 'card', { code: DEMO_CARDS[name] })
  await page.goto(at ?? '/desk')
  if (!at) await expect(page.getByRole('heading', { name: `${name}’s desk` })).toBeVisible()
}

/**
 * To another address as a link leads there: nothing is fetched and started anew, which takes most of
 * a second.
 */
export async function follow(page: Page, address: string): Promise<void> {
  // A page that is only being fetched leads nowhere yet.
  await page.getByRole('heading').first().waitFor()
  await page.evaluate(async (there) => {
    history.pushState({}, '', there)
    dispatchEvent(new PopStateEvent('popstate', { state: {} }))
    for (let frames = 0; frames < 3; frames++) await new Promise(requestAnimationFrame)
  }, address)
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

export async function enterAsTeacher(
  page: Page,
  who: keyof typeof DEMO_STAFF = 'heron',
  at = '/tray',
): Promise<void> {
  await comeIn(page, 'password', { email: DEMO_STAFF[who], password: DEMO_PASSWORD })
  await page.goto(at)
  await page.waitForURL(`**${at}**`)
}

/** The parent of Wren and Aoife. */
export async function enterAsParent(page: Page, open: string | RegExp = 'Open'): Promise<void> {
  const file = path.join(process.env.NIBQUILL_E2E_PREPARED!, 'demo.json')
  const { parentAddress } = JSON.parse(readFileSync(file, 'utf8')) as { parentAddress: string }
  await page.goto(new URL(parentAddress).pathname)
  await page.getByRole('button', { name: open }).click()
  await page.waitForURL('**/family')
}
