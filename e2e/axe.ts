import type { Page } from '@playwright/test'
import type axe from 'axe-core'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'

// WCAG 2.2 AA, as far as axe-core can tell.
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/**
 * What axe-core calls serious or critical on a page, a line each. Within the page, which has no
 * frames, and of what is in order nothing
 * is told: as a browser of its own for the result does it, it takes four times as long.
 */
export async function graveFaults(page: Page, { colours = true } = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source)
  const violations = await page.evaluate(
    async ([values, enabled]) => {
      const { axe: here } = window as unknown as { axe: typeof axe }
      const found = await here.run(document, {
        runOnly: { type: 'tag', values },
        resultTypes: ['violations'],
        rules: { 'color-contrast': { enabled } },
      })
      return found.violations
    },
    [RULES, colours] as const,
  )
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id}: ${nodes.map(({ html, failureSummary }) => `${html.slice(0, 160)} ${failureSummary ?? ''}`).join('\n')}`,
    )
}
