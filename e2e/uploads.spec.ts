import { expect, test, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { enterAsPupil } from './people.ts'
import { phonePhoto, scratch } from './materials.ts'

test.use({ viewport: { width: 390, height: 844 } })

async function pick(page: Page, files: string[]): Promise<void> {
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Pick pictures' }).click()
  await (await chooser).setFiles(files)
}

test('closing the page half-way loses nothing that arrived: picked again, the photo goes on where it stopped', async ({
  page,
}) => {
  const folder = scratch()
  const photo = await phonePhoto(folder)
  const size = readFileSync(photo).length
  await enterAsPupil(page, 'Aoife')
  await page.goto('/make')

  // The network carries half of it and stops.
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: size / 4,
  })
  await pick(page, [photo])
  await expect(page.getByRole('progressbar', { name: 'IMG_0042.jpg' })).toBeVisible()
  await expect.poll(async () => Number(await page.getByRole('progressbar').getAttribute('aria-valuenow'))).toBeGreaterThan(40)
  await page.reload()
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  })

  await page.goto('/desk')
  await page
    .getByRole('button', { name: /not handed in yet/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Add a photo' }).first().click()
  await expect(page.getByText('“IMG_0042.jpg” is half-way.')).toBeVisible()
  const sent: number[] = []
  page.on('request', (request) => {
    if (request.method() === 'PATCH' && request.url().includes('/uploads/'))
      sent.push(size - Number(request.headers()['upload-offset']))
  })
  await pick(page, [photo])
  await expect(page.getByRole('button', { name: 'Take out Photo 1' })).toBeVisible({ timeout: 30_000 })
  expect(sent).toHaveLength(1)
  expect(sent[0]).toBeLessThan(size * 0.9)
})

test('several files at once: good ones arrive, bad ones each get a sentence, and nothing is lost while the network is away', async ({
  page,
  context,
}) => {
  const folder = scratch()
  const good = path.join(folder, 'leaf.png')
  writeFileSync(
    good,
    await sharp({ create: { width: 900, height: 700, channels: 3, background: '#4c7a4f' } })
      .png()
      .toBuffer(),
  )
  const text = path.join(folder, 'letter.jpg')
  writeFileSync(text, 'Dear teacher, this is a text.')
  const empty = path.join(folder, 'empty.jpg')
  writeFileSync(empty, '')
  await enterAsPupil(page, 'Aoife')
  await page.goto('/make')
  await pick(page, [good, text, empty])
  await expect(page.getByRole('button', { name: 'Take out Photo 1' })).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText(/letter\.jpg: This is not a picture we can open/)).toBeVisible()
  await expect(page.getByText(/empty\.jpg: This file is empty/)).toBeVisible()
  for (const leave of await page.getByRole('button', { name: 'Leave it out' }).all())
    await leave.click({ timeout: 5000 }).catch(() => undefined)

  await context.setOffline(true)
  const second = path.join(folder, 'second.png')
  writeFileSync(
    second,
    await sharp({ create: { width: 800, height: 600, channels: 3, background: '#2f5e8c' } })
      .png()
      .toBuffer(),
  )
  await pick(page, [second])
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: /cannot be reached|did not get through/ })
      .first(),
  ).toBeVisible({ timeout: 45_000 })
  await context.setOffline(false)
  const again = page.getByRole('button', { name: 'Try again' })
  if (await again.isVisible()) await again.click()
  else await pick(page, [second])
  await expect(page.getByRole('button', { name: 'Take out Photo 2' })).toBeVisible({ timeout: 30_000 })
})

test('a camera that may not be used says in plain words what to tap', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  await context.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'))
  })
  const page = await context.newPage()
  await enterAsPupil(page, 'Aoife')
  await page.goto('/make')
  await expect(page.getByText(/Tap the lock or camera sign/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Pick pictures' }).first()).toBeVisible()
})

test('an untouched tablet goes back to the door', async ({ page }) => {
  await page.clock.install({ time: new Date() })
  await enterAsPupil(page, 'Aoife')
  await page.clock.runFor(11 * 60_000)
  await page.waitForURL('**/sign-in**')
  await expect(page.getByText('You were away')).toBeVisible()
  await page.goBack()
  await expect(page.getByText('Aoife’s desk')).toHaveCount(0)
})
