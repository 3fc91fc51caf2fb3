import { chromium } from '@playwright/test'
const AT = 'http://localhost:4310'
const [sizeName, out, ...paths] = process.argv.slice(2)
const size =
  sizeName === 'phone'
    ? { width: 390, height: 844 }
    : sizeName === 'tablet'
      ? { width: 820, height: 1180 }
      : { width: 1280, height: 800 }
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
})
const page = await (await browser.newContext({ viewport: size, timezoneId: 'Europe/London', locale: 'en-GB' })).newPage()
page.setDefaultTimeout(8000)
page.on('pageerror', (e) => console.log('pageerror', e.message))
page.on('console', (m) => m.type() === 'error' && console.log(m.text()))
if (process.env.WHO === 'pupil') {
  await page.goto(AT + '/sign-in')
  await page.getByLabel('Letters on my card').fill('ACDE FGHJ KMNP RTWX')
  await page.getByRole('button', { name: 'Go to my desk' }).click()
  await page.waitForURL('**/desk')
} else if (process.env.WHO === 'parent') {
  await page.goto(process.env.INV!)
  await page.getByRole('button', { name: 'Open' }).click()
  await page.waitForURL('**/family')
} else {
  await page.goto(AT + '/sign-in')
  await page.getByRole('link', { name: 'I am a teacher' }).click()
  await page.getByLabel('E-mail address').fill('adeyemi@saltmarsh.example')
  await page.getByLabel('Password').fill('salt marsh morning')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL('**/tray**')
}
let i = 0
for (const p of paths) {
  const [path, ...taps] = p.split('|')
  if (path) await page.goto(AT + path)
  await page.waitForTimeout(900)
  for (const t of taps) {
    await page
      .getByRole(t.startsWith('link:') ? 'link' : 'button', { name: t.replace('link:', '') })
      .first()
      .click()
      .catch((e) => console.log(String(e).split('\n')[0]))
    await page.waitForTimeout(900)
  }
  await page.screenshot({ path: `/tmp/look/${out}-${i++}.png`, fullPage: false })
}
await browser.close()
