import { chromium, type Browser, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { plainScript } from '../../scripts/plainScript.mjs'

const ROOT = path.resolve(import.meta.dirname, '../..')

/** Works in Chromium over the small demo school, in a folder of its own. */
export async function onSmallDemo<T>(
  work: (browser: Browser, at: string, folder: string) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-bench-'))
  chmodSync(folder, 0o755)
  const server = spawn(
    process.execPath,
    [await plainScript('scripts/serve.ts'), '--throwaway', '--small-demo', '--build'],
    {
      cwd: ROOT,
      env: {
        ...process.env,
        PORT: '0',
        NIBQUILL_DATA: path.join(folder, 'data'),
        NIBQUILL_LOG: 'warn',
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  )
  let said = ''
  server.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  while (!said.includes('Nibquill is ready')) await once(server.stdout, 'data')
  const at = /http:\/\/localhost:\d+/.exec(said)![0]
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: [
      ...['--no-sandbox', '--disable-gpu'],
      ...['--use-fake-device-for-media-stream=fps=10', '--use-fake-ui-for-media-stream'],
    ],
  })
  try {
    return await work(browser, at, folder)
  } finally {
    await browser.close()
    server.kill('SIGTERM')
    await once(server, 'exit')
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Somebody's own page, signed in. */
export async function visit(
  browser: Browser,
  at: string,
  way: string,
  data: object,
): Promise<Page> {
  const context = await browser.newContext({
    baseURL: at,
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    permissions: ['camera'],
  })
  // What is evaluated in the page was written with names kept.
  await context.addInitScript({ content: 'globalThis.__name = (named) => named' })
  const page = await context.newPage()
  await page.request.post(`/api/accounts/sign-in/${way}`, { data, headers: { Origin: at } })
  return page
}
