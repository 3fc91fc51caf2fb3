import type { Page } from '@playwright/test'
import { enterAsParent, enterAsPupil, enterAsTeacher } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 390, height: 844 } })

/**
 * The server answers as its contract says, with a moment in it that no calendar has: a screen that
 * shows it breaks.
 */
async function breakWith(page: Page, address: string, field: string): Promise<void> {
  await page.route(address, async (route) => {
    const answer = await route.fetch()
    const text = await answer.text()
    await route.fulfill({
      response: answer,
      body: text.replaceAll(new RegExp(`"${field}":"[^"]+"`, 'g'), `"${field}":"no moment"`),
    })
  })
}

async function expectTheNet(page: Page): Promise<void> {
  const net = page.getByRole('alert').filter({ hasText: 'Something broke. Your work is safe.' })
  await expect(net).toBeVisible()
  await expect(net.getByRole('button', { name: 'Try again' })).toBeVisible()
}

for (const [who, enter, address, api, field] of [
  [
    'a teacher’s',
    (page: Page) => enterAsTeacher(page),
    '/tray',
    '**/api/review/tray*',
    'submittedAt',
  ],
  ['a pupil’s', (page: Page) => enterAsPupil(page, 'Wren'), '/desk', '**/api/tasks', 'dueAt'],
  ['a parent’s', (page: Page) => enterAsParent(page), '/family', '**/api/notices', 'createdAt'],
] as const)
  test(`${who} screen that breaks says so, with a way back; nobody is left with an empty page`, async ({
    page,
    browser,
  }) => {
    if (who === 'a parent’s') await tellTheParents(await (await browser.newContext()).newPage())
    await enter(page)
    await breakWith(page, api, field)
    await page.goto(address)
    await expectTheNet(page)
    // A young child hears it.
    if (who === 'a pupil’s')
      await expect(page.getByRole('button', { name: /^Listen/ })).toBeVisible()
    await page.unroute(api)
    await page.getByRole('button', { name: 'Back to the beginning' }).click()
    await page.waitForURL(`**${address}**`)
    await expect(page.getByText('Something broke.')).toHaveCount(0)
  })

test('trying again is enough where the trouble is over', async ({ page }) => {
  await enterAsTeacher(page)
  await breakWith(page, '**/api/review/tray*', 'submittedAt')
  await page.goto('/tray')
  await expectTheNet(page)
  await page.unroute('**/api/review/tray*')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible()
  await expect(page.getByText('Something broke.')).toHaveCount(0)
})

/**
 * A notice to the parents of Wren's class, so that there is something with a moment on their page.
 */
async function tellTheParents(page: Page): Promise<void> {
  await enterAsTeacher(page, 'heron', '/notices')
  await page.getByRole('button', { name: 'New notice' }).click()
  await page.getByRole('radio', { name: /parents/i }).click()
  await page.getByLabel('What you want to say').fill('The fair is on Friday.')
  await page.getByRole('button', { name: 'Put it up' }).click()
  await expect(page.getByText('The fair is on Friday.')).toBeVisible()
}
