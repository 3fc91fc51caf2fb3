import type { Tray } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { graveFaults } from './axe.ts'
import { enterAsParent, enterAsPupil, enterAsTeacher, showDoorCard, follow } from './people.ts'
import { expect, test } from './test.ts'

// WCAG 2.2 AA by axe-core, on every main screen, on a phone and wide.

/** The last size is the one the test goes on with. */
const SIZES = [
  { width: 390, height: 844 },
  { width: 1280, height: 800 },
]

/**
 * Pupils, parents and the door have one layout for every width, which grows: there a second look
 * for rules would find the same again.
 */
const GROWS = new Set(['nobody', 'pupil', 'parent'])
let who: 'nobody' | 'pupil' | 'parent' | 'teacher' = 'teacher'

async function expectClean(page: Page, what: string): Promise<void> {
  for (const size of SIZES) {
    await page.setViewportSize(size)
    await expect(page.getByRole('status', { name: 'Just a moment' })).toHaveCount(0)
    await page.waitForTimeout(200)
    const at = `${what} at ${size.width} px`
    const sideways = await page.evaluate(
      () => document.documentElement.scrollWidth > window.innerWidth,
    )
    expect(sideways, `${at} scrolls sideways`).toBe(false)
    if (GROWS.has(who) && size !== SIZES.at(-1)) continue
    // Colours are the same at every size, and measuring them takes most of the time.
    const faults = await graveFaults(page, { colours: size === SIZES.at(-1) })
    expect(faults, at).toEqual([])
  }
}

async function visitAll(page: Page, addresses: readonly string[]): Promise<void> {
  for (const address of addresses) {
    await follow(page, address)
    await expectClean(page, address)
  }
}

test.use({ viewport: SIZES[1]! })

test('the door', async ({ page }) => {
  who = 'nobody'
  await page.goto('/sign-in')
  await expectClean(page, 'card')
  await page.getByRole('button', { name: 'Type the letters' }).click()
  await expectClean(page, 'typed code')
  await page.getByRole('link', { name: 'I am a teacher' }).click()
  await expectClean(page, 'password')
  await page.getByRole('button', { name: 'I forgot my password' }).click()
  await expectClean(page, 'forgotten password')
  await page.getByRole('link', { name: 'I am a parent' }).click()
  await expectClean(page, 'a parent’s mail')
  await page.goto('/invitation/nothing-behind-this-link')
  await expectClean(page, 'invitation')
  await page.goto('/p/nothing-behind-this-link')
  await expectClean(page, 'ended link')
})

test('a pupil’s screens', async ({ page }) => {
  who = 'pupil'
  await enterAsPupil(page, 'Wren')
  await visitAll(page, [
    '/desk',
    '/my-folders',
    '/my-folders/new',
    '/my-portfolio',
    '/make',
    '/make?pick=1',
    '/say',
  ])
  await follow(page, '/desk')
  await page.getByRole('region', { name: 'To do' }).getByRole('button').first().click()
  await expectClean(page, 'task')
  await follow(page, '/my-folders')
  await page.getByRole('button', { name: 'Bread and clay' }).click()
  await expectClean(page, 'folder')
  await follow(page, '/desk')
  await page
    .getByRole('button', { name: /not handed in yet/ })
    .first()
    .click()
  await page.waitForURL(/my-pieces\/[^/]+$/)
  await expectClean(page, 'piece')
  const piece = page.url()
  await visitAll(page, [`${piece}/what`, `${piece}/thoughts`, `${piece}/tray`])
  await follow(page, `${piece}/what`)
  await page.getByRole('button', { name: 'I made it with a friend' }).click()
  await expectClean(page, 'made together')
  await follow(page, piece)
  await page
    .getByRole('button', { name: /^Look at/ })
    .first()
    .click()
  await expectClean(page, 'part')
  await page.getByRole('button', { name: 'Tidy', exact: true }).click()
  for (const tool of ['Brighten', 'Turn', 'Trim', 'Straighten']) {
    await page.getByRole('radio', { name: tool }).click()
    await expectClean(page, tool)
  }
})

