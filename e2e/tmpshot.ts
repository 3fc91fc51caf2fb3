import { chromium } from '@playwright/test'
const AT = 'http://localhost:4310'
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    '--no-sandbox',
    '--use-fake-device-for-media-stream=fps=10',
    '--use-fake-ui-for-media-stream',
  ],
})
const c = await b.newContext({ viewport: { width: 390, height: 844 }, locale: 'en-GB' })
const p = await c.newPage()
const id = process.argv[2]
await p.request.post(AT + '/api/accounts/sign-in/card', {
  data: { code: 'ACDEFGHJKMNPRTWX' },
  headers: { Origin: AT },
})
await p.goto(AT + `/my-pieces/${id}`)
await p.waitForTimeout(3500)
await p.screenshot({ path: '/tmp/s1.png' })
await p.getByRole('tab').nth(2).click()
await p.waitForTimeout(2500)
await p.screenshot({ path: '/tmp/s2.png' })
await p.getByRole('tab').nth(1).click()
await p.waitForTimeout(1500)
await p.screenshot({ path: '/tmp/s3.png' })
await p.goto(AT + `/my-pieces/${id}/photo?pick=1`)
await p.waitForTimeout(2500)
await p.screenshot({ path: '/tmp/s4.png' })
await p.setViewportSize({ width: 820, height: 1180 })
await p.goto(AT + '/film')
await p.waitForTimeout(2500)
await p.screenshot({ path: '/tmp/t1.png' })
await p.goto(AT + `/my-pieces/${id}`)
await p.waitForTimeout(3000)
await p.screenshot({ path: '/tmp/t2.png' })
await p.goto(AT + `/my-pieces/${id}/tray`)
await p.waitForTimeout(1500)
await p
  .getByRole('button', { name: 'Another folder' })
  .click()
  .catch(() => 0)
await p
  .getByRole('button', { name: /Rock pools/ })
  .first()
  .click({ timeout: 3000 })
  .catch(() => console.log('nofolder'))
await p.waitForTimeout(800)
await p
  .getByRole('button', { name: 'Put it in the tray' })
  .click({ timeout: 3000 })
  .catch(() => console.log('notray'))
await p.waitForTimeout(2500)
await p.screenshot({ path: '/tmp/t3.png' })
const d = await b.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' })
const q = await d.newPage()
await q.request.post(AT + '/api/accounts/sign-in/password', {
  data: { email: 'adeyemi@saltmarsh.example', password: 'salt marsh morning' },
  headers: { Origin: AT },
})
await q.goto(AT + `/tray`)
await q.waitForTimeout(3000)
await q.screenshot({ path: '/tmp/w1.png' })
await q.goto(AT + `/tray/${id}`)
await q.waitForTimeout(3500)
await q.screenshot({ path: '/tmp/w2.png' })
await q
  .getByRole('tab')
  .nth(2)
  .click()
  .catch(() => console.log('notab'))
await q.waitForTimeout(2500)
await q.screenshot({ path: '/tmp/w3.png' })
await b.close()
