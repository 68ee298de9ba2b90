import { type ChildProcess, fork } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { Client } from 'pg'
import { expect, type Locator, type Page, test } from '@playwright/test'
import { program } from '../server/testing-programs.ts'

const root = path.resolve(import.meta.dirname, '..')

/** An empty Awlbox on a database and folder of its own, and the one-time address it prints. */
async function emptyStart(
  port: number,
): Promise<{ link: string; said: () => string; stop: () => Promise<void> }> {
  const base = process.env.AWLBOX_TEST_PG!
  const name = `first_${randomBytes(4).toString('hex')}`
  const admin = new Client({ connectionString: `${base}/postgres` })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const blobs = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-first-'))
  const { file, execArgv } = program('start')
  const child: ChildProcess = fork(file, [], {
    cwd: root,
    execArgv,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: `${base}/${name}`,
      PORT: String(port),
      AWLBOX_BLOBS: blobs,
      AWLBOX_LOG: 'error',
    },
  })
  let said = ''
  child.stdout!.on('data', (d: Buffer) => (said += d.toString()))
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve())
    child.once('exit', (code) => reject(new Error(`The app ended with ${code}`)))
  })
  return {
    link: said.match(/http:\/\/\S+\/set-up\/\S+/)![0],
    said: () => said,
    stop: () =>
      new Promise((resolve) => {
        child.once('exit', () => {
          fs.rmSync(blobs, { recursive: true, force: true })
          resolve()
        })
        child.kill('SIGTERM')
      }),
  }
}

/**
 * What a person does, counted: things pressed, letters typed. Seconds after the keystroke-level model (Card, Moran and
 * Newell 1980): 1.35 to make up one's mind and 1.1 to point for each thing pressed or field gone to, 0.28 a letter.
 */
class Steps {
  pressed = 0
  letters = 0
  async press(what: Locator): Promise<void> {
    this.pressed += 1
    await what.click()
  }
  async type(where: Locator, words: string): Promise<void> {
    this.pressed += 1
    this.letters += words.length
    await where.fill(words)
  }
  get minutes(): number {
    return (this.pressed * 2.45 + this.letters * 0.28) / 60
  }
}

async function setUp(page: Page, s: Steps): Promise<void> {
  const on = () => s.press(page.getByRole('button', { name: /^(Next|Begin)/ }))
  await s.type(page.getByLabel('What is your setting called?'), 'Cobblegate Early Years')
  await on()
  await s.type(page.getByLabel('Your name'), 'Petra Vole')
  await s.type(page.getByLabel('Your e-mail address'), 'petra@cobblegate.example')
  await s.type(page.getByLabel('A password'), 'a sentence of hers')
  await on()
  await s.type(page.getByLabel('What is your first class called?'), 'Wagtails')
  await on()
  await s.type(page.getByLabel('Who is in it?'), 'Suri, Weir Lane\nOtis, Mill Bank\nInés, Weir Lane')
  await on()
  await expect(page.getByText('Nothing on the shelf yet')).toBeVisible()
}

test('from an empty machine to the first lesson at a home, on a phone', async ({ browser }) => {
  const app = await emptyStart(4298)
  try {
    expect(app.said()).toContain('Only this machine can reach it')
    const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
    const s = new Steps()
    await page.goto(app.link)
    await setUp(page, s)
    const began = { ...s, minutes: s.minutes }
    await s.press(page.getByRole('link', { name: 'Plan a lesson' }).first())
    await s.press(page.getByRole('button', { name: 'Write the script' }))
    await expect(page.getByRole('textbox', { name: 'Title of the lesson' })).toBeVisible()
    await s.press(
      page.getByRole('navigation', { name: 'Stations of this lesson' }).getByRole('link', { name: /^Send/ }),
    )
    await s.press(page.getByRole('button', { name: /^Send to 2 homes/ }))
    await s.press(
      page
        .getByRole('dialog', { name: 'Send it to the homes' })
        .getByRole('button', { name: 'Send', exact: true }),
    )
    const all = page.getByRole('button', { name: /Send all the same/ })
    await expect(page.getByText('revision 1').or(all).first()).toBeVisible()
    if (await all.isVisible()) await s.press(all)
    await expect(page.getByText(/revision 1 · tasks without a film/)).toBeVisible()
    // What a home sees by its link, with no session.
    const homes = (await (await page.request.get(`${new URL(app.link).origin}/api/homes`)).json()) as {
      items: { given: string; link: string }[]
    }
    const home = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
    await home.goto(new URL(app.link).origin + homes.items.find((c) => c.given === 'Suri')!.link)
    await expect(home.getByText(/Wagtails/).first()).toBeVisible()
    await expect(home.getByRole('heading').first()).toBeVisible()
    const told = `set-up: ${began.pressed} presses, ${began.letters} letters, ${began.minutes.toFixed(1)} min; to the first lesson sent: ${s.pressed} presses, ${s.letters} letters, ${s.minutes.toFixed(1)} min`
    test.info().annotations.push({ type: 'figures', description: told })
    console.log(told)
    expect(s.pressed).toBeLessThanOrEqual(20)
    expect(s.minutes).toBeLessThan(3)
    // The page that begins everything is over.
    await page.goto(app.link)
    await expect(page.getByRole('alert')).toContainText('It was used')
    for (const path of [
      'homes',
      'classes',
      'people',
      'keeping',
      'record',
      'words',
      'account',
      'week',
      'ladder',
    ]) {
      await page.goto(`${new URL(app.link).origin}/${path}`)
      await expect(page.getByRole('navigation', { name: 'Pages' })).toBeVisible()
      await page.waitForLoadState('networkidle')
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      expect([path, wide]).toEqual([path, 0])
    }
  } finally {
    await app.stop()
  }
})

