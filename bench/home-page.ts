import { chromium } from 'playwright-core'

/**
 * How soon a family reads: the home page on a slow phone line (400 kbit/s, 400 ms), beside the bare fetch of its
 * HTML. Run beside a running demo: node --import tsx bench/home-page.ts http://127.0.0.1:4180/h/…
 */
const link = process.argv[2]
if (!link) throw new Error('Say a home’s link, as the demo prints it.')
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
})
const times: Record<'words' | 'tasks' | 'running', number[]> = { words: [], tasks: [], running: [] }
for (let i = 0; i < 5; i++) {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  // Whatever the home reads: here it is looked for by its English names.
  await context.addCookies([{ name: 'awlbox_language', value: 'en', url: new URL(link).origin }])
  const page = await context.newPage()
  const cdp = await context.newCDPSession(page)
  await cdp.send('Network.enable')
  const bytes = (400 * 1000) / 8
  await cdp.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 400,
    downloadThroughput: bytes,
    uploadThroughput: bytes,
  })
  const start = performance.now()
  const since = (): number => (performance.now() - start) / 1000
  await page.goto(link, { waitUntil: 'commit' })
  await page.locator('h1').waitFor({ state: 'visible' })
  times.words.push(since())
  await page.getByRole('region', { name: /^Task 1/ }).waitFor({ state: 'visible' })
  times.tasks.push(since())
  await page.waitForLoadState('load')
  times.running.push(since())
  await context.close()
}
await browser.close()
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!
for (const [what, goal] of [
  ['words', 1.5],
  ['tasks', 2.5],
  ['running', null],
] as const)
  console.log(
    `${what.padEnd(10)} ${median(times[what]).toFixed(2)} s${goal === null ? '' : `  (${(median(times[what]) / goal).toFixed(2)} of the ${goal} s allowed)`}`,
  )
