import fs from 'node:fs'
import { createRequire } from 'node:module'
import { expect, type Page, test } from '@playwright/test'
import { openLink } from './home-link.ts'
import { prepared } from './prepared-day.ts'

const axe = fs.readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
interface Violation {
  id: string
  nodes: { html: string }[]
}
/** What a page does that keeps somebody out: the rules of WCAG 2.2 AA, and names that differ from what is to be read. */
async function barriers(page: Page): Promise<string[]> {
  await page.evaluate(axe)
  const found = await page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: { run: (on: Document, options: object) => Promise<{ violations: Violation[] }> }
    }
    return (
      await run.run(document, {
        runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
        rules: {
          'label-content-name-mismatch': { enabled: true },
          'target-size': { enabled: true },
          'nested-interactive': { enabled: true },
        },
      })
    ).violations
  })
  return found.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 200)}`))
}
async function look(page: Page, path: string): Promise<string[]> {
  const all: string[] = []
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' })
    await page.goto(path)
    await page.waitForLoadState('networkidle')
    all.push(...(await barriers(page)).map((b) => `${path} ${colorScheme} ${b}`))
  }
  return all
}

test('every view keeps nobody out, light or dark', async ({ page }) => {
  expect(await look(page, '/sign-in')).toEqual([])
  await page.getByLabel('Email').fill('marnie@cobblegate.example')
  await page.getByLabel('Password').fill('bobbin-parcels')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Pages' })).toBeVisible()
  const shelf = (await (await page.request.get('/api/shelf')).json()) as {
    classes: { id: string }[]
    lessons: { id: string; facts: { sent: boolean; replies: number; looked: number; findings: number } }[]
  }
  // One that has been sent and answered, and one still being written, with findings.
  const sent = shelf.lessons.find((l) => l.facts.sent && l.facts.replies > l.facts.looked)!.id
  const written = shelf.lessons.find((l) => l.facts.findings > 0)!.id
  const { homes } = (await (await page.request.get(`/api/lessons/${sent}/send`)).json()) as {
    homes: { householdId: string; childId: string }[]
  }
  const { id: filmed } = await prepared(page.request)
  const views = [
    '/',
    '/plan',
    `/classes/${shelf.classes[0]!.id}`,
    '/ladder',
    '/house-style',
    '/keeping',
    '/homes',
    '/classes',
    '/people',
    '/account',
    `/children/${homes[0]!.childId}`,
    '/join/used-up-long-ago',
    '/set-up/used-up-long-ago',
    '/week',
    `/lessons/${written}/script`,
    ...['plan', 'film', 'cut', 'send', 'look', 'next', 'remote'].map((v) => `/lessons/${sent}/${v}`),
    // The same with a take to be seen.
    ...['film', 'cut'].map((v) => `/lessons/${filmed}/${v}`),
    await openLink(page, homes[0]!.householdId),
  ]
  const all: string[] = []
  for (const view of views) all.push(...(await look(page, view)))
  expect(all).toEqual([])
})