/** Goes on with the Tab key until what has the keyboard is called so. */
async function tabTo(page: Page, name: RegExp, most = 120): Promise<void> {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab')
    const words = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null
      if (!e || e === document.body) return ''
      const label = (e as HTMLInputElement).labels?.[0]?.textContent ?? ''
      return [
        e.getAttribute('aria-label') ?? '',
        label,
        e.innerText ?? '',
        e.getAttribute('placeholder') ?? '',
      ].join(' | ')
    })
    if (name.test(words)) return
  }
  throw new Error(`The keyboard does not come to ${name}`)
}

test('the setting is begun and kept by keys alone', async ({ browser }) => {
  const app = await emptyStart(4297)
  const origin = new URL(app.link).origin
  try {
    const page = await (
      await browser.newContext({ baseURL: origin, viewport: { width: 1280, height: 800 } })
    ).newPage()
    await page.goto(app.link)
    await tabTo(page, /your setting called/)
    await page.keyboard.type('Cobblegate Early Years')
    await page.keyboard.press('Enter')
    await tabTo(page, /Your name/)
    for (const words of ['Petra Vole', 'petra@cobblegate.example', 'a sentence of hers']) {
      await page.keyboard.type(words)
      await page.keyboard.press('Tab')
    }
    // Tab has come to “Back”; the next is “Next”.
    await tabTo(page, /\| Next \|/)
    await page.keyboard.press('Enter')
    await tabTo(page, /first class called/)
    await page.keyboard.type('Wagtails')
    await page.keyboard.press('Enter')
    await tabTo(page, /Who is in it/)
    await page.keyboard.type('Suri, Weir Lane')
    await page.keyboard.press('Enter')
    await page.keyboard.type('Otis, Mill Bank')
    await tabTo(page, /Begin with 2/)
    await page.keyboard.press('Enter')
    await expect(page.getByText('Nothing on the shelf yet')).toBeVisible()
    await byKeys(page)
  } finally {
    await app.stop()
  }
})

async function byKeys(page: Page): Promise<void> {
  await page.goto('/homes')
  await expect(page.getByRole('textbox', { name: 'Name of Suri' })).toBeVisible()
  // A cell is gone to, changed, and taken back.
  await tabTo(page, /^Languages of Suri/, 400)
  await page.keyboard.press('Control+a')
  await page.keyboard.type('English, Welsh')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeEnabled()
  await expect(page.getByRole('textbox', { name: 'Languages of Suri' })).toHaveValue('English, Welsh')
  await page.getByRole('heading', { name: 'Children and homes' }).click()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('textbox', { name: 'Languages of Suri' })).toHaveValue('')
  // A child is typed into the last row.
  await tabTo(page, /Name of a new child/, 600)
  await page.keyboard.type('Bo')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Plum Lane')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Name of Bo' })).toBeVisible()
  await page.goto('/people')
  await tabTo(page, /E-mail of somebody to invite/)
  await page.keyboard.type('una@cobblegate.example')
  await page.keyboard.press('Enter')
  const link = page.getByRole('textbox', { name: 'Link for una@cobblegate.example' })
  await expect(link).toBeVisible()
  const address = await link.inputValue()
  await page.goto('/account')
  await tabTo(page, /Sign out everywhere/)
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/sign-in/)
  await page.goto(address)
  await expect(page.getByText('invites you')).toBeVisible()
  await tabTo(page, /Your name/)
  await page.keyboard.type('Una')
  await tabTo(page, /Password/)
  await page.keyboard.type('a sentence of hers')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Tonight' })).toBeVisible()
  await expect(page.getByText('Una', { exact: true })).toBeVisible()
}
