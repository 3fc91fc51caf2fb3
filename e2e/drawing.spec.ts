import type { InkChange } from '@nibquill/core/ink/changes'
import { unpackPoints } from '@nibquill/core/ink/points'
import type { Thing } from '@nibquill/core/ink/document'
import { STAMP_SIZES } from '@nibquill/core/ink/stamps'
import type { Page } from '@playwright/test'
import sharp, { type Sharp } from 'sharp'
import { graveFaults } from './axe.ts'
import { nameIt, putInTray } from './handIn.ts'
import {
  chooseInk,
  chooseTool,
  drawingIn,
  idOfDrawing,
  inkAtSchool,
  kindsOf,
  newDrawing,
  Paper,
  thingsAtSchool,
  wave,
} from './paper.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 820, height: 1180 } })

test('with the mouse: every pen, its ink, its water and its edge, to the tray and the teacher’s desk', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  expect(await graveFaults(page)).toEqual([])
  // The nib is pulled out, and pushed in by a thickness.
  const nib = (await page.getByRole('radio', { name: 'Nib' }).boundingBox())!
  await page.mouse.move(nib.x + nib.width / 2, nib.y + 60)
  await page.mouse.down()
  await page.mouse.move(nib.x + nib.width / 2, nib.y + 34, { steps: 3 })
  await page.mouse.up()
  await expect(page.getByRole('radio', { name: 'As thick as a finger' })).toBeChecked()
  await page.getByRole('radio', { name: 'Nib' }).press('ArrowDown')
  await expect(page.getByRole('radio', { name: 'Thick', exact: true })).toBeChecked()
  await page.getByRole('radio', { name: 'Thin', exact: true }).click()
  await paper.draw(wave(20))
  const id = await idOfDrawing(page)

  await chooseTool(page, 'Patch')
  await chooseInk(page, 'Straw')
  await page.getByRole('button', { name: 'Water: none' }).click()
  await page.getByRole('button', { name: 'Water: a little' }).click()
  await expect(page.getByText('Hard to see on this paper')).toBeVisible()
  await paper.draw([
    [20, 40],
    [60, 40],
    [60, 70],
    [20, 70],
    [20, 42],
  ])

  await chooseTool(page, 'Ruler')
  for (const strength of ['more', 'a lot'])
    await page.getByRole('button', { name: `Water: ${strength}` }).click()
  await page.getByRole('button', { name: 'Edge: none' }).click()
  await expect(page.getByText('Tap an ink for the edge')).toBeVisible()
  await chooseInk(page, 'Soot')
  await chooseInk(page, 'Clay')
  await expect(page.getByText('Clay, Soot edge')).toBeVisible()
  // Near six and a half centimetres, and nearly level.
  await paper.draw([
    [20, 100],
    [85.4, 101],
  ])
  await page.getByRole('radio', { name: 'Circle', exact: true }).click()
  await paper.draw([
    [120, 80],
    [135, 80],
  ])

  const [line, patch, ruled, circle] = await thingsAtSchool(page, id, 4)
  expect(line).toMatchObject({ kind: 'line', pen: { ink: ['soot'], water: 0, width: 90 } })
  expect(patch).toMatchObject({ kind: 'patch', pen: { ink: ['straw'], water: 2, edge: null } })
  expect(ruled).toMatchObject({ kind: 'ruled', shape: 'line', pen: { edge: ['soot'] } })
  const way = ruled as Extract<Thing, { kind: 'ruled' }>
  expect([way.to.x - way.from.x, way.to.y - way.from.y]).toEqual([6500, 0])
  expect(circle).toMatchObject({ kind: 'ruled', shape: 'circle', pen: { ink: ['clay'] } })

  await nameIt(page, 'Lines and a sun')
  await putInTray(page, /./)
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover')
  await teacher.getByRole('button', { name: /Lines and a sun/ }).click()
  await expect(teacher.getByRole('group', { name: /Lines and a sun/ })).toBeVisible()
})

