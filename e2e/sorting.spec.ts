import type { InkDocument } from '@nibquill/contract/ink'
import type { Task } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { putInTray } from './handIn.ts'
import { idOfDrawing, inkAtSchool, Paper, type Mm } from './paper.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { expect, test } from './test.ts'

const TASK = 'What lives here?'

async function sheetOf(teacher: Page): Promise<InkDocument | null> {
  const tasks = (await (await teacher.request.get('/api/tasks')).json()) as Task[]
  const sheet = tasks.find(({ title }) => title === TASK)!.sheet
  const ink = sheet && (await teacher.request.get(`/api/media/${sheet.mediaId}/full`))
  return ink?.ok() ? ((await ink.json()) as InkDocument) : null
}

/** Where something with these words lies, once the school has it. */
async function placeIn(read: () => Promise<InkDocument | null>, words: string): Promise<Mm> {
  let at: Mm | null = null
  await expect
    .poll(async () => {
      const things = (await read())?.sheets[0]!.things ?? []
      for (const thing of things)
        if (
          (thing.kind === 'spot' && thing.words === words) ||
          (thing.kind === 'label' && thing.lines.join(' ') === words)
        )
          at = [thing.at.x / 100, thing.at.y / 100]
      return at
    })
    .not.toBeNull()
  return at!
}

test('cards are sorted on a starter sheet; a changed sheet is offered to who has begun; the teacher sees what lies where', async ({
  page,
  another,
}) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', '/tasks')
  await teacher.getByText(TASK).first().click()
  await teacher.getByRole('button', { name: 'Change the starter sheet' }).click()
  const mat = new Paper(teacher)
  await expect(mat.canvas).toBeVisible()
  await teacher.getByRole('tab', { name: 'Arrange' }).click()
  // One more spot, named, with a word that is expected there.
  await teacher.getByRole('button', { name: 'Gap', exact: true }).click()
  await teacher.getByRole('button', { name: 'Words' }).click()
  await teacher.getByRole('textbox', { name: 'What stands on it' }).fill('My word')
  await teacher.getByRole('textbox', { name: 'Words you expect here' }).fill('Splash')
  await teacher.getByRole('dialog').getByRole('button', { name: 'Done' }).click()
  await expect(teacher.getByText('My word: stays')).toBeVisible()
  // To the upper right corner, out of the way of the cards.
  await mat.draw([await placeIn(() => sheetOf(teacher), 'My word'), [136, 8]])
  await teacher.getByRole('button', { name: 'Done' }).click()
  await expect(teacher.getByText('Saved', { exact: true })).toBeVisible()

  await enterAsPupil(page, 'Aoife', '/desk')
  const tasks = (await (await page.request.get('/api/tasks')).json()) as Task[]
  const task = tasks.find(({ title }) => title === TASK)!
  expect(task.sheet!.sorting).toBeNull()
  await follow(page, `/my-tasks/${task.id}`)
  await page.getByRole('button', { name: 'Open the sheet' }).click()
  const paper = new Paper(page)
  await expect(page.getByRole('region', { name: 'Cutting mat' })).toBeVisible()
  // The fish into the water, the gull as well; a spot is not to be moved.
  await paper.draw([
    [20, 22],
    [40, 70],
  ])
  await paper.draw([
    [50, 22],
    [55, 80],
  ])
  await paper.draw([
    [136, 8],
    [80, 60],
  ])
  const id = await idOfDrawing(page)
  const placeOf = async (thing: string) => {
    const ink = await inkAtSchool(page, id)
    const found = ink?.sheets[0]!.things.find((one) => one.id === thing)
    return found && 'at' in found ? found.at : null
  }
  await expect.poll(() => placeOf('gull')).toMatchObject({ y: 8000 })

  // The teacher changes the sheet, and offers it.
  await teacher.getByRole('button', { name: 'Label' }).click()
  await teacher.getByRole('dialog').getByRole('textbox', { name: 'Words' }).fill('whelk')
  await teacher.getByRole('button', { name: 'Put it down' }).click()
  await teacher.getByRole('button', { name: 'Belongs on' }).click()
  await teacher.getByRole('radio', { name: 'On the rock' }).click()
  await expect(teacher.getByText('Saved', { exact: true })).toBeVisible()
  await teacher.getByRole('button', { name: 'Offer it to those who have begun' }).click()
  await expect(teacher.getByRole('button', { name: 'Take the offer back' })).toBeVisible()
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(page.getByText('2 / 2')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Put it in' })).toHaveCount(0)
  await expect.poll(async () => (await inkAtSchool(page, id))?.sheets.length).toBe(2)
  // What was sorted before stays as it was.
  expect(await placeOf('gull')).toMatchObject({ y: 8000 })
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click()
  await expect.poll(async () => (await inkAtSchool(page, id))?.sheets.length).toBe(1)

  // A word of the pupil's own goes onto the gap.
  await page.getByRole('button', { name: 'Label' }).click()
  await page.getByRole('dialog').getByRole('textbox', { name: 'Words' }).fill('splash')
  await page.getByRole('button', { name: 'Put it down' }).click()
  await expect(page.getByText('Label: splash')).toBeVisible()
  await paper.draw([await placeIn(() => inkAtSchool(page, id), 'splash'), [136, 8]])
  await page.getByRole('button', { name: 'Go on', exact: true }).click()
  await putInTray(page)
  await expect(page.getByRole('heading', { name: 'In the tray' })).toBeVisible()

  await teacher.getByRole('button', { name: 'Back to the task' }).click()
  await teacher.getByRole('button', { name: 'What lies where' }).click()
  await expect(teacher.getByText(/sheets? handed in/)).toBeVisible()
  const aoife = teacher.getByRole('group', { name: /^Aoife/ })
  for (const fact of [
    'Fish: In the water, as expected',
    'Label: gull: In the water, expected On the rock',
    'My word: wrote “splash”, as expected',
    'Shell: on no spot, expected On the rock',
  ])
    await expect(aoife.getByRole('img', { name: fact, exact: true })).toBeVisible()
  const inClass = teacher.getByRole('group', { name: 'Label: gull' })
  await expect(inClass.getByRole('img', { name: 'In the water 1', exact: true })).toBeVisible()
  await aoife.getByRole('button', { name: 'Open' }).click()
  await teacher.waitForURL(`**/tray/${id}`)
})
