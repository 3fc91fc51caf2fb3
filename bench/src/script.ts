import { chromium } from '@playwright/test'
import { startServer } from '@nibquill/server'
import { spawnSync } from 'node:child_process'
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { gzipSync } from 'node:zlib'
import { benchConfig, makeOwner } from './school.ts'
import { line, type Line } from './measure.ts'

const ROOT = path.resolve(import.meta.dirname, '../..')
const BARE = path.join(ROOT, 'bench/bare')
const DIST = path.join(ROOT, 'client/dist')

/**
 * How much script the first screen fetches, packed as it is sent, against a bare page of the same
 * libraries (Expo, its router, Paper).
 */
export async function benchScript(): Promise<Line[]> {
  run(process.execPath, [path.join(ROOT, 'scripts/buildClient.mjs')], ROOT)
  const bare = await bareScript()
  const { config, stop } = await benchConfig('script')
  const server = await startServer({ ...config, clientFolder: DIST })
  await makeOwner(server)
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const context = await browser.newContext({ serviceWorkers: 'block' })
  const page = await context.newPage()
  const fetched = new Set<string>()
  page.on('request', (request) => {
    if (request.resourceType() === 'script') fetched.add(new URL(request.url()).pathname)
  })
  await page.goto(`${server.url}/sign-in`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  const door = await packed([...fetched].map((name) => path.join(DIST, name)))
  await browser.close()
  await server.close()
  await stop()
  return [
    line('script of the first screen (KB, packed)', door / 1000, bare / 1000, 'KB', '<=', 1.3),
  ]
}

async function bareScript(): Promise<number> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bare-'))
  run(
    process.execPath,
    [
      path.join(ROOT, 'node_modules/expo/bin/cli'),
      ...['export', '--platform', 'web', '--output-dir', folder],
    ],
    BARE,
  )
  const scripts = (await readdir(folder, { recursive: true })).filter((name) =>
    name.endsWith('.js'),
  )
  const bytes = await packed(scripts.map((name) => path.join(folder, name)))
  await rm(folder, { recursive: true, force: true })
  return bytes
}

async function packed(files: readonly string[]): Promise<number> {
  let bytes = 0
  for (const file of files) bytes += gzipSync(await readFile(file), { level: 9 }).length
  return bytes
}

function run(program: string, words: readonly string[], cwd: string): void {
  const env = {
    ...process.env,
    EXPO_OFFLINE: '1',
    EXPO_NO_TELEMETRY: '1',
    CI: '1',
    NODE_ENV: 'production',
  }
  const { status, stderr } = spawnSync(program, words, { cwd, env, encoding: 'utf8' })
  if (status !== 0) throw new Error(`${words[0]} ended with ${status}: ${stderr}`)
}
