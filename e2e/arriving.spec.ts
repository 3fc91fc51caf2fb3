import { DEMO_CARDS, DEMO_PASSWORD, DEMO_STAFF, type CardView } from '@nibquill/demo'
import type { Page } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { Secret, TOTP } from 'otpauth'
import { cutCards, filmCard, launchWithCamera, readFilmed } from './fakeCamera.ts'
import { enterAsTeacher, showDoorCard } from './people.ts'
import { expect, test, type Another } from './test.ts'

const TABLET = { width: 820, height: 1180 }
const HERE = { locale: 'en-GB', timezoneId: 'Europe/London' } as const

/** A teacher's page of the class Plover, whose door stands open for the day. */
async function openDoor(another: Another): Promise<Page> {
  const page = await another()
  await enterAsTeacher(page, 'plover')
  await page.getByRole('link', { name: 'Class' }).click()
  const door = page.getByRole('region', { name: 'Door and tablets' })
  await expect(door).toBeVisible()
  const open = door.getByRole('button', { name: 'Open it now' })
  if (await open.isVisible()) await open.click()
  await expect(door).toContainText('The door is open')
  return page
}

/** A tablet that has seen the class's door card. */
async function tabletWithPegs(page: Page): Promise<Page> {
  await showDoorCard(page, 'Plover')
  return page
}

/**
 * The printed card of a pupil nobody else's test signs in as, cut from the sheet, with the letters
 * at its foot.
 */
async function printedCard(
  another: Another,
  name: string,
): Promise<{ card: Buffer; letters: string }> {
  const page = await another()
  await enterAsTeacher(page, 'plover')
  await page.getByRole('link', { name: 'Class' }).click()
  await page.getByRole('link', { name }).click()
  await page.getByRole('button', { name: 'Administration' }).click()
  const printed = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Print a new card' }).click()
  await page.getByRole('button', { name: 'Print them' }).click()
  const file = (await (await printed).path())!
  const [card] = await cutCards(readFileSync(file))
  const [letters] = /([A-Z]{4} ){3}[A-Z]{4}/.exec(
    execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }),
  )!
  await page.close()
  return { card: card!, letters }
}

/** It opens by itself where the browser says that it may. */
async function openCamera(page: Page): Promise<void> {
  const start = page.getByRole('button', { name: 'Show my card' })
  const seen = page.getByLabel('What the camera sees')
  const desk = page.getByRole('heading', { name: /’s desk$/ })
  await expect(async () => {
    if (await start.isVisible()) await start.click({ timeout: 2000 })
    await expect(seen.or(desk).first()).toBeVisible({ timeout: 2000 })
  }).toPass()
}

