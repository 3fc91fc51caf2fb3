import type { Task } from '@nibquill/contract'
import type { Thing } from '@nibquill/core/ink/document'
import { graveFaults } from './axe.ts'
import { plain, scratch } from './materials.ts'
import {
  idOfDrawing,
  inkAtSchool,
  kindsOf,
  newDrawing,
  Paper,
  thingsAtSchool,
  wave,
  type Mm,
} from './paper.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 820, height: 1180 } })

test('arranging: a label with its pointer, a clock set, a thing locked; dragging never draws there, drawing never drags', async ({
  page,
}) => {
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await paper.draw(wave(110))
  const id = await idOfDrawing(page)
  await page.getByRole('tab', { name: 'Arrange' }).click()
  await expect(page.getByRole('region', { name: 'Cutting mat' })).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  // Over empty paper: nothing.
  await paper.draw([
    [10, 10],
    [60, 60],
  ])
  await page.getByRole('button', { name: 'Label' }).click()
  const writer = page.getByRole('dialog')
  await writer.getByRole('textbox', { name: 'Words' }).fill('水')
  await expect(writer.getByText('These letters cannot be put on a drawing yet: 水')).toBeVisible()
  await writer.getByRole('textbox', { name: 'Words' }).fill('the claw')
  await writer.getByRole('button', { name: 'Put it down' }).click()
  await expect(page.getByText('Label: the claw')).toBeVisible()
  await page.getByRole('button', { name: 'Point', exact: true }).click()
  const labelAt = async () => {
    const things = (await inkAtSchool(page, id))?.sheets[0]!.things ?? []
    return things.find(({ kind }) => kind === 'label') as Extract<Thing, { kind: 'label' }>
  }
  await expect.poll(async () => (await labelAt())?.pointer).toBeTruthy()
  let label = await labelAt()
  const mm = ({ x, y }: { x: number; y: number }): Mm => [x / 100, y / 100]
  await paper.draw([mm(label.pointer!), [30, 100]])
  await paper.draw([mm(label.at), [100, 30]])
  const place = async () => {
    // Drawn on meanwhile, its file may be another one by the time it is read.
    label = (await labelAt()) ?? label
    return Math.abs(label.at.x - 10_000) + Math.abs(label.pointer!.x - 3000)
  }
  await expect.poll(place).toBeLessThan(120)
  expect(label.lines).toEqual(['the claw'])

  await page.getByRole('button', { name: 'Lock' }).click()
  await paper.draw([
    [100, 30],
    [40, 60],
  ])
  await expect(page.getByText('Label: the claw, locked')).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('button', { name: 'Stamp' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Clock at 3:00' }).click()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await expect(page.getByText('Clock at 3:15')).toBeVisible()
  await page.getByRole('tab', { name: 'Draw' }).click()
  // Over the clock: a line, and the clock stays.
  await paper.draw([
    [60, 45],
    [100, 50],
  ])
  const things = await thingsAtSchool(page, id, 4)
  expect(kindsOf(things)).toEqual(['line', 'label', 'stamp', 'line'])
  expect(Math.abs((await labelAt()).at.x - 10_000)).toBeLessThan(60)
})

test('a photo is laid on, circled and sent; what cannot be opened is said', async ({ page }) => {
  const folder = scratch()
  await enterAsPupil(page, 'Aoife', '/desk')
  const paper = await newDrawing(page)
  await page.getByRole('tab', { name: 'Arrange' }).click()
  const pickOne = async (file: string | { name: string; mimeType: string; buffer: Buffer }) => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Picture', exact: true }).click()
    await (await chooser).setFiles(file)
  }
  await pickOne({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no picture') })
  await expect(page.getByText('notes.jpg cannot be opened here.')).toBeVisible()
  await pickOne({
    ...{ name: 'wild.svg', mimeType: 'image/svg+xml' },
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><script>window.top.hacked = 1</script><image href="/api/health" width="9" height="9"/><rect width="400" height="300" fill="#2f5e8c"/></svg>',
    ),
  })
  await expect(page.getByText('Picture', { exact: true }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()
  await pickOne(await plain(folder, 'crab.png', '#a9452f'))
  await page.getByRole('button', { name: 'To back' }).click()
  await page.getByRole('tab', { name: 'Draw' }).click()
  await paper.draw(wave(40, 60, 100))
  const id = await idOfDrawing(page)
  const things = await thingsAtSchool(page, id, 3)
  expect(kindsOf(things)).toEqual(['picture', 'picture', 'line'])
  const pictures = things as Extract<Thing, { kind: 'picture' }>[]
  for (const { mediaId } of pictures.slice(0, 2)) {
    const sent = await page.request.get(`/api/media/${mediaId}/full`)
    expect(sent.headers()['content-type']).toBe('image/jpeg')
  }
  expect(await page.evaluate(() => 'hacked' in window)).toBe(false)
})

test('each page of a paper comes on a sheet of its own, to be drawn on; a torn one says why', async ({
  page,
  another,
}) => {
  const writer = await another()
  await writer.setContent('<h1>Rock pools</h1><h1 style="break-before: page">Our walk</h1>')
  const plan = { name: 'plan.pdf', mimeType: 'application/pdf', buffer: await writer.pdf() }
  await enterAsPupil(page, 'Aoife', '/desk')
  await newDrawing(page)
  await page.getByRole('tab', { name: 'Arrange' }).click()
  const pickOne = async (file: { name: string; mimeType: string; buffer: Buffer }) => {
    const chooser = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Picture', exact: true }).click()
    await (await chooser).setFiles(file)
  }
  await pickOne({ ...plan, name: 'torn.pdf', buffer: plan.buffer.subarray(0, 200) })
  await expect(page.getByText('This file cannot be opened.')).toBeVisible()
  await pickOne(plan)
  await expect(page.getByText('2 / 2')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Picture', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Sheet before' }).click()
  await page.getByRole('tab', { name: 'Draw' }).click()
  const upright = new Paper(page, { width: 113, height: 160 })
  await upright.draw(wave(40, 20, 90))
  const things = await thingsAtSchool(page, await idOfDrawing(page), 2)
  expect(kindsOf(things)).toEqual(['picture', 'line'])
  const { mediaId } = things[0] as Extract<Thing, { kind: 'picture' }>
  expect((await page.request.get(`/api/media/${mediaId}/full`)).ok()).toBe(true)
  // Without a network it says so.
  await page.context().setOffline(true)
  await page.getByRole('tab', { name: 'Arrange' }).click()
  await pickOne({ ...plan, name: 'second.pdf' })
  await expect(page.getByText('they need the network')).toBeVisible()
  await page.context().setOffline(false)
})

test('a teacher makes a starter sheet; a pupil’s copy opens on the cutting mat, what stays stays, and the teacher’s next sheet leaves it alone', async ({
  page,
  another,
}) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', '/tasks')
  await teacher.getByText('What lives here?').first().click()
  await teacher.getByRole('button', { name: 'Change the starter sheet' }).click()
  const mat = new Paper(teacher)
  await expect(mat.canvas).toBeVisible()
  await teacher.getByRole('tab', { name: 'Arrange' }).click()
  await teacher.getByRole('button', { name: 'Label' }).click()
  await teacher.getByRole('dialog').getByRole('textbox', { name: 'Words' }).fill('Our pool')
  await teacher.getByRole('button', { name: 'Put it down' }).click()
  await expect(teacher.getByText('Label: Our pool: can be moved')).toBeVisible()
  await teacher.getByRole('button', { name: 'Make it stay' }).click()
  await expect(teacher.getByText('Label: Our pool: stays')).toBeVisible()
  await expect(teacher.getByText('Saved', { exact: true })).toBeVisible()

  await enterAsPupil(page, 'Aoife', '/desk')
  const tasks = (await (await page.request.get('/api/tasks')).json()) as Task[]
  await follow(page, `/my-tasks/${tasks.find(({ title }) => title === 'What lives here?')!.id}`)
  await page.getByRole('button', { name: 'Open the sheet' }).click()
  const paper = new Paper(page)
  await expect(page.getByRole('region', { name: 'Cutting mat' })).toBeVisible()
  // The label that stays is not taken; a card is.
  await paper.draw([
    [112, 78],
    [120, 100],
  ])
  await paper.draw([
    [110, 22],
    [40, 90],
  ])
  await expect(page.getByText('Label: seaweed')).toBeVisible()
  const id = await idOfDrawing(page)
  const cards = async () =>
    (await inkAtSchool(page, id))?.sheets[0]!.things.flatMap((thing) =>
      thing.kind === 'label' ? [thing] : [],
    ) ?? []
  await expect
    .poll(async () => (await cards()).find(({ lines }) => lines[0] === 'seaweed')?.at.y)
    .toBeGreaterThan(8000)
  const stays = (await cards()).find(({ lines }) => lines[0] === 'Our pool')
  expect(stays).toMatchObject({ fixed: true })
  const count = (await inkAtSchool(page, id))!.sheets[0]!.things.length

  // Cleared, the sheet is as its teacher gave it, without the cards.
  await teacher.getByRole('button', { name: 'Take the sheet away' }).click()
  await expect(teacher.getByRole('button', { name: 'Starter sheet', exact: true })).toBeVisible()
  await page.reload()
  await expect(paper.canvas).toBeVisible()
  await thingsAtSchool(page, id, count)
  await teacher.getByRole('button', { name: 'Undo' }).click()
  await expect(teacher.getByRole('button', { name: 'Change the starter sheet' })).toBeVisible()
})
