import type { Piece, SchoolClass, Session, Tray } from '@nibquill/contract'
import { graveFaults } from './axe.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { written } from './pieces.ts'
import { expect, test } from './test.ts'

const WIDE = { width: 1280, height: 800 }
test.use({ viewport: WIDE })

test('how the tray is looked at stands in its address: a reload and a bookmark find it again', async ({
  page,
}) => {
  await enterAsTeacher(page)
  await page.getByRole('tab', { name: 'by pupil' }).click()
  await page.getByRole('button', { name: 'oldest first, turn to due first' }).click()
  await expect(page.getByRole('button', { name: 'due first, turn to oldest first' })).toBeVisible()
  await expect(page).toHaveURL(/\?by=pupil&order=due$/)
  await page.reload()
  await expect(page.getByRole('tab', { name: 'by pupil' })).toHaveAttribute('aria-selected', 'true')
  await expect(page.getByRole('button', { name: 'due first, turn to oldest first' })).toBeVisible()
  // From piece to piece it stays so.
  await expect(page.getByText(/^1 of \d+/).filter({ visible: true })).toBeVisible()
  await page.keyboard.press('j')
  await expect(page).toHaveURL(/\/tray\/[\w-]+\?by=pupil&order=due$/)
  // However far one goes, what lies on the desk is in sight in the list.
  // What is told to teachers has a heading as well.
  const title = page.getByRole('heading', { level: 2 }).filter({ hasNotText: 'For you to know' })
  for (let i = 0; i < 9; i++) await page.keyboard.press('j')
  const row = page.getByRole('button', { name: await title.innerText() }).last()
  await expect(row).toBeInViewport()
})

test('who teaches two classes looks at one of them', async ({ page, asking }) => {
  await enterAsTeacher(page)
  const origin = new URL(page.url()).origin
  const classes = (await (await page.request.get('/api/school/classes')).json()) as SchoolClass[]
  const { person } = (await (await page.request.get('/api/accounts/session')).json()) as Session
  const teach = async (of: readonly SchoolClass[]) => {
    const answer = await page.request.patch(`/api/school/staff/${person!.id}`, {
      data: { classIds: of.map(({ id }) => id) },
      headers: { Origin: origin },
    })
    expect([answer.status(), await answer.text()]).toEqual([200, expect.any(String)])
  }
  await teach(classes.filter(({ running }) => running))
  await written(await asking('Aoife'), 'Of the other class', 'tray')
  await page.reload()
  const tabs = page.getByRole('tablist', { name: 'Which class' })
  await expect(tabs.getByRole('tab')).toHaveText(['all classes', 'Heron', 'Plover'])
  const count = async () =>
    Number(/(\d+) waiting/.exec(await page.getByText(/\d+ waiting/).innerText())![1])
  const waitingAt = async (query = '') =>
    ((await (await page.request.get(`/api/review/tray${query}`)).json()) as Tray).waiting
  const waitingIn = (className: string) =>
    waitingAt(`?classId=${classes.find(({ name, running }) => running && name === className)!.id}`)
  const [all, heron, plover] = [
    await waitingAt(),
    await waitingIn('Heron'),
    await waitingIn('Plover'),
  ]
  expect([all, heron * plover > 0]).toEqual([heron + plover, true])
  await expect.poll(count).toBe(all)
  await tabs.getByRole('tab', { name: 'Heron' }).click()
  await expect.poll(count).toBe(heron)
  await expect(page).toHaveURL(/\?class=/)
  await expect(page.getByText('Of the other class')).toHaveCount(0)
  await tabs.getByRole('tab', { name: 'Plover' }).click()
  await expect.poll(count).toBe(plover)
  await expect(page.getByText('Of the other class').first()).toBeVisible()
  await teach(classes.filter(({ mine }) => mine))
})