test.describe('a card before the camera', () => {
  let card: Buffer
  let letters: string
  test.beforeAll(async ({ devices }) => {
    ;({ card, letters } = await printedCard(() => devices.open(TABLET), 'Greta S.'))
  })
  for (const [name, view] of [
    ['tilted by 25 degrees', { turn: 25 }],
    ['mirrored by a front camera', { mirrored: true }],
  ] as const) {
    test(`${name} opens its pupil’s desk`, async ({ schoolAt }) => {
      const browser = await launchWithCamera(await filmCard(card, view))
      try {
        const page = await (
          await browser.newContext({ ...HERE, baseURL: schoolAt, viewport: TABLET })
        ).newPage()
        await page.goto('/sign-in')
        await openCamera(page)
        await expect(page.getByRole('heading', { name: /’s desk$/ })).toBeVisible()
      } finally {
        await browser.close()
      }
    })
  }

  test('is read by the same steps from the same filmed pictures: straight, in dim light, over a busy table at arm’s length', async () => {
    const views: Partial<CardView>[] = [
      {},
      { dim: 0.8, noise: 0.12 },
      { busy: true, near: 0.36, turn: -12 },
    ]
    for (const view of views)
      expect(await readFilmed(card, view)).toContain(letters.replaceAll(' ', ''))
  })

  test('with a torn corner it opens its desk; half covered it does not, help is offered, and the letters do', async ({
    schoolAt,
  }) => {
    const sharp = (await import('sharp')).default
    const { width, height } = await sharp(card).metadata()
    const corner = [
      [1, 0.29],
      [1, 1],
      [0.64, 1],
    ]
      .map(([x, y]) => `${x! * width},${y! * height}`)
      .join(' ')
    const tear = Buffer.from(
      `<svg width="${width}" height="${height}"><polygon points="${corner}" fill="#77695a"/></svg>`,
    )
    const torn = await sharp(card)
      .composite([{ input: tear }])
      .png()
      .toBuffer()
    for (const [film, readable] of [
      [await filmCard(torn, {}), true],
      [await filmCard(card, { covered: 0.5 }), false],
    ] as const) {
      const browser = await launchWithCamera(film)
      try {
        const page = await (
          await browser.newContext({ ...HERE, baseURL: schoolAt, viewport: TABLET })
        ).newPage()
        await page.goto('/sign-in')
        await openCamera(page)
        const desk = page.getByRole('heading', { name: /’s desk$/ })
        if (!readable) {
          await expect(page.getByText('You can also type the letters')).toBeVisible()
          await expect(desk).toBeHidden()
          await page.getByRole('button', { name: 'Type the letters' }).click()
          await page.getByLabel('Letters on my card').fill(letters)
          await page.getByRole('button', { name: 'Go to my desk' }).click()
        }
        await expect(desk).toBeVisible()
      } finally {
        await browser.close()
      }
    }
  })
})

test('a tablet’s first visit fetches little: each file in the smallest form its browser reads', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ viewport: TABLET })).newPage()
  const sizes: Promise<number>[] = []
  page.on('requestfinished', (request) =>
    sizes.push(request.sizes().then(({ responseBodySize }) => responseBodySize)),
  )
  await page.goto('/sign-in')
  await expect(page.getByRole('heading', { name: 'Hold up your card' })).toBeVisible()
  const fetched = (await Promise.all(sizes)).reduce((sum, bytes) => sum + bytes, 0)
  expect(fetched).toBeGreaterThan(400_000)
  expect(fetched).toBeLessThan(1_200_000)
  const script = (await page.locator('script[src*="/entry-"]').getAttribute('src'))!
  for (const [reads, answered] of [
    ['gzip, br', 'br'],
    ['gzip', 'gzip'],
    ['identity', undefined],
  ] as const)
    expect(
      (await page.request.get(script, { headers: { 'Accept-Encoding': reads } })).headers()[
        'content-encoding'
      ],
    ).toBe(answered)
})

test('a camera nobody holds anything up to is switched off after a while, and on again by a tap', async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: TABLET })
  await context.clock.install()
  const page = await context.newPage()
  await page.goto('/sign-in')
  await openCamera(page)
  const picture = page.getByLabel('What the camera sees')
  await expect(picture).toBeVisible()
  await expect
    .poll(() => picture.evaluate((video: HTMLVideoElement) => video.videoWidth))
    .toBeGreaterThan(0)
  await context.clock.runFor(2 * 60_000)
  await expect(picture).toBeVisible()
  await context.clock.runFor(61_000)
  await expect(picture).toBeHidden()
  await page.getByRole('button', { name: 'Show my card' }).click()
  await expect(picture).toBeVisible()
})

