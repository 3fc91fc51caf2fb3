import type { ChildWork, Comments } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { graveFaults } from './axe.ts'
import { enterAsParent, enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { written } from './pieces.ts'
import { expect, test } from './test.ts'

const TABLET = { width: 820, height: 1180 }
const PHONE = { width: 390, height: 844 }
test.use({ viewport: TABLET })

const said = (page: Page) => page.getByRole('region', { name: 'What was said' })
const under = (page: Page) => page.getByRole('region', { name: 'Said about it' })
const commentsOf = async (page: Page, id: string) =>
  (await (await page.request.get(`/api/comments/pieces/${id}`)).json()) as Comments

/** Types something on the screen one came to, and sends it. */
async function tell(page: Page, words: string): Promise<void> {
  await page.waitForURL('**/tell**')
  await page.getByRole('textbox', { name: 'What I say' }).fill(words)
  await page.getByRole('button', { name: 'Send it' }).click()
  await page.waitForURL((url) => !url.pathname.endsWith('/tell'))
}

test('a pupil says something without a network; it arrives, waits, is shown, and the teacher answers: both see it at once', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Tomasz')
  const id = await written(page, 'The wind and my kite', 'tray')
  const teacher = await another()
  await enterAsTeacher(teacher, 'heron', '/tray/comments')
  await expect(teacher.getByRole('heading', { name: 'Comments that wait' })).toBeVisible()

  await follow(page, `/my-pieces/${id}`)
  await expect(page.getByRole('button', { name: 'Just to my teacher' })).toBeVisible()
  await page.context().setOffline(true)
  await page.getByRole('button', { name: 'Say something' }).click()
  await tell(page, 'The kite is mine.')
  await expect(said(page).getByText('The kite is mine.')).toBeVisible()
  await expect(said(page).getByText('Goes to school by itself.')).toBeVisible()
  await page.context().setOffline(false)
  await expect(said(page).getByText('Your teacher reads it first.')).toBeVisible()
  expect(await graveFaults(page)).toEqual([])

  // It comes to the teacher's list by itself.
  const line = teacher.getByRole('listitem').filter({ hasText: 'The kite is mine.' })
  await expect(line).toBeVisible()
  expect(await graveFaults(teacher)).toEqual([])
  await line.getByRole('button', { name: 'Answer' }).click()
  const dialog = teacher.getByRole('dialog')
  await dialog.getByRole('textbox', { name: 'Your answer' }).fill('I can see it is.')
  await dialog.getByRole('button', { name: 'Answer and show' }).click()
  await expect(line).toHaveCount(0)
  await expect(said(page).getByText('I can see it is.')).toBeVisible()
  await expect(said(page).getByText('Your teacher reads it first.')).toHaveCount(0)
  // What was shown is taken back by a tap, and waits no more: it is hidden.
  await teacher.getByRole('button', { name: 'Undo' }).click()
  await expect(
    said(page).getByText('Your teacher has hidden this. Nobody else sees it.'),
  ).toBeVisible()

  await follow(page, '/my-news')
  const news = page.getByRole('list', { name: 'News' }).getByRole('link', {
    name: /^Mr Adeyemi said something about The wind and my kite/,
  })
  await expect(news.first()).toBeVisible()
  expect(await graveFaults(page)).toEqual([])
  await news.first().click()
  await expect(page).toHaveURL(new RegExp(id))
})

test('what was typed and not sent is there again; hidden with a reason, its author reads why', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Wren')
  const id = await written(page, 'A loud gust', 'tray')
  await follow(page, `/my-pieces/${id}`)
  await page.getByRole('button', { name: 'Say something' }).click()
  await page.waitForURL('**/tell')
  await page.getByRole('textbox', { name: 'What I say' }).fill('Tomasz copied this rubbish.')
  await page.getByRole('button', { name: 'Back' }).click()
  await page.waitForURL(`**/${id}`)
  await page.getByRole('button', { name: 'Say something' }).click()
  await page.waitForURL('**/tell')
  await expect(page.getByRole('textbox', { name: 'What I say' })).toHaveValue(
    'Tomasz copied this rubbish.',
  )
  await page.getByRole('button', { name: 'Send it' }).click()

  const teacher = await another()
  await enterAsTeacher(teacher)
  await teacher.getByRole('link', { name: /^\d+ comments?$/ }).click()
  const line = teacher.getByRole('listitem').filter({ hasText: 'Tomasz copied this rubbish.' })
  await expect(line.getByText('On the school’s word list: rubbish')).toBeVisible()
  await line.getByRole('button', { name: 'Hide it' }).click()
  const dialog = teacher.getByRole('dialog')
  await dialog.getByRole('textbox').fill('Come and tell me instead.')
  await dialog.getByRole('button', { name: 'Hide it' }).click()
  await expect(line).toHaveCount(0)
  await expect(
    said(page).getByText('Your teacher has hidden this: “Come and tell me instead.”'),
  ).toBeVisible()
})

