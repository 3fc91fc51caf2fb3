import type { PartFile, PhotoPart } from '@nibquill/contract'
import { DEMO_CARDS, photographSheet, sheetOfDifficulty } from '@nibquill/demo'
import type { Page, Route } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { freePort, startApart, startDemo } from './apart.ts'
import { launchReckoning } from './fakeCamera.ts'
import { nameIt, putInTray } from './handIn.ts'
import { heavyPhoto, pick, plain, scratch, sha256Of } from './materials.ts'
import { enterAsPupil, typeLetters, follow } from './people.ts'
import { photosOf, pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

const TABLET = { width: 820, height: 1180 }
test.use({ viewport: TABLET })

const tiles = (page: Page) =>
  page.getByRole('list', { name: 'In this piece' }).getByRole('button', { name: /^Look at/ })
/** At school: its tile says nothing of a way any more. */
const arrivedTiles = (page: Page) =>
  page
    .getByRole('list', { name: 'In this piece' })
    .getByRole('listitem')
    .filter({ hasNot: page.getByRole('progressbar') })
const pieceIdOf = (page: Page): string => /my-pieces\/([^/?]+)/.exec(page.url())![1]!

/** A photo of a drawn sheet on a table, as a tablet takes it. */
async function deskPhoto(folder: string, name = 'desk.jpg'): Promise<string> {
  const { jpeg } = await photographSheet({ ...sheetOfDifficulty(0.3, 61), falloff: 0.5 }, 61, {
    width: 4000,
    height: 3000,
  })
  writeFileSync(path.join(folder, name), jpeg)
  return path.join(folder, name)
}

/** A new piece with these files in it, on its own page. */
async function pieceWith(
  page: Page,
  files: string[],
  { pupil = 'Aoife', then = '' }: { pupil?: keyof typeof DEMO_CARDS; then?: string } = {},
): Promise<string> {
  await enterAsPupil(page, pupil, '/make')
  await pick(page, files)
  await expect(arrivedTiles(page)).toHaveCount(files.length)
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.waitForURL('**/what')
  const id = pieceIdOf(page)
  await follow(page, `/my-pieces/${id}${then}`)
  return id
}

test('tidying: the page is found, lies flat, is brightened, turned and trimmed; each step can be taken back and the original stays', async ({
  schoolAt,
}) => {
  const browser = await launchReckoning()
  try {
    const here = { locale: 'en-GB', serviceWorkers: 'block' } as const
    await tidy(await browser.newPage({ ...here, baseURL: schoolAt, viewport: TABLET }))
  } finally {
    await browser.close()
  }
})

async function tidy(page: Page): Promise<void> {
  const id = await pieceWith(page, [await deskPhoto(scratch())])
  const [taken] = photosOf((await pieceOf(page, id)).parts) as [PhotoPart & PartFile]
  await tiles(page).first().click()
  await page.getByRole('button', { name: 'Tidy', exact: true }).click()
  await expect(page.getByText('Here is your page')).toBeVisible()

  // A corner moves by keyboard, with fine and large steps, and the find brings it back.
  const corner = page.getByRole('button', { name: 'Top left corner' })
  const before = (await corner.boundingBox())!
  await corner.focus()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect.poll(async () => (await corner.boundingBox())!.x).toBeLessThan(before.x - 10)
  await page.getByRole('button', { name: 'Find it again' }).click()
  await expect
    .poll(async () => Math.abs((await corner.boundingBox())!.x - before.x))
    .toBeLessThan(1)
  // And by finger, with a loupe while it is held.
  await corner.hover()
  await page.mouse.down()
  await page.mouse.move(before.x + 60, before.y + 60)
  await expect(page.locator('canvas')).toHaveCount(2)
  await page.mouse.up()
  await expect(page.locator('canvas')).toHaveCount(1)
  await page.getByRole('button', { name: 'Find it again' }).click()

  const proportions = async () => {
    const box = (await page.getByRole('img', { name: 'Your photo' }).boundingBox())!
    return box.width / box.height
  }
  await page.getByRole('button', { name: 'Make it flat' }).click()
  // The sheet is 1000 by 720.
  await expect.poll(proportions).toBeCloseTo(1000 / 720, 1)
  await page.getByRole('radio', { name: 'Turn' }).click()
  await page.getByRole('button', { name: 'To the right' }).click()
  await expect.poll(proportions).toBeCloseTo(720 / 1000, 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(proportions).toBeCloseTo(1000 / 720, 1)
  await page.getByRole('slider', { name: 'A little bit round' }).focus()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText('+0.5°')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('+0.5°')).toHaveCount(0)
  await page.getByRole('radio', { name: 'Brighten' }).click()
  await page.getByRole('radio', { name: 'A lot' }).click()
  await page.getByRole('radio', { name: 'Trim' }).click()
  await page.getByRole('button', { name: 'Trim from the top left' }).focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await page
    .getByRole('radio', { name: 'As it was' })
    .or(page.getByRole('button', { name: 'As it was' }))
    .click()
  await expect.poll(proportions).toBeCloseTo(4 / 3, 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(proportions).toBeLessThan(1000 / 720)

  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Tidied. What the camera saw is kept.')).toBeVisible()

  await expect.poll(async () => photosOf((await pieceOf(page, id)).parts)[0]?.tidied).toBeTruthy()
  const tidied = photosOf((await pieceOf(page, id)).parts) as [PhotoPart & PartFile]
  expect(tidied).toHaveLength(1)
  expect(tidied[0].tidied).toMatchObject({
    originalMediaId: taken.mediaId,
    tidying: { brighten: { way: 'page', strength: 1 }, quarters: 0 },
  })
  const full = await page.evaluate(async (mediaId) => {
    const picture = await createImageBitmap(
      await (await fetch(`/api/media/${mediaId}/full`)).blob(),
    )
    return { width: picture.width, height: picture.height }
  }, tidied[0].mediaId)
  // At full resolution: the sheet fills about two thirds of 4000 pixels, less a tenth.
  expect(full.width).toBeGreaterThan(2000)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect
    .poll(async () => photosOf((await pieceOf(page, id)).parts).map(({ mediaId }) => mediaId))
    .toEqual([taken.mediaId])
}

test('parts are put in order by keyboard and by mouse, named, taken out and brought back', async ({
  page,
}) => {
  const folder = scratch()
  const files = await Promise.all(
    [
      ['a.png', '#a9452f'],
      ['b.png', '#2f5e8c'],
      ['c.png', '#4c7a4f'],
    ].map(([name, colour]) => plain(folder, name!, colour!)),
  )
  const id = await pieceWith(page, files)
  const order = async () =>
    photosOf((await pieceOf(page, id)).parts).map(({ sentSha256 }) =>
      files.findIndex((file) => sha256Of(file) === sentSha256),
    )
  await expect.poll(async () => [...(await order())].sort()).toEqual([0, 1, 2])
  const first = await order()
  // At school a moment before all of them stand on the screen.
  await expect(tiles(page)).toHaveCount(3)
  await tiles(page).first().focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/is (taken, )?at place 1 of 3/)).toBeAttached()
  // The library listens for arrows from the next turn on, which it asked for before it spoke.
  await page.evaluate(() => new Promise((done) => setTimeout(done)))
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText(/is at place 2 of 3/)).toBeAttached()
  await page.keyboard.press('Space')
  await expect.poll(order).toEqual([first[1], first[0], first[2]])

  const [from, to] = [
    (await tiles(page).nth(2).boundingBox())!,
    (await tiles(page).nth(0).boundingBox())!,
  ]
  await page.mouse.move(from.x + 60, from.y + 50)
  await page.mouse.down()
  await page.mouse.move(from.x + 20, from.y + 50, { steps: 4 })
  await page.mouse.move(to.x + 50, to.y + 50, { steps: 8 })
  await page.mouse.up()
  await expect.poll(order).toEqual([first[2], first[1], first[0]])

  await tiles(page).first().press('Enter')
  await page.getByLabel('Name of this part').fill('the green one')
  await page.getByRole('button', { name: 'Later' }).click()
  await expect.poll(order).toEqual([first[1], first[2], first[0]])
  await expect.poll(async () => (await pieceOf(page, id)).parts[1]?.name).toBe('the green one')
  await page.getByRole('button', { name: 'Take out the green one' }).click()
  await expect(page.getByText('Taken out.')).toBeVisible()
  await expect(tiles(page)).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(order).toEqual([first[1], first[2], first[0]])
})

