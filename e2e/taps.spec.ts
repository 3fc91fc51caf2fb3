import type { Locator, Page } from '@playwright/test'
import { enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

const PHONE = { width: 390, height: 844 }
test.use({ viewport: PHONE })

/** Between two taps of a child, in milliseconds: a nervous finger, and one that saw nothing happen. */
const GAPS = [0, 150, 800]
const idIn = (page: Page): string => /my-pieces\/([^/?]+)/.exec(page.url())![1]!

/**
 * Two taps at the same place, whatever lies there by then. The second comes from inside the page, so
 * that the gap is one of its own clock: a machine that is busy elsewhere does not make it longer.
 */
async function tapTwice(button: Locator, gapMs: number): Promise<void> {
  // Where it stays.
  await button.click({ trial: true })
  const box = (await button.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const page = button.page()
  await page.evaluate(
    ([x, y, gapMs]) => {
      const tapAgain = () => {
        const on = document.elementFromPoint(x, y) ?? document.body
        const at = { bubbles: true, cancelable: true, composed: true, clientX: x, clientY: y }
        const pointer = { ...at, pointerType: 'touch', isPrimary: true, pointerId: 7 }
        on.dispatchEvent(new PointerEvent('pointerdown', { ...pointer, buttons: 1 }))
        on.dispatchEvent(new MouseEvent('mousedown', { ...at, detail: 1, buttons: 1 }))
        on.dispatchEvent(new PointerEvent('pointerup', pointer))
        on.dispatchEvent(new MouseEvent('mouseup', { ...at, detail: 1 }))
        on.dispatchEvent(new PointerEvent('click', { ...pointer, detail: 1 }))
        document.documentElement.dataset.tapped = 'twice'
      }
      delete document.documentElement.dataset.tapped
      const first = { capture: true, once: true }
      window.addEventListener('click', () => setTimeout(tapAgain, gapMs), first)
    },
    [x, y, gapMs] as const,
  )
  await page.mouse.click(x, y)
  await page.waitForSelector('html[data-tapped=twice]', { state: 'attached' })
}

const footOf = (page: Page, name: string) => page.getByRole('button', { name, exact: true })

test('a task is handed in by four taps: begin, shoot, go on, into the tray', async ({ page }) => {
  await enterAsPupil(page, 'Wren')
  await page.getByRole('region', { name: 'To do' }).getByText('Write your wind poem').click()
  let taps = 0
  const tap = async (name: string) => {
    taps++
    const button = page.getByRole('button', { name, exact: true })
    await expect(button).toBeEnabled()
    // A person takes longer than a test: what moves under a finger within a second is not meant.
    await page.waitForTimeout(1100)
    await button.click()
  }
  await tap('Start with a photo')
  await tap('Take the photo')
  await expect(page.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await tap('Go on')
  await expect(page.getByText('It goes into Wind poems')).toBeVisible()
  await tap('Put it in the tray')
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  expect(taps).toBe(4)
  const piece = await pieceOf(page, idIn(page))
  expect(piece.versions[0]?.title).toMatch(/^Write your wind poem/)
})

test('a task that asks what one thinks has one screen more', async ({ page }) => {
  await enterAsPupil(page, 'Tomasz')
  const task = await page.evaluate(async () => {
    const tasks = (await (await fetch('/api/tasks')).json()) as {
      id: string
      asksThoughts: boolean
    }[]
    return tasks.find(({ asksThoughts }) => asksThoughts)!
  })
  await follow(page, `/make?taskId=${task.id}`)
  await expect(page.getByRole('button', { name: 'Take the photo' })).toBeEnabled()
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await footOf(page, 'Go on').click()
  await expect(page.getByRole('heading', { name: 'What do you think?' })).toBeVisible()
  // What is only begun is not handed in.
  await page.getByRole('button', { name: 'I would change...' }).click()
  await footOf(page, 'Go on').click()
  await footOf(page, 'Put it in the tray').click()
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  expect((await pieceOf(page, idIn(page))).versions[0]?.reflection).toBe('')
})

test('two taps hand in once, and never take out again, however far apart', async ({ page }) => {
  await enterAsPupil(page, 'Aoife', '/make')
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await footOf(page, 'Go on').click()
  await page.getByLabel('Name of my piece').fill('Tapped twice')
  await footOf(page, 'Go on').click()
  await footOf(page, 'Go on').click()
  const id = idIn(page)
  await page.getByRole('radio').first().click()
  for (const [i, gap] of GAPS.entries()) {
    await page.goto(`/my-pieces/${id}/tray`)
    await tapTwice(footOf(page, 'Put it in the tray'), gap)
    await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
    await page.waitForTimeout(400)
    const piece = await pieceOf(page, id)
    expect([gap, piece.state, piece.versions.length]).toEqual([gap, 'submitted', i + 1])
    await page.getByRole('button', { name: 'Take it out of the tray' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Take it out' }).click()
    await expect(footOf(page, 'Go on with it')).toBeVisible()
  }
})

test('at every foot on the way two taps go one step', async ({ page }) => {
  const gaps = [120, 500]
  // A nervous finger and a slow one by turns: what keeps a foot from both is one and the same.
  const steps: { from: string; tap: string; to: string }[] = [
    { from: '/photo', tap: 'Go on', to: '/what' },
    { from: '/what', tap: 'Go on', to: '/thoughts' },
    { from: '/thoughts', tap: 'Go on', to: '/tray' },
    { from: '', tap: 'Go on with it', to: '/what' },
    { from: '', tap: 'Photo', to: '/photo' },
    { from: '', tap: 'Write', to: '/write' },
  ]
  await enterAsPupil(page, 'Wren', '/make')
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await footOf(page, 'Go on').click()
  await expect(page.getByLabel('Name of my piece')).toBeVisible()
  const id = idIn(page)
  for (const [i, { from, tap, to }] of steps.entries()) {
    const gap = gaps[i % 2]!
    await page.goto(`/my-pieces/${id}${from}`)
    await tapTwice(footOf(page, tap), gap)
    await page.waitForTimeout(900)
    expect([from, gap, new URL(page.url()).pathname]).toEqual([from, gap, `/my-pieces/${id}${to}`])
  }
  // Nothing was thrown away, handed in or added on the way.
  expect(await pieceOf(page, id)).toMatchObject({ state: 'draft', parts: [{ kind: 'photo' }] })
})

test('what has just come to look ready answers a tap of that very moment', async ({ page }) => {
  await enterAsPupil(page, 'Wren', '/make')
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await footOf(page, 'Go on').click()
  await expect(page.getByLabel('Name of my piece')).toBeVisible()
  const id = idIn(page)
  await page.goto(`/my-pieces/${id}/photo`)
  await footOf(page, 'Go on').click()
  await expect(page.getByLabel('Name of my piece')).toBeVisible()
  await expect(footOf(page, 'Go on')).toBeDisabled()
  await footOf(page, 'Go on').evaluate(
    (button: HTMLElement) =>
      new Promise<void>((done) => {
        new MutationObserver(() => {
          if (button.ariaDisabled === 'true') return
          button.click()
          done()
        }).observe(button, { attributeFilter: ['aria-disabled'] })
      }),
  )
  await expect(page.getByRole('heading', { name: 'What do you think?' })).toBeVisible()
})

test('two taps on a decision decide one piece', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await enterAsTeacher(page)
  const waiting = async () =>
    Number(/(\d+) waiting/.exec(await page.getByText(/\d+ waiting/).innerText())![1])
  await expect(page.getByText(/\d+ waiting/)).toBeVisible()
  const before = await waiting()
  for (const [i, gap] of [60, 400].entries()) {
    await tapTwice(page.getByRole('button', { name: /^Approve into/ }), gap)
    await expect.poll(waiting).toBe(before - 1 - i)
    await page.waitForTimeout(1100)
    expect(await waiting()).toBe(before - 1 - i)
  }
})
