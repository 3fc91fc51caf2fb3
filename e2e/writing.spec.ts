import type { Part } from '@nibquill/contract'
import type { Page, Request, Route } from '@playwright/test'
import { graveFaults } from './axe.ts'
import { nameIt, putInTray, takeOutOfTray, takeOutPart } from './handIn.ts'
import { pick, plain, scratch } from './materials.ts'
import { enterAsPupil, enterAsTeacher } from './people.ts'
import { pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 820, height: 1180 } })

const textsIn = (parts: readonly Part[] = []) =>
  parts.flatMap((part) => (part.kind === 'writing' ? [part.text] : []))
const idIn = (page: Page): string =>
  new URL(page.url()).searchParams.get('id') ?? /my-pieces\/([^/?]+)/.exec(page.url())![1]!

test('writing: from the shelf to the tray and the teacher’s desk, word for word', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  const paper = page.getByLabel('Write here')
  await expect(paper).toBeFocused()
  await page.getByRole('button', { name: 'I noticed...' }).click()
  await paper.press('End')
  await paper.pressSequentially('that the crab walks sideways.\n\nIt has ten legs.')
  await expect(page.getByText('11 words')).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  const words = 'I noticed that the crab walks sideways.\n\nIt has ten legs.'
  await page.waitForURL(/write\?id=/)
  const id = idIn(page)
  await expect.poll(async () => textsIn((await pieceOf(page, id)).parts)).toEqual([words])

  // The page is opened again, and it goes on where it stood.
  await page.reload()
  await expect(paper).toHaveValue(words)
  await nameIt(page, 'What the crab does')
  await putInTray(page, /./)
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()

  const teacher = await another()
  await enterAsTeacher(teacher, 'plover')
  await teacher.getByRole('button', { name: /What the crab does/ }).click()
  const work = teacher.getByRole('group', { name: 'Writing: What the crab does' })
  await expect(work).toContainText('I noticed that the crab walks sideways.')
  await expect(work).toContainText('11 words')
})

test('without a network: a page is written, a photo taken out again, all is named and handed in, and goes to school by itself', async ({
  page,
  context,
}) => {
  const folder = scratch()
  const folders = page.waitForResponse('**/api/folders')
  await enterAsPupil(page, 'Aoife', '/desk')
  await expect(page.getByRole('button', { name: 'Write', exact: true })).toBeVisible()
  await folders
  await context.setOffline(true)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await page.getByLabel('Write here').fill('The sea came in.')
  await page.waitForURL(/write\?id=/)
  const id = idIn(page)
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.getByLabel('Name of my piece').fill('The tide')
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await page.getByRole('button', { name: /The tide/ }).click()
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await pick(page, [await plain(folder, 'wet.png', '#2f5e8c')])
  const inPiece = page.getByRole('list', { name: 'In this piece' })
  await expect(inPiece.getByRole('button', { name: /^Look at/ })).toHaveCount(2)
  await expect(inPiece.getByText('waits here').first()).toBeVisible()
  await takeOutPart(page, 'Photo 2')
  await expect(inPiece.getByRole('button', { name: /^Look at/ })).toHaveCount(1)
  await nameIt(page, 'The tide')
  await putInTray(page, /./)
  await expect(page.getByRole('heading', { name: 'It goes into the tray by itself' })).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  const piece = await pieceOf(page, id)
  expect(piece).toMatchObject({ state: 'submitted', title: 'The tide' })
  expect(textsIn(piece.versions[0]!.parts)).toEqual(['The sea came in.'])
  expect(piece.versions[0]!.parts).toHaveLength(1)
})