test('too many, too large and the same again: each is said in plain words, and nothing else happens to the rest', async ({
  page,
}) => {
  const folder = scratch()
  const huge = path.join(folder, 'wall.jpg')
  writeFileSync(
    huge,
    await sharp({ create: { width: 8000, height: 6000, channels: 3, background: '#6a8f3c' } })
      .jpeg({ quality: 40 })
      .toBuffer(),
  )
  const leaf = await plain(folder, 'leaf.png', '#4c7a4f')
  await enterAsPupil(page, 'Aoife', '/make')
  await pick(page, [leaf])
  await expect(arrivedTiles(page)).toHaveCount(1)
  await pick(page, [leaf])
  const asked = page.getByRole('dialog')
  await expect(asked).toContainText('This photo is here already')
  await asked.getByRole('button', { name: 'No, once is enough' }).click()
  await expect(tiles(page)).toHaveCount(1)

  await pick(page, [huge])
  await expect(page.getByText('“wall.jpg” was very large')).toBeVisible()
  await expect(arrivedTiles(page)).toHaveCount(2)

  // Most places of it are taken.
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.waitForURL('**/what')
  const id = pieceIdOf(page)
  const headers = { Origin: new URL(page.url()).origin }
  for (let i = 0; i < 22; i++) {
    const data = { kind: 'writing', name: '', text: `Line ${i}` }
    const added = await page.request.put(`/api/pieces/${id}/parts/${newId()}`, { data, headers })
    expect(added.ok()).toBe(true)
  }
  await follow(page, `/my-pieces/${id}/photo`)
  await expect(tiles(page)).toHaveCount(24)
  const many = await Promise.all(
    Array.from({ length: 60 }, (_, i) =>
      plain(folder, `p${i}.png`, `rgb(${i}, ${(i * 7) % 256}, ${(i * 13) % 256})`),
    ),
  )
  await pick(page, many)
  await expect(page.getByText('54 pictures were left out')).toBeVisible()
  await expect(arrivedTiles(page)).toHaveCount(30)
  const { parts: all } = await pieceOf(page, id)
  expect(all).toHaveLength(30)
  const parts = photosOf(all)
  expect(parts).toHaveLength(8)
  const wall = parts.find(({ width }) => width > 5000)!
  expect(wall.width * wall.height).toBeLessThanOrEqual(40_000_000)
})

