import { graveFaults } from './axe.ts'
import { enterAsTeacher, follow } from './people.ts'
import { written } from './pieces.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 1280, height: 800 } })

test('a pupil’s page: now, the year by folder and by strand; a piece opened there stays there, and Next is this pupil’s', async ({
  page,
  asking,
}) => {
  const pupil = await asking('Tomasz')
  const first = await written(pupil, 'A first gust', 'tray')
  const second = await written(pupil, 'A second gust', 'tray')
  const draft = await written(pupil, 'A third gust', 'draft')

  await enterAsTeacher(page, 'heron', '/class')
  await page.getByRole('link', { name: 'Tomasz L.' }).click()
  const now = page.getByRole('region', { name: 'Now' })
  await expect(now.getByRole('group', { name: 'In the tray' })).toContainText('A second gust')
  await expect(now.getByRole('group', { name: 'On the go' })).toContainText('A third gust')
  const year = page.getByRole('region', { name: 'This year' })
  await expect(year.getByRole('group', { name: 'Wind poems' })).toBeVisible()
  await year.getByRole('tab', { name: 'by strand' }).click()
  await expect(page).toHaveURL(/\?by=strand$/)
  await expect(year.getByRole('group', { name: 'Wind poems' })).toHaveCount(0)
  await expect(year.getByRole('group').first()).toBeVisible()
  expect(await graveFaults(page)).toEqual([])

  // The newest in the tray first; decided, this pupil's next lies there.
  await now.getByRole('button', { name: /A second gust/ }).click()
  await expect(page).toHaveURL(new RegExp(`/class/[\\w-]+/${second}\\?by=strand$`))
  await expect(page.getByRole('heading', { name: 'A second gust', level: 2 })).toBeVisible()
  await expect(page.getByText(/^1 of \d+/).filter({ visible: true })).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  await page.keyboard.press('a')
  await expect(page).toHaveURL(new RegExp(first))
  await expect(page.getByRole('heading', { name: 'A first gust', level: 2 })).toBeVisible()
  await page.keyboard.press('j')
  await expect(page.getByText(/^3 of \d+/).filter({ visible: true })).toBeVisible()
  await page.keyboard.press('k')
  await expect(page).toHaveURL(new RegExp(first))
  await expect(page.getByText(/^2 of \d+/).filter({ visible: true })).toBeVisible()
  // Handed in by mistake: into the bin by one key, and back from the page.
  await page.keyboard.press('x')
  await expect(page.getByRole('heading', { name: 'A first gust', level: 2 })).toHaveCount(0)
  await page.getByRole('button', { name: 'To Tomasz’s page' }).click()
  await expect(now.getByRole('button', { name: /A first gust/ })).toHaveCount(0)
  const bin = page.getByRole('region', { name: 'In the bin' })
  expect(await graveFaults(page)).toEqual([])
  await bin.getByRole('button', { name: 'Bring back A first gust' }).click()
  await expect(now.getByRole('button', { name: /A first gust/ })).toBeVisible()
  await expect(bin).toHaveCount(0)
  await expect(now.getByRole('button', { name: /A second gust/ })).toHaveCount(0)
  await expect(year.getByRole('button', { name: /A second gust/ })).toBeVisible()
  await expect(page).toHaveURL(/\?by=strand$/)

  // From pupil to pupil by one key, and back.
  const name = page.getByRole('heading', { level: 1 })
  await expect(name).toHaveText('Tomasz L.')
  await page.keyboard.press('n')
  await expect(name).not.toHaveText('Tomasz L.')
  await expect(page.getByRole('region', { name: 'Now' })).toBeVisible()
  await page.keyboard.press('b')
  await expect(name).toHaveText('Tomasz L.')

  // The portfolio and its book beside it; what is administered behind one button.
  await page.getByRole('tab', { name: 'Portfolio' }).click()
  await expect(page.getByRole('region', { name: 'Tomasz’s portfolio' })).toBeVisible()
  await expect(page.getByText('Name, class, leaving')).toHaveCount(0)
  await page.getByRole('button', { name: 'Administration' }).click()
  await expect(page.getByText('Name, class, leaving')).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  await page.getByRole('button', { name: 'Back' }).click()
  await expect(page.getByRole('region', { name: 'Tomasz’s portfolio' })).toBeVisible()

  // A half-done piece is looked at, and there is nothing to decide on it.
  const { pathname } = new URL(page.url())
  await follow(page, `${pathname}/${draft}`)
  await expect(page.getByRole('heading', { name: 'A third gust', level: 2 })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Approve/ })).toHaveCount(0)
})
