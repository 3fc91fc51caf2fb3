import { graveFaults } from './axe.ts'
import { openSchool, startEmpty } from './apart.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 390, height: 844 } })

test('an empty Nibquill is set up by its first teacher, and a signal stops everything it started', async ({
  page,
}) => {
  const { at, stop } = await startEmpty()
  await page.goto(at)
  await expect(page.getByRole('heading', { name: 'A new school' })).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  await page.getByLabel(/^Password/).fill('short')
  await page.getByRole('button', { name: 'Open the school' }).click()
  await expect(page.getByText('It is shorter than 10 characters.')).toBeVisible()
  await openSchool(page, at)
  await expect(page.getByText('The tray is empty').first()).toBeVisible()
  await expect(
    page.getByRole('link', { name: 'Put in the school year and its terms' }),
  ).toBeVisible()
  await page.goto(`${at}/first-run`)
  await page.waitForURL('**/tray')
  expect(await stop()).toBe(0)
  await expect(fetch(`${at}/api/health`)).rejects.toThrow()
})
