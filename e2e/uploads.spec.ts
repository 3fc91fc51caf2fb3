import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { enterAsPupil, enterAsTeacher, showDoorCard } from './people.ts'
import { heavyPhoto, phonePhoto, pick, scratch, sha256Of } from './materials.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 390, height: 844 } })

test('closing the page half-way loses nothing: opened again, the photo goes on by itself where it stopped', async ({
  page,
}) => {
  const folder = scratch()
  const photo = await phonePhoto(folder)
  const size = readFileSync(photo).length
  await enterAsPupil(page, 'Aoife', '/make')

  // A network that needs twelve seconds for it.
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  const network = (uploadThroughput: number) =>
    session.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput,
    })
  await network(size / 12)
  await pick(page, [photo])
  await expect(page.getByRole('progressbar', { name: 'Photo 1' })).toBeVisible()
  await expect
    .poll(async () => Number(await page.getByRole('progressbar').getAttribute('aria-valuenow')))
    .toBeGreaterThan(15)
  const piece = new URL(page.url()).searchParams.get('id')
  // How far the server had read is its own affair; the tablet asks, and begins there.
  const stoodAt: number[] = []
  const wentOnAt: number[] = []
  page.on('response', (response) => {
    if (response.request().method() === 'HEAD')
      stoodAt.push(Number(response.headers()['upload-offset']))
  })
  page.on('request', (request) => {
    if (request.method() === 'PATCH' && request.url().includes('/uploads/'))
      wentOnAt.push(Number(request.headers()['upload-offset']))
  })
  await page.reload()
  await network(-1)
  await page.goto('/desk')
  await expect(
    page.getByRole('button', { name: 'No name yet not handed in yet' }).first(),
  ).toBeVisible()
  await expect.poll(() => wentOnAt.length).toBeGreaterThan(0)
  await page.goto(`/my-pieces/${piece}`)
  const inPiece = page.getByRole('list', { name: 'In this piece' })
  await expect(inPiece.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await expect(inPiece.getByRole('progressbar')).toHaveCount(0)
  for (const offset of wentOnAt) expect(stoodAt).toContain(offset)
  expect(Math.min(...wentOnAt)).toBeGreaterThan(0)
})

test('on a shared tablet unsent work waits for its own pupil, unseen by the next, and arrives whole and once', async ({
  another,
}) => {
  const folder = scratch()
  const photos = await Promise.all(
    ['one.jpg', 'two.jpg', 'three.jpg'].map((name, i) => heavyPhoto(folder, name, i + 1)),
  )
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', '/class')
  const door = teacher.getByRole('region', { name: 'Door and tablets' })
  await expect(door).toBeVisible()
  if (await door.getByRole('button', { name: 'Open it now' }).isVisible())
    await door.getByRole('button', { name: 'Open it now' }).click()
  await expect(door).toContainText('The door is open')

  const page = await another({ width: 820, height: 1180 })
  const context = page.context()
  await showDoorCard(page, 'Plover')
  await page.getByRole('button', { name: 'Saoirse' }).click()
  await expect(page.getByRole('heading', { name: 'Saoirse’s desk' })).toBeVisible()
  // Nothing larger than words gets through from here on.
  await context.route('**/api/media/uploads**', (route) => route.abort())
  await page.goto('/make')
  await pick(page, photos)
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible()
  await page.getByRole('button', { name: 'Keep for later' }).click()
  const outbox = page.getByRole('region', { name: 'On its way' })
  await expect(outbox).toContainText('3 photos')
  await expect(outbox).toContainText('It is safe on this tablet')
  const next = async () => {
    await page.getByRole('button', { name: 'Let the next pupil in' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Let the next pupil in' }).click()
    await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()
  }
  await next()

  await page.getByRole('button', { name: 'Caleb' }).click()
  await expect(page.getByRole('heading', { name: 'Caleb’s desk' })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'In the tray' })).toBeVisible()
  await expect(outbox).toHaveCount(0)
  await next()
  await page.close()

  // Another day, a network again, the same tablet.
  await context.unroute('**/api/media/uploads**')
  const later = await context.newPage()
  await later.goto('/')
  await later.getByRole('button', { name: 'Saoirse' }).click()
  await expect(later.getByRole('region', { name: 'On its way' })).toHaveCount(0)
  await later.getByRole('button', { name: 'No name yet not handed in yet' }).click()
  await expect(later.getByRole('tab', { name: 'Photo 3 of 3' })).toBeVisible()
  const inPiece = later.getByRole('list', { name: 'In this piece' })
  await expect(inPiece.getByRole('progressbar')).toHaveCount(0)
  const pieceId = later.url().split('/').at(-1)!
  const arrived = await later.evaluate(async (id) => {
    const { parts } = (await (await fetch(`/api/pieces/${id}`)).json()) as {
      parts: { files: { picture: { mediaId: string } } }[]
    }
    return Promise.all(
      parts.map(
        async ({
          files: {
            picture: { mediaId },
          },
        }) =>
          ((await (await fetch(`/api/media/${mediaId}`)).json()) as { sentSha256: string })
            .sentSha256,
      ),
    )
  }, pieceId)
  expect([...arrived].sort()).toEqual(photos.map(sha256Of).sort())
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
  await enterAsPupil(page, 'Aoife', '/make')
  await pick(page, [good, text, empty])
  await expect(page.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await expect(page.getByText(/letter\.jpg: This is nothing we can open/)).toBeVisible()
  await expect(page.getByText(/empty\.jpg: This file is empty/)).toBeVisible()
  const leave = page.getByRole('button', { name: 'Leave it out' })
  await leave.click()
  await expect(leave).toHaveCount(0)

  await context.setOffline(true)
  const second = path.join(folder, 'second.png')
  writeFileSync(
    second,
    await sharp({ create: { width: 800, height: 600, channels: 3, background: '#2f5e8c' } })
      .png()
      .toBuffer(),
  )
  await pick(page, [second])
  const inPiece = page.getByRole('list', { name: 'In this piece' })
  await expect(inPiece.getByText('waits here')).toBeVisible()
  await context.setOffline(false)
  // By itself, without a tap.
  await expect(inPiece.getByRole('button', { name: /^Look at/ })).toHaveCount(2)
  await expect(inPiece.getByRole('progressbar')).toHaveCount(0)
})

test('a camera that may not be used says in plain words what to tap', async ({ page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('no', 'NotAllowedError'))
  })
  await enterAsPupil(page, 'Aoife', '/make')
  await expect(page.getByText(/Tap the lock or camera sign/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Pick pictures' }).first()).toBeVisible()
})

test('an untouched tablet goes back to the door', async ({ browser }) => {
  const context = await browser.newContext()
  await context.clock.install({ time: new Date() })
  const page = await context.newPage()
  await enterAsPupil(page, 'Aoife')
  await context.clock.runFor(11 * 60_000)
  await page.waitForURL('**/sign-in**')
  await expect(page.getByText('You were away')).toBeVisible()
  await page.goBack()
  await expect(page.getByText('Aoife’s desk')).toHaveCount(0)
})
