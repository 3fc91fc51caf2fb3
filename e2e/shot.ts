import { chromium } from '@playwright/test'
import { DEMO_CARDS } from '@nibquill/demo'
import { execFileSync } from 'node:child_process'
const AT = 'http://localhost:4310'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox', '--disable-gpu'] })
const as = async (size: { width: number; height: number }, who: 'card' | 'password') => {
  const context = await browser.newContext({ baseURL: AT, viewport: size, serviceWorkers: 'block', locale: 'en-GB' })
  const page = await context.newPage()
  const data = who === 'card' ? { code: DEMO_CARDS.Aoife } : { email: 'adeyemi@saltmarsh.example', password: 'salt marsh morning' }
  const r = await page.request.post(AT + `/api/accounts/sign-in/${who}`, { data, headers: { Origin: AT } })
  console.log(r.status())
  return page
}
execFileSync('ffmpeg', ['-y', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc=s=640x480:r=10:d=4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '/tmp/f.mp4'])
const tablet = await as({ width: 820, height: 1180 }, 'card')
await tablet.goto('/desk')
const chooser = tablet.waitForEvent('filechooser')
await tablet.getByRole('button', { name: 'Pick', exact: true }).click()
await (await chooser).setFiles('/tmp/f.mp4')
await tablet.getByRole('button', { name: 'Look at Film 1' }).click()
await tablet.waitForTimeout(2500)
await tablet.screenshot({ path: '/tmp/s1.png' })
await tablet.getByRole('button', { name: 'Choose its picture' }).click()
await tablet.waitForTimeout(1500)
await tablet.screenshot({ path: '/tmp/s2.png' })
await tablet.setViewportSize({ width: 390, height: 844 })
await tablet.waitForTimeout(500)
await tablet.screenshot({ path: '/tmp/s3.png' })
const desk = await as({ width: 1280, height: 800 }, 'password')
await desk.goto('/notices')
await desk.getByRole('button', { name: 'New notice' }).click().catch(() => undefined)
await desk.waitForTimeout(800)
await desk.screenshot({ path: '/tmp/s4.png' })
await browser.close()
