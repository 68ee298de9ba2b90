import { expect, type Page, test } from '@playwright/test'
import { signIn } from './sign-in.ts'
import { openLink } from './home-link.ts'

/** Kilobytes on the wire by kind, of all that a page fetches until it rests. */
async function wire(page: Page, open: () => Promise<unknown>): Promise<Record<string, number>> {
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Network.enable')
  await cdp.send('Network.setCacheDisabled', { cacheDisabled: true })
  const kinds = new Map<string, string>()
  const sizes: Record<string, number> = { Document: 0, Script: 0, Stylesheet: 0, Font: 0 }
  cdp.on('Network.responseReceived', (e) => kinds.set(e.requestId, e.type))
  cdp.on('Network.loadingFinished', (e) => {
    const kind = kinds.get(e.requestId) ?? 'Other'
    sizes[kind] = (sizes[kind] ?? 0) + e.encodedDataLength / 1000
  })
  await open()
  await page.waitForLoadState('networkidle')
  return sizes
}
async function homeLink(page: Page): Promise<string> {
  const { lessons } = (await (await page.request.get('/api/shelf')).json()) as {
    lessons: { id: string; facts: { sent: boolean } }[]
  }
  const sent = lessons.find((l) => l.facts.sent)!
  const { homes } = (await (await page.request.get(`/api/lessons/${sent.id}/send`)).json()) as {
    homes: { householdId: string }[]
  }
  return openLink(page, homes[0]!.householdId)
}

test('the first page of a teacher fetches little', async ({ page }) => {
  await signIn(page)
  const sizes = await wire(page, () => page.goto('/'))
  await expect(page.getByRole('region', { name: 'Wagtails' })).toBeVisible()
  expect(sizes.Script! + sizes.Stylesheet!).toBeLessThan(200)
})

test('a home’s page is light, and its words are in the first answer', async ({ page, browser }) => {
  await signIn(page)
  const link = await homeLink(page)
  const html = await (await page.request.get(link)).text()
  const written = html.replace(/<script[\s\S]*?<\/script>/g, '')
  expect(written).toMatch(/<h1[^>]*>[^<]+<\/h1>/)
  expect(written).toMatch(/You need/)
  expect(written).toMatch(/Task 1 of 3/)

  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } })
  const wrong: string[] = []
  phone.on('pageerror', (e) => wrong.push(e.message))
  phone.on('console', (m) => m.type() === 'error' && wrong.push(m.text()))
  const shifted = phone.addInitScript(() => {
    const seen = { jumps: 0 }
    Object.assign(window, { seen })
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) seen.jumps += (e as unknown as { value: number }).value
    }).observe({ type: 'layout-shift', buffered: true })
  })
  await shifted
  const sizes = await wire(phone, () => phone.goto(link))
  await expect(phone.getByRole('region', { name: 'Task 1 of 3' })).toBeVisible()
  expect(sizes.Script!).toBeLessThan(90)
  // Its styles are inside the document.
  expect(sizes.Document! + sizes.Stylesheet!).toBeLessThan(15)
  expect(sizes.Font!).toBeLessThan(80)
  // Letters that come within the first tenth of a second move lines by a hundredth or two of the screen; nothing else may.
  expect(
    await phone.evaluate(() => (window as unknown as { seen: { jumps: number } }).seen.jumps),
  ).toBeLessThan(0.05)
  expect(wrong).toEqual([])
  await phone.close()
})
