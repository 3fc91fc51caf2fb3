import type { ClassDetail, SchoolClass } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { enterAsTeacher } from './people.ts'
import { expect, test } from './test.ts'

/** Names the first pupil of the class anew, as their teacher does. */
const rename = (page: Page, firstName: string) =>
  page.evaluate(async (firstName) => {
    const ask = async <T>(path: string, init: RequestInit = {}) =>
      (await (
        await fetch(`/api/school/${path}`, {
          headers: { 'Content-Type': 'application/json' },
          ...init,
        })
      ).json()) as T
    const [own] = (await ask<SchoolClass[]>('classes')).filter(({ mine }) => mine)
    const { pupils } = await ask<ClassDetail>(`classes/${own!.id}`)
    const body = JSON.stringify({ firstName, lastName: '' })
    await ask(`pupils/${pupils.at(-1)!.id}`, { method: 'PATCH', body })
  }, firstName)

test('names of other scripts are set in typefaces that come when they are needed', async ({
  page,
}) => {
  const faces: string[] = []
  page.on('request', (request) => {
    if (request.url().includes('/faces/')) faces.push(new URL(request.url()).pathname)
  })
  await enterAsTeacher(page, 'heron', '/class')
  await expect(page.getByRole('table')).toBeVisible()
  expect(faces).toEqual([])
  for (const [name, script] of [
    ['مريم', 'arabic'],
    ['김서연', 'korean'],
  ] as const) {
    await rename(page, name)
    await page.reload()
    await expect(page.getByRole('row', { name: new RegExp(name) })).toBeVisible()
    await expect
      .poll(() =>
        page.evaluate(
          async (name) =>
            (await document.fonts.load('16px Names', name)).map(({ family, status }) => [
              family,
              status,
            ])[0],
          name,
        ),
      )
      .toEqual(['Names', 'loaded'])
    expect(faces).toContain(`/faces/${script}.css`)
  }
  // A script of several thousand signs comes in slices.
  expect(faces.filter((path) => path.includes('noto-sans-kr')).length).toBeLessThan(12)
})

test('rarer Latin letters come when a name has one', async ({ page }) => {
  const faces = () =>
    page.evaluate(() =>
      [...document.fonts].filter(({ family }) => /Ext$/.test(family)).map(({ status }) => status),
    )
  await enterAsTeacher(page, 'heron', '/class')
  await expect(page.getByRole('table')).toBeVisible()
  expect(await faces()).toEqual(['unloaded', 'unloaded', 'unloaded'])
  await rename(page, 'Ștefan')
  await page.reload()
  await expect(page.getByRole('row', { name: /Ștefan/ })).toBeVisible()
  await expect.poll(faces).toContain('loaded')
})

test('a name no typeface covers is said before cards are printed', async ({ page }) => {
  await enterAsTeacher(page, 'heron', '/class')
  await expect(page.getByRole('table')).toBeVisible()
  await expect(page.getByText(/is in no typeface here/)).toHaveCount(0)
  await rename(page, '𓀀𓁐')
  await page.reload()
  await expect(page.getByText(/is in no typeface here.*𓀀𓁐/)).toBeVisible()
})
