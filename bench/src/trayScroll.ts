import { startServer } from '@nibquill/server'
import { chromium, type Page } from '@playwright/test'
import path from 'node:path'
import pg from 'pg'
import { line, type Line } from './measure.ts'
import { benchConfig, makeOwner } from './school.ts'
import { fill } from './tray.ts'

const WAITING = 2_000
/** Of a list's height, at each frame: as a hand flings it. */
const STEP = 0.8
const CLIENT = path.resolve(import.meta.dirname, '../../client/dist')

/**
 * A tray in which 2,000 pieces wait, all of it scrolled through in Chromium: how long a frame takes
 * against a list of plain lines as long, and how often the place under the eye was empty.
 */
export async function benchTrayScroll(): Promise<Line[]> {
  const { config, stop } = await benchConfig('tray_scroll')
  const server = await startServer({ ...config, clientFolder: CLIENT })
  const teacherId = await makeOwner(server)
  const filler = new pg.Client({ connectionString: config.databaseUrl })
  await filler.connect()
  await fill((sql, parameters) => filler.query(sql, parameters), teacherId, WAITING, WAITING)
  await filler.end()
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  try {
    const context = await browser.newContext({
      ...{ baseURL: server.url, serviceWorkers: 'block', viewport: { width: 1280, height: 800 } },
    })
    const page = await context.newPage()
    await page.request.post('/api/accounts/sign-in/password', {
      data: { email: 'a@saltmarsh.example', password: 'a long enough password' },
      headers: { Origin: server.url },
    })
    await page.goto('/tray')
    await page.getByText(`${WAITING.toLocaleString('en-GB')} waiting`).waitFor()
    await loadAll(page)
    const tray = await scrollThrough(page)
    await page.setContent(PLAIN)
    const plain = await scrollThrough(page)
    return [
      line('tray of 2,000: a frame while it is scrolled, p95', tray.p95, plain.p95, 'ms', '<=', 3),
      line('tray of 2,000: looks at which nothing stood there', tray.empty, 1, 'looks', '<=', 0),
    ]
  } finally {
    await browser.close()
    await server.close()
    await stop()
  }
}

/** To the end again and again, until nothing more comes. */
async function loadAll(page: Page): Promise<void> {
  const more = page.getByRole('button', { name: 'Show more' })
  for (let turn = 0; (await more.count()) > 0; turn++) {
    if (turn > WAITING) throw new Error('the list does not end')
    await page.evaluate(`${LONGEST}; list.scrollTop = list.scrollHeight - ${turn % 2}`)
    await page.waitForTimeout(50)
  }
}

/** The element that scrolls furthest. */
const LONGEST = `var list = [...document.querySelectorAll('*')]
  .filter((one) => ['auto', 'scroll'].includes(getComputedStyle(one).overflowY))
  .reduce((most, one) => (one.scrollHeight > most.scrollHeight ? one : most))`

async function scrollThrough(page: Page): Promise<{ p95: number; empty: number }> {
  const { times, empty } = (await page.evaluate(`(async () => {
    ${LONGEST}
    const frame = () => new Promise(requestAnimationFrame)
    list.scrollTop = 0
    for (let i = 0; i < 5; i++) await frame()
    const times = []
    let empty = 0
    const box = list.getBoundingClientRect()
    while (list.scrollTop + list.clientHeight < list.scrollHeight - 2) {
      const began = performance.now()
      list.scrollTop += list.clientHeight * ${STEP}
      await frame()
      await frame()
      times.push(performance.now() - began)
      for (const share of [0.2, 0.5, 0.8]) {
        const there = document.elementFromPoint(box.left + 120, box.top + box.height * share)
        if (!there || there === list || there.textContent.trim() === '') empty++
      }
    }
    return { times, empty }
  })()`)) as { times: number[]; empty: number }
  if (times.length < 50) throw new Error('there was nothing to scroll')
  times.sort((a, b) => a - b)
  return { p95: times[Math.ceil(0.95 * times.length) - 1]!, empty }
}

const PLAIN = `<body style="margin:0"><div style="height:700px;width:300px;overflow-y:auto">${Array.from(
  { length: WAITING },
  (_, i) => `<p style="height:62px;margin:0">Rock pool crab ${i}</p>`,
).join('')}</div></body>`
