import { graveFaults } from './axe.ts'
import { enterAsTeacher } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 1280, height: 800 } })

test('a folder is looked through by words, by a name and by the month; nothing found says so', async ({
  page,
}) => {
  await enterAsTeacher(page, 'heron', '/folders')
  await page
    .getByRole('button', { name: /^Rock pools/ })
    .first()
    .click()
  const tiles = page.getByRole('main').getByRole('button', { name: /A\.$|L\.$|B\.$|D\.$|P\.$/ })
  await expect(tiles.first()).toBeVisible()
  const all = await tiles.count()
  const field = page.getByRole('textbox', { name: 'Look for words or a name' })
  await field.fill('wren')
  await expect.poll(() => tiles.count()).toBeLessThan(all)
  for (const tile of await tiles.all()) await expect(tile).toContainText('Wren A.')
  expect(await graveFaults(page)).toEqual([])
  await field.fill('wren zeppelin')
  await expect(page.getByText('Nothing like that in this folder')).toBeVisible()
  await field.fill('')
  await expect.poll(() => tiles.count()).toBe(all)
  const months = page.getByRole('radiogroup', { name: 'Month' })
  await months.getByRole('radio').last().click()
  await expect.poll(() => tiles.count()).toBeLessThan(all)
  await months.getByRole('radio', { name: 'any month' }).click()
  await expect.poll(() => tiles.count()).toBe(all)
})
