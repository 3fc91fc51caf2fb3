import type { Page } from '@playwright/test'
import { execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { createServer, type AddressInfo } from 'node:net'
import path from 'node:path'
import { plainScript } from '../scripts/plainScript.mjs'
import { expect } from './expect.ts'
import { scratch } from './materials.ts'

export type Apart = {
  at: string
  data: string
  stop: () => Promise<number>
  kill: () => Promise<void>
}

/** A Nibquill with no school in it, in a process of its own. */
export const startEmpty = (): Promise<Apart> =>
  startApart(['--empty'], '0', path.join(scratch(), 'data'))

/** A Nibquill with the small demo school in it, copied from the one that was prepared. */
export function startDemo(port = '0'): Promise<Apart> {
  const data = path.join(scratch(), 'data')
  // Owners and rights as well: the database is particular about its folder.
  execFileSync('cp', ['-a', process.env.NIBQUILL_E2E_PREPARED!, data])
  return startApart([], port, data)
}

/** A Nibquill in a process of its own; `kill` ends it as a power cut would. */
export async function startApart(words: string[], port: string, data: string): Promise<Apart> {
  const child = spawn(
    process.execPath,
    [await plainScript('scripts/serve.ts'), '--throwaway', ...words],
    {
      cwd: path.resolve(import.meta.dirname, '..'),
      env: { ...process.env, PORT: port, NIBQUILL_DATA: data, NIBQUILL_LOG: 'warn' },
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  )
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  while (!said.includes('Nibquill is ready')) {
    await Promise.race([once(child.stdout, 'data'), once(child, 'exit')])
    if (child.exitCode !== null) throw new Error(`Nibquill did not start: ${said}`)
  }
  const stop = async () => {
    child.kill('SIGTERM')
    const [code] = (await once(child, 'exit')) as [number]
    return code
  }
  const kill = async () => {
    child.kill('SIGKILL')
    await once(child, 'exit')
  }
  return { at: /http:\/\/localhost:\d+/.exec(said)![0], data, stop, kill }
}

/** A port nobody listens on at this moment. */
export const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer()
    probe.once('error', reject)
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => resolve(port))
    })
  })

export const PASSWORD = 'long enough words'

/** The school and its first teacher, who leads it. */
export async function openSchool(page: Page, at: string): Promise<void> {
  await page.goto(at)
  await expect(page.getByRole('heading', { name: 'A new school' })).toBeVisible()
  await page.getByLabel('Name of the school').fill('Saltmarsh Primary School')
  await page.getByLabel(/^Time zone/).fill('Europe/London')
  await page.getByLabel(/^What pupils call you/).fill('Ms')
  await page.getByLabel('Surname').fill('Ray')
  await page.getByLabel('E-mail address').fill('ray@saltmarsh.example')
  await page.getByLabel(/^Password/).fill(PASSWORD)
  await page.getByRole('button', { name: 'Open the school' }).click()
  await page.waitForURL('**/tray')
}
