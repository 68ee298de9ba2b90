import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { chromium } from 'playwright-core'

/**
 * One current picture of each main view, from the running demo:
 * node --import tsx docs/take-screenshots.ts [ADDRESS] [VIEW…]; with views named only those are taken.
 */
const [address = 'http://127.0.0.1:4180', ...only] = process.argv.slice(2)
const folder = path.join(import.meta.dirname, 'screenshots')
const scratch = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-screenshots-'))
const camera = path.join(scratch, 'camera.mjpeg')
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--no-first-run',
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-video-capture=${camera}`,
  ],
})
const context = await browser.newContext({
  permissions: ['camera', 'microphone'],
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
  timezoneId: 'Europe/London',
})
await context.request.post(`${address}/api/sign-in`, {
  data: { email: 'marnie@cobblegate.example', password: 'bobbin-parcels' },
})
const shelf = (await (await context.request.get(`${address}/api/shelf`)).json()) as {
  classes: { id: string; name: string }[]
  lessons: { id: string; classId: string; title: string }[]
}
// A street of made-up homes has lessons of the same names.
const own = shelf.classes.filter((c) => ['Wagtails', 'Goldcrests'].includes(c.name)).map((c) => c.id)
const lesson = (title: string) =>
  `/lessons/${shelf.lessons.find((l) => l.title === title && own.includes(l.classId))!.id}`
const parcels = lesson('Seven parcels, two pigeon-holes')
const page = await context.newPage()
// A page never waits for its letters: once they are fetched, the pictures show them.
await page.goto(address)
await page.waitForLoadState('networkidle')
// What the camera sees in the pictures is a take of the stand-in's.
const { items: takes } = (await (await context.request.get(`${address}/api${parcels}/takes`)).json()) as {
  items: { id: string; segmentId: string; status: string }[]
}
const { doc } = (await (await context.request.get(`${address}/api${parcels}`)).json()) as {
  doc: { segments: { id: string; title: string }[] }
}
const shown =
  takes.find(
    (t) => t.status === 'ready' && t.segmentId === doc.segments.find((s) => s.title === 'Watch me first')?.id,
  ) ?? takes[0]!
fs.writeFileSync(
  path.join(scratch, 'take.mp4'),
  await (await context.request.get(`${address}/api/takes/${shown.id}/film`)).body(),
)
execFileSync('ffmpeg', [
  '-v',
  'error',
  '-y',
  '-ss',
  '12',
  '-t',
  '8',
  '-i',
  path.join(scratch, 'take.mp4'),
  '-vf',
  'scale=640:360',
  '-q:v',
  '5',
  '-an',
  camera,
])
const open = (name: string) => async () => {
  const card = page.getByRole('button', { name: new RegExp(`^${name}`) })
  if (await card.count()) await card.first().click()
}
const { rows } = (await (
  await context.request.get(
    `${address}/api/classes/${shelf.classes.find((c) => c.name === 'Wagtails')!.id}/standing`,
  )
).json()) as { rows: { childId: string; name: string }[] }
const kofi = rows.find((r) => r.name === 'Kofi')!.childId
const views: [name: string, at: string, ready: () => Promise<unknown>][] = [
  ['shelf', '/', () => page.getByRole('heading', { name: 'Tonight' }).waitFor()],
  ['ladder', '/ladder?idea=add-10', () => page.getByText(/of 12 secure/).waitFor()],
  [
    'plan',
    `${lesson('Ten parcels and five places')}/plan`,
    () => page.getByText(/homes can do this as written/).waitFor(),
  ],
  ['week', '/week', () => page.getByRole('heading', { name: /^Week from/ }).waitFor()],
  ['homes', '/homes', () => page.getByRole('textbox', { name: 'Name of Suri' }).waitFor()],
  ['keeping', '/keeping', () => page.getByRole('heading', { name: 'How long it is kept' }).waitFor()],
  ['house-style', '/house-style', () => page.getByRole('heading', { name: 'Teaching' }).waitFor()],
  ['script', `${lesson('Parcels left at doors')}/script`, open('We do it together 1')],
  [
    'film',
    `${parcels}/film`,
    async () => {
      await open('Watch me first')()
      await page.getByRole('tablist', { name: 'Takes' }).evaluate((e) => e.scrollIntoView({ block: 'start' }))
    },
  ],
  [
    'prompter',
    `${parcels}/film`,
    async () => {
      await open('We do it together 1')()
      await page.getByRole('button', { name: 'Fill the screen' }).click()
      for (let i = 0; i < 4; i++) await page.keyboard.press('PageDown')
    },
  ],
  [
    'cut',
    `${parcels}/cut`,
    async () => {
      const row = page.getByRole('region', { name: 'We do it together 1' })
      await row.scrollIntoViewIfNeeded()
      await row
        .getByRole('button', { name: /^Overlay: number sentence/ })
        .first()
        .click()
      const entry = page.getByRole('button', { name: /^number sentence \d/ }).first()
      await entry.click()
      if ((await entry.getAttribute('aria-pressed')) !== 'true') await entry.click()
      // The picture has come to the span that was chosen.
      await page.waitForFunction(() =>
        [...document.querySelectorAll('video')].some(
          (v) => v.style.opacity === '1' && v.readyState >= 2 && !v.seeking,
        ),
      )
    },
  ],
  ['send', `${parcels}/send`, () => page.getByRole('heading', { name: /^Homes/ }).waitFor()],
  [
    'look',
    `${parcels}/look`,
    async () => {
      // The first reply that has a photo, wherever it came in the queue.
      await page.getByRole('list', { name: 'Replies' }).locator('button:has(img)').first().click()
      await page.getByRole('img', { name: /things found/ }).waitFor()
    },
  ],
  ['child', `/children/${kofi}/progress`, () => page.getByRole('region', { name: 'Replies' }).waitFor()],
  ['next', `${parcels}/next`, () => page.getByRole('heading', { name: /^Who needs what/ }).waitFor()],
]
for (const [name, at, ready] of views.filter(([name]) => !only.length || only.includes(name))) {
  await page.goto(address + at)
  await page.waitForLoadState('load')
  await page.getByRole('banner').waitFor()
  await page.waitForFunction(() => document.fonts.ready.then(() => true))
  await page.locator('main, section').first().waitFor()
  await ready()
  // Videos show their first frame a moment after the page is there.
  await page
    .waitForFunction(
      () =>
        [...document.querySelectorAll('video')].every(
          (v) => v.preload === 'none' || v.readyState >= 2 || v.error,
        ),
      undefined,
      { timeout: 8000 },
    )
    .catch((error: unknown) => console.error(`${name}: a film shows no picture yet. ${String(error)}`))
  await page.screenshot({ path: path.join(folder, `${name}.png`) })
}
if (!only.length || only.includes('home')) await pictureOfHome()
if (!only.length || only.includes('live')) await picturesOfLive()
await browser.close()
fs.rmSync(scratch, { recursive: true, force: true })

/** A family's page, as a phone shows it. */
async function pictureOfHome(): Promise<void> {
  const homes = (await (await context.request.get(`${address}/api${parcels}/send`)).json()) as {
    homes: { child: string; link: string | null }[]
  }
  const phone = await (
    await browser.newContext({ viewport: { width: 390, height: 844 }, deviceScaleFactor: 1, locale: 'en-GB' })
  ).newPage()
  const homeLink = address + homes.homes.find((h) => h.child === 'Anouk')!.link!
  // A page never waits for its letters: once they are kept, the picture shows them.
  for (let i = 0; i < 4; i++) {
    await phone.goto(homeLink)
    await phone.waitForLoadState('networkidle')
  }
  await phone.getByRole('button', { name: 'Send', exact: true }).waitFor()
  await phone.screenshot({ path: path.join(folder, 'home.png') })
}

/** Where the desk stands: its line, and what the one button does. Read in the page. */
function standsAt(): string {
  return `${document.querySelector('[aria-current=step]')?.textContent} ${document.querySelector('main .bg-moss')?.textContent}`
}
/** A rehearsal with made-up homes: its desk with a round that was shown, the window it shares, and a phone in the round. */
async function picturesOfLive(): Promise<void> {
  const at = lesson('Fingers up')
  const made = await context.request.post(`${address}/api${at}/live`, {
    data: { startsAt: new Date().toISOString(), minutes: 20, rehearsal: true },
    headers: { origin: address },
  })
  const { id } = (await made.json()) as { id: string }
  const { homes } = (await (await context.request.get(`${address}/api${at}/send`)).json()) as {
    homes: { link: string | null }[]
  }
  await page.goto(`${address}/live/${id}`)
  await page.getByRole('button', { name: 'Let made-up homes come' }).click()
  await page.getByText(/^\d+ made-up homes come/).waitFor()
  await page.getByRole('button', { name: 'Begin' }).click()
  const ask = page.getByRole('button', { name: 'Ask it' })
  for (let k = 0; k < 60 && !(await ask.count()); k++) {
    const on = page.getByRole('button', { name: /^(Go on|Let them do it)$/ })
    // The one button is named anew when the next line or its round has come: pressed before, it would do that one's.
    const was = await page.evaluate(standsAt)
    await on.click()
    for (let t = 0; t < 200 && (await page.evaluate(standsAt)) === was; t++) await page.waitForTimeout(50)
  }
  await ask.click()
  const phone = await (
    await browser.newContext({ viewport: { width: 390, height: 844 }, deviceScaleFactor: 1, locale: 'en-GB' })
  ).newPage()
  const home = homes.find((h) => h.link)!.link!
  await phone.context().addCookies([{ name: 'awlbox_language', value: 'en', url: address }])
  await phone.goto(`${address}${home}?live=${id}`)
  await phone.getByRole('button', { name: '5', exact: true }).click()
  await phone.screenshot({ path: path.join(folder, 'live-home.png') })
  const shared = await context.newPage()
  await shared.goto(`${address}/live/${id}/window`)
  await shared.getByText(/ready$/).waitFor()
  await page.getByText(/^ready [4-9]/).waitFor()
  await shared.screenshot({ path: path.join(folder, 'live-window.png') })
  await page.bringToFront()
  await page.getByRole('button', { name: 'Three, two, one, show' }).click()
  await page.getByText(/^All at once/).waitFor()
  await page.screenshot({ path: path.join(folder, 'live.png') })
  await page.getByRole('button', { name: 'End', exact: true }).click()
  await page.getByRole('button', { name: 'End it' }).click()
  await page.getByRole('heading', { name: /^The rehearsal took/ }).waitFor()
}
