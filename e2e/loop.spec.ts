import type { Comments, MarkUp, PupilDetail, SchoolClass, Tray } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { graveFaults } from './axe.ts'
import { goOn, nameIt, putInTray } from './handIn.ts'
import { idOfDrawing, newDrawing, Paper, wave } from './paper.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { pieceOf, written } from './pieces.ts'
import { expect, test } from './test.ts'

const TABLET = { width: 820, height: 1180 }
test.use({ viewport: TABLET })

const marksOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/review/pieces/${id}/mark-ups`)).json()) as MarkUp[]
const trayOf = async (page: Page) =>
  (await (await page.request.get('/api/review/tray')).json()) as Tray

/** A pupil of Heron who has no card that is known, by a new one. */
async function enterAsIfeoma(teacher: Page, page: Page): Promise<void> {
  const origin = new URL(teacher.url()).origin
  const classes = (await (await teacher.request.get('/api/school/classes')).json()) as SchoolClass[]
  const heron = classes.find(({ name, mine }) => mine && name === 'Heron')!
  const { pupils } = (await (
    await teacher.request.get(`/api/school/classes/${heron.id}`)
  ).json()) as { pupils: PupilDetail[] }
  const { id } = pupils.find(({ firstName }) => firstName === 'Ifeoma')!
  const headers = { Origin: origin }
  const card = await teacher.request.post(`/api/accounts/pupils/${id}/card`, { headers })
  const { code } = (await card.json()) as { code: string }
  await page.request.post('/api/accounts/sign-in/card', { data: { code }, headers })
  await page.goto('/desk')
  await expect(page.getByRole('heading', { name: 'Ifeoma’s desk' })).toBeVisible()
}

test('a teacher and three pupils at once: handed in, come live, written on, sent back by voice, made again, approved; one taken out at the moment it is approved', async ({
  page: wren,
  another,
}) => {
  test.slow()
  const teacher = await another()
  await enterAsTeacher(teacher)
  const before = (await trayOf(teacher)).waiting
  await expect(teacher.getByText(`${before} waiting`)).toBeVisible()
  const tomasz = await another(TABLET)
  const ifeoma = await another(TABLET)
  await enterAsPupil(wren, 'Wren')
  await enterAsPupil(tomasz, 'Tomasz')
  await enterAsIfeoma(teacher, ifeoma)

  // Three hand in; the teacher's list stands still and says what came.
  const paper = await newDrawing(wren)
  await paper.draw(wave(60))
  const drawing = await idOfDrawing(wren)
  await nameIt(wren, 'Where the wind goes')
  await putInTray(wren, /Wind poems/)
  await expect(wren.getByText('In the tray').first()).toBeVisible()
  const kite = await written(tomasz, 'My kite pulls', 'tray')
  const gust = await written(ifeoma, 'A gust', 'tray')
  await expect(teacher.getByText(/^3 new/)).toBeVisible()
  await expect(teacher.getByText(`${before + 3} waiting`)).toBeVisible()

  // Written on a copy, by its key; the pupil sees nothing of it yet.
  await follow(teacher, `/tray/${drawing}`)
  await expect(teacher.getByRole('heading', { name: 'Where the wind goes' })).toBeVisible()
  await expect(teacher.getByRole('button', { name: 'Write on it' })).toBeVisible()
  await teacher.keyboard.press('d')
  await expect(
    teacher.getByRole('heading', { name: 'On a copy of Wren’s Where the wind goes' }),
  ).toBeVisible()
  await new Paper(teacher).draw([
    [20, 20],
    [120, 90],
  ])
  await expect(teacher.getByText('Saved')).toBeVisible()
  expect(await graveFaults(teacher)).toEqual([])
  await teacher.getByRole('button', { name: 'Back to the piece' }).click()
  await expect(teacher.getByRole('button', { name: 'Without what Mr Adeyemi wrote' })).toBeVisible()
  expect(await marksOf(teacher, drawing)).toHaveLength(1)
  expect(await marksOf(wren, drawing)).toEqual([])

  // Sent back by voice.
  await teacher.keyboard.press('s')
  const dialog = teacher.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Say it' }).click()
  await expect(dialog.getByRole('button', { name: /^Stop/ })).toBeVisible()
  await teacher.waitForTimeout(1500)
  await dialog.getByRole('button', { name: /^Stop/ }).click()
  await expect(dialog.getByRole('group', { name: 'What I say' })).toBeVisible()
  await dialog.getByRole('button', { name: 'Send', exact: false }).last().click()

  // The pupil has it at once: what was said, and what was written on the copy.
  await follow(wren, `/my-pieces/${drawing}`)
  await expect(wren.getByText('another go').first()).toBeVisible()
  await expect(wren.getByRole('img', { name: /with what Mr Adeyemi wrote on it/ })).toBeVisible()
  expect(await graveFaults(wren)).toEqual([])
  await wren.getByRole('button', { name: 'Without what Mr Adeyemi wrote' }).click()
  await expect(wren.getByRole('button', { name: 'What Mr Adeyemi wrote on it' })).toBeVisible()
  const own = (await pieceOf(wren, drawing)).parts[0]
  expect(own).toMatchObject({ kind: 'drawing' })

  // Made again and handed in: what was written stays with the first go.
  await wren.getByRole('button', { name: 'Go on with it' }).click()
  const again = new Paper(wren)
  await expect(again.canvas).toBeVisible()
  await again.draw(wave(90))
  await goOn(wren)
  while (!wren.url().endsWith('/tray')) await goOn(wren)
  await putInTray(wren)
  await expect.poll(async () => (await pieceOf(wren, drawing)).versions.length).toBe(2)
  const [second, first] = (await pieceOf(wren, drawing)).versions
  expect((await marksOf(wren, drawing)).map(({ versionId }) => versionId)).toEqual([first!.id])
  await follow(teacher, `/tray/${drawing}`)
  await expect(teacher.getByText('second go').first()).toBeVisible()
  await expect(teacher.getByRole('button', { name: /Without what/ })).toHaveCount(0)
  // The go before beside it, with what was written on it.
  await teacher.keyboard.press('v')
  await expect(teacher.getByRole('region', { name: /^First go, handed in/ })).toBeVisible()
  await expect(teacher.getByRole('region', { name: /^Second go, handed in/ })).toBeVisible()
  await expect(
    teacher
      .getByRole('region', { name: /^First go/ })
      .getByRole('button', { name: 'Without what Mr Adeyemi wrote' }),
  ).toBeVisible()
  expect(await graveFaults(teacher)).toEqual([])
  await teacher.keyboard.press('v')
  await expect(teacher.getByRole('region', { name: /^First go, handed in/ })).toHaveCount(0)
  await teacher.keyboard.press('a')
  await expect
    .poll(async () => (await pieceOf(wren, drawing)).versions[0]?.decision?.move)
    .toBe('approve')
  expect((await pieceOf(wren, drawing)).versions[0]!.id).toBe(second!.id)

  // At the very moment it is approved, its pupil takes another out: one of the two wins.
  const origin = new URL(teacher.url()).origin
  const { version: seenVersion } = await pieceOf(tomasz, kite)
  const headers = { Origin: origin }
  const [approved, withdrawn] = await Promise.all([
    teacher.request.post(`/api/review/pieces/${kite}`, {
      ...{ data: { move: 'approve', message: '', seenVersion }, headers },
    }),
    tomasz.request.post(`/api/pieces/${kite}/withdraw`, { data: { seenVersion }, headers }),
  ])
  expect([approved.status(), withdrawn.status()].sort()).toEqual([200, 409])
  const { state } = await pieceOf(tomasz, kite)
  const loser = approved.ok() ? withdrawn : approved
  // Whoever came second is told how it stands.
  expect(await loser.json()).toMatchObject({ state })
  expect(state).toBe(approved.ok() ? 'approved' : 'draft')

  // Another says something about theirs while it waits, and sees it shown.
  await follow(ifeoma, `/my-pieces/${gust}`)
  await ifeoma.getByRole('button', { name: 'Say something' }).click()
  await ifeoma.waitForURL('**/tell')
  await ifeoma.getByRole('textbox', { name: 'What I say' }).fill('It was louder.')
  await ifeoma.getByRole('button', { name: 'Send it' }).click()
  await ifeoma.waitForURL((url) => !url.pathname.endsWith('/tell'))
  await follow(teacher, '/tray/comments')
  const line = teacher.getByRole('listitem').filter({ hasText: 'It was louder.' })
  await line.getByRole('button', { name: 'Show it' }).click()
  await expect(ifeoma.getByText('Your teacher reads it first.')).toHaveCount(0)
  const { comments } = (await (
    await ifeoma.request.get(`/api/comments/pieces/${gust}`)
  ).json()) as Comments
  expect(comments).toMatchObject([{ words: 'It was louder.', state: 'shown' }])
})
