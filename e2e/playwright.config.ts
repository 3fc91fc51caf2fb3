import { defineConfig } from '@playwright/test'
import path from 'node:path'

const port = Number(process.env.NIBQUILL_E2E_PORT ?? 4391)
const root = path.resolve(import.meta.dirname, '..')
export const DATA = process.env.NIBQUILL_E2E_DATA ?? path.join(root, '.cache/e2e')

/** The real client on a real server with a small demo school of its own, in Debian's Chromium with a camera that is not there. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  fullyParallel: false,
  workers: 1,
  // A busy machine loses a click now and then: a second try, which is counted and named, but only where nobody can look at once.
  retries: process.env.CI ? 1 : 0,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  outputDir: path.join(root, 'test-results'),
  reporter: [['list'], ['json', { outputFile: process.env.NIBQUILL_E2E_REPORT ?? path.join(root, 'test-results/report.json') }]],
  use: {
    baseURL: `http://localhost:${port}`,
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    actionTimeout: 10_000,
    // Requests are watched and cut by tests; the one about opening without a network lets it in.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update',
        '--disable-sync', '--use-fake-device-for-media-stream=fps=10', '--use-fake-ui-for-media-stream',
      ], // prettier-ignore
    },
  },
  webServer: {
    command: `${process.execPath} --import tsx scripts/serve.ts --fresh --small-demo`,
    cwd: root,
    url: `http://localhost:${port}/api/health`,
    env: { ...process.env, PORT: String(port), NIBQUILL_DATA: DATA, NIBQUILL_LOG: 'warn' } as Record<string, string>,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    stdout: 'ignore',
    stderr: 'pipe',
  },
})