test('a private word goes between a pupil and their teacher, and to nobody else', async ({
  page,
  another,
}) => {
  await enterAsPupil(page, 'Wren')
  const id = await written(page, 'A quiet wind', 'tray')
  await follow(page, `/my-pieces/${id}`)
  await page.getByRole('button', { name: 'Just to my teacher' }).click()
  await expect(page.getByText('Only Mr Adeyemi and you will see it.')).toBeVisible()
  await tell(page, 'I was sad when I wrote it.')
  const mine = page.getByRole('group', { name: 'Just Mr Adeyemi and me' })
  await expect(mine.getByText('I was sad when I wrote it.')).toBeVisible()

  const teacher = await another()
  await enterAsTeacher(teacher)
  await teacher
    .getByRole('link', { name: /^Wren said something just to you, on “A quiet wind”/ })
    .click()
  const theirs = under(teacher).getByRole('group', { name: 'Just Wren and me' })
  await expect(theirs.getByText('I was sad when I wrote it.')).toBeVisible()
  // By keyboard: C, the words, and who reads them.
  await teacher.keyboard.press('c')
  await expect(teacher.getByRole('textbox', { name: 'Say something about it' })).toBeFocused()
  await teacher.keyboard.type('Thank you for telling me.')
  await under(teacher).getByRole('tab', { name: 'Just Wren' }).click()
  await expect(
    under(teacher).getByText('A private word: nobody but Wren and you reads it.'),
  ).toBeVisible()
  expect(await graveFaults(teacher)).toEqual([])
  await under(teacher).getByRole('button', { name: 'Say it', exact: true }).click()
  await expect(mine.getByText('Thank you for telling me.')).toBeVisible()
  expect((await commentsOf(teacher, id)).comments).toEqual([])
})

test('a parent says something on a phone; the teacher answers the parent, and the child reads only what was shown', async ({
  page,
  another,
}) => {
  const parent = await another(PHONE)
  await enterAsParent(parent)
  await parent.getByRole('tab', { name: 'Wren' }).click()
  await parent.getByRole('button', { name: 'Say something about it' }).click()
  const field = parent.getByRole('textbox', { name: 'Say something about it' })
  await field.fill('We hung it in the kitchen.')
  await parent.getByRole('button', { name: 'Send to school' }).click()
  const theirs = parent.getByRole('region', { name: 'Say something about it' })
  await expect(theirs.getByText('Waits for the teacher, who reads it first.').last()).toBeVisible()
  expect(await graveFaults(parent)).toEqual([])

  const { children } = {
    children: (await (await parent.request.get('/api/sharing/children')).json()) as {
      id: string
      firstName: string
    }[],
  }
  const wren = children.find(({ firstName }) => firstName === 'Wren')!
  const { newest } = (await (
    await parent.request.get(`/api/sharing/children/${wren.id}`)
  ).json()) as ChildWork
  await enterAsPupil(page, 'Wren', `/my-pieces/${newest!.id}`)
  await expect(page.getByRole('button', { name: 'Say something' })).toBeVisible()
  await expect(page.getByText('We hung it in the kitchen.')).toHaveCount(0)

  const teacher = await another()
  await enterAsTeacher(teacher, 'heron', '/tray/comments')
  const line = teacher.getByRole('listitem').filter({ hasText: 'We hung it in the kitchen.' })
  await line.getByRole('button', { name: 'Answer' }).click()
  await teacher.getByRole('dialog').getByRole('textbox').fill('How lovely. Thank you.')
  await teacher.getByRole('dialog').getByRole('button', { name: 'Answer and show' }).click()
  await expect(theirs.getByText('How lovely. Thank you.')).toBeVisible()
  await expect(said(page).getByText('We hung it in the kitchen.')).toBeVisible()
  await expect(page.getByText('How lovely. Thank you.')).toHaveCount(0)
})

test('whoever leads the school keeps the word list, and reads private words only with a reason', async ({
  page,
}) => {
  await enterAsTeacher(page, 'heron', '/year')
  const list = page.getByRole('region', { name: 'Words to look at twice' })
  const field = list.getByRole('textbox', { name: 'One a line' })
  await field.fill(`${await field.inputValue()}\nbarnacle*`)
  await list.getByRole('button', { name: 'Keep it' }).click()
  await expect(list.getByRole('button', { name: 'Keep it' })).toHaveCount(0)
  await page.reload()
  await expect(field).toHaveValue(/barnacle\*$/)

  await follow(page, '/class')
  await page.getByRole('link', { name: 'Wren A.' }).first().click()
  await page.getByRole('button', { name: 'Administration' }).click()
  const box = page.getByRole('region', { name: 'Private words' })
  await expect(box.getByRole('button', { name: 'Read them' })).toBeDisabled()
  await box.getByRole('textbox', { name: 'Why it has to be read' }).fill('A worry was passed on.')
  await box.getByRole('button', { name: 'Read them' }).click()
  await expect(box.getByText('Of course. Come to me at break.')).toBeVisible()
})