test('made with a friend: their peg is tapped, and the piece lies on both desks', async ({
  page,
  another,
}) => {
  const id = await pieceWith(page, [await plain(scratch(), 'boat.png', '#2f5e8c')], {
    pupil: 'Wren',
    then: '/what',
  })
  await page.getByRole('button', { name: 'I made it with a friend' }).click()
  await page.getByRole('checkbox', { name: 'Tomasz' }).click()
  await expect.poll(async () => (await pieceOf(page, id)).makers.length).toBe(2)
  await page.getByLabel('Name of my piece').fill('The boat we both built')
  await page.getByRole('button', { name: 'Keep for later' }).click()
  const friend = await another()
  await enterAsPupil(friend, 'Tomasz')
  await friend.getByRole('button', { name: /The boat we both built/ }).click()
  await expect(friend.getByRole('button', { name: 'Go on with it' })).toBeVisible()
})

test('the same piece on two tablets: parts of both are kept, and words that differ are shown both', async ({
  page,
  another,
}) => {
  const folder = scratch()
  const id = await pieceWith(page, [await plain(folder, 'one.png', '#a9452f')], { then: '/what' })
  const second = await another({ width: 820, height: 1180 })
  await enterAsPupil(second, 'Aoife', `/my-pieces/${id}/what`)
  await expect(second.getByLabel('Name of my piece')).toBeVisible()
  await page.waitForTimeout(500)
  await second.context().setOffline(true)
  await second.getByLabel('Name of my piece').fill('Named on the second tablet')
  await page.getByLabel('Name of my piece').fill('Named on the first tablet')
  await expect.poll(async () => (await pieceOf(page, id)).title).toBe('Named on the first tablet')
  await follow(page, `/my-pieces/${id}/photo`)
  await pick(page, [await plain(folder, 'two.png', '#2f5e8c')])
  await expect(arrivedTiles(page)).toHaveCount(2)
  await second.context().setOffline(false)
  const both = second.getByRole('group', {
    name: 'Something else was written on another tablet. Which shall it be?',
  })
  await expect(both).toBeVisible()
  await expect(both).toContainText('Named on the first tablet')
  await expect(both).toContainText('Named on the second tablet')
  await both.getByRole('button', { name: 'Take the words of this tablet' }).click()
  await expect.poll(async () => (await pieceOf(page, id)).title).toBe('Named on the second tablet')
  await follow(second, `/my-pieces/${id}/photo`)
  await pick(second, [await plain(folder, 'three.png', '#4c7a4f')])
  await expect(arrivedTiles(second)).toHaveCount(3)
  await follow(page, `/my-pieces/${id}`)
  await expect(page.getByRole('tab', { name: 'Photo 3 of 3' })).toBeVisible()
  expect((await pieceOf(page, id)).parts).toHaveLength(3)
})