test('the pegs, the secret pictures, and the door as its teacher keeps it', async ({
  page,
  another,
}) => {
  who = 'teacher'
  await enterAsTeacher(page, 'heron', '/class')
  const door = page.getByRole('region', { name: 'Door and tablets' })
  await expect(door).toBeVisible()
  if (await door.getByRole('button', { name: 'Open it now' }).isVisible())
    await door.getByRole('button', { name: 'Open it now' }).click()
  await door.getByRole('button', { name: 'Door and tablets' }).click()
  const asks = page.getByRole('switch', { name: /three secret pictures/ })
  await asks.click()
  await expect(asks).toBeChecked()
  const shared = await another(SIZES[1]!)
  await showDoorCard(shared, 'Heron')
  await expectClean(shared, 'pegs on a shared tablet')
  await shared.getByRole('button', { name: 'Elif' }).click()
  await expectClean(shared, 'secret pictures')
  await page.reload()
  await expectClean(page, 'door')
  await page.getByRole('button', { name: 'Who has which pictures' }).click()
  await expectClean(page, 'who has which pictures')
  await page.getByRole('button', { name: 'Back' }).click()
  await page.getByRole('switch', { name: /three secret pictures/ }).click()
  await expect(page.getByRole('switch', { name: /three secret pictures/ })).not.toBeChecked()
  await page.getByRole('radio', { name: 'Shut until tonight' }).click()
  await shared.reload()
  await expect(shared.getByRole('heading', { name: 'The door is shut' })).toBeVisible()
  await expectClean(shared, 'a shut door')
  await page.getByRole('radio', { name: 'By school hours' }).click()
  await follow(page, '/account')
  await expectClean(page, 'account')
})

test('a teacher’s screens', async ({ page }) => {
  who = 'teacher'
  await enterAsTeacher(page)
  await visitAll(page, [
    '/tray',
    '/tray/drafts',
    '/tray/second-looks',
    '/class',
    '/tasks',
    '/folders',
    '/year',
  ])
  const tray = (await (await page.request.get('/api/review/tray')).json()) as Tray
  await visitAll(page, [`/tray/together?by=pupil&group=${tray.pieces[0]!.pupil.id}`])
  await visitAll(page, [
    '/year/new',
    '/class/new',
    '/class/list',
    '/staff',
    '/strands',
    '/roll-over',
    '/post-box',
  ])
  await visitAll(page, ['/tasks/edit/new', '/folders/edit/new', '/notices', '/for-everyone'])
  await follow(page, '/class')
  await page.getByRole('button', { name: 'Pegs' }).click()
  await expectClean(page, 'pegs')
  await follow(page, '/tasks')
  await page.getByRole('link', { name: /Plan your bridge/ }).click()
  await expectClean(page, 'task and who stands where')
  await follow(page, '/class/list')
  await page.getByLabel('Names').fill('First name,Last name,Class\nBo,Shore,Heron\n,Nobody,Heron')
  await page.getByRole('button', { name: 'See what it does' }).click()
  await expectClean(page, 'what a list does')
  await follow(page, '/tray')
  await page
    .getByRole('button', { name: /^\w+ \w\. / })
    .first()
    .click()
  await expectClean(page, 'judging')
  await page.getByRole('button', { name: 'Send back' }).click()
  await expectClean(page, 'sending back')
  await follow(page, '/class')
  await page.getByRole('link', { name: 'Wren A.' }).click()
  await expectClean(page, 'pupil page')
})

test('a parent’s screen', async ({ page }) => {
  who = 'parent'
  await enterAsParent(page)
  await page.getByRole('tab', { name: 'Wren' }).click()
  await expectClean(page, 'family')
})

test('what goes round while one waits stands still for those who want less motion', async ({
  page,
}) => {
  await page.route('**/api/**', (route) =>
    route.request().url().includes('/session') ? route.continue() : undefined,
  )
  await enterAsPupil(page, 'Aoife', '/desk')
  const wheel = page.getByRole('status', { name: 'Just a moment' }).locator('svg').locator('..')
  const turned = () => wheel.evaluate((it) => getComputedStyle(it).transform)
  const before = await turned()
  await expect.poll(turned).not.toBe(before)
  await page.emulateMedia({ reducedMotion: 'reduce' })
  await expect.poll(turned).toBe('none')
  await page.waitForTimeout(200)
  expect(await turned()).toBe('none')
})
