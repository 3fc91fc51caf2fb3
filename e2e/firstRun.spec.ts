import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import path from 'node:path'
import { scratch } from './materials.ts'

test.use({ viewport: { width: 390, height: 844 } })

test('an empty Nibquill is set up by its first teacher, and a signal stops everything it started', async ({ page }) => {
  const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/serve.ts', '--empty'], {
    cwd: path.resolve(import.meta.dirname, '..'),
    env: { ...process.env, PORT: '0', NIBQUILL_DATA: path.join(scratch(), 'data') },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  await expect.poll(() => said, { timeout: 30_000 }).toContain('Nibquill is ready')
  const at = /http:\/\/localhost:\d+/.exec(said)![0]
  await page.goto(at)
  await expect(page.getByRole('heading', { name: 'A new school' })).toBeVisible()
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')).toEqual([])
  await page.getByLabel('Name of the school').fill('Dune Primary')
  await page.getByLabel(/^Time zone/).fill('Europe/London')
  await page.getByLabel(/^What pupils call you/).fill('Ms')
  await page.getByLabel('Surname').fill('Ray')
  await page.getByLabel('E-mail address').fill('ray@dune.example')
  await page.getByLabel(/^Password/).fill('short')
  await page.getByRole('button', { name: 'Open the school' }).click()
  await expect(page.getByText('It is shorter than 10 characters.')).toBeVisible()
  await page.getByLabel(/^Password/).fill('long enough words')
  await page.getByRole('button', { name: 'Open the school' }).click()
  await page.waitForURL('**/tray')
  await expect(page.getByText('The tray is empty').first()).toBeVisible()
  await page.goto(`${at}/first-run`)
  await page.waitForURL('**/tray')
  child.kill('SIGTERM')
  const [code] = (await once(child, 'exit')) as [number]
  expect(code).toBe(0)
  await expect(fetch(`${at}/api/health`)).rejects.toThrow()
})
