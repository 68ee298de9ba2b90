import fs from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'

const axe = fs.readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
interface Violation {
  id: string
  nodes: { html: string }[]
}
/** What a page does that keeps somebody out: the rules of WCAG 2.2 AA, and names that differ from what is to be read; or some rules alone. */
export async function barriers(page: Page, only?: string[]): Promise<string[]> {
  await page.evaluate(axe)
  const found = await page.evaluate(async (rules) => {
    const { axe: run } = window as unknown as {
      axe: { run: (on: Document, options: object) => Promise<{ violations: Violation[] }> }
    }
    return (
      await run.run(
        document,
        rules
          ? { runOnly: { type: 'rule', values: rules }, resultTypes: ['violations'] }
          : {
              // What is in order is not written down node by node: that took most of the time.
              resultTypes: ['violations'],
              runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
              rules: {
                'label-content-name-mismatch': { enabled: true },
                'target-size': { enabled: true },
                'nested-interactive': { enabled: true },
              },
            },
      )
    ).violations
  }, only)
  return found.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 200)}`))
}
