import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { chromium } from 'playwright-core'
import { eq, isNotNull } from 'drizzle-orm'
import type { HeardWord } from '@awlbox/core/contracts/heard'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { hear } from '@awlbox/core/film/judge/heard'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { aimOf } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { makeLesson, pressed, timeKeys } from './in-the-demo.ts'
import { addTake, saveHearing, setTake } from '../server/film/store.ts'
import { openDb } from '../server/platform/db.ts'
import { lessons, takes } from '../server/platform/schema.ts'

const usual = { style: defaultHouseStyle, age: 4 }

/**
 * The Cut screen on ninety minutes of material in twenty clips, in the running demo: how long it takes to open, and
 * from a key press to the changed row on screen. DATABASE_URL is the demo's. Prints ms.
 * DATABASE_URL=… node --import tsx bench/cut-page.ts [address]
 */
const address = process.argv[2] ?? 'http://127.0.0.1:4180'
const [clips, seconds] = [20, 270]
let n = 0
const found = findExamples(aimOf({ structure: 'add', upTo: 10, count: 6 }), { zero: true, seed: 3 })
if (!found.ok) throw new Error(found.conflict)
const one = fromTemplate({
  style: defaultHouseStyle,
  title: 'Ninety minutes',
  ideaId: 'add-10',
  age: 5,
  aim: aimOf({ structure: 'add', upTo: 10, count: 6 }),
  examples: found.sets[0]!.examples,
  newId: () => `t${(n += 1)}`,
})
const played = one.segments.filter((s) => s.kind === 'show' || s.kind === 'together')
const segments: Lesson['segments'] = Array.from({ length: clips }, (_, i) => {
  const steps = Array.from({ length: 6 }, (_, k) => played[(i + k) % played.length]!.steps)
    .flat()
    .slice(0, 60)
  return {
    ...played[i % played.length]!,
    id: `s${i}`,
    title: `Segment ${i + 1}`,
    steps: steps.map((s, k) => ({ ...s, id: `s${i}x${k}` })),
  }
})
const { db, pool } = openDb(process.env.DATABASE_URL ?? '')
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
})
let id = ''
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  page.on('pageerror', (e) => console.log('page error:', e.message))
  id = await makeLesson(page, address, { ...one, segments }, '2027-06-02')
  const [real] = await db.select().from(takes).where(isNotNull(takes.sheet)).limit(1)
  if (!real?.film) throw new Error('The demo has no take yet.')
  for (const s of segments) {
    const take = await addTake(db, {
      lessonId: id,
      segmentId: s.id,
      source: 'uploaded',
      original: real.original,
    })
    let at = 1
    const words = spokenLines(s, defaultHouseStyle)
      .flatMap((l) =>
        l.words
          .map((word): HeardWord => {
            at += 0.42
            return { word, start: at - 0.42, end: at - 0.08, confidence: 0.9 }
          })
          .concat(((at += 1.6), [])),
      )
      .filter((w) => w.end < seconds - 1)
    await setTake(db, take, {
      film: real.film,
      seconds,
      hasSound: true,
      status: 'ready',
      sheet: real.sheet,
      looked: real.looked,
      peaks: Buffer.from(
        Array.from({ length: seconds * 50 }, (_, i) =>
          words.some((w) => i / 50 >= w.start && i / 50 <= w.end) ? 150 + ((i * 37) % 90) : 20,
        ),
      ),
    })
    await saveHearing(db, take, hear(s, words, seconds, usual), 1)
  }
  const began = performance.now()
  await page.goto(`${address}/lessons/${id}/cut`)
  await page.waitForFunction((k) => document.querySelectorAll('[data-item]').length > k, clips * 10)
  const opened = performance.now() - began
  const spans = await page.evaluate(() => document.querySelectorAll('[data-item]').length)
  console.log(
    `opening: ${Math.round(opened)} ms to ${spans} spans of ${clips} clips, ${Math.round((clips * seconds) / 60)} min`,
  )
  await timeKeys(page)
  const all: number[] = []
  for (const [name, key] of [
    ['choose the next span', 'ArrowRight'],
    ['split', 's'],
    ['drop', 'd'],
    ['bring back', 'b'],
    ['wait', 'w'],
    ['move', 'Alt+ArrowRight'],
    ['card', 'p'],
    ['undo', 'Control+z'],
    ['redo', 'Control+Shift+z'],
  ] as const) {
    const times: number[] = []
    for (let i = 0; i < 14; i++) {
      const row = page.locator('section[aria-label^="Segment "]').nth((i * 7) % clips)
      const span = row.locator('[data-item]').nth(4)
      await span.scrollIntoViewIfNeeded()
      await span.click()
      if (key === 'b') await page.keyboard.press('d')
      if (key === 'Control+Shift+z') await page.keyboard.press('Control+z')
      // Whatever the click began is over before the key is pressed.
      await page.evaluate(() => new Promise((done) => requestIdleCallback(done)))
      times.push(await pressed(page, key))
    }
    times.sort((a, b) => a - b)
    all.push(...times)
    console.log(`${name.padEnd(24)} median ${times[7]!.toFixed(1)}  longest ${times.at(-1)!.toFixed(1)}`)
  }
  all.sort((a, b) => a - b)
  console.log(
    `all operations: median ${all[Math.floor(all.length / 2)]!.toFixed(1)}, 95 % within ${all[Math.floor(all.length * 0.95)]!.toFixed(1)}, longest ${all.at(-1)!.toFixed(1)} ms`,
  )
} finally {
  await browser.close()
  if (id) await db.delete(lessons).where(eq(lessons.id, id))
  await pool.end()
}