test('bad days: errors for a while, a proxy’s page, no room at school, a piece thrown away meanwhile; the photo waits and is not lost', async ({
  page,
}) => {
  const folder = scratch()
  await enterAsPupil(page, 'Aoife', '/make')
  const uploads = '**/api/media/uploads**'
  const alert = page.getByRole('alert')
  const problem = (status: number, code: string, title: string) => ({
    status,
    contentType: 'application/problem+json',
    body: JSON.stringify({ type: `/problems/${code}`, title, status }),
  })
  const answers: [string, Parameters<Route['fulfill']>[0], RegExp][] = [
    [
      'fault.png',
      problem(500, 'service/unexpected', 'Something went wrong on our side.'),
      /The school cannot take it just now/,
    ],
    [
      'proxy.png',
      { status: 200, contentType: 'text/html', body: '<h1>Please log in to the network</h1>' },
      /waits here/,
    ],
    [
      'full.png',
      problem(507, 'media/no-room', 'The school has no room left. Your work stays on this tablet.'),
      /no room left/,
    ],
  ]
  for (const [i, [name, answer, words]] of answers.entries()) {
    await page.route(uploads, (route) => route.fulfill(answer))
    await pick(page, [await plain(folder, name, `rgb(${i * 40}, 90, 120)`)])
    await expect(page.getByText(words).first()).toBeVisible()
    await page.unroute(uploads)
    // By itself, without a tap.
    await expect(arrivedTiles(page)).toHaveCount(i + 1)
  }
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.waitForURL('**/what')
  const id = pieceIdOf(page)
  await page.evaluate((id) => fetch(`/api/pieces/${id}`, { method: 'DELETE' }), id)
  await follow(page, `/my-pieces/${id}/photo`)
  await follow(page, '/make')
  await page.route(uploads, (route) => route.abort())
  await pick(page, [await plain(folder, 'later.png', '#123456')])
  await expect(tiles(page)).toHaveCount(1)
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.waitForURL('**/what')
  const thrownAway = pieceIdOf(page)
  await expect.poll(async () => (await pieceOf(page, thrownAway)).id).toBe(thrownAway)
  await page.evaluate((id) => fetch(`/api/pieces/${id}`, { method: 'DELETE' }), thrownAway)
  await page.unroute(uploads)
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(alert.filter({ hasText: /There is nothing here for you to see/ })).toBeVisible()
  // Brought back, it takes the photo that waited.
  await page.evaluate(
    (id) =>
      fetch(`/api/pieces/${id}/restore`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: '{}',
      }),
    thrownAway,
  )
  await page.getByRole('button', { name: 'Try again' }).click()
  await page.goto(`/my-pieces/${thrownAway}`)
  await expect(arrivedTiles(page)).toHaveCount(1)
})

test('a session that ended opens the door by itself; the same pupil comes back and everything goes on', async ({
  page,
  context,
}) => {
  const folder = scratch()
  await enterAsPupil(page, 'Aoife', '/make')
  await page.route('**/api/media/uploads**', (route) => route.abort())
  await pick(page, [await plain(folder, 'ended.png', '#654321')])
  // It is sent only once it is kept on the tablet: a page left before that has nothing to come back
  // to.
  await expect(page.getByText('waits here')).toBeVisible()
  await context.clearCookies()
  await page.unroute('**/api/media/uploads**')
  // The next try of the photo is told that nobody is signed in.
  await page.waitForURL('**/sign-in**')
  // Without leaving the page: the outbox that waited for its pupil is read again in it.
  await typeLetters(page, DEMO_CARDS.Aoife.toLowerCase())
  await page.waitForURL('**/desk')
  const newestParts = async () => {
    const [newest] = await page.evaluate(
      async () =>
        ((await (await fetch('/api/pieces')).json()) as { pieces: { id: string }[] }).pieces,
    )
    return photosOf((await pieceOf(page, newest!.id)).parts).map(({ sentSha256 }) => sentSha256)
  }
  await expect.poll(newestParts).toEqual([sha256Of(path.join(folder, 'ended.png'))])
})