test('a code of something else is not a card, and a camera that is refused leaves the letters', async ({
  another,
  schoolAt,
}) => {
  const sharp = (await import('sharp')).default
  const { default: QRCode } = await import('qrcode')
  const other = await sharp(
    await QRCode.toBuffer('https://elsewhere.example/sign-in#ACDEFGHJKMNPRTWX', { width: 500 }),
  )
    .extend({ left: 240, right: 240, background: '#fff' })
    .png()
    .toBuffer()
  const filmed = await launchWithCamera(await filmCard(other, { near: 0.5 }))
  try {
    const page = await (await filmed.newContext({ ...HERE, baseURL: schoolAt })).newPage()
    await page.goto('/sign-in')
    await openCamera(page)
    await expect(page.getByText('This card belongs to another school')).toBeVisible()
  } finally {
    await filmed.close()
  }
  const page = await another()
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('no', 'NotAllowedError'))
    navigator.permissions.query = () => Promise.resolve({ state: 'prompt' } as PermissionStatus)
  })
  await page.goto('/sign-in')
  await page.getByRole('button', { name: 'Show my card' }).click()
  await expect(page.getByText('allow the camera, and tap Try the camera again')).toBeVisible()
  await page.getByRole('button', { name: 'Type the letters' }).click()
  await page.getByLabel('Letters on my card').fill('acde fghj kmnp rtxx')
  await page.getByRole('button', { name: 'Go to my desk' }).click()
  await expect(page.getByRole('alert')).toContainText('We do not know that card')
})

/** What the tablet remembers of a pupil's desk, as text. */
const remembered = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const asked = indexedDB.open('nibquill.memory')
        asked.onsuccess = () => {
          const db = asked.result
          const memory = db.transaction('memory').objectStore('memory').getAll()
          memory.onsuccess = () => {
            db.close()
            resolve(JSON.stringify(memory.result))
          }
        }
      }),
  )