test('a rubber takes a part of a line, a tap all of it; undo and do again lead back and forth; clearing asks', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw([
    [20, 30],
    [140, 30],
  ])
  const id = await idOfDrawing(page)
  await paper.draw([
    [20, 60],
    [140, 60],
  ])
  await thingsAtSchool(page, id, 2)
  await chooseTool(page, 'Rubber')
  await paper.draw([
    [80, 20],
    [80, 45],
  ])
  await thingsAtSchool(page, id, 3)
  // A tap on the other line.
  await paper.draw([[50, 60]])
  await thingsAtSchool(page, id, 2)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await thingsAtSchool(page, id, 2)
  expect(kindsOf(await thingsAtSchool(page, id, 2))).toEqual(['line', 'line'])
  await page.getByRole('button', { name: 'Do it again' }).click()
  await thingsAtSchool(page, id, 3)

  await page.getByRole('button', { name: 'Paper and sheets' }).click()
  await page.getByRole('button', { name: 'Clear this sheet' }).click()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await page.getByRole('button', { name: 'Paper and sheets' }).click()
  await page.getByRole('button', { name: 'Clear this sheet' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Clear it' }).click()
  await thingsAtSchool(page, id, 0)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await thingsAtSchool(page, id, 3)
  // A patch is rubbed in two as well.
  await chooseTool(page, 'Patch')
  await paper.draw([
    [20, 80],
    [60, 80],
    [60, 110],
    [20, 110],
    [20, 82],
  ])
  await chooseTool(page, 'Rubber')
  await paper.draw([
    [40, 72],
    [40, 116],
  ])
  expect(kindsOf(await thingsAtSchool(page, id, 5)).slice(-2)).toEqual(['patch', 'patch'])
  // The way back is still there when the drawing is opened again.
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await page.getByLabel('Name of my piece').fill('Rubbed away')
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await page
    .getByRole('button', { name: /Rubbed away/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Look at Drawing 1' }).first().click()
  await page.getByRole('button', { name: 'Go on drawing' }).click()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await thingsAtSchool(page, id, 4)
})

test('mixing: drops make an ink, each can be taken out, and the ink stays with the piece', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await page.getByRole('button', { name: 'Mixing dish' }).click()
  const dish = page.getByRole('dialog')
  expect(await graveFaults(page)).toEqual([])
  for (const ink of ['Sea', 'Straw', 'Madder'])
    await dish.getByRole('radio', { name: `Drop in ${ink}` }).click()
  await dish.getByRole('button', { name: 'Take out Madder' }).click()
  await expect(dish.getByRole('img', { name: 'Mixed from Sea, Straw' })).toBeVisible()
  await dish.getByRole('button', { name: 'Use this ink' }).click()
  await paper.draw(wave(40))
  const id = await idOfDrawing(page)
  const [line] = await thingsAtSchool(page, id, 1)
  expect(line).toMatchObject({ pen: { ink: ['sea', 'straw'] } })
  // Chosen otherwise meanwhile, it is found again in the dish.
  await chooseInk(page, 'Soot')
  await page.reload()
  await page.getByRole('button', { name: 'Mixing dish' }).click()
  await page.getByRole('dialog').getByRole('radio', { name: 'Mixed from Sea, Straw' }).click()
  await expect(page.getByText('Mixed', { exact: true })).toBeVisible()
})

test('a pen is felt; the palm beside it draws nothing', async ({ page }) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.pen([
    [[20, 40], 0.2],
    [[50, 40], 0.5],
    [[80, 40], 0.9],
    [[110, 40], 0.4],
  ])
  const id = await idOfDrawing(page)
  const [line] = (await thingsAtSchool(page, id, 1)) as Extract<Thing, { kind: 'line' }>[]
  const pressures = unpackPoints(line!.points).map(({ pressure }) => Math.round(pressure * 10) / 10)
  expect(pressures).toEqual([0.2, 0.5, 0.9, 0.4])
  // A hand that rests, and a finger that slips, once a pen was seen.
  await paper.touch([[[60, 90]], [[70, 92]]], 40)
  await paper.touch([[[60, 100]], [[90, 100]]])
  await paper.pen([
    [[20, 60], 0.5],
    [[60, 60], 0.5],
  ])
  expect(kindsOf(await thingsAtSchool(page, id, 2))).toEqual(['line', 'line'])
})

test.describe('with fingers', () => {
  test.use({ hasTouch: true })

  test('one draws; a second drops the line and both look closer, and what is drawn then lies where the finger is', async ({
    page,
  }) => {
    await enterAsPupil(page, 'Aoife', '/desk')
    const paper = await newDrawing(page)
    await paper.touch([[[20, 30]], [[60, 30]], [[100, 32]]])
    const id = await idOfDrawing(page)
    await thingsAtSchool(page, id, 1)
    await paper.touch([
      [[70, 60]],
      [[72, 60]],
      [
        [72, 60],
        [88, 60],
      ],
      [
        [56, 60],
        [104, 60],
      ],
    ])
    await expect(page.getByRole('button', { name: 'All of it' })).toBeVisible()
    // Three times as close, around the middle of the sheet.
    await paper.touch([[[80, 60]], [[86, 60]]])
    const [, close] = (await thingsAtSchool(page, id, 2)) as Extract<Thing, { kind: 'line' }>[]
    const points = unpackPoints(close!.points)
    expect(Math.abs(points[0]!.x - 8000)).toBeLessThan(60)
    expect(Math.abs(points.at(-1)!.x - 8200)).toBeLessThan(60)
    await page.getByRole('button', { name: 'All of it' }).click()
    await expect(page.getByRole('button', { name: 'All of it' })).toBeHidden()
  })
})

test('with the keyboard: the pen is moved, put down and lifted; a thing is chosen, moved, turned and taken off', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.canvas.focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Space')
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Space')
  const id = await idOfDrawing(page)
  const [line] = (await thingsAtSchool(page, id, 1)) as Extract<Thing, { kind: 'line' }>[]
  const points = unpackPoints(line!.points)
  expect(points.at(-1)!.x - points[0]!.x).toBe(2000)
  await expect(page.getByText('Pen up')).toBeAttached()
  // Begun and not meant.
  await paper.canvas.focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Escape')

  await page.getByRole('tab', { name: 'Arrange' }).press('Enter')
  await page.getByRole('button', { name: 'Stamp' }).press('Enter')
  await page.getByRole('dialog').getByRole('button', { name: 'Fish' }).press('Enter')
  const [, stamp] = await thingsAtSchool(page, id, 2)
  await paper.canvas.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('.')
  await expect
    .poll(async () => (await thingsAtSchool(page, id, 2))[1])
    .toMatchObject({
      turn: 15,
      at: { x: (stamp as Extract<Thing, { kind: 'stamp' }>).at.x + 1000 },
    })
  await page.keyboard.press('Delete')
  await thingsAtSchool(page, id, 1)
})