test('a browser that keeps nothing says so on the desk, before anything is made', async ({
  browser,
}) => {
  const context = await browser.newContext()
  await context.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', {
      value: {
        open: () => {
          throw new DOMException('no', 'InvalidStateError')
        },
      },
    })
  })
  const page = await context.newPage()
  await enterAsPupil(page, 'Aoife')
  await expect(page.getByText('This browser keeps nothing when it is closed')).toBeVisible()
})

test('after one visit Nibquill opens without a network; what is made and handed in goes to school by itself', async ({
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 820, height: 1180 },
    serviceWorkers: 'allow',
  })
  const visit = await context.newPage()
  await enterAsPupil(visit, 'Aoife')
  await visit
    .getByRole('link', { name: 'Folders' })
    .or(visit.getByRole('tab', { name: 'Folders' }))
    .first()
    .click()
  await expect(visit.getByText('Rock pools').first()).toBeVisible()
  await visit.evaluate(async () => void (await navigator.serviceWorker.ready))
  // Everything the application is made of is on the tablet once the worker has taken over.
  await expect
    .poll(() => visit.evaluate(() => navigator.serviceWorker.controller !== null))
    .toBe(true)
  await visit.waitForTimeout(1500)
  await visit.close()
  await context.setOffline(true)

  const page = await context.newPage()
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Aoife’s desk' })).toBeVisible()
  await expect(page.getByText('There is no network just now')).toBeVisible()
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await expect(tiles(page)).toHaveCount(1)
  await nameIt(page, 'Made where no network reaches')
  await putInTray(page, /Rock pools/)
  await expect(page.getByRole('heading', { name: 'It goes into the tray by itself' })).toBeVisible()
  await page.close()

  const again = await context.newPage()
  await again.goto('/desk')
  await expect(again.getByRole('region', { name: 'On the go' })).toContainText(
    'goes into the tray by itself',
  )
  await expect(again.getByRole('region', { name: 'On its way' })).toContainText(
    'It is safe on this tablet',
  )
  await context.setOffline(false)
  await expect(again.getByRole('region', { name: 'In the tray' })).toContainText(
    'Made where no network reaches',
  )
  await expect(again.getByRole('region', { name: 'On its way' })).toHaveCount(0)
  await context.close()
})

test('twenty photos of four megabytes come through a cut network, a reload, a closed tab and a killed server: all there, once each', async ({
  browser,
}) => {
  const folder = scratch()
  const files: string[] = []
  for (let i = 0; i < 20; i++) files.push(await heavyPhoto(folder, `${i}.jpg`, i + 1))
  // The same address again after the power cut.
  const port = String(await freePort())
  let server = await startDemo(port)
  const { data } = server
  const context = await browser.newContext({
    viewport: { width: 820, height: 1180 },
    baseURL: server.at,
  })
  let page = await context.newPage()
  await enterAsPupil(page, 'Aoife', '/make')
  await pick(page, files)
  await expect(tiles(page)).toHaveCount(20)
  const arrived = (more: number) =>
    expect.poll(() => arrivedTiles(page).count(), { timeout: 90_000 }).toBeGreaterThan(more)
  await arrived(1)
  await context.setOffline(true)
  await page.waitForTimeout(3000)
  await context.setOffline(false)
  await arrived(4)
  await page.reload()
  await page.goto('/desk')
  await expect(page.getByRole('region', { name: 'On its way' })).toBeVisible()
  await page.waitForTimeout(1500)
  await page.close()
  page = await context.newPage()
  await page.goto('/desk')
  await expect(page.getByRole('region', { name: 'On its way' })).toContainText(/\d+ photos/)
  await page.waitForTimeout(700)
  await server.kill()
  await page.waitForTimeout(2000)
  server = await startApart([], port, data)
  await expect(page.getByRole('region', { name: 'On its way' })).toHaveCount(0, {
    timeout: 180_000,
  })
  const [piece] = await page.evaluate(
    async () =>
      ((await (await fetch('/api/pieces')).json()) as { pieces: { id: string }[] }).pieces,
  )
  await expect
    .poll(async () =>
      photosOf((await pieceOf(page, piece!.id)).parts)
        .map(({ sentSha256 }) => sentSha256)
        .sort(),
    )
    .toEqual(files.map(sha256Of).sort())
  await context.close()
  expect(await server.stop()).toBe(0)
})
