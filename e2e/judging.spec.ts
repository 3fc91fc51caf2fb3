import type { Page } from '@playwright/test'
import { enterAsTeacher } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 1280, height: 800 } })

const waiting = async (page: Page) =>
  Number(/(\d+) waiting/.exec(await page.getByText(/\d+ waiting/).innerText())![1])
const place = (page: Page) => page.getByText(/^\d+ of \d+/).filter({ visible: true })
// What is told to teachers stands above the list, with a heading of its own.
const heading = (page: Page) =>
  page.getByRole('heading', { level: 2 }).filter({ hasNotText: 'For you to know' }).first()
/** Whose piece lies on the desk, and which. */
const onDesk = async (page: Page) => new URL(page.url()).pathname

test.beforeEach(async ({ page }) => {
  await enterAsTeacher(page)
  await expect(place(page)).toHaveText(/^1 of \d+/)
})

test('one key approves; held down, it approves one piece; the next lies there, one place on', async ({
  page,
}) => {
  const before = await waiting(page)
  const of = /of (\d+)/.exec(await place(page).innerText())![1]
  await page.keyboard.down('a')
  for (let i = 0; i < 12; i++) await page.keyboard.down('a')
  await page.keyboard.up('a')
  await expect(place(page)).toHaveText(`2 of ${of}`)
  await expect.poll(() => waiting(page)).toBe(before - 1)
  await expect(page.getByText(/^Approved: /)).toBeVisible()
  // The keyboard goes on from what lies there now.
  await expect(heading(page)).toBeFocused()
  expect(await waiting(page)).toBe(before - 1)
})

test('a decision is taken back: the piece lies on the desk again, in its place, with the words that were said', async ({
  page,
}) => {
  await page.keyboard.press('j')
  await expect(place(page)).toHaveText(/^2 of/)
  const at = await onDesk(page)
  const title = await heading(page).innerText()
  const before = await waiting(page)
  await page.keyboard.press('m')
  await page.keyboard.type('What a strong line.')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText(new RegExp(`^Approved: .+, ${title}`))).toBeVisible()
  await expect.poll(() => waiting(page)).toBe(before - 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => waiting(page)).toBe(before)
  await page.waitForURL(`**${at}`)
  await expect(place(page)).toHaveText(/^2 of/)
  await expect(page.getByRole('textbox', { name: 'Words for the pupil' })).toHaveValue(
    'What a strong line.',
  )
  await expect(page.getByRole('button', { name: /^Approve into/ })).toBeEnabled()
  // Into the bin, and taken back.
  await page.keyboard.press('x')
  await expect(page.getByText(new RegExp(`^In the bin: .+, ${title}`))).toBeVisible()
  await expect.poll(() => waiting(page)).toBe(before - 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.waitForURL(`**${at}`)
  await expect.poll(() => waiting(page)).toBe(before)
})

test('words typed and not sent wait with their piece', async ({ page }) => {
  await page.keyboard.press('m')
  await page.keyboard.type('Look at')
  await heading(page).focus()
  await page.keyboard.press('j')
  await expect(page.getByRole('textbox', { name: 'Words for the pupil' })).toHaveValue('')
  await page.keyboard.press('k')
  await expect(page.getByRole('textbox', { name: 'Words for the pupil' })).toHaveValue('Look at')
  // Also while another page is looked at.
  await page.getByRole('link', { name: 'Class' }).click()
  await expect(page.getByRole('heading', { name: 'Heron' }).first()).toBeVisible()
  await page.getByRole('link', { name: 'Tray' }).click()
  await expect(page.getByRole('textbox', { name: 'Words for the pupil' })).toHaveValue('Look at')
})

test('five tabs lead to the decision; the folder is chosen by its number; another go is sent from the keyboard', async ({
  page,
}) => {
  await expect(heading(page)).toBeFocused()
  const approve = page.getByRole('button', { name: /^Approve into/ })
  let tabs = 0
  while (!(await approve.evaluate((element) => element === document.activeElement))) {
    await page.keyboard.press('Tab')
    expect(++tabs).toBeLessThanOrEqual(5)
  }
  await page.keyboard.press('f')
  const fourth = page.getByRole('dialog').getByRole('radio').nth(3)
  const folder = (await fourth.innerText()).split('\n').find((line) => /[a-z]{3}/i.test(line))!
  await page.keyboard.press('4')
  await expect(page.getByRole('button', { name: `Approve into ${folder}` })).toBeVisible()

  const before = await waiting(page)
  await page.keyboard.press('s')
  await page.keyboard.type('Label two ')
  // Something behind takes the focus while one writes: it comes back to the words.
  await heading(page).focus()
  await page.keyboard.type('more parts.')
  await expect(page.getByRole('dialog').getByRole('textbox')).toHaveValue('Label two more parts.')
  // Sent from wherever in the question one is.
  await page.keyboard.press('Tab')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByText(/^Sent back: /)).toBeVisible()
  await expect.poll(() => waiting(page)).toBe(before - 1)
})

test('what cannot be decided comes back to its place, and it is said why', async ({ page }) => {
  const title = await heading(page).innerText()
  // The network goes just now.
  await page.route('**/api/review/pieces/**', (route) => route.abort())
  // A page hears a moment later that it is cut off.
  const cutOff = () =>
    page.evaluate(() =>
      fetch('/api/review/pieces/none').then(
        () => 'not yet',
        () => 'cut off',
      ),
    )
  await expect.poll(cutOff).toBe('cut off')
  await page.keyboard.press('a')
  await expect(page.getByText(/^Not decided: .*Nothing is lost/)).toBeVisible()
  await expect(place(page)).toHaveText(/^2 of/)
  await page.unroute('**/api/review/pieces/**')
  await page.keyboard.press('k')
  await expect(place(page)).toHaveText(/^1 of/)
  await expect(heading(page)).toHaveText(title)
})

test('after the last one comes an end, with what one went past', async ({ page }) => {
  const of = Number(/of (\d+)/.exec(await place(page).innerText())![1])
  for (let at = 2; at <= of; at++) {
    await page.keyboard.press('j')
    await expect(place(page)).toHaveText(`${at} of ${of}`)
  }
  await expect(page.getByRole('button', { name: 'Next piece' })).toBeDisabled()
  await page.keyboard.press('a')
  await expect(page.getByRole('heading', { name: 'You are through the tray' })).toBeVisible()
  await expect(page.getByText(`${of - 1} pieces you went past still wait`)).toBeVisible()
  await page.getByRole('button', { name: 'Go to the first of them' }).click()
  await expect(place(page)).toHaveText(`1 of ${of}`)
})
