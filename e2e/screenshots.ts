// Takes one picture of each main view from a running demo: NIBQUILL_AT=http://localhost:4310 npx
// tsx e2e/screenshots.ts [folder] [name ...]
import type { DrawingPart, Piece } from '@nibquill/contract'
import type { InkDocument } from '@nibquill/core/ink/document'
import {
  CAMERA_FRAME,
  Chance,
  drawInInk,
  photograph,
  photographSheet,
  sheetOfDifficulty,
} from '@nibquill/demo'
import { chromium, type Page } from '@playwright/test'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { filmPicture } from './fakeCamera.ts'
import { pick } from './materials.ts'

const AT = process.env.NIBQUILL_AT ?? 'http://localhost:4310'
const [folder = path.resolve(import.meta.dirname, '../docs/screenshots'), ...only] =
  process.argv.slice(2)
const PHONE = { width: 390, height: 844 }
const TABLET = { width: 820, height: 1180 }
const WIDE = { width: 1280, height: 800 }
type Who = 'nobody' | 'pupil' | 'teacher' | 'parent'
type Shot = {
  name: string
  who: Who
  size: { width: number; height: number }
  go: (page: Page) => Promise<unknown>
}

const open = (address: string) => async (page: Page) => page.goto(AT + address)
/** As on a tablet that was never asked for its camera. */
const beforeTheCamera = () => {
  navigator.permissions.query = () => Promise.resolve({ state: 'prompt' } as PermissionStatus)
}
const SHOTS: Shot[] = [
  {
    name: 'sign-in',
    who: 'nobody',
    size: PHONE,
    go: async (page) => (await page.addInitScript(beforeTheCamera), open('/sign-in')(page)),
  },
  { name: 'desk-phone', who: 'pupil', size: PHONE, go: open('/desk') },
  { name: 'desk-tablet', who: 'pupil', size: TABLET, go: open('/desk') },
  {
    name: 'photo',
    who: 'pupil',
    size: PHONE,
    go: async (page) => {
      await open('/make')(page)
      await page.getByRole('button', { name: 'Take the photo' }).click()
      await page.getByRole('button', { name: 'Look at Photo 1' }).waitFor()
    },
  },
  { name: 'draw', who: 'pupil', size: TABLET, go: drawACrab },
  {
    name: 'arrange',
    who: 'pupil',
    size: PHONE,
    go: async (page) => {
      await drawACrab(page)
      await page.getByRole('tab', { name: 'Arrange' }).click()
      // The keyboard takes one label after the other.
      await page.getByRole('application').press('Space')
      await page.getByRole('application').press('Space')
    },
  },
  {
    name: 'task',
    who: 'pupil',
    size: PHONE,
    go: async (page) => (
      await open('/desk')(page),
      page.getByRole('button', { name: 'Write your wind poem' }).click()
    ),
  },
  {
    name: 'my-piece',
    who: 'pupil',
    size: PHONE,
    go: async (page) => (
      await open('/desk')(page),
      page.getByRole('region', { name: 'Another go' }).getByRole('button').first().click()
    ),
  },
  { name: 'my-portfolio', who: 'pupil', size: TABLET, go: open('/my-portfolio') },
  { name: 'tray-wide', who: 'teacher', size: WIDE, go: open('/tray') },
  {
    name: 'judging-phone',
    who: 'teacher',
    size: PHONE,
    go: async (page) => (
      await open('/tray')(page),
      page
        .getByRole('button', { name: /^\w+ \w\. / })
        .nth(2)
        .click()
    ),
  },
  { name: 'class', who: 'teacher', size: WIDE, go: open('/class') },
  {
    name: 'pupil-page',
    who: 'teacher',
    size: WIDE,
    go: async (page) => (
      await open('/class')(page),
      page.getByRole('link', { name: 'Wren A.' }).click()
    ),
  },
  { name: 'tasks', who: 'teacher', size: WIDE, go: open('/tasks') },
  { name: 'door', who: 'teacher', size: WIDE, go: openDoor },
  {
    name: 'peg-wall',
    who: 'teacher',
    size: TABLET,
    go: async (page) => (
      await openDoor(page),
      await page.getByRole('heading', { name: /^The door is open/ }).waitFor(),
      await page.context().clearCookies(),
      await typeCard(page, 'HACD EFGJ KMNP RTWX'),
      page.waitForURL('**/pegs')
    ),
  },
  { name: 'tidy', who: 'pupil', size: TABLET, go: tidyAPhoto },
  { name: 'roll-over', who: 'teacher', size: WIDE, go: turnTheYear },
  { name: 'family', who: 'parent', size: PHONE, go: async () => undefined },
]