test('what is not handed in is asked for, and lies on top of its pupil’s desk', async ({
  page,
  another,
}) => {
  const pupil = await another({ width: 390, height: 844 })
  await enterAsPupil(pupil, 'Wren')
  const id = await written(pupil, 'Half a poem', 'draft')
  await written(pupil, 'Another half', 'draft')
  await follow(pupil, '/desk')
  await enterAsTeacher(page)
  await page.getByRole('link', { name: /not handed in yet/ }).click()
  await expect(page.getByRole('heading', { name: 'Not handed in yet' })).toBeVisible()
  const line = page.getByRole('listitem').filter({ hasText: 'Half a poem' })
  await line.getByRole('button', { name: 'Ask for it' }).click()
  await expect(line.getByText(/^asked today/)).toBeVisible()
  await expect(line.getByRole('button', { name: 'Ask for it' })).toHaveCount(0)
  // It comes to the desk by itself, before the others.
  const asked = pupil.getByRole('button', { name: /Half a poem/ })
  await expect(asked).toContainText('Your teacher asks for this')
  const onTheGo = pupil.getByRole('region', { name: /on the go/i }).getByRole('button')
  await expect(onTheGo.first()).toContainText('Half a poem')
  await asked.click()
  await expect(pupil).toHaveURL(new RegExp(`/my-pieces/${id}`))
  await page.getByRole('button', { name: /^Ask for all/ }).click()
  await expect(page.getByRole('button', { name: 'Ask for it' })).toHaveCount(0)
})

test('thirty pieces are judged by keyboard alone: a key for each that needs nothing said', async ({
  page,
  asking,
}) => {
  const pupil = await asking('Wren')
  const ids: string[] = []
  for (let i = 1; i <= 30; i++) ids.push(await written(pupil, `Poem ${i}`, 'tray'))
  await enterAsTeacher(page, 'heron', `/tray/${ids[0]}`)
  let keys = 0
  const press = async (key: string) => {
    keys++
    await page.keyboard.press(key)
  }
  for (const [i, id] of ids.entries()) {
    await page.waitForURL(`**/tray/${id}`)
    const heading = page.getByRole('heading', { level: 2, name: `Poem ${i + 1}`, exact: true })
    await expect(heading).toBeVisible()
    // The focus is never lost after a decision.
    if (i > 0) await expect(heading).toBeFocused()
    if (i === 9 || i === 19) {
      await press('m')
      await page.keyboard.type('A strong line.')
      await press('Control+Enter')
    } else if (i === 14) {
      await press('s')
      await page.getByLabel('What to do next').waitFor()
      await page.keyboard.type('Read it aloud.')
      await press('Control+Enter')
    } else await press('a')
  }
  // Words of one's own take two keys more than a plain approval, another go as many.
  expect(keys).toBe(27 + 3 * 2)
  const states = async () =>
    Promise.all(
      ids.map(
        async (id) => ((await (await page.request.get(`/api/pieces/${id}`)).json()) as Piece).state,
      ),
    )
  await expect
    .poll(async () => (await states()).filter((state) => state === 'approved').length)
    .toBe(29)
  expect((await states())[14]).toBe('returned')
})

test('a second look is kept with its reason, marked in the tray, found by pupil and by strand, and ticked', async ({
  page,
  asking,
}) => {
  const id = await written(await asking('Wren'), 'To come back to', 'tray')
  await enterAsTeacher(page, 'heron', `/tray/${id}`)
  await expect(page.getByRole('heading', { name: 'To come back to' })).toBeVisible()
  await page.keyboard.press('l')
  await page.keyboard.type('Where a sentence ends.')
  await page.keyboard.press('Control+Enter')
  const mark = page.getByRole('group', { name: 'Second look' })
  await expect(mark).toContainText('Where a sentence ends.')
  await expect(
    page.getByRole('button', { name: /To come back to/ }).filter({ hasText: 'look again' }),
  ).toBeVisible()
  // Decided, it stays what one comes back to.
  await page.keyboard.press('a')
  await expect(page.getByText(/^Approved: /)).toBeVisible()
  await page.getByRole('link', { name: /second looks?$/ }).click()
  await expect(page.getByRole('heading', { name: /^Wren A. · / })).toBeVisible()
  await page.getByRole('tab', { name: 'by strand' }).click()
  await expect(page).toHaveURL(/by=strand/)
  const line = page.getByRole('listitem').filter({ hasText: 'Where a sentence ends.' })
  await line.getByRole('button', { name: 'Done' }).click()
  await expect(line).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(line).toBeVisible()
})

