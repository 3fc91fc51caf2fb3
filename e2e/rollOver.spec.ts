import { enterAsTeacher, follow } from './people.ts'
import { expect, test } from './test.ts'

test('the year is turned on two years of demo data, pupil by pupil in sight, and taken back', async ({
  page,
}) => {
  await enterAsTeacher(page)
  // The year to come and its classes.
  await follow(page, '/year/new')
  const name = await page.getByLabel('Name').first().inputValue()
  await page.getByRole('button', { name: 'Keep the year' }).click()
  await expect(page.getByRole('region', { name, exact: true })).toBeVisible()
  for (const [className, yearGroup] of [
    ['Egret', 'Year 4'],
    ['Teal', 'Year 2'],
  ] as const) {
    await follow(page, '/class/new')
    await page.getByLabel('Name of the class').fill(className)
    await page.getByLabel(/^Year group/).fill(yearGroup)
    await page.getByLabel('School year').selectOption({ label: name })
    await page.getByRole('button', { name: 'Make the class' }).click()
    await expect(page.getByRole('heading', { name: `${className}, ${yearGroup}` })).toBeVisible()
  }

  await follow(page, '/roll-over')
  await expect(page.getByText(/Turned now, its class folders are put away/)).toBeVisible()
  const heron = page.getByRole('region', { name: 'Heron, Year 3' })
  await heron.getByRole('button', { name: /one by one/ }).click()
  await expect(heron.getByLabel('Wren A.')).toHaveValue(
    await heron.getByLabel('Tomasz L.').inputValue(),
  )
  await expect(heron.getByLabel('Wren A.').locator('option:checked')).toHaveText('Egret, Year 4')
  await heron.getByLabel('Bilal R.').selectOption({ label: 'leaves' })
  await expect(page.getByText(/class folders are put away/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Turn the year' }).click()
  await expect(page.getByRole('dialog')).toContainText(/47 pupils move up, 1 leave/)
  await page.getByRole('dialog').getByRole('button', { name: 'Turn the year' }).click()
  await expect(page.getByText(/47 moved up, 1 left/)).toBeVisible()
  await follow(page, '/class')
  await page.getByRole('tab', { name: /^Egret/ }).click()
  await expect(page.getByRole('link', { name: 'Wren A.' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Bilal R.' })).toHaveCount(0)
  await follow(page, '/folders')
  await expect(page.getByRole('button', { name: /^Rock pools/ })).toHaveCount(0)
  await expect(page.getByRole('button', { name: /^Out of class/ })).toBeVisible()

  // Until there is work in the new year it can be taken back.
  await follow(page, '/roll-over')
  await page.getByRole('button', { name: 'Undo it' }).click()
  await expect(page.getByText('It is as it was.')).toBeVisible()
  await follow(page, '/folders')
  await expect(page.getByRole('button', { name: /^Rock pools/ }).first()).toBeVisible()
  await follow(page, '/class')
  await page.getByRole('tab', { name: 'Heron', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Bilal R.' })).toBeVisible()
})