test('the plug is pulled in the middle of a line: every line before it is at school', async ({
  page,
  context,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  // Nothing gets through.
  await page.route('**/api/pieces/**', (route) => route.abort())
  for (let i = 0; i < 5; i++) await paper.draw(wave(15 + 15 * i))
  const id = await idOfDrawing(page)
  const from = await paper.place([20, 100])
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + 200, from.y)
  await page.close()

  const again = await context.newPage()
  await enterAsPupil(again, 'Aoife', '/desk')
  await thingsAtSchool(again, id, 5)
})

test('two tablets on one sheet: what both drew is there', async ({ page, another }) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw(wave(20))
  const id = await idOfDrawing(page)
  await thingsAtSchool(page, id, 1)
  const other = await another({ width: 820, height: 1180 })
  const partId = drawingIn(await pieceOf(page, id))!.id
  await enterAsPupil(other, 'Aoife', `/my-pieces/${id}/parts/${partId}/draw`)
  const there = new Paper(other)
  await expect(there.canvas).toBeVisible()
  await Promise.all([paper.draw(wave(60)), there.draw(wave(90))])
  await thingsAtSchool(page, id, 3)
})

test('a drawing opens as the school has it, though this tablet remembers it as it was', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw(wave(20))
  const id = await idOfDrawing(page)
  await thingsAtSchool(page, id, 1)
  const partId = drawingIn(await pieceOf(page, id))!.id
  const other = await another({ width: 820, height: 1180 })
  // Nothing tells this one of what happens elsewhere.
  await other.route('**/api/live', (route) => route.abort())
  await enterAsPupil(other, 'Aoife', `/my-pieces/${id}/parts/${partId}/draw`)
  const there = new Paper(other)
  await expect(there.canvas).toBeVisible()
  await follow(other, '/desk')
  await expect(there.canvas).toBeHidden()
  await paper.draw(wave(90))
  await thingsAtSchool(page, id, 2)
  await follow(other, `/my-pieces/${id}/parts/${partId}/draw`)
  await expect(there.canvas).toBeVisible()
  const at = await there.place([80, 90])
  const clip = { x: at.x - 30, y: at.y - 30, width: 60, height: 60 }
  const { channels } = await sharp(await other.screenshot({ clip })).stats()
  expect(Math.min(...channels.map(({ min }) => min))).toBeLessThan(120)
})

