import type { Comments, Folder, InvitedParent, Piece } from '@nibquill/contract'
import type { Page } from '@playwright/test'
import { v7 as newId } from 'uuid'
import { graveFaults } from './axe.ts'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { pieceOf, written } from './pieces.ts'
import { expect, test } from './test.ts'

const TABLET = { width: 820, height: 1180 }
test.use({ viewport: TABLET })

const ask = async (
  page: Page,
  method: 'put' | 'post' | 'delete',
  address: string,
  data: object,
): Promise<unknown> => {
  const headers = { Origin: new URL(page.url()).origin }
  const answer = await page.request[method](`/api${address}`, { data, headers })
  expect(answer.status()).toBe(200)
  return answer.json()
}
const piecesIn = async (page: Page, name: string): Promise<number> => {
  const folders = (await (await page.request.get('/api/folders')).json()) as Folder[]
  return folders.find((folder) => folder.name === name)!.pieceCount
}

test('what two made together: each keeps it in a folder of their own, and says what they think of it; the teacher shows it, the family reads it', async ({
  page: tomasz,
  another,
}) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'heron', '/tray/comments')
  const wren = await another(TABLET)
  await enterAsPupil(wren, 'Wren')
  await enterAsPupil(tomasz, 'Tomasz')
  const id = await written(wren, 'Two kites', 'draft')
  const mates = (await (await wren.request.get('/api/pieces/classmates')).json()) as {
    id: string
    firstName: string
  }[]
  const mate = mates.find(({ firstName }) => firstName === 'Tomasz')!
  await ask(wren, 'put', `/pieces/${id}/makers`, { makerIds: [mate.id] })
  const draft: Piece = await pieceOf(wren, id)
  await ask(wren, 'post', `/pieces/${id}/hand-in`, { seenVersion: draft.version })
  const { version: seenVersion } = await pieceOf(wren, id)
  const approve = { move: 'approve', message: '', seenVersion }
  await ask(teacher, 'post', `/review/pieces/${id}`, approve)

  // On Tomasz's shelf it lies where he likes, and on Wren's where it was.
  const [before, wrens] = [
    await piecesIn(tomasz, 'Bread and clay'),
    await piecesIn(wren, 'Wind poems'),
  ]
  await follow(tomasz, `/my-pieces/${id}`)
  await expect(tomasz.getByText('I keep it in Wind poems.')).toBeVisible()
  expect(await graveFaults(tomasz)).toEqual([])
  await tomasz.getByRole('button', { name: 'Keep it in another folder' }).click()
  await tomasz.waitForURL('**/keep')
  expect(await graveFaults(tomasz)).toEqual([])
  await expect(tomasz.getByRole('radio', { name: /Wind poems/ })).toBeChecked()
  await tomasz.getByRole('radio', { name: /Bread and clay/ }).click()
  await expect(tomasz.getByText('I keep it in Bread and clay.')).toBeVisible()
  expect([await piecesIn(tomasz, 'Bread and clay'), await piecesIn(wren, 'Wind poems')]).toEqual([
    ...[before + 1, wrens],
  ])
  await tomasz.getByRole('button', { name: 'Undo' }).click()
  await expect(tomasz.getByText('I keep it in Wind poems.')).toBeVisible()
  expect(await piecesIn(tomasz, 'Bread and clay')).toBe(before)

  // Wren thinks of it for herself, also without a network.
  await follow(wren, `/my-pieces/${id}`)
  await wren.getByRole('button', { name: 'What I think of it' }).waitFor()
  await wren.context().setOffline(true)
  await wren.getByRole('button', { name: 'What I think of it' }).click()
  await wren.waitForURL('**/tell**')
  expect(await graveFaults(wren)).toEqual([])
  await wren.getByRole('textbox', { name: 'I think' }).fill('My kite is the brave one.')
  await wren.getByRole('button', { name: 'Send it' }).click()
  await wren.context().setOffline(false)
  const line = teacher.getByRole('listitem').filter({ hasText: 'My kite is the brave one.' })
  await expect(line.getByText(/^thinks about their part/)).toBeVisible()
  await line.getByRole('button', { name: 'Show it' }).click()
  await expect(line).toHaveCount(0)
  const said = (await (await tomasz.request.get(`/api/comments/pieces/${id}`)).json()) as Comments
  expect(said.comments).toMatchObject([{ words: 'My kite is the brave one.', thoughts: true }])

  // A parent of hers who has just been invited: others may have lost their way in by now.
  const family = `/sharing/pupils/${draft.pupil.id}/parents/${newId()}`
  const invited = { firstName: 'Rowan', lastName: 'A.', email: null }
  const { address } = (await ask(teacher, 'put', family, invited)) as InvitedParent
  const parent = await another({ width: 390, height: 844 })
  await parent.goto(new URL(address!).pathname)
  await parent.getByRole('button', { name: 'Open' }).click()
  await parent.waitForURL('**/family')
  const theirs = parent.getByRole('region', { name: 'Say something about it' })
  await expect(theirs.getByText('My kite is the brave one.').first()).toBeVisible()
  expect(await graveFaults(parent)).toEqual([])
  await ask(teacher, 'delete', family, {})
})
