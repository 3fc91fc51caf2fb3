import type {
  BrowserContext,
  BrowserType,
  CDPSession,
  Page,
  Request,
  ViewportSize,
} from '@playwright/test'
import path from 'node:path'
import { scratch } from './materials.ts'
import config from './playwright.config.ts'

/** `sending`: what was sent from it and not answered yet. */
type Device = { context: BrowserContext; control: CDPSession; sending: Set<Request> }

/** A test may hold an answer back for good. */
const ANSWERED_WITHIN_MS = 3000

/**
 * Browsers that keep what they compiled of Nibquill's script, as a tablet does that opens it every
 * day: a page there costs half of what it costs where nobody was before. Of who used one, and of
 * what they did, nothing stays.
 */
export class Devices {
  readonly #free: Device[] = []
  readonly #inUse: Device[] = []
  readonly #browser: BrowserType
  readonly #at: string

  constructor(browser: BrowserType, at: string) {
    this.#browser = browser
    this.#at = at
  }

  /** A page on a device nobody else of this test uses. */
  async open(viewport: ViewportSize): Promise<Page> {
    const device = this.#free.pop() ?? (await this.#launch())
    this.#inUse.push(device)
    const page = await device.context.newPage()
    await page.setViewportSize(viewport)
    return page
  }

  /** Whatever is open closes; the devices are as nobody had used them. */
  async giveBack(): Promise<void> {
    const used = this.#inUse.splice(0)
    await Promise.all(used.map((device) => this.#clean(device)))
    // The one most used first: it remembers most.
    this.#free.push(...used.reverse())
  }

  async close(): Promise<void> {
    await Promise.all(this.#free.map(({ context }) => context.close()))
  }

  async #launch(): Promise<Device> {
    const context = await this.#browser.launchPersistentContext(path.join(scratch(), 'browser'), {
      baseURL: this.#at,
      hasTouch: false,
      locale: 'en-GB',
      // A page of ours comes up in the process another one of this device has left warm: a fifth of
      // opening one.
      args: [...(config.use?.launchOptions?.args ?? []), '--process-per-site'],
    })
    // Neither can be taken off again: the next test would run on a clock that somebody moved.
    const stays = () =>
      Promise.reject(new Error('this stays on a device: use browser.newContext()'))
    Object.assign(context, { addInitScript: stays })
    const clock = { install: stays, pauseAt: stays, setFixedTime: stays, setSystemTime: stays }
    Object.assign(context.clock, clock)
    // Keeps the process of our pages alive between tests.
    await context.pages()[0]!.goto(`${this.#at}/api/health`)
    const sending = new Set<Request>()
    context.on('request', (request) => {
      if (request.method() !== 'GET') sending.add(request)
    })
    for (const end of ['requestfinished', 'requestfailed'] as const)
      context.on(end as 'requestfinished', (request) => sending.delete(request))
    return { context, control: await context.newCDPSession(context.pages()[0]!), sending }
  }

  /**
   * The first page stays: without any the browser would end. What was sent is answered first: the next
   * test is not to find the school changing under its hands.
   */
  async #clean({ context, control, sending }: Device): Promise<void> {
    const [, ...pages] = context.pages()
    for (let waited = 0; sending.size > 0 && waited < ANSWERED_WITHIN_MS; waited += 20)
      await new Promise((resolve) => setTimeout(resolve, 20))
    sending.clear()
    await Promise.all(pages.map((page) => page.close()))
    await context.unrouteAll()
    await context.setOffline(false)
    await context.clearPermissions()
    await context.clearCookies()
    await control.send('Storage.clearDataForOrigin', { origin: this.#at, storageTypes: 'all' })
  }
}