test('a drawing of a later Nibquill is shown, not drawn on', async ({ page }) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw(wave(20))
  const id = await idOfDrawing(page)
  await thingsAtSchool(page, id, 1)
  const partId = drawingIn(await pieceOf(page, id))!.id
  await page.route('**/api/media/*/full', async (route) => {
    const answer = await route.fetch()
    const ink = { ...((await answer.json()) as object), version: 2, balloons: [] }
    await route.fulfill({ response: answer, json: ink })
  })
  await page.goto(`/my-pieces/${id}/parts/${partId}/draw`)
  await expect(page.getByText('This drawing was made with a newer Nibquill.')).toBeVisible()
  await expect(page.getByRole('application')).toBeHidden()
  // Whatever of it is asked for still.
  await page.unrouteAll({ behavior: 'wait' })
})

test('screen and server show the same, for everything there is to draw with', async ({ page }) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw(wave(110))
  const id = await idOfDrawing(page)
  await thingsAtSchool(page, id, 1)
  const part = drawingIn(await pieceOf(page, id))!
  const sheetId = (await inkAtSchool(page, id))!.sheets[0]!.id
  const changes: InkChange[] = [
    { kind: 'paper', sheetId, paper: 'isometric' },
    { kind: 'put', sheetId, things: everything(), below: null },
  ]
  await page.evaluate(
    async ([path, body]) => {
      await fetch(path!, {
        ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: body! },
      })
    },
    [`/api/pieces/${id}/parts/${part.id}/ink`, JSON.stringify({ changes })],
  )
  await page.goto(`/my-pieces/${id}/parts/${part.id}/draw`)
  await expect(page.getByRole('application')).toBeVisible()
  const [corner, end] = [await paper.place([0, 0]), await paper.place([160, 120])]
  const onScreen = sharp(
    await page.screenshot({
      clip: { ...corner, width: end.x - corner.x, height: end.y - corner.y },
    }),
  )
  const { mediaId } = drawingIn(await pieceOf(page, id))!.files.ink
  let made: Buffer | null = null
  await expect
    .poll(async () => {
      const answer = await page.request.get(`/api/media/${mediaId}/2048`)
      if (answer.headers()['content-type'] === 'image/jpeg') made = await answer.body()
      return made !== null
    })
    .toBe(true)
  const [screen, server] = await Promise.all([grey(onScreen), grey(sharp(made!))])
  const differing = screen.filter((value, i) => !standsNear(value, server, i)).length
  expect(differing / screen.length).toBeLessThan(0.003)
  // And there is something to agree on.
  expect(screen.filter((value) => value < 160).length / screen.length).toBeGreaterThan(0.05)
})

