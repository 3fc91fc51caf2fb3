import type { Page, Request } from '@playwright/test'
import { enterAsParent, enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { expect, test } from './test.ts'

// Every screen in the pseudo-language, whose messages are stretched by 40 % and stand between ⟦ and
// ⟧: what stands outside of them was never worded, what does not fit has no room to grow.

test.use({ locale: 'en-XA', viewport: { width: 390, height: 844 } })

/** What the school sent: names and titles that are nobody's words but their own. */
const sent = new Set<string>()
const reading: Promise<void>[] = []
const asked = new Set<Request>()
function listen(page: Page): void {
  page.on('request', (request) => {
    if (/\/api\/(?!live)/.test(request.url())) asked.add(request)
  })
  // Requests of a page that is left may never be heard of again.
  page.on('framenavigated', () => asked.clear())
  for (const end of ['requestfinished', 'requestfailed'] as const)
    page.on(end as 'requestfinished', (request) => asked.delete(request))
  page.on('response', (response) => {
    if (!/json/.test(response.headers()['content-type'] ?? '')) return
    reading.push(
      response.json().then(
        (body: unknown) => collect(body),
        () => undefined,
      ),
    )
  })
}
function collect(value: unknown): void {
  if (typeof value === 'string') {
    // Codes are not meant to be shown.
    if (value.length > 1 && !/^[a-z0-9-]+$/.test(value)) sent.add(value)
  } else if (typeof value === 'object' && value !== null) Object.values(value).forEach(collect)
}

const DATES =
  /\b(Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day\b|\b(January|February|March|April|May|June|July|August|September|October|November|December)\b/g
/** Names of things that are the same in every language. */
const NAMES = /\bNibquill\b|\b(CSV|PDF|OneRoster|QR|Esc)\b/g

function unworded(text: string): string {
  let rest = text
  for (let before = ''; before !== rest;) {
    before = rest
    rest = rest.replace(/⟦[^⟦⟧]*⟧/g, ' ')
  }
  for (const known of [...sent].sort((a, b) => b.length - a.length))
    rest = rest.replaceAll(known, ' ')
  return rest.replace(DATES, ' ').replace(NAMES, ' ')
}

/** Every piece of text a person reads or is read, and whether all of it can be seen. */
function readPage() {
  const texts: { text: string; cut: boolean }[] = []
  const shown = (element: Element) => {
    const { width, height } = element.getBoundingClientRect()
    return width > 2 && height > 2 && getComputedStyle(element).visibility === 'visible'
  }
  const isCut = (node: Node): boolean => {
    const range = document.createRange()
    range.selectNodeContents(node)
    const text = range.getBoundingClientRect()
    // What scrolls shows the rest when it is wanted.
    let [across, down] = [true, true]
    for (let at = node.parentElement; at; at = at.parentElement) {
      const { overflowX, overflowY } = getComputedStyle(at)
      const box = at.getBoundingClientRect()
      // A shelf may be pushed sideways, a page may not.
      const isShelf = at.scrollHeight <= at.clientHeight + 1
      across &&= !(/auto|scroll/.test(overflowX) && isShelf)
      down &&= !/auto|scroll/.test(overflowY)
      if (
        across &&
        overflowX !== 'visible' &&
        (text.right > box.right + 2 || text.left < box.left - 2)
      )
        return true
      if (
        down &&
        overflowY !== 'visible' &&
        (text.bottom > box.bottom + 3 || text.top < box.top - 3)
      )
        return true
    }
    return across && text.right > window.innerWidth + 2
  }
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const parent = node.parentElement!
    const text = node.textContent!.trim()
    // What stands in a field somebody has typed.
    if (text === '' || /^(SCRIPT|STYLE|NOSCRIPT|TEXTAREA)$/.test(parent.tagName) || !shown(parent))
      continue
    texts.push({ text, cut: text.includes('⟦') && isCut(node) })
  }
  for (const element of Array.from(
    document.querySelectorAll('[aria-label], [placeholder], [aria-valuetext]'),
  ))
    for (const name of ['aria-label', 'placeholder', 'aria-valuetext']) {
      const text = element.getAttribute(name)
      if (text) texts.push({ text, cut: false })
    }
  return texts
}

async function expectWorded(page: Page, what: string): Promise<void> {
  await expect(page.getByRole('status', { name: /Jú/ })).toHaveCount(0)
  await expect(page.getByText('⟦').first()).toBeVisible()
  // Nothing more comes, and what came is drawn.
  for (let quiet = 0; quiet < 3; quiet = asked.size === 0 ? quiet + 1 : 0)
    await page.waitForTimeout(100)
  const texts = await page.evaluate(readPage)
  await Promise.all(reading)
  expect
    .soft(
      texts.map(({ text }) => text).filter((text) => /\p{Letter}{2}/u.test(unworded(text))),
      `${what}: not worded`,
    )
    .toEqual([])
  expect
    .soft(
      texts.filter(({ cut }) => cut).map(({ text }) => text),
      `${what}: cut off`,
    )
    .toEqual([])
  const sideways = await page.evaluate(
    () => document.documentElement.scrollWidth > window.innerWidth,
  )
  expect.soft(sideways, `${what} scrolls sideways`).toBe(false)
}

async function visitAll(page: Page, addresses: readonly string[]): Promise<void> {
  for (const address of addresses) {
    await follow(page, address)
    await expectWorded(page, address)
  }
}

type Listed = { id: string; state: string; mine?: boolean; cover?: { kind: string } | null }
async function listOf(page: Page, path: string): Promise<Listed[]> {
  const body = (await (await page.request.get(path)).json()) as Listed[] | { pieces: Listed[] }
  return Array.isArray(body) ? body : body.pieces
}

test('the door and a pupil’s screens', async ({ page }) => {
  listen(page)
  await page.goto('/sign-in')
  await visitAll(page, ['/sign-in', '/sign-in?who=adult', '/sign-in?who=parent'])
  await visitAll(page, ['/invitation/nothing-behind-this-link', '/p/nothing-behind-this-link'])
  await enterAsPupil(page, 'Wren', '/desk')
  await visitAll(page, [
    '/desk',
    '/my-folders',
    '/my-folders/new',
    '/my-portfolio',
    '/my-news',
    '/make',
    '/write',
    '/say',
  ])
  const [task] = await listOf(page, '/api/tasks')
  await visitAll(page, [`/my-tasks/${task!.id}`])
  const pieces = await listOf(page, '/api/pieces')
  // One of each kind in each state: the others say the same.
  const each = new Map(pieces.map((piece) => [`${piece.state} ${piece.cover?.kind}`, piece]))
  await visitAll(
    page,
    [...each.values()].map(({ id }) => `/my-pieces/${id}`),
  )
  const draft = pieces.find(({ state }) => state === 'draft')!
  const making = `/my-pieces/${draft.id}`
  await visitAll(page, [
    `${making}/what`,
    `${making}/thoughts`,
    `${making}/tray`,
    `${making}/photo`,
    `${making}/tell`,
    `${making}/tell?just=1`,
    `${making}/tell?think=1`,
    `${making}/keep`,
  ])
  const { parts } = (await (await page.request.get(`/api/pieces/${draft.id}`)).json()) as {
    parts: { id: string }[]
  }
  const part = `${making}/parts/${parts[0]!.id}`
  await visitAll(page, [part, `${part}/tidy`])
})

test('a teacher’s screens', async ({ page }) => {
  listen(page)
  await enterAsTeacher(page)
  const classes = await listOf(page, '/api/school/classes')
  const { id: classId } = classes.find(({ mine }) => mine)!
  await visitAll(page, ['/tray', '/tray/drafts', '/tray/second-looks', '/tray/comments', '/class'])
  await visitAll(
    page,
    ['door', 'pegs', 'secrets', 'list'].map((name) => `/class/${name}?classId=${classId}`),
  )
  await visitAll(page, ['/tasks', '/tasks/edit/new', '/folders', '/folders/edit/new'])
  await visitAll(page, ['/year', '/year/new', '/class/new', '/class/list', '/staff', '/strands'])
  await visitAll(page, ['/roll-over', '/post-box', '/notices', '/for-everyone', '/account'])
  const [waiting] = await listOf(page, '/api/review/tray')
  const [task] = await listOf(page, '/api/tasks')
  const [folder] = await listOf(page, '/api/folders')
  await visitAll(page, [`/tray/${waiting!.id}`, `/tasks/${task!.id}`, `/tasks/edit/${task!.id}`])
  await visitAll(page, [`/folders/${folder!.id}`, `/folders/edit/${folder!.id}`])
  await follow(page, '/class')
  await page.getByRole('link', { name: 'Wren A.' }).click()
  await expectWorded(page, 'pupil page')
  const { pathname } = new URL(page.url())
  await visitAll(page, [`${pathname}/administration`, `${pathname}?show=portfolio`])
})

test('a parent’s screen', async ({ page }) => {
  listen(page)
  await enterAsParent(page, /⟦/)
  await expectWorded(page, 'family')
})
