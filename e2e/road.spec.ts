import type { SharedPiece } from '@nibquill/contract'
import type { DEMO_CARDS } from '@nibquill/demo'
import type { Locator } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import path from 'node:path'
import { nameIt, putInTray, takeOutOfTray, takeOutPart } from './handIn.ts'
import { enterAsParent, enterAsPupil, enterAsTeacher, follow } from './people.ts'
import { codesInPdf, phonePhoto, scratch, tracesIn } from './materials.ts'
import { photosOf } from './pieces.ts'
import { expect, test, type Another } from './test.ts'

const PHONE = { width: 390, height: 844 }
const WIDE = { width: 1280, height: 800 }

type Size = typeof PHONE

test('on a phone, one piece travels the whole road, from a tablet to a page in a parent’s hand', ({
  another,
}) => walkTheRoad(another, PHONE, { name: 'Tomasz', listed: 'Tomasz L.' }, 'Crab on a phone'))

test('on a wide screen the teacher judges beside the list, by keyboard, and the list does not jump under their hands', async ({
  another,
}) => {
  const pupil = await another(WIDE)
  const title = 'Crab on a wide screen'
  await enterAsPupil(pupil, 'Wren')
  await pupil
    .getByRole('region', { name: 'Make something' })
    .getByRole('button', { name: 'Photo' })
    .click()
  await pupil.getByRole('button', { name: 'Take the photo' }).click()
  await expect(pupil.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await nameIt(pupil, title)
  await putInTray(pupil, 'Rock pools')
  await expect(pupil.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()

  const teacher = await another(WIDE)
  await enterAsTeacher(teacher)
  const line = teacher.getByRole('button', { name: `Wren A. ${title}` })
  await line.click()
  await expect(teacher.getByRole('img', { name: new RegExp(`${title}$`) }).first()).toBeVisible()
  await expect(line).toBeVisible()
  await teacher.keyboard.press('s')
  await teacher.getByLabel('What to do next').fill('Can you count the legs again?')
  await teacher.getByRole('button', { name: 'Send it back' }).click()
  await expect(line).toHaveCount(0)
  await follow(pupil, '/desk')
  await pupil
    .getByRole('region', { name: 'Another go' })
    .getByRole('button', { name: title })
    .click()
  // It begins where the teacher wants something changed, with their words.
  await pupil.getByRole('button', { name: 'Go on with it' }).click()
  await expect(pupil.getByText('Can you count the legs again?')).toBeVisible()
  await nameIt(pupil, title, 'It has ten legs with the claws.')
  await putInTray(pupil)
  // What is new waits in one line.
  await teacher
    .getByRole('button', { name: /new piece.*show/ })
    .first()
    .click()
  await afterAMoment(line)
  await expect(teacher.getByText(/· second go$/)).toBeVisible()
  await teacher.keyboard.press('a')
  await expect(teacher.getByText(`Approved: Wren, ${title}`)).toBeVisible()
})

/** What comes to lie where a finger just was is not meant by the next tap of that second. */
async function afterAMoment(button: Locator): Promise<void> {
  await expect(button).toBeVisible()
  await button.page().waitForTimeout(1100)
  await button.click()
}

type Maker = { name: keyof typeof DEMO_CARDS; listed: string }
async function walkTheRoad(
  another: Another,
  size: Size,
  maker: Maker,
  title: string,
): Promise<void> {
  const reason = 'I picked it because I counted the legs twice.'
  const folder = scratch()
  const photo = await phonePhoto(folder)

  // 1 and 2: the card, and the desk.
  const pupil = await another(size)
  await enterAsPupil(pupil, maker.name)
  await expect(pupil.getByRole('heading', { name: `${maker.name}’s desk` })).toBeVisible()
  await expect(pupil.getByRole('region', { name: 'To do' })).toBeVisible()

  // 3: a photo from the camera, and one from a file.
  await pupil
    .getByRole('region', { name: 'Make something' })
    .getByRole('button', { name: 'Photo' })
    .click()
  await pupil.getByRole('button', { name: 'Take the photo' }).click()
  await expect(pupil.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await takeOutPart(pupil, 'Photo 1')
  await expect(pupil.getByRole('button', { name: 'Look at Photo 1' })).toHaveCount(0)
  const chooser = pupil.waitForEvent('filechooser')
  await pupil.getByRole('button', { name: 'Pick pictures' }).click()
  await (await chooser).setFiles(photo)
  await expect(pupil.getByRole('button', { name: 'Look at Photo 1' })).toBeVisible()
  await pupil.getByRole('button', { name: 'Take the photo' }).click()
  await expect(pupil.getByRole('button', { name: 'Look at Photo 2' })).toBeVisible()
  await pupil.getByRole('button', { name: 'Go on' }).click()

  // 4: what is it, and what I think.
  await pupil.getByLabel('Name of my piece').fill(title)
  await pupil.getByRole('button', { name: 'Go on' }).click()
  await pupil.getByRole('button', { name: 'I learned that...' }).click()
  await pupil.getByLabel('I think...').fill('I learned that it walks sideways.')
  await pupil.getByRole('button', { name: 'Go on' }).click()

  // 5 and 6: which folder, into the tray, out again, and in again.
  await expect(pupil.getByRole('button', { name: 'Choose a folder first.' })).toBeDisabled()
  await putInTray(pupil, 'Rock pools')
  await expect(pupil.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  await takeOutOfTray(pupil)
  await pupil.getByRole('button', { name: 'Go on with it' }).click()
  await pupil.getByRole('button', { name: 'Go on' }).click()
  await pupil.getByRole('button', { name: 'Go on' }).click()
  await expect(pupil.getByText('It goes into Rock pools')).toBeVisible()
  await putInTray(pupil)
  await pupil.getByRole('button', { name: 'To my desk' }).click()

  // 7: the teacher sends it back, with a message; it turns up on the desk without reloading.
  const teacher = await another(size)
  await enterAsTeacher(teacher)
  await teacher.getByRole('button', { name: `${maker.listed} ${title}` }).click()
  await expect(teacher.getByText('I learned that it walks sideways.')).toBeVisible()
  await expect(teacher.getByRole('img', { name: `Photo 1 of 2: ${title}` })).toBeVisible()
  await teacher.keyboard.press('s')
  await teacher.getByLabel('What to do next').fill('Can you count the legs again?')
  await teacher.getByRole('button', { name: 'Send it back' }).click()
  await expect(teacher.getByRole('button', { name: `${maker.listed} ${title}` })).toHaveCount(0)

  // 8: the pupil hears back and has another go.
  await expect(pupil.getByText('Can you count the legs again?').first()).toBeVisible()
  await pupil
    .getByRole('region', { name: 'Another go' })
    .getByRole('button', { name: title })
    .click()
  await pupil.getByRole('button', { name: 'Go on with it' }).click()
  await nameIt(pupil, title, 'I learned that it walks sideways. It has ten legs with the claws.')
  await putInTray(pupil)
  await expect(pupil.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()

  // On a phone the next piece has opened. What reaches the list while it is looked at waits in one
  // line.
  await teacher.getByRole('button', { name: 'To the tray' }).click()
  const row = teacher.getByRole('button', { name: `${maker.listed} ${title}` })
  const whatIsNew = teacher.getByRole('button', { name: /new pieces?, show/ })
  await expect(row.or(whatIsNew).first()).toBeVisible()
  if (await whatIsNew.isVisible()) await whatIsNew.click()
  await afterAMoment(row)
  await expect(teacher.getByText('second go')).toBeVisible()
  await teacher.getByRole('button', { name: 'Approve into Rock pools' }).click()
  await expect(teacher.getByText(`Approved: ${maker.name}, ${title}`)).toBeVisible()

  // 8 and 9: approved, in its folder and in the portfolio, and picked with a reason.
  await expect(pupil.getByText('in the folder · Rock pools · second go')).toBeVisible()
  await pupil.getByRole('link', { name: 'Desk' }).click()
  await expect(pupil.getByText(`put ${title} in Rock pools`)).toBeVisible()
  await pupil.getByRole('link', { name: 'Folders' }).click()
  await pupil.getByRole('button', { name: 'Rock pools' }).click()
  await expect(pupil.getByRole('button', { name: title })).toBeVisible()
  await pupil.getByRole('link', { name: 'Portfolio' }).click()
  await pupil.getByRole('button', { name: title }).click()
  await pupil.getByRole('button', { name: /^Pick it for Autumn term/ }).click()
  await pupil.getByLabel('Why I pick it').fill(reason)
  await pupil.getByRole('button', { name: 'Keep it' }).click()
  await pupil.getByRole('link', { name: 'Portfolio' }).click()
  await expect(pupil.getByText(reason)).toBeVisible()

  // 11: the book, made by a job, downloaded.
  await teacher.getByRole('link', { name: 'Class' }).click()
  await teacher.getByRole('link', { name: maker.listed }).click()
  await teacher.getByRole('tab', { name: 'Portfolio' }).click()
  const pages = Number(
    /(\d+) pages/.exec(await teacher.getByText(/^\d+ pieces?, \d+ pages$/).innerText())![1],
  )
  const downloads = teacher.getByRole('button', { name: 'Download' })
  const earlier = await downloads.count()
  await teacher.getByRole('button', { name: 'Make the book' }).click()
  await expect(downloads).toHaveCount(earlier + 1)
  const download = teacher.waitForEvent('download')
  await downloads.first().click()
  const pdf = path.join(folder, 'book.pdf')
  await (await download).saveAs(pdf)
  // Asking twice does not make it twice.
  await teacher.getByRole('button', { name: 'Make the book' }).click()
  await teacher.waitForTimeout(500)
  await expect(downloads).toHaveCount(earlier + 1)

  execFileSync('qpdf', ['--check', pdf])
  const about = execFileSync('pdfinfo', [pdf], { encoding: 'utf8' })
  expect(about).toMatch(new RegExp(`Pages:\\s+${pages}\\n`))
  expect(about).toMatch(new RegExp(`Title:\\s+${maker.name}’s book, Autumn term`))
  expect(about).toMatch(/Tagged:\s+yes/)
  expect(about).toMatch(/Page size:\s+595.28 x 841.89 pts \(A4\)/)
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' })
  expect(text).toContain(title)
  expect(text).toContain(reason)
  const fonts = execFileSync('pdffonts', [pdf], { encoding: 'utf8' }).trim().split('\n').slice(2)
  expect(fonts.length).toBeGreaterThan(0)
  for (const font of fonts)
    expect(font, 'every font is embedded').toMatch(/\byes\s+(yes|no)\s+(yes|no)\s+\d+\s+\d+\s*$/)

  // Its codes decode at screen and at print resolution and open that piece for whoever holds the
  // page.
  const codes = await codesInPdf(pdf, 150)
  expect(codes).toHaveLength(pages - 2)
  expect(await codesInPdf(pdf, 300)).toEqual(codes)
  const stranger = await another(size)
  const titles: string[] = []
  for (const code of codes) {
    await stranger.goto(new URL(code).pathname)
    titles.push(await stranger.getByRole('article').getByRole('heading').innerText())
  }
  expect(titles).toContain(title)
  const address = new URL(codes[titles.indexOf(title)]!).pathname
  await stranger.goto(address)
  await expect(stranger.getByRole('img', { name: `Photo 1 of 2: ${title}` }).first()).toBeVisible()

  // Nothing served says where, when or with what the photo was taken; the pixels are the sent ones,
  // upright.
  const shared = (await (
    await stranger.request.get(`/api/sharing/links/${address.split('/').at(-1)!}`)
  ).json()) as {
    piece: SharedPiece
  }
  const part = photosOf(shared.piece.parts)[0]!
  expect([part.width, part.height]).toEqual([3000, 4000])
  for (const size of ['320', '960', '2048', 'full']) {
    const served = path.join(folder, `served-${size}.jpg`)
    writeFileSync(
      served,
      await (
        await stranger.request.get(
          `/api/media/${part.mediaId}/${size}?link=${address.split('/').at(-1)!}`,
        )
      ).body(),
    )
    expect(tracesIn(served), size).toEqual([])
  }
  expect(tracesIn(photo).length).toBeGreaterThan(5)

  // The link can be withdrawn.
  await teacher.getByRole('button', { name: 'End its page codes' }).first().click()
  await teacher.getByRole('dialog').getByRole('button', { name: 'End its page codes' }).click()
  await expect(teacher.getByText('Its page codes no longer open anything.')).toBeVisible()
  await stranger.reload()
  await expect(stranger.getByText('This link has ended', { exact: true })).toBeVisible()
}

test('a parent sees their own children’s approved work on a phone and on a wide screen, and nothing once the invitation is withdrawn', async ({
  another,
}) => {
  const devices = [await another(PHONE), await another(WIDE)]
  for (const parent of devices) {
    await enterAsParent(parent)
    // 10: this child's approved pieces in folders parents may see.
    await expect(parent.getByRole('tablist', { name: 'Children' }).getByRole('tab')).toHaveCount(2)
    await parent.getByRole('tab', { name: 'Wren' }).click()
    await expect(parent.getByRole('heading', { name: 'Wren', exact: true })).toBeVisible()
    await expect(parent.getByRole('region', { name: /Summer term/ })).toBeVisible()
    await parent.goto('/tray')
    await parent.waitForURL('**/family')
  }

  const teacher = await another(PHONE)
  await enterAsTeacher(teacher)
  await teacher.getByRole('link', { name: 'Class' }).click()
  await teacher.getByRole('link', { name: 'Wren A.' }).click()
  await teacher.getByRole('button', { name: 'Administration' }).click()
  await teacher.getByRole('button', { name: 'Withdraw' }).click()
  await teacher.getByRole('dialog').getByRole('button', { name: 'Withdraw' }).click()
  await expect(teacher.getByText('invitation withdrawn').first()).toBeVisible()
  for (const parent of devices) {
    await parent.reload()
    await parent.waitForURL('**/sign-in')
  }
  // A new way in would show another class's child as well: it is told to nobody here.
  await teacher.getByRole('button', { name: 'Invite anew' }).first().click()
  await expect(teacher.getByRole('alert')).toContainText('This parent has other children here')
})
