import { expect, type Page, test } from '@playwright/test'
import { barriers } from './barriers.ts'
import { openLink } from './home-link.ts'
import { prepared } from './prepared-day.ts'

async function look(page: Page, path: string): Promise<string[]> {
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
  await page.goto(path)
  await page.waitForLoadState('networkidle')
  const light = await barriers(page)
  // In the dark only colours are others.
  await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' })
  // Colours that are on their way, one set another going where it is inherited; what turns for as long as work goes on never ends.
  await page.evaluate(async () => {
    const frame = (): Promise<number> => new Promise((r) => requestAnimationFrame(r))
    const onTheirWay = (): Animation[] =>
      document
        .getAnimations()
        .filter((a) => Number.isFinite(Number(a.effect?.getComputedTiming().endTime ?? 0)))
    await frame()
    for (let set = onTheirWay(); set.length; set = onTheirWay()) {
      await Promise.allSettled(set.map((a) => a.finished))
      await frame()
    }
  })
  const dark = await barriers(page, ['color-contrast'])
  return [...light.map((b) => `${path} light ${b}`), ...dark.map((b) => `${path} dark ${b}`)]
}

test('every view keeps nobody out, light or dark', async ({ page }) => {
  // Some thirty views, each looked through twice, beside whatever else the machine does.
  test.setTimeout(900_000)
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
  const rehearsal = await page.request.post(`/api/lessons/${sent}/live`, {
    data: { startsAt: new Date().toISOString(), minutes: 20, rehearsal: true },
  })
  const { id: live } = (await rehearsal.json()) as { id: string }
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
    '/words',
    '/account',
    `/children/${homes[0]!.childId}`,
    `/children/${homes[0]!.childId}/progress`,
    '/join/used-up-long-ago',
    '/set-up/used-up-long-ago',
    '/week',
    `/lessons/${written}/script`,
    ...['plan', 'film', 'cut', 'live', 'send', 'look', 'look/second', 'look/pairs', 'next', 'remote'].map(
      (v) => `/lessons/${sent}/${v}`,
    ),
    '/practice',
    `/live/${live}`,
    `/live/${live}/window`,
    // The same with a take to be seen.
    ...['film', 'cut'].map((v) => `/lessons/${filmed}/${v}`),
    '/code',
    await openLink(page, homes[0]!.householdId),
    `${await openLink(page, homes[0]!.householdId)}?live=${live}`,
  ]
  const all: string[] = []
  for (const view of views) all.push(...(await look(page, view)))
  expect(all).toEqual([])
})