for (const cut of ['before it arrives', 'before its answer is back'] as const)
  test(`fifteen things done to a piece, and the network cut at each request in turn, ${cut}: the school has what the pupil saw last`, async ({
    page,
  }) => {
    const folder = scratch()
    await enterAsPupil(page, 'Wren', '/write')
    const tried = new Set<string>()
    const cutOnce = async (route: Route, request: Request) => {
      const what = `${request.method()} ${new URL(request.url()).pathname} ${request.postData() ?? ''}`
      if (request.method() === 'GET' || request.method() === 'HEAD' || tried.has(what))
        return route.fallback()
      tried.add(what)
      if (cut === 'before its answer is back') await route.fetch().catch(() => undefined)
      return route.abort()
    }
    await page.route(/\/api\/(pieces|media\/uploads)/, cutOnce)

    await page.getByLabel('Write here').fill('One wave.')
    await page.waitForURL(/write\?id=/)
    const id = idIn(page)
    await page.getByLabel('Write here').fill('One wave. Two waves.')
    await page.getByRole('button', { name: 'Keep for later' }).click()
    await page
      .getByRole('button', { name: /No name yet/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Photo', exact: true }).click()
    await pick(page, [
      await plain(folder, 'a.png', '#a9452f'),
      await plain(folder, 'b.png', '#4c7a4f'),
    ])
    const tiles = page
      .getByRole('list', { name: 'In this piece' })
      .getByRole('button', { name: /^Look at/ })
    await expect(tiles).toHaveCount(3)
    await tiles.nth(1).press('Enter')
    await page.getByLabel('Name of this part').fill('the red one')
    await page.getByRole('button', { name: 'Earlier' }).click()
    await page.getByRole('button', { name: 'Back' }).click()
    await takeOutPart(page, 'Photo 3')
    await expect(tiles).toHaveCount(2)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(tiles).toHaveCount(3)
    await takeOutPart(page, 'Photo 3')
    await expect(tiles).toHaveCount(2)
    await page.getByRole('button', { name: 'Go on' }).click()
    await page.getByRole('button', { name: 'I made it with a friend' }).click()
    await page.getByRole('checkbox', { name: 'Tomasz' }).click()
    await page.getByLabel('Name of my piece').fill('Waves')
    await page.getByRole('button', { name: 'Go on' }).click()
    await page.getByLabel('I think...').fill('They never stop.')
    await page.getByRole('button', { name: 'Go on' }).click()
    await putInTray(page, /./)
    await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible({
      timeout: 120_000,
    })
    await takeOutOfTray(page)
    await page.getByRole('button', { name: 'Go on with it' }).click()
    await page.getByLabel('Name of my piece').fill('Waves that never stop')
    await page.getByRole('button', { name: 'Go on' }).click()
    await page.getByRole('button', { name: 'Go on' }).click()
    await putInTray(page)

    await expect
      .poll(async () => (await pieceOf(page, id)).versions.length, { timeout: 120_000 })
      .toBe(2)
    const piece = await pieceOf(page, id)
    expect(piece).toMatchObject({ state: 'submitted', title: 'Waves that never stop' })
    expect(piece.makers.map(({ firstName }) => firstName).sort()).toEqual(['Tomasz', 'Wren'])
    const [last] = piece.versions
    expect(last).toMatchObject({ reflection: 'They never stop.' })
    expect(last!.parts.map(({ kind, name }) => [kind, kind === 'photo' ? name : ''])).toEqual([
      ['photo', 'the red one'],
      ['writing', ''],
    ])
    expect(textsIn(last!.parts)).toEqual(['One wave. Two waves.'])
    // How many requests fifteen things become depends on what merges before it sets out. Of these
    // at least one each is cut, whatever the pace of the machine.
    const ways = [...tried].map((what) => {
      const [method, pathname] = what.split(' ') as [string, string]
      return `${method} ${pathname.replace(/[0-9a-f-]{32,}/g, '…')}`
    })
    expect(ways).toEqual(
      expect.arrayContaining([
        'PUT /api/pieces/…',
        'POST /api/media/uploads',
        'PATCH /api/media/uploads/…',
        'PUT /api/pieces/…/parts/…',
        'PUT /api/pieces/…/makers',
        'PATCH /api/pieces/…',
        'POST /api/pieces/…/hand-in',
        'POST /api/pieces/…/withdraw',
      ]),
    )
  })
