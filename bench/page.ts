import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { chromium } from 'playwright-core'
import { aimOf } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { keyTimes, makeLesson, pressed, timeKeys } from './in-the-demo.ts'

/**
 * Key press to painted table and findings in a lesson of 40 segments and 600 steps, and frames while a million games
 * are played, in the running demo:
 * node --import tsx bench/page.ts [address]. Prints the median, the 95th percentile and the longest, in ms.
 */
const address = process.argv[2] ?? 'http://127.0.0.1:4180'
let n = 0
const found = findExamples(aimOf({ structure: 'add', upTo: 10, count: 6 }), { zero: true, seed: 3 })
if (!found.ok) throw new Error(found.conflict)
const one = fromTemplate({
  style: defaultHouseStyle,
  title: 'Forty segments',
  ideaId: 'add-10',
  age: 5,
  aim: aimOf({ structure: 'add', upTo: 10, count: 6 }),
  examples: found.sets[0]!.examples,
  newId: () => `t${(n += 1)}`,
})
const played = one.segments.filter((s) => s.kind === 'show' || s.kind === 'together')
const segments: Lesson['segments'] = Array.from({ length: 40 }, (_, i) => {
  const a = [...played[i % played.length]!.steps, ...played[(i + 1) % played.length]!.steps].slice(0, 15)
  return {
    ...played[i % played.length]!,
    id: `s${i}`,
    title: `Segment ${i + 1}`,
    steps: a.map((s, k) => ({ ...s, id: `s${i}x${k}` })),
  }
})
const doc: Lesson = { ...one, segments }

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
})
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const id = await makeLesson(page, address, doc, '2027-06-01')
  await page.goto(`${address}/lessons/${id}/script?at=s20`)
  const line = page.getByLabel('do, line 2')
  await line.click()
  await page.keyboard.press('End')
  await timeKeys(page)
  for (let i = 0; i < 120; i++) await pressed(page, i % 2 ? 'Backspace' : '1')
  const times = (await keyTimes(page)).slice(10).sort((a, b) => a - b)
  const at = (share: number) =>
    times[Math.min(times.length - 1, Math.floor(times.length * share))]!.toFixed(1)
  await page.goto(`${address}/plan`)
  await page.getByLabel('Numbers come from').click()
  await page.getByRole('option', { name: 'two dice', exact: true }).click()
  await page.evaluate(() => {
    const gaps: number[] = []
    Object.assign(window, { gaps })
    let last = performance.now()
    setInterval(
      () =>
        requestAnimationFrame(() => {
          const now = performance.now()
          gaps.push(now - last)
          last = now
        }),
      4,
    )
  })
  const began = Date.now()
  await page.getByRole('button', { name: 'Play a million games' }).click()
  await page.locator('[data-games="1000000"]').waitFor({ timeout: 60_000 })
  const took = (Date.now() - began) / 1000
  const gaps = (await page.evaluate(() => (window as unknown as { gaps: number[] }).gaps)).sort(
    (a, b) => a - b,
  )
  console.log(
    `A million games of five rounds: ${took.toFixed(1)} s; ${gaps.length} frames meanwhile, longest between two ${gaps.at(-1)!.toFixed(0)} ms, ${gaps.filter((g) => g > 50).length} over 50 ms`,
  )
  console.log(
    `Key press to painted table and findings, 40 segments, ${segments.reduce((s, x) => s + x.steps.length, 0)} steps: median ${at(0.5)} ms, 95 % ${at(0.95)} ms, longest ${at(1)} ms`,
  )
} finally {
  await browser.close()
}
