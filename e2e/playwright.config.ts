import { defineConfig } from '@playwright/test'
import os from 'node:os'
import path from 'node:path'

const root = path.resolve(import.meta.dirname, '..')

/**
 * Pages live for seconds: what would make their script faster after that costs more than it saves,
 * a seventh of opening one. Where pictures are reckoned with it saves half.
 */
export const FOR_SECONDS = '--js-flags=--no-maglev,--no-opt'

/**
 * The real client on real servers, each with a small demo school of its own, in Debian's Chromium
 * without a window, with a camera that is not there.
 */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  globalSetup: './globalSetup.ts',
  // Tests of one file follow each other on one school; up to three files run side by side on as
  // many: one more than there are cores, since
  // each of them also waits.
  fullyParallel: false,
  workers: Math.min(3, os.availableParallelism() + 1),
  retries: 0,
  // What hangs is ended, what is slow is not a fault: the same machine is ten times slower at times.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  outputDir: path.join(root, 'test-results'),
  reporter: [
    ['list'],
    [
      'json',
      {
        outputFile: process.env.NIBQUILL_E2E_REPORT ?? path.join(root, 'test-results/report.json'),
      },
    ],
  ],
  use: {
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    actionTimeout: 60_000,
    // Requests are watched and cut by tests; the one about opening without a network lets it in.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        FOR_SECONDS,
        '--use-fake-device-for-media-stream=fps=5',
        '--use-fake-ui-for-media-stream',
      ],
    },
  },
})