const SMALL = { width: 640, height: 480 }
const grey = (picture: Sharp): Promise<Buffer> =>
  picture.resize(SMALL.width, SMALL.height, { fit: 'fill' }).greyscale().raw().toBuffer()
/** The same grey stands there or right beside it: edges are smoothed in other ways. */
function standsNear(value: number, other: Buffer, at: number): boolean {
  for (const dy of [-1, 0, 1])
    for (const dx of [-1, 0, 1]) {
      const there = other[at + dy * SMALL.width + dx]
      if (there !== undefined && Math.abs(there - value) < 48) return true
    }
  return false
}

/** One of each kind, as a hand leaves them. */
function everything(): Thing[] {
  const pen = (change: object) => ({
    ...{ ink: ['sea'] as const, water: 0 as const, edge: null, width: 180 },
    ...change,
  })
  const points = (y: number) => ({
    x: [1000, ...Array.from({ length: 60 }, () => 230)],
    y: [y, ...Array.from({ length: 60 }, (_, i) => (i % 20 < 10 ? 60 : -60))],
    t: [0, ...Array.from({ length: 60 }, () => 16)],
    p: [120, ...Array.from({ length: 60 }, (_, i) => (i % 12 < 6 ? 8 : -8))],
  })
  const put = (x: number, y: number, turn: number) => ({ at: { x, y }, turn, locked: false })
  return [
    {
      kind: 'patch',
      id: 'a',
      pen: pen({ ink: ['sea', 'straw'], edge: ['soot'], water: 1 }),
      points: points(8000),
    },
    { kind: 'line', id: 'b', pen: pen({ ink: ['soot'] }), points: points(2500) },
    {
      kind: 'line',
      id: 'c',
      pen: pen({ ink: ['straw'], water: 2, width: 800 }),
      points: points(3000),
    },
    {
      kind: 'line',
      id: 'd',
      pen: pen({ ink: ['heather'], edge: ['soot'], width: 360 }),
      points: points(5000),
    },
    {
      kind: 'ruled',
      id: 'e',
      pen: pen({ ink: ['clay'] }),
      shape: 'circle',
      from: { x: 12_000, y: 9000 },
      to: { x: 13_500, y: 10_000 },
    },
    {
      kind: 'label',
      id: 'f',
      pen: pen({ ink: ['aubergine'] }),
      ...put(4000, 6300, 345),
      lines: ['the crab', 'walks sideways'],
      size: 1,
      ground: 'straw',
      pointer: { x: 6500, y: 7600 },
    },
    {
      kind: 'stamp',
      id: 'g',
      pen: pen({ ink: ['madder'] }),
      ...put(13_000, 3400, 20),
      what: { of: 'clock', hours: 9, minutes: 45 },
      ...STAMP_SIZES.clock,
    },
    {
      kind: 'stamp',
      id: 'h',
      pen: pen({}),
      ...put(8000, 10_800, 0),
      what: { of: 'number-line', from: -10, to: 10 },
      ...STAMP_SIZES['number-line'],
    },
  ] as Thing[]
}

test('on a phone every pen, ink and vessel is within the screen, and large enough for a child', async ({
  page,
}: {
  page: Page
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await enterAsPupil(page, 'Aoife', '/desk')
  await newDrawing(page)
  for (const place of ['Draw', 'Arrange']) {
    await page.getByRole('tab', { name: place }).click()
    const targets = page.locator('[role=radio], [role=button], [role=tab]')
    for (const target of await targets.all()) {
      const box = (await target.boundingBox())!
      expect(box.x).toBeGreaterThanOrEqual(-0.5)
      expect(box.x + box.width).toBeLessThanOrEqual(390.5)
      expect(box.y + box.height).toBeLessThanOrEqual(844.5)
      expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(47.5)
    }
  }
})
