import type { Browser, Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { openSchool, startEmpty } from './apart.ts'
import { codesInPdf, scratch } from './materials.ts'
import { follow } from './people.ts'
import { expect, test } from './test.ts'

const NAMES = [
  'Wren',
  'Tomasz',
  'Ifeoma',
  'Bilal',
  'Aoife',
  'Yuki',
  'Mateus',
  'Freya',
  'Kofi',
  'Lena',
  'Omar',
  'Priya',
  'Jonas',
  'Maya',
  'Dylan',
  'Sofia',
  'Hamza',
  'Elin',
  'Noah',
  'Zuri',
  'Ivan',
  'Carys',
  'Ravi',
  'Tess',
  'Emre',
  'Nia',
  'Luca',
  'Ada',
  'Sami',
  'Wren',
]

/** Whether nothing lies on top of it, so that a tap in its middle is its own. */
function takesTaps(element: Element): boolean {
  element.scrollIntoView()
  const { x, y, width, height } = element.getBoundingClientRect()
  return element.contains(document.elementFromPoint(x + width / 2, y + height / 2))
}

test('on a phone, a teacher readies an empty school: year, thirty pupils, folders, a unit of tasks, parents', async ({
  browser,
}) => {
  const { at, stop } = await startEmpty()
  try {
    // What lies otherwise on a wide screen is looked at there by accessibility.spec.ts.
    await readyTheSchool(browser, { width: 390, height: 844 }, at)
  } finally {
    await stop()
  }
})

async function readyTheSchool(
  browser: Browser,
  viewport: { width: number; height: number },
  at: string,
): Promise<void> {
  const page = await (await browser.newContext({ viewport, baseURL: at })).newPage()
  await openSchool(page, at)
  await setTheYear(page)
  await makeTheClass(page)
  await fillTheClass(page)
  await chooseFolders(page)
  await setAUnit(page)
  await inviteParents(page)
  await tellTheClass(page)
  await seenByAPupil(browser, viewport, at, page)
}

async function centreOf(page: Page, name: string): Promise<{ x: number; y: number }> {
  const box = (await page.getByRole('button', { name }).boundingBox())!
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
}

const step = (page: Page, name: string) => page.getByRole('link', { name, exact: true })

/** The year as guessed, with a half-term; a year that overlaps itself is refused. */
async function setTheYear(page: Page): Promise<void> {
  await step(page, 'Put in the school year and its terms').click()
  await page.getByRole('button', { name: 'Add days' }).click()
  const closed = page.getByRole('group', { name: 'Half-term' })
  const year = Number((await page.getByLabel('First day').first().inputValue()).slice(0, 4))
  await closed.getByLabel('First day').fill(`${year}-10-30`)
  await closed.getByLabel('Last day').fill(`${year}-10-26`)
  await page.getByRole('button', { name: 'Keep the year' }).click()
  await expect(page.getByText('It ends before it starts.')).toBeVisible()
  await closed.getByLabel('First day').fill(`${year}-10-26`)
  await closed.getByLabel('Last day').fill(`${year}-10-30`)
  await page.getByRole('button', { name: 'Keep the year' }).click()
  await expect(
    page.getByRole('region', { name: `${year}/${String(year + 1).slice(2)}` }),
  ).toContainText('Half-term')
}

async function makeTheClass(page: Page): Promise<void> {
  await step(page, 'Make your class').click()
  await page.getByLabel('Name of the class').fill('Heron')
  await page.getByLabel(/^Year group/).fill('Year 3')
  await page.getByRole('button', { name: 'Make the class' }).click()
  await expect(page.getByRole('heading', { name: 'Heron, Year 3' })).toBeVisible()
}

/** Thirty names, two of them the same, one row bad; the same list again changes nothing. */
async function fillTheClass(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Add pupils' }).click()
  const list = ['First name\tLast name', ...NAMES.map((name) => `${name}\tShore`), '\tNobody'].join(
    '\n',
  )
  await page.getByLabel('Names').fill(list)
  await page.getByRole('button', { name: 'See what it does' }).click()
  await expect(page.getByText('30 pupils are new')).toBeVisible()
  await expect(page.getByText('line 32: There is no first name in this row.')).toBeVisible()
  await expect(page.getByText('Nothing has happened yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Take it over' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Yes, take all' }).click()
  await expect(page.getByText('Done. The list has been taken over.')).toBeVisible()
  await page.getByRole('button', { name: 'Another list' }).click()
  await page.getByLabel('Names').fill(list)
  await page.getByRole('button', { name: 'See what it does' }).click()
  await expect(page.getByText('30 pupils stay as they are')).toBeVisible()
  await page.getByRole('button', { name: 'To the class' }).click()
  await expect(page.getByRole('link', { name: 'Wren Shore', exact: true })).toHaveCount(2)

  // Pegs: exchanged by tapping two.
  await page.getByRole('button', { name: 'Pegs' }).click()
  await page.getByRole('button', { name: 'Peg of Ada Shore' }).click()
  await page.getByRole('button', { name: 'Peg of Bilal Shore' }).click()
  await expect(page.getByText('Ada Shore and Bilal Shore have exchanged pegs.')).toBeVisible()
  // Or by dragging one onto the other.
  const [from, to] = [
    await centreOf(page, 'Peg of Carys Shore'),
    await centreOf(page, 'Peg of Ada Shore'),
  ]
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 5 })
  await page.mouse.move(to.x, to.y, { steps: 5 })
  await page.mouse.up()
  await expect(page.getByText('Carys Shore and Ada Shore have exchanged pegs.')).toBeVisible()
  await page.getByRole('button', { name: 'Back' }).click()

  // The list goes out and is the same.
  await page.getByRole('button', { name: 'Settings of this class' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save the list (CSV)' }).click()
  const file = path.join(scratch(), 'list.csv')
  await (await download).saveAs(file)
  expect(readFileSync(file, 'utf8').trim().split('\r\n')).toHaveLength(31)
  await page.getByRole('switch', { name: 'Pupils may propose folders of their own' }).click()
  await expect(
    page.getByRole('switch', { name: 'Pupils may propose folders of their own' }),
  ).toBeChecked()
}

/** The ready set, and one of the teacher's own; moved up by keyboard. */
async function chooseFolders(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Folders' }).click()
  await page.getByRole('button', { name: 'Ready set for Heron' }).click()
  await expect(page.getByRole('button', { name: /^Number work/ })).toBeVisible()
  await page.getByRole('button', { name: 'New folder' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Rock pools')
  await page.getByLabel('Look for a symbol').fill('wav')
  await page.getByRole('radio', { name: 'waves' }).click()
  await page.getByLabel('Strand').selectOption({ label: 'Science' })
  await page.getByRole('switch', { name: 'Parents see what is in it' }).click()
  await page.getByRole('button', { name: 'Keep the folder' }).click()
  await expect(page.getByRole('button', { name: /^Rock pools/ })).toContainText(
    'parents do not see it',
  )
  await page.getByRole('button', { name: 'Change the order' }).click()
  const line = page.getByRole('button', { name: 'Move Rock pools' })
  await line.focus()
  await page.keyboard.press('Space')
  await expect(page.getByText(/^Rock pools is (taken, )?at place 7 of 7/)).toBeAttached()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(/^Rock pools is at place 6 of 7/)).toBeAttached()
  const kept = page.waitForResponse((response) => response.url().endsWith('/folders/order'))
  await page.keyboard.press('Space')
  const shelf = page.getByRole('button', { name: /Heron, 0 pieces/ })
  await page.getByRole('button', { name: 'Order is right' }).click()
  // It stands so at once, and still when the school has answered.
  for (const answered of [false, true]) {
    if (answered) expect((await kept).ok()).toBe(true)
    await expect(shelf).toHaveCount(7)
    await expect(shelf.nth(5)).toContainText('Rock pools')
  }
  await page.reload()
  await expect(shelf.nth(5)).toContainText('Rock pools')
}

async function setAUnit(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Tasks' }).click()
  await page.getByRole('button', { name: 'New unit' }).click()
  await page.getByLabel('Name of the unit').fill('Life on the shore')
  await page.getByRole('button', { name: 'Make the unit' }).click()
  const unit = page.getByRole('region', { name: 'Life on the shore' })
  await unit.getByRole('button', { name: 'New task' }).click()
  await page.getByLabel('Title').fill('Rock pool survey')
  await page.getByLabel('What to do').fill('Draw what you find in one pool. Count the legs.')
  await page.getByRole('button', { name: /^More: / }).click()
  await page.getByRole('button', { name: 'More photos' }).click()
  await page.getByRole('checkbox', { name: 'plan' }).click()
  await page.getByLabel('Folder', { exact: true }).selectOption({ label: 'Rock pools' })
  await page.getByRole('radio', { name: 'on a day' }).click()
  // A day without lessons is pointed out, and can be kept.
  const year = Number((await page.getByLabel('Day').inputValue()).slice(0, 4))
  await page.getByLabel('Day').fill(`${year + 1}-01-02`)
  await expect(page.getByText(/There are no lessons that day/)).toBeVisible()
  // Said in the teacher's own voice: the browser's pretended microphone.
  await page.getByRole('button', { name: 'Say it instead' }).click()
  await page.waitForTimeout(1500)
  await page.getByRole('button', { name: /^Stop, / }).click()
  await expect(page.getByRole('button', { name: 'Take out voice.webm' })).toBeVisible()
  await page.getByRole('button', { name: 'Set the task' }).click()
  await expect(page.getByRole('heading', { name: 'Rock pool survey' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Not handed in 30' })).toBeVisible()
  await page.getByRole('button', { name: 'Remind 30 pupils' }).click()
  await expect(page.getByText('It stands on their desks now.')).toBeVisible()
  await page.getByRole('button', { name: 'Copy' }).click()
  await page.getByLabel('Title').fill('Shore poem')
  // The message about the copy stands for seven seconds, and not in the way.
  await expect(page.getByText(/^Copied\./)).toBeVisible()
  const keepTask = page.getByRole('button', { name: 'Keep the task' })
  expect(await keepTask.evaluate(takesTaps)).toBe(true)
  await keepTask.click()
  await expect(page.getByRole('heading', { name: 'Shore poem' })).toBeVisible()
  await page.waitForURL(/\/tasks\/[0-9a-f-]+$/)
  await page.getByRole('link', { name: 'Tasks' }).click()
  await expect(unit.getByRole('article')).toHaveCount(2)
  await page.getByRole('button', { name: 'Use a unit again' }).click()
  await page.getByRole('button', { name: 'Copy the unit' }).click()
  await expect(page.getByRole('region', { name: 'Life on the shore' })).toHaveCount(2)
}

/**
 * One parent by mail, who is asked before a second child is shown to them; one by letter; consent
 * written down.
 */
async function inviteParents(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Class' }).click()
  for (const child of ['Aoife Shore', 'Bilal Shore']) {
    await page.getByRole('link', { name: child, exact: true }).click()
    await page.getByRole('button', { name: 'Administration' }).click()
    await page.getByRole('button', { name: 'Invite a parent' }).click()
    await page.getByLabel('First name of the parent').fill('Bryn')
    await page.getByLabel('E-mail address').fill('bryn@saltmarsh.example')
    await page.getByRole('button', { name: 'Invite', exact: true }).click()
    await expect(page.getByRole('article', { name: 'Bryn' })).toContainText(
      child.startsWith('Bilal') ? 'asked on their own page; waits for their yes' : 'invited until',
    )
    await page
      .getByRole('radiogroup', { name: 'Approved work is shared with the parents' })
      .getByRole('radio', { name: 'yes' })
      .click()
    await expect(page.getByText(/yes, written down by Ms Ray/)).toBeVisible()
    await follow(page, '/class')
  }
  await page.getByRole('link', { name: 'Carys Shore' }).click()
  await page.getByRole('button', { name: 'Administration' }).click()
  await page.getByRole('button', { name: 'Invite a parent' }).click()
  await page.getByLabel('First name of the parent').fill('Nerys')
  await page.getByRole('button', { name: 'Invite', exact: true }).click()
  await expect(page.getByText('The link for Nerys, shown this once:')).toBeVisible()
  const told = await page.getByText(/\/invitation\//).innerText()
  await page.getByRole('button', { name: 'I have it' }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Letter with a QR code (PDF)' }).click()
  const letter = path.join(scratch(), 'letter.pdf')
  await (await download).saveAs(letter)
  execFileSync('qpdf', ['--check', letter])
  const [code] = await codesInPdf(letter, 150)
  expect(code).not.toBe(told)
  for (const address of [code!, told]) {
    const parent = await parentAt(page, address)
    await expect(parent.getByRole('heading', { name: 'Carys' })).toBeVisible()
  }
  await theQuestionIsAnswered(page)
}

/** Opens an invitation as its parent does, in a browser of their own. */
async function parentAt(page: Page, address: string): Promise<Page> {
  const baseURL = new URL(page.url()).origin
  const context = await page
    .context()
    .browser()!
    .newContext({ viewport: page.viewportSize()!, baseURL })
  const parent = await context.newPage()
  await parent.goto(new URL(address).pathname)
  await parent.getByRole('button', { name: 'Open' }).click()
  return parent
}

/**
 * Without a mail server the letter is opened in the post box; its parent says themselves whose
 * parent they are.
 */
async function theQuestionIsAnswered(page: Page): Promise<void> {
  await follow(page, '/post-box')
  await expect(page.getByRole('heading', { name: /’s work at school/ })).toHaveCount(1)
  await expect(
    page.getByRole('heading', { name: 'A question from Saltmarsh Primary School' }),
  ).toHaveCount(1)
  await expect(page.getByText(/\/invitation\//)).toHaveCount(0)
  await page.getByRole('button', { name: 'Open the letter' }).last().click()
  await expect(page.getByRole('dialog')).toContainText('the teachers it concerns are told')
  await page.getByRole('dialog').getByRole('button', { name: 'Open the letter' }).click()
  const words = await page.getByText(/\/invitation\//).innerText()
  const parent = await parentAt(page, /https?:\S+/.exec(words)![0])
  await expect(parent.getByRole('heading', { name: 'Aoife' }).first()).toBeVisible()
  await expect(parent.getByText('Bilal', { exact: true })).toHaveCount(0)
  await expect(
    parent.getByRole('heading', {
      name: 'Ms Ray asks: is Bilal of Heron class your child as well?',
    }),
  ).toBeVisible()
  await parent.getByRole('button', { name: 'Yes, Bilal is mine' }).click()
  await parent.getByRole('tab', { name: 'Bilal' }).click()
  await expect(parent.getByRole('heading', { name: 'Bilal' }).first()).toBeVisible()
}

async function tellTheClass(page: Page): Promise<void> {
  await follow(page, '/class')
  await page.getByRole('button', { name: 'Notices' }).click()
  await page.getByRole('button', { name: 'New notice' }).click()
  await page.getByLabel('What you want to say').fill('Bring boots on Friday.')
  await page.getByRole('button', { name: 'Put it up' }).click()
  await expect(page.getByRole('button', { name: 'seen by 0 of 30' })).toBeVisible()
  await follow(page, '/class')
  await page.getByRole('button', { name: 'A piece for everyone' }).click()
  await page.getByRole('button', { name: 'Start one' }).click()
  await page.getByLabel('Name of the piece').fill('Our walk to the shore')
  await page.getByLabel('Folder', { exact: true }).selectOption({ label: 'Out and about' })
  await page.getByRole('button', { name: 'Start it for everyone' }).click()
  await expect(page.getByText('0 of 30 have put something in')).toBeVisible()
}

/** A pupil comes in with a new card, finds all of it, and answers. */
async function seenByAPupil(
  browser: Browser,
  viewport: { width: number; height: number },
  at: string,
  page: Page,
): Promise<void> {
  await follow(page, '/class')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Name cards (PDF)' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Print them' }).click()
  const sheet = path.join(scratch(), 'cards.pdf')
  await (await download).saveAs(sheet)
  // Thirty cards, and each says what it opens; a tablet's own camera leads to the door with it.
  const cards = await codesInPdf(sheet, 150)
  expect(new Set(cards).size).toBe(30)
  const camera = await (await browser.newContext({ viewport, baseURL: at })).newPage()
  const { pathname, hash } = new URL(cards[0]!)
  await camera.goto(`${pathname}${hash}`)
  await camera.getByRole('button', { name: 'Go to my desk' }).click()
  await camera.waitForURL('**/desk')
  await camera.goBack()
  expect(camera.url()).not.toContain(hash)

  await page.getByRole('link', { name: 'Aoife Shore' }).click()
  await page.getByRole('button', { name: 'Administration' }).click()
  await page.getByRole('button', { name: 'Make a new code' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Make a new code' }).click()
  const code = await page.getByText(/^([A-Z]{4} ){3}[A-Z]{4}$/).innerText()
  const pupil = await (await browser.newContext({ viewport, baseURL: at })).newPage()
  await pupil.goto('/sign-in')
  await pupil.getByRole('button', { name: 'Type the letters' }).click()
  await pupil.getByLabel('Letters on my card').fill(code)
  await pupil.getByRole('button', { name: 'Go to my desk' }).click()
  await expect(pupil.getByRole('region', { name: 'From my teacher' })).toContainText(
    'Bring boots on Friday.',
  )
  await pupil.getByRole('button', { name: 'I have seen it' }).click()
  await expect(pupil.getByRole('region', { name: 'From my teacher' })).toHaveCount(0)
  await expect(pupil.getByRole('button', { name: /Our walk to the shore/ })).toBeVisible()
  await pupil
    .getByRole('button', { name: /Rock pool survey/ })
    .first()
    .click()
  await expect(pupil.getByText('Your teacher asks for this.')).toBeVisible()
  // What the teacher said is drawn, begins where it is tapped, and is heard to its end.
  const place = pupil.getByRole('slider', { name: 'Where it is heard' })
  await expect(place).toBeVisible()
  await place.focus()
  await pupil.keyboard.press('End')
  await expect(place).toHaveAttribute('aria-valuenow', (await place.getAttribute('aria-valuemax'))!)
  await pupil.keyboard.press('Home')
  await expect(place).toHaveAttribute('aria-valuenow', '0')
  await pupil.getByRole('button', { name: 'Hear it' }).click()
  await expect(pupil.getByRole('button', { name: 'Stop it' })).toBeVisible()
  await expect(pupil.getByRole('button', { name: 'Hear it' })).toBeVisible()
  await expect(pupil.getByText('It should have: 1 photo')).toBeVisible()
  await pupil.getByRole('button', { name: 'I did this somewhere else' }).click()
  await expect(pupil.getByRole('button', { name: 'I have not done it after all' })).toBeVisible()
  await pupil.getByRole('link', { name: 'Folders' }).click()
  await pupil.getByRole('button', { name: 'A folder of my own' }).click()
  await pupil.getByLabel('Name', { exact: true }).fill('My dinosaurs')
  await pupil.getByRole('button', { name: 'Ask my teacher' }).click()
  await expect(pupil.getByText('waits for my teacher')).toBeVisible()

  await follow(page, '/folders')
  await expect(page.getByText('Aoife Shore would like a folder “My dinosaurs”')).toBeVisible()
  await page.getByRole('button', { name: 'Agree' }).click()
  await expect(page.getByRole('button', { name: /^My dinosaurs/ })).toBeVisible()
  await expect(pupil.getByText('waits for my teacher')).toHaveCount(0)
  await follow(page, '/class')
  await page.getByRole('button', { name: 'Notices' }).click()
  await page.getByRole('button', { name: 'seen by 1 of 30' }).click()
  await expect(
    page.getByRole('list', { name: 'Who has seen it' }).getByRole('listitem'),
  ).toHaveCount(30)
}
