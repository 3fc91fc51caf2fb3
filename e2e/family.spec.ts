import { execFileSync } from 'node:child_process'
import { enterAsParent, enterAsTeacher } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 390, height: 844 } })

test('a family sees the newest work before notices; Back closes a piece, and signing out asks', async ({
  page,
}) => {
  await enterAsParent(page)
  await page.getByRole('tab', { name: 'Wren' }).click()
  const newest = page.getByRole('article').first()
  await expect(newest).toBeVisible()
  const notices = page.getByRole('heading', { name: 'From the school' })
  await expect(notices).toBeVisible()
  expect((await newest.boundingBox())!.y).toBeLessThan((await notices.boundingBox())!.y)

  const chapter = page.getByRole('region', { name: /term/ }).first()
  const piece = chapter.getByRole('button').first()
  const title = (await piece.getAttribute('aria-label'))!
  await piece.click()
  const open = page.getByRole('dialog', { name: title })
  await expect(open).toBeVisible()
  await page.goBack()
  await expect(open).toHaveCount(0)
  await expect(page).toHaveURL(/\/family$/)
  await expect(piece).toBeVisible()
  // Closed by its button or by Escape, Back leads where it led before.
  for (const close of [
    () => open.getByRole('button', { name: 'Close' }).click(),
    () => page.keyboard.press('Escape'),
  ]) {
    await piece.click()
    await expect(open).toBeVisible()
    await close()
    await expect(open).toHaveCount(0)
  }

  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Stay' }).click()
  await expect(page.getByRole('heading', { name: 'Wren', exact: true })).toBeVisible()
})

test('each child’s tab shows the notices of its own class', async ({ page, another }) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'heron', '/notices')
  await teacher.getByRole('button', { name: 'New notice' }).click()
  await teacher.getByRole('radio', { name: /parents/i }).click()
  await teacher.getByLabel('What you want to say').fill('Herons bring a towel.')
  await teacher.getByRole('button', { name: 'Put it up' }).click()
  await expect(teacher.getByText('Herons bring a towel.')).toBeVisible()
  await enterAsParent(page)
  const towel = page.getByText('Herons bring a towel.')
  await page.getByRole('tab', { name: 'Wren' }).click()
  await expect(towel).toBeVisible()
  await page.getByRole('tab', { name: 'Aoife' }).click()
  await expect(page.getByRole('heading', { name: 'Aoife', exact: true })).toBeVisible()
  await expect(page.getByRole('article').first()).toBeVisible()
  await expect(towel).toHaveCount(0)
})

test('a swipe over a photo scrolls the page; made larger, one finger moves the photo', async ({
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  })
  const page = await context.newPage()
  await enterAsParent(page)
  await page.getByRole('tab', { name: 'Wren' }).click()
  const photo = page.getByRole('img', { name: /^Photo/ }).first()
  await expect(photo).toBeVisible()
  const touch = await context.newCDPSession(page)
  const swipe = async () => {
    const box = (await page
      .getByRole('group', { name: /^Photo/ })
      .first()
      .boundingBox())!
    const x = Math.round(box.x + box.width / 2)
    const from = Math.round(Math.min(600, box.y + box.height / 2))
    const at = (y: number) => [{ x, y }]
    await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(from) })
    for (let by = 30; by <= 180; by += 30) {
      await touch.send('Input.dispatchTouchEvent', {
        type: 'touchMove',
        touchPoints: at(from - by),
      })
      await page.waitForTimeout(30)
    }
    await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  }
  const top = async () => (await photo.boundingBox())!.y
  const before = await top()
  await swipe()
  await expect.poll(top).toBeLessThan(before - 60)
  // The button that makes it larger lies below it, and from then on a finger moves the photo.
  const larger = page.getByRole('button', { name: 'Larger' }).first()
  const box = (await photo.boundingBox())!
  expect((await larger.boundingBox())!.y).toBeGreaterThanOrEqual(box.y + box.height)
  await larger.scrollIntoViewIfNeeded()
  for (let i = 0; i < 3; i++) await larger.click()
  await page.waitForTimeout(400)
  const foot = async () => (await larger.boundingBox())!.y
  const [stood, lay] = [await foot(), await top()]
  await swipe()
  await expect.poll(top).toBeLessThan(lay - 30)
  expect(Math.abs((await foot()) - stood)).toBeLessThan(4)
})

test('everything a family sees goes home as a book, with two taps and without asking anybody', async ({
  page,
}) => {
  await enterAsParent(page)
  await page.getByRole('tab', { name: 'Wren' }).click()
  await expect(page.getByRole('heading', { name: 'Wren', exact: true })).toBeVisible()
  const term = page.getByRole('region', { name: /Autumn term/ })
  await expect(term).toBeVisible()
  const pieces = await term.getByRole('button').count()
  const takeHome = page.getByRole('button', { name: 'Take it all home' })
  // A page that still moves under a finger is scrolled, not tapped.
  await takeHome.scrollIntoViewIfNeeded()
  await page.evaluate(() => new Promise(requestAnimationFrame))
  await takeHome.click()
  const book = page.getByRole('dialog').getByRole('group', { name: /Autumn term/ })
  await expect(book.getByText(`${pieces} piece`)).toBeVisible()
  await book.getByRole('button', { name: 'Make the book' }).click()
  const save = book.getByRole('button', { name: 'Save the book' })
  await expect(save).toBeVisible()
  const waits = page.waitForEvent('download')
  await save.click()
  const file = await waits
  expect(file.suggestedFilename()).toMatch(/^Wren Autumn term \d{4}\.pdf$/)
  // A cover and a list of what is in it, then each piece.
  const about = execFileSync('pdfinfo', [await file.path()], { encoding: 'utf8' })
  expect(Number(/Pages:\s+(\d+)/.exec(about)![1])).toBeGreaterThan(pieces)
  expect(page.url()).toMatch(/\/family$/)
})