/** A photo of a sheet on a table, its corners found. */
/** Wren's crab, drawn on the tablet, as it is gone on with. */
async function drawACrab(page: Page): Promise<void> {
  await open('/draw')(page)
  const paper = page.getByRole('application')
  const box = (await paper.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2 + 10)
  await page.mouse.up()
  await page.waitForURL(/partId=/)
  const { searchParams } = new URL(page.url())
  const [pieceId, partId] = [searchParams.get('id')!, searchParams.get('partId')!]
  // Until the line is at school.
  await page.waitForTimeout(6000)
  const piece = (await (await page.request.get(`${AT}/api/pieces/${pieceId}`)).json()) as Piece
  const part = piece.parts[0]!
  const { mediaId } = (part as DrawingPart).files.ink
  const ink = await (await page.request.get(`${AT}/api/media/${mediaId}/full`)).json()
  const [sheet] = (ink as InkDocument).sheets
  const { things } = drawInInk('crab', new Chance(7))!.sheets[0]!
  const changes = [
    { kind: 'take', sheetId: sheet!.id, ids: sheet!.things.map(({ id }) => id) },
    { kind: 'put', sheetId: sheet!.id, things, below: null },
  ]
  await page.request.post(`${AT}/api/pieces/${pieceId}/parts/${partId}/ink`, {
    ...{ data: { changes }, headers: { Origin: AT } },
  })
  await open(`/my-pieces/${pieceId}/parts/${partId}/draw`)(page)
  await paper.waitFor()
  await page.getByRole('radio', { name: 'Sea', exact: true }).click()
}

async function tidyAPhoto(page: Page): Promise<void> {
  const { jpeg } = await photographSheet({ ...sheetOfDifficulty(0.4, 61), falloff: 0.5 }, 61)
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'nibquill-desk-')), 'boat.jpg')
  writeFileSync(file, jpeg)
  await open('/make')(page)
  await pick(page, [file])
  await page.getByRole('button', { name: 'Look at Photo 1' }).waitFor()
  await page.getByRole('button', { name: /^Look at/ }).click()
  await page.getByRole('button', { name: 'Tidy', exact: true }).click()
  await page.getByText('Here is your page').waitFor()
}

/** The year to come and a class in it are made on the way, so this one comes last on a demo. */
async function turnTheYear(page: Page): Promise<void> {
  await open('/year/new')(page)
  await page.getByRole('button', { name: 'Keep the year' }).click()
  await page.waitForURL('**/year')
  for (const [name, group] of [
    ['Egret', 'Year 4'],
    ['Teal', 'Year 2'],
  ] as const) {
    await open('/class/new')(page)
    await page.getByLabel('Name of the class').fill(name)
    await page.getByLabel(/^Year group/).fill(group)
    await page.getByLabel('School year').selectOption({ index: 0 })
    await page.getByRole('button', { name: 'Make the class' }).click()
    await page.getByRole('heading', { name: `${name}, ${group}` }).waitFor()
  }
  await open('/roll-over')(page)
}

async function typeCard(page: Page, letters: string): Promise<void> {
  await open('/sign-in')(page)
  await page.getByRole('button', { name: 'Type the letters' }).click()
  await page.getByLabel('Letters on my card').fill(letters)
  await page.getByRole('button', { name: 'Go to my desk' }).click()
}

/** The door of Heron, opened for the day whatever the hour. */
async function openDoor(page: Page): Promise<void> {
  await open('/class')(page)
  const door = page.getByRole('region', { name: 'Door and tablets' })
  await door.waitFor()
  const shut = door.getByRole('button', { name: 'Open it now' })
  if (await shut.isVisible()) await shut.click()
  await door.getByRole('button', { name: 'Door and tablets' }).click()
}

const ENTER: Record<Who, (page: Page) => Promise<unknown>> = {
  nobody: async () => undefined,
  pupil: async (page) => {
    await open('/sign-in')(page)
    await typeCard(page, 'ACDE FGHJ KMNP RTWX')
    await page.waitForURL('**/desk')
  },
  teacher: async (page) => {
    await open('/sign-in')(page)
    await page.getByRole('link', { name: 'I am a teacher' }).click()
    await page.getByLabel('E-mail address').fill('adeyemi@saltmarsh.example')
    await page.getByLabel('Password').fill('salt marsh morning')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.waitForURL('**/tray**')
  },
  parent: async (page) => {
    await page.goto(process.env.NIBQUILL_INVITATION ?? AT)
    await page.getByRole('button', { name: 'Open' }).click()
    await page.waitForURL('**/family')
  },
}

mkdirSync(folder, { recursive: true })
/**
 * What the camera sees in these pictures: a drawing on a table instead of Chromium's test picture.
 */
const drawing = await sharp(await photograph('crab', new Chance(3)))
  .resize(CAMERA_FRAME.width, CAMERA_FRAME.height, { fit: 'cover' })
  .jpeg()
  .toBuffer()
const film = `--use-file-for-fake-video-capture=${filmPicture(drawing)}`

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--use-fake-device-for-media-stream',
    '--use-fake-ui-for-media-stream',
    film,
  ],
})
for (const { name, who, size, go } of SHOTS) {
  if (only.length > 0 && !only.includes(name)) continue
  const context = await browser.newContext({
    viewport: size,
    timezoneId: 'Europe/London',
    locale: 'en-GB',
  })
  const page = await context.newPage()
  page.setDefaultTimeout(6000)
  page.on('pageerror', (error) => console.log(`${name}: ${error.message}`))
  page.on(
    'console',
    (message) => message.type() === 'error' && console.log(`${name}: ${message.text()}`),
  )
  try {
    await ENTER[who](page)
    await go(page)
    // Streams stay open, so the network is never idle: what counts is that pictures are there.
    await page.waitForTimeout(1500)
    await page.screenshot({ path: path.join(folder, `${name}.png`) })
  } catch (error) {
    console.log(`${name}: ${String(error).split('\n')[0]}`)
    await page.screenshot({ path: path.join(folder, `${name}-failed.png`) })
  }
  await context.close()
}
await browser.close()
