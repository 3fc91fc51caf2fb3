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
  [
    'a parent’s',
    (page: Page) => enterAsParent(page),
    '/family',
    '**/api/sharing/children/*',
    'approvedAt',
  ],
] as const)
  test(`${who} screen that breaks says so, with a way back; nobody is left with an empty page`, async ({
    page,
  }) => {
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
/** The scripts a page has fetched, by the names of their files without hashes. */
function scriptsOf(page: Page): Set<string> {
  const names = new Set<string>()
  page.on('request', (request) => {
    if (request.resourceType() === 'script')
      names.add(new URL(request.url()).pathname.replace(/^.*\/|-[0-9a-f]{32}\.js$/g, ''))
  })
  return names
}

test('a pupil’s tablet never fetches a teacher’s screens, nor keeps them, and the other way round', async ({
  another,
  browser,
}) => {
  const pupil = await (await browser.newContext({ serviceWorkers: 'allow' })).newPage()
  const teacher = await another()
  const [byPupil, byTeacher] = [scriptsOf(pupil), scriptsOf(teacher)]
  await enterAsPupil(pupil, 'Wren')
  await pupil.goto('/desk')
  await expect(pupil.getByRole('heading', { name: 'Wren’s desk' })).toBeVisible()
  await enterAsTeacher(teacher)
  await teacher.goto('/tray')
  await expect(teacher.getByRole('heading', { level: 1 })).toBeVisible()
  expect([byPupil.has('pupil'), byPupil.has('teacher')]).toEqual([true, false])
  expect([byTeacher.has('teacher'), byTeacher.has('pupil')]).toEqual([true, false])
  // What is kept for days without a network: a pupil's screens, no teacher's.
  const kept = () =>
    pupil.evaluate(async () => {
      const urls: string[] = []
      for (const name of await caches.keys())
        for (const { url } of await (await caches.open(name)).keys()) urls.push(url)
      return urls.join('\n')
    })
  await expect.poll(kept).toContain('/pupil-')
  expect(await kept()).not.toContain('/teacher-')
})

test('screens that could not be fetched are fetched when somebody tries again', async ({
  page,
}) => {
  await enterAsTeacher(page)
  await page.route('**/teacher-*.js', (route) => route.abort())
  await page.goto('/tray')
  const trouble = page.getByRole('alert')
  await expect(trouble).toBeVisible()
  await page.unroute('**/teacher-*.js')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible()
  await expect(page.getByRole('alert')).toHaveCount(0)
})

test('a form somebody is filling in stays while the school cannot be reached, and it is said', async ({
  browser,
}) => {
  const context = await browser.newContext()
  await context.clock.install()
  const page = await context.newPage()
  await enterAsTeacher(page)
  await page.goto('/folders/edit/new')
  const name = page.getByLabel('Name', { exact: true })
  await name.fill('Sand and stones')
  const said = page.getByText('There is no network just now. What you see is from before.')
  /** After a while the network is noticed again, and the page asks for everything anew. */
  const askAgain = async () => {
    await context.clock.fastForward(60_000)
    await context.setOffline(true)
    await context.setOffline(false)
  }
  let failed = 0
  page.on('requestfailed', (request) => {
    if (new URL(request.url()).pathname === '/api/folders') failed++
  })
  await page.route('**/api/**', (route) => route.abort())
  await askAgain()
  // Tried again twice, then given up.
  await expect.poll(() => failed).toBeGreaterThanOrEqual(3)
  await expect(said).toBeVisible()
  await expect(name).toHaveValue('Sand and stones')
  await page.unroute('**/api/**')
  await askAgain()
  await expect(said).toHaveCount(0)
  await expect(name).toHaveValue('Sand and stones')
})

test('a folder never opened before says which it is, and that it waits, while the network is away', async ({
  page,
  context,
}) => {
  await enterAsPupil(page, 'Wren')
  await page.getByRole('link', { name: 'Folders' }).click()
  await page.getByRole('button', { name: /^Rock pools/ }).waitFor()
  await context.setOffline(true)
  await page.getByRole('button', { name: /^Rock pools/ }).click()
  await expect(page.getByRole('heading', { name: /^Rock pools/ })).toBeVisible()
  await expect(page.getByText('It waits for the network.')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('It waits for the network.')).toHaveCount(0)
})