test('on a shared tablet a pupil taps their peg, and the next pupil finds nothing of them', async ({
  another,
}) => {
  const teacher = await openDoor(another)
  const page = await tabletWithPegs(await another(TABLET))
  await page.getByRole('button', { name: 'Dylan' }).click()
  await expect(page.getByRole('heading', { name: 'Dylan’s desk' })).toBeVisible()

  // Work in hand: a photo, and words that nobody kept by a button.
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await expect(page.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  // Until it has arrived it is shown from the tablet.
  const atSchool = page.locator('img[src*="/api/media/"]').first()
  await expect(atSchool).toBeAttached()
  const picture = (await atSchool.getAttribute('src'))!
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.getByLabel('Name of my piece').fill('Dylan’s secret volcano')
  const made = page.url()
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await expect(page.getByText('Dylan’s secret volcano')).toBeVisible()

  // Two taps.
  await page.getByRole('button', { name: 'Let the next pupil in' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Let the next pupil in' }).click()
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()

  const nothingOfDylan = async () => {
    await expect(
      page
        .getByRole('heading', { name: 'Which peg is yours?' })
        .or(page.getByRole('heading', { name: 'Noor’s desk' })),
    ).toBeVisible()
    await expect(page.getByText(/volcano|Dylan’s/)).toHaveCount(0)
  }
  await nothingOfDylan()
  await page.goBack()
  await nothingOfDylan()
  await page.goBack()
  await nothingOfDylan()
  await page.goto('/pegs')
  await page.reload()
  await nothingOfDylan()
  await page.goto(made)
  await nothingOfDylan()

  // The next pupil, also by the addresses and the browser's caches.
  await page.getByRole('button', { name: 'Noor' }).click()
  await expect(page.getByRole('heading', { name: 'Noor’s desk' })).toBeVisible()
  await nothingOfDylan()
  await page.goto(made)
  await expect(page.getByText(/nothing here/i)).toBeVisible()
  await expect(page.getByText(/volcano/)).toHaveCount(0)
  // Noor's own desk is remembered, with the friends it may be made with: the look into the
  // databases is not an empty one.
  await page.goto('/desk')
  await expect.poll(() => remembered(page)).toContain('"pieces","classmates"')
  const caches = await page.evaluate(async (address) => {
    const modes = ['default', 'force-cache'] as const
    const answers = await Promise.all(
      modes.map(async (cache) => (await fetch(address, { cache })).status),
    )
    const onlyCached = await fetch(address, { cache: 'only-if-cached', mode: 'same-origin' }).then(
      ({ status }) => status,
      () => 0,
    )
    const kept: string[] = []
    for (const name of await globalThis.caches.keys())
      for (const { url } of await (await globalThis.caches.open(name)).keys()) kept.push(url)
    const opened = (name: string) =>
      new Promise<IDBDatabase>((resolve) => {
        const asked = indexedDB.open(name)
        asked.onsuccess = () => resolve(asked.result)
      })
    const all = (store: IDBObjectStore) =>
      new Promise<unknown>((resolve) => {
        const asked = store.getAll()
        asked.onsuccess = () => resolve(asked.result)
      })
    const databases: unknown[] = []
    for (const { name } of await indexedDB.databases()) {
      const db = await opened(name!)
      for (const store of Array.from(db.objectStoreNames as ArrayLike<string>))
        databases.push(await all(db.transaction(store).objectStore(store)))
      db.close()
    }
    // Dylan is in Noor's class: a name and a peg to choose among the friends, and nowhere else.
    const others = (_: string, value: unknown) => {
      const { queryKey } = (value ?? {}) as { queryKey?: string[] }
      return queryKey?.join() === 'pieces,classmates' ? undefined : value
    }
    return {
      answers,
      onlyCached,
      kept,
      stored: JSON.stringify({ ...localStorage, ...sessionStorage, databases }, others),
    }
  }, picture)
  expect(caches.answers).toEqual([404, 404])
  expect([0, 404, 504]).toContain(caches.onlyCached)
  expect(caches.kept.filter((url) => url.includes('/api/'))).toEqual([])
  expect(caches.stored).toContain('Noor')
  expect(caches.stored).not.toMatch(/volcano|Dylan/)
  expect(caches.stored).not.toContain(made.match(/[0-9a-f-]{36}/)![0])

  // Dylan finds everything again; the teacher sees both desks end.
  await page.goto('/desk')
  await page.getByRole('button', { name: 'Let the next pupil in' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Let the next pupil in' }).click()
  await page.getByRole('button', { name: 'Dylan' }).click()
  await expect(page.getByText('Dylan’s secret volcano')).toBeVisible()
  await teacher.getByRole('button', { name: 'Door and tablets' }).click()
  const desks = teacher.getByRole('region', { name: 'Open desks' })
  await expect(desks).toContainText('Dylan M.')
  await expect(desks).toContainText('on tablet')
  await desks.getByRole('button', { name: 'Close Dylan’s desk' }).click()
  await expect(desks).not.toContainText('Dylan M.')
  await page.getByRole('link', { name: 'Folders' }).click()
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()
})

test('a class that asks for three pictures, worked with one switch', async ({ another }) => {
  const teacher = await openDoor(another)
  await teacher.getByRole('button', { name: 'Door and tablets' }).click()
  const asks = teacher.getByRole('switch', { name: /three secret pictures/ })
  await asks.click()
  await expect(asks).toBeChecked()
  await teacher.getByRole('button', { name: 'Who has which pictures' }).click()
  const mine = teacher.getByRole('listitem').filter({ hasText: 'Felix' })
  const secret = (await mine.getByRole('img').first().getAttribute('aria-label'))!.split(', ')
  expect(secret).toHaveLength(3)

  const page = await tabletWithPegs(await another(TABLET))
  // Moves on with Tab and chooses with Enter: what a single switch with a scanner in front of it
  // sends.
  const choose = async (name: string) => {
    const target = page.getByRole('button', { name, exact: true })
    await expect(target).toBeEnabled()
    for (let presses = 0; presses < 80; presses++) {
      if (await target.evaluate((element) => element === document.activeElement))
        return page.keyboard.press('Enter')
      await page.keyboard.press('Tab')
    }
    throw new Error(`${name} cannot be reached with one switch`)
  }
  await choose('Felix')
  await expect(page.getByRole('heading', { name: 'Felix, tap your three pictures' })).toBeVisible()
  const wrong =
    ['cat', 'boat', 'apple'].join() === secret.join()
      ? ['boat', 'cat', 'apple']
      : ['cat', 'boat', 'apple']
  for (const picture of wrong) await choose(picture)
  await expect(page.getByRole('alert')).toContainText('Those are not your three pictures')
  for (const picture of secret) await choose(picture)
  await expect(page.getByRole('heading', { name: 'Felix’s desk' })).toBeVisible()
  await choose('Let the next pupil in')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.getByRole('dialog').getByRole('button', { name: 'Let the next pupil in' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()

  // A friend taps Felix's peg: three wrong tries, and it waits.
  await page.getByRole('button', { name: 'Felix', exact: true }).click()
  for (let round = 0; round < 3; round++) {
    for (const picture of wrong)
      await page.getByRole('button', { name: picture, exact: true }).click()
    await expect(page.getByRole('alert')).toContainText('Those are not your three pictures')
  }
  await expect(page.getByRole('alert')).toContainText(/Try again in \d+ seconds/)
  await expect(page.getByRole('button', { name: 'cat', exact: true })).toBeDisabled()

  await teacher.getByRole('button', { name: 'Back' }).click()
  await teacher.getByRole('switch', { name: /three secret pictures/ }).click()
  await expect(teacher.getByRole('switch', { name: /three secret pictures/ })).not.toBeChecked()
})

test('the door shuts while the pegs are shown, on a tablet whose clock is a day ahead', async ({
  another,
  browser,
}) => {
  const teacher = await openDoor(another)
  const context = await browser.newContext({ viewport: TABLET })
  await context.clock.install({ time: new Date(Date.now() + 24 * 3600 * 1000) })
  const page = await tabletWithPegs(await context.newPage())
  await teacher.getByRole('button', { name: 'Shut it now' }).click()
  await expect(teacher.getByRole('region', { name: 'Door and tablets' })).toContainText(
    'The door is shut for today',
  )
  await page.getByRole('button', { name: 'Bronwyn' }).click()
  await expect(page.getByRole('heading', { name: 'The door is shut' })).toBeVisible()
  await expect(page.getByText('Your own name card always works.', { exact: true })).toBeVisible()
  await expect(page.getByText('Bronwyn')).toHaveCount(0)
  // The own card does.
  await page.getByRole('link', { name: 'I have my card' }).click()
  await page.getByRole('button', { name: 'Type the letters' }).click()
  await page.getByLabel('Letters on my card').fill(DEMO_CARDS.Aoife)
  await page.getByRole('button', { name: 'Go to my desk' }).click()
  await expect(page.getByRole('heading', { name: 'Aoife’s desk' })).toBeVisible()
  await teacher.getByRole('button', { name: 'Open it now' }).click()
  await expect(teacher.getByRole('region', { name: 'Door and tablets' })).toContainText(
    'The door is open',
  )
})

test('an idle tablet asks, keeps what is in hand and goes back to the pegs', async ({
  another,
  browser,
}) => {
  await openDoor(another)
  const context = await browser.newContext({ viewport: TABLET })
  await context.clock.install()
  const page = await tabletWithPegs(await context.newPage())
  await page.getByRole('button', { name: 'Kavya' }).click()
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await expect(page.getByRole('button', { name: /^(Look at|Take out)/ }).first()).toBeVisible()
  // Nobody goes on with it. Ten minutes pass.
  await context.clock.runFor(9 * 60_000 + 45_000)
  await expect(page.getByRole('dialog')).toContainText('Are you still there?')
  await context.clock.runFor(20_000)
  await context.clock.resume()
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()
  await expect(page.getByText('Somebody was away')).toBeVisible()
  await page.getByRole('button', { name: 'Kavya' }).click()
  await page.getByRole('button', { name: 'No name yet not handed in yet' }).click()
  await expect(page.locator('img[src*="/api/media/"]').first()).toBeVisible()
})

test('somebody comes in by another tab: this one stays where it was, or begins where they begin', async ({
  page,
  context,
}) => {
  await enterAsTeacher(page, 'heron', '/tasks')
  const title = page.getByRole('heading', { name: 'Tasks', exact: true })
  await expect(title).toBeVisible()
  const other = await context.newPage()
  await other.goto('/api/health')
  // As a tab says it in which somebody has come in.
  const say = () =>
    other.evaluate(() => new BroadcastChannel('nibquill.session').postMessage('changed'))
  const asked = page.waitForResponse((answer) => answer.url().endsWith('/api/tasks'))
  await say()
  await asked
  await expect(title).toBeVisible()
  await expect(page).toHaveURL(/\/tasks$/)

  await other.request.post('/api/accounts/sign-in/password', {
    data: { email: DEMO_STAFF.plover, password: DEMO_PASSWORD },
    headers: { Origin: new URL(other.url()).origin },
  })
  await say()
  await expect(page).toHaveURL(/\/tray/)
  await expect(page.getByRole('heading', { name: 'Tray' })).toBeVisible()
})

test('handing over without a network covers the desk, and goes on by itself when it is back', async ({
  another,
}) => {
  await openDoor(another)
  const page = await tabletWithPegs(await another(TABLET))
  const context = page.context()
  await page.getByRole('button', { name: 'Rory' }).click()
  await page.getByRole('button', { name: 'Photo', exact: true }).click()
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await expect(page.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await context.setOffline(true)
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await page.getByRole('button', { name: 'Keep for later' }).click()
  await page.getByRole('button', { name: 'Let the next pupil in' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Let the next pupil in' }).click()
  await expect(page.getByRole('heading', { name: 'Keeping Rory’s work' })).toBeVisible()
  await expect(page.getByText('No name yet')).not.toBeVisible()
  await expect(page.getByText('The next pupil can come in when it is back')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByRole('heading', { name: 'Which peg is yours?' })).toBeVisible()
  await page.getByRole('button', { name: 'Rory' }).click()
  await page.getByRole('button', { name: 'No name yet not handed in yet' }).click()
  await expect(page.getByRole('tab', { name: 'Photo 2 of 2' })).toBeVisible()
})

test('one-time codes: switched on with an authenticator’s code, asked for at the door, switched off again', async ({
  another,
}) => {
  const page = await another()
  await enterAsTeacher(page, 'plover', '/account')
  await page.getByLabel('Your password').fill(DEMO_PASSWORD)
  await page.getByRole('button', { name: 'Switch on' }).click()
  const secret = (
    await page.getByRole('group', { name: 'Letters for the authenticator' }).innerText()
  ).replace(/\s/g, '')
  const totp = new TOTP({ secret: Secret.fromBase32(secret) })
  await page.getByLabel('Code of six digits').fill(totp.generate())
  await page.getByRole('button', { name: 'Check the code' }).click()
  const listed = page.getByRole('region', { name: 'Your spare codes' }).getByRole('listitem')
  await expect(listed).toHaveCount(8)
  const spare = await listed.allInnerTexts()
  await page.getByRole('button', { name: 'I wrote them down' }).click()
  await expect(page.getByText('8 spare codes are left')).toBeVisible()

  const door = await another()
  await door.goto('/sign-in')
  await door.getByRole('link', { name: 'I am a teacher' }).click()
  await door.getByLabel('E-mail address').fill(DEMO_STAFF.plover)
  await door.getByLabel('Password').fill(DEMO_PASSWORD)
  await door.getByRole('button', { name: 'Sign in' }).click()
  await expect(door.getByText('Type the code that your authenticator shows')).toBeVisible()
  await door.getByLabel(/^Code from your authenticator/).fill(spare[0]!)
  await door.getByRole('button', { name: 'Sign in' }).click()
  await door.waitForURL('**/tray**')

  await page.getByLabel('Your password').fill(DEMO_PASSWORD)
  await page.getByRole('button', { name: 'Switch off' }).click()
  await expect(page.getByRole('button', { name: 'Switch on' })).toBeVisible()
})