test('a task’s pieces are seen together: one is left out, one has changed meanwhile, the rest are approved at once and taken back', async ({
  page,
  asking,
}) => {
  const pupil = await asking('Tomasz')
  const ids: string[] = []
  for (let i = 1; i <= 4; i++) ids.push(await written(pupil, `Together ${i}`, 'tray'))
  await enterAsTeacher(page, 'heron', '/tray?by=pupil')
  await page.getByRole('link', { name: /^See them together: Tomasz/ }).click()
  await expect(page).toHaveURL(/\/tray\/together\?by=pupil&group=/)
  const tile = (i: number) => page.getByRole('checkbox', { name: new RegExp(`Together ${i}$`) })
  await expect(tile(4)).toBeChecked()
  // Only ours: the demo's own are left as they are.
  for (const one of await page.getByRole('checkbox').all())
    if (!/Together [234]$/.test((await one.getAttribute('aria-label'))!)) await one.click()
  await expect(tile(1)).not.toBeChecked()
  // Taken out, worked on and handed in anew: what was seen is not what lies there.
  const move = async (to: string) => {
    const { version } = (await (await pupil.get(`/api/pieces/${ids[1]}`)).json()) as Piece
    await pupil.post(`/api/pieces/${ids[1]}/${to}`, { data: { seenVersion: version } })
  }
  await move('withdraw')
  await move('hand-in')
  await expect(tile(2)).not.toBeChecked()
  await page.getByRole('button', { name: 'Approve 2' }).click()
  await expect(page.getByText('2 pieces approved')).toBeVisible()
  const stateOf = async (i: number) =>
    ((await (await page.request.get(`/api/pieces/${ids[i]}`)).json()) as Piece).state
  expect([await stateOf(0), await stateOf(1), await stateOf(2), await stateOf(3)]).toEqual([
    ...['submitted', 'submitted', 'approved', 'approved'],
  ])
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('2 pieces lie in the tray again.')).toBeVisible()
  expect(await stateOf(3)).toBe('submitted')
  // The same words for several; what was handed in anew is looked at, and goes with them.
  await tile(2).click()
  await page.getByRole('button', { name: 'Send back 3' }).click()
  await page.getByLabel('What to do next').fill('Read it aloud once.')
  await page.getByRole('dialog').getByRole('button', { name: 'Send it back' }).click()
  await expect(page.getByText('3 pieces sent back')).toBeVisible()
  const { versions } = (await (await page.request.get(`/api/pieces/${ids[3]}`)).json()) as Piece
  expect(versions[0]!.decision).toMatchObject({ move: 'send-back', message: 'Read it aloud once.' })
})

test('a teacher’s own sentences: kept, said again by a tap, taken out and brought back', async ({
  page,
}) => {
  await enterAsTeacher(page)
  await expect(page.getByRole('button', { name: /^Approve into/ })).toBeVisible()
  await page.keyboard.press('s')
  const dialog = page.getByRole('dialog', { name: /^Send it back to/ })
  const field = dialog.getByRole('textbox')
  await field.fill('Read it aloud to a friend.')
  await dialog.getByRole('button', { name: 'Keep this for next time' }).click()
  const again = dialog.getByRole('button', { name: 'Read it aloud to a friend.', exact: true })
  await expect(again).toBeDisabled()
  await field.fill('The title is missing.')
  await again.click()
  await expect(field).toHaveValue('The title is missing. Read it aloud to a friend.')
  expect(await graveFaults(page)).toEqual([])

  await dialog.getByRole('button', { name: 'Sort them out' }).click()
  const stock = page.getByRole('dialog', { name: 'My sentences' })
  await stock.getByRole('button', { name: 'Take out: Read it aloud to a friend.' }).click()
  await expect(stock.getByRole('listitem')).toHaveCount(0)
  // One Escape closes what lies on top; what was typed is still there.
  await page.keyboard.press('Escape')
  await expect(stock).toHaveCount(0)
  await expect(field).toHaveValue('The title is missing. Read it aloud to a friend.')
  await field.fill('')
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.keyboard.press('s')
  await expect(again).toBeVisible()
  await page.keyboard.press('Escape')
})
