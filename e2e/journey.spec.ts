import { choose, slide } from './choose.ts'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { keepsPieces } from './kept-pieces.ts'
import { expect, test, type Page } from '@playwright/test'
import { signIn } from './sign-in.ts'
import { standInPhoto } from '../standins/homes/photo.ts'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-journey-'))
test.afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))

const segment = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) })
/** Opens a segment in the script; the first one is open already. */
async function openSegment(page: Page, name: string): Promise<void> {
  const card = page.getByRole('region', { name, exact: true })
  await expect(card.or(segment(page, name))).toBeVisible()
  if (!(await card.isVisible())) await segment(page, name).click()
}
const station = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stations of this lesson' })
    .getByRole('link', { name: new RegExp(`^${name}`) })

test('one recorded lesson from Plan to Next', async ({ page, browser }) => {
  test.setTimeout(1_200_000)
  await test.step('Sign in: two classes as threads, tonight with minutes', async () => {
    await signIn(page)
    for (const name of ['Wagtails', 'Goldcrests'])
      await expect(page.getByRole('region', { name })).toBeVisible()
    await expect(page.getByRole('img', { name: /of 7 stations done/ }).first()).toBeVisible()
    await expect(
      page
        .getByRole('complementary')
        .getByText(/\d+ min$/)
        .first(),
    ).toBeVisible()
  })

  await test.step('Plan: an idea, its numbers, an example set found with tags, things counted', async () => {
    await page.getByRole('link', { name: 'Plan a lesson' }).click()
    await choose(page, 'Idea', 'Parts of 5')
    await page.getByLabel('How many examples').fill('3')
    await page.getByRole('button', { name: 'a double' }).click()
    await expect(page.getByRole('alert')).toContainText('5 is odd')
    await page.getByRole('button', { name: 'a double' }).click()
    await expect(page.getByRole('group', { name: / set$/ }).first()).toContainText(/turn-round of \d/)
    await page.getByLabel('Title').fill('Five parcels to sort')
    await choose(page, 'Class', 'Goldcrests')
    await expect(page.getByText('5 two-faced counters').first()).toBeVisible()
    await page.getByRole('button', { name: 'Write the script' }).click()
    await expect(page.getByRole('textbox', { name: 'Title of the lesson' })).toHaveValue(
      'Five parcels to sort',
    )
  })

  await test.step('Script: edit, find, mend, undo, move; table and time follow', async () => {
    await segment(page, 'Watch me first').click()
    const write = page.getByRole('textbox', { name: /^write, line/ })
    const right = await write.inputValue()
    await write.fill(right.replace(/\d+$/, '9'))
    await expect(page.locator('[data-finding="false-sentence"]')).toContainText('is not true')
    await page.getByRole('button', { name: `Write ${right}` }).click()
    await expect(write).toHaveValue(right)
    await expect(page.getByText('Nothing wrong')).toBeVisible()
    await page.getByRole('textbox', { name: /^do, line 2/ }).fill('Put 4 on the frame')
    await expect(page.getByRole('img', { name: /ten frame: 4 saffron/ }).last()).toBeVisible()
    await expect(page.locator('[data-finding="count-end"]').first()).toBeVisible()
    await page.getByRole('heading', { name: /The table at/ }).click()
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect(page.getByRole('textbox', { name: /^do, line 2/ })).toHaveValue('Put 5 on the frame')
    const first = page.getByRole('textbox', { name: /^say, line 1$/ })
    await first.click()
    await first.press('End')
    await first.press('Enter')
    await page.keyboard.type('ask How many parcels can you see?')
    await page.keyboard.press('Alt+Enter')
    await expect(page.getByRole('textbox', { name: /^ask, line 2$/ })).toHaveValue(
      'How many parcels can you see?',
    )
    await page.keyboard.press('Enter')
    await expect(page.getByRole('textbox', { name: /^wait, line 3$/ })).toHaveValue('5 s')
    await page.getByRole('button', { name: 'Take out line 3', exact: true }).click()
    await page.getByRole('textbox', { name: /^ask, line 2$/ }).press('Alt+ArrowUp')
    await expect(page.getByRole('textbox', { name: /^ask, line 1$/ })).toHaveValue(
      'How many parcels can you see?',
    )
    await page.getByRole('button', { name: 'Take out line 1', exact: true }).click()
    await expect(page.getByRole('textbox', { name: /^say, line 1$/ })).toHaveValue(
      'Bobbin has five parcels to sort into two places.',
    )
    await expect(page.getByText(/Saved · revision \d+/)).toBeVisible()
    await page.reload()
    await expect(page.getByText('Nothing wrong')).toBeVisible()
  })

  await test.step('Film: by camera, by upload, by the stand-in with a number left out', async () => {
    await station(page, 'Film').click()
    await segment(page, 'Hello from Bobbin').click()
    await page.getByRole('button', { name: 'Open the camera' }).click()
    await page.getByRole('button', { name: 'Film this segment' }).click()
    await expect(page.getByText(/Filming 0:0[3-9]/)).toBeVisible()
    await page.getByRole('button', { name: 'Stop filming' }).click()
    await expect(page.getByRole('article', { name: 'Take 1' })).toBeVisible({ timeout: 200_000 })

    await segment(page, 'Goodbye').click()
    const text = path.join(folder, 'list.mp4')
    fs.writeFileSync(text, 'a shopping list\n'.repeat(50))
    await page.getByLabel('Clips to bring').setInputFiles(text)
    await expect(page.getByRole('alert')).toContainText('Nothing was changed')
    await page.getByRole('alert').getByRole('button', { name: 'Close' }).click()
    const wav = path.join(folder, 'bye.wav')
    const mp4 = path.join(folder, 'bye.mp4')
    execFileSync('flite', [
      '-voice',
      'slt',
      '-t',
      'You sorted parcels with me. Bobbin says thank you.',
      '-o',
      wav,
    ])
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=640x360:r=25',
      '-i',
      wav,
      '-shortest',
      '-c:v',
      'libx264',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      mp4,
    ])
    await page.getByLabel('Clips to bring').setInputFiles(mp4)
    await expect(page.getByRole('article', { name: 'Take 1' })).toContainText(
      'Everything was heard as written',
      { timeout: 200_000 },
    )

    for (const [name, slip] of [
      ['Watch me first', 'leave out a number'],
      ['Things you need', 'false start'],
    ] as const) {
      await segment(page, name).click()
      await page.getByRole('button', { name: 'Let the stand-in film it' }).click()
      await page.getByRole('checkbox', { name: slip, exact: true }).check()
      await page.getByRole('button', { name: 'Film it' }).click()
      await expect(page.getByRole('dialog')).toBeHidden()
    }
  })

  await test.step('Hear: each slip is found at its time', async () => {
    await segment(page, 'Watch me first').click()
    const slip = page.locator('[data-heard="count-skip"]')
    await expect(slip).toContainText(/\d is left out of the count/, { timeout: 200_000 })
    await slip.getByRole('button').first().click()
    const video = page.getByRole('article', { name: 'Take 1' }).locator('video')
    await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(5)
    await segment(page, 'Things you need').click()
    await expect(page.locator('[data-heard="false-start"]')).toBeVisible({ timeout: 200_000 })
  })

  await test.step('Cut: accept, drop, bring back, undo, hold, card, preview, render; the film plays and is as long as the cut', async () => {
    await station(page, 'Cut').click()
    await page.getByRole('button', { name: /^Accept \d+ false start/ }).click()
    await expect(page.getByRole('button', { name: /^Accept \d+ false start/ })).toBeHidden()
    const row = page.getByRole('region', { name: 'Watch me first' })
    await row
      .getByRole('button', { name: /^quiet/ })
      .last()
      .click()
    await page.getByRole('button', { name: 'Drop this span' }).click()
    const dropped = row.getByRole('button', { name: /by hand .* cut out/ })
    await expect(dropped).toBeVisible()
    await page.keyboard.press('b')
    await expect(dropped).toBeHidden()
    await page.keyboard.press('Control+z')
    await expect(dropped).toBeVisible()
    await row
      .getByRole('button', { name: /^bobbin has/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Wait after it' }).click()
    await row.getByRole('button', { name: /^Wait, the picture held 3.0 s/ }).click()
    await slide(page, 'Seconds the picture is held', -10)
    await expect(row.getByRole('button', { name: /^Wait, the picture held 2.0 s/ })).toBeVisible()
    await page.keyboard.press('p')
    await expect(row.getByRole('button', { name: /^Card: Stop.*Stop the film/ })).toBeVisible()
    await page.getByRole('button', { name: 'Accept all' }).click()
    await expect(page.getByText('Nothing left to decide.')).toBeVisible()
    await page.getByRole('button', { name: 'From the start' }).click()
    await expect(page.getByText(/^0:0[2-9] of \d:\d\d$/)).toBeVisible()
    await page.keyboard.press(' ')
    const length = (await page.getByText(/^Cut \d/).textContent())!.match(/(\d+):(\d+)/)!
    await page.getByRole('button', { name: /^Render/ }).click()
    // Only some of it is filmed: that is asked about before a film is made of it.
    await page
      .getByRole('dialog', { name: 'Before it goes out' })
      .getByRole('button', { name: 'Render all the same' })
      .click()
    const film = page.getByRole('region', { name: 'The rendered film' }).locator('video')
    await expect(film).toBeVisible({ timeout: 600_000 })
    await film.evaluate((v: HTMLVideoElement) => {
      v.muted = true
      return v.play()
    })
    await expect.poll(() => film.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0.3)
    const seconds = await film.evaluate((v: HTMLVideoElement) => v.duration)
    expect(Math.abs(seconds - (Number(length[1]) * 60 + Number(length[2])))).toBeLessThan(1)
    await expect
      .poll(() => film.evaluate((v: HTMLVideoElement) => v.textTracks[0]?.cues?.length ?? 0))
      .toBeGreaterThan(3)
  })

  let link = ''
  await test.step('Send: each home gets a private link', async () => {
    await station(page, 'Send').click()
    await page.getByRole('button', { name: /^Send to 8 homes/ }).click()
    await page
      .getByRole('dialog', { name: 'Send it to the homes' })
      .getByRole('button', { name: 'Send', exact: true })
      .click()
    // What is not in order is asked about once, each with the place to mend it, and kept with the sending.
    const asked = page.getByRole('dialog', { name: 'Before it goes out' })
    await expect(asked.getByRole('link', { name: 'Mend it' }).first()).toBeVisible()
    await asked.getByRole('button', { name: 'Send all the same' }).click()
    await expect(page.getByText(/sent knowing \d+ not in order/)).toBeVisible()
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Tilly' })
      .getByRole('button', { name: 'Link' })
      .click()
    link = await page.getByLabel('Link', { exact: true }).inputValue()
    await page.getByRole('button', { name: 'Close' }).click()
  })

  await test.step('The home: film with captions, things with a swap, tasks, help, photo; sending twice is one reply', async () => {
    const phone = await (
      await browser.newContext({
        viewport: { width: 390, height: 844 },
        deviceScaleFactor: 2,
        hasTouch: true,
        isMobile: true,
      })
    ).newPage()
    await phone.goto(link)
    await expect(phone.getByRole('heading', { name: 'Five parcels to sort' })).toBeVisible()
    await expect(phone.getByText(/5 two-faced counters, or/)).toBeVisible()
    await expect(phone.getByText(/Small parts/)).toBeVisible()
    await phone.getByRole('button', { name: /^Show the film/ }).click()
    const film = phone.locator('video')
    await film.evaluate((v: HTMLVideoElement) => {
      v.muted = true
      return v.play()
    })
    await expect.poll(() => film.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0.2)
    await expect
      .poll(() => film.evaluate((v: HTMLVideoElement) => v.textTracks[0]?.cues?.length ?? 0))
      .toBeGreaterThan(3)
    expect(await phone.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
    const number = phone.getByRole('region', { name: 'Task 1 of 3' }).getByRole('textbox')
    await number.fill('🙂')
    await expect(phone.getByText('We can’t read this as a number')).toBeVisible()
    await number.fill('٣')
    await expect(phone.getByText('read as 3')).toBeVisible()
    await number.fill('three')
    await phone.getByRole('region', { name: 'Task 2 of 3' }).getByRole('radio').nth(1).click()
    const jpeg = path.join(folder, 'table.jpg')
    fs.writeFileSync(
      jpeg,
      await standInPhoto({ saffron: 3, blue: 2, seed: 6, orientation: 6, ground: 'wood' }),
    )
    fs.writeFileSync(path.join(folder, 'empty.jpg'), '')
    await phone.getByLabel('Take a photo', { exact: true }).setInputFiles(path.join(folder, 'empty.jpg'))
    await expect(phone.getByText(/nothing in it.*answers are kept/)).toBeVisible()
    await phone.getByLabel('Take a photo', { exact: true }).setInputFiles(jpeg)
    await expect(phone.getByText('The photo is here.')).toBeVisible()
    await phone.getByRole('button', { name: 'On their own' }).click()
    await phone.reload()
    await expect(phone.getByRole('region', { name: 'Task 1 of 3' }).getByRole('textbox')).toHaveValue('three')
    await phone.getByRole('button', { name: 'Send', exact: true }).click()
    await expect(phone.getByText(/^Received \d\d:\d\d/)).toBeVisible()
    await phone.getByRole('button', { name: 'Send again' }).click()
    await expect(phone.getByText(/^Received \d\d:\d\d/)).toBeVisible()
    await phone.context().close()
  })

  await test.step('Look: photo upright and ringed, answers checked, judged by keys', async () => {
    await station(page, 'Look').click()
    await expect(page.getByRole('list', { name: 'Replies' }).getByRole('listitem')).toHaveCount(1)
    await expect(page.getByRole('img', { name: 'Photo: 5 things found' })).toBeVisible({ timeout: 200_000 })
    await expect(page.getByText('5 found (3 yellow, 2 blue), as asked: 3 | 2.')).toBeVisible()
    await expect(page.getByRole('img', { name: /ten frame: .* saffron/ })).toBeVisible()
    await expect(page.getByRole('region', { name: 'Answers' })).toContainText('right')
    await page.keyboard.press('2')
    await page.keyboard.press('7')
    await expect(page.getByText(/Looked at: nearly, alone, things/)).toBeVisible()
  })

  await test.step('Next: the thread is updated, and opens to its evidence', async () => {
    await station(page, 'Next').click()
    await page.getByRole('button', { name: /^Tilly, Parts of 5: nearly/ }).click()
    await expect(page.getByRole('region', { name: 'Evidence' })).toContainText(
      'Marnie Lund: nearly, alone, things',
    )
    await expect(page.getByRole('region', { name: 'Evidence' })).toContainText('Five parcels to sort')
  })
})

test('two windows on one lesson: different segments merge, the same one is asked about', async ({
  page,
  context,
}) => {
  await signIn(page)
  await page.getByRole('link', { name: /^Street of doors/ }).click()
  await station(page, 'Script').click()
  const other = await context.newPage()
  await other.goto(page.url())
  await openSegment(page, 'Hello from Bobbin')
  await openSegment(other, 'Goodbye')
  // The other window hears nothing of changes while its connection is closed.
  await other.route('**/api/events', (route) => route.abort())
  await page.getByRole('textbox', { name: /^say, line 1$/ }).fill('Good day from Bobbin the postie.')
  await expect(page.getByText(/Saved · revision 2/)).toBeVisible()
  await other.getByRole('textbox', { name: /^say, line 1$/ }).fill('Goodbye from Bobbin the postie.')
  await expect(other.getByText(/Saved · revision 3/)).toBeVisible()
  await openSegment(other, 'Hello from Bobbin')
  await expect(other.getByRole('textbox', { name: /^say, line 1$/ })).toHaveValue(
    'Good day from Bobbin the postie.',
  )
  await page.reload()
  await openSegment(page, 'Goodbye')
  await expect(page.getByRole('textbox', { name: /^say, line 1$/ })).toHaveValue(
    'Goodbye from Bobbin the postie.',
  )
  await other.close()
})

test('what is typed survives a server that is away and a closed tab', async ({ page, context }) => {
  await signIn(page)
  await page.getByRole('link', { name: /^Parcels left at doors/ }).click()
  await station(page, 'Script').click()
  await openSegment(page, 'Hello from Bobbin')
  await context.route('**/doc', (route) =>
    route.fulfill({
      status: 503,
      contentType: 'application/problem+json',
      body: JSON.stringify({ title: 'away', status: 503, detail: 'The record store is not answering.' }),
    }),
  )
  await page.getByRole('textbox', { name: /^say, line 1$/ }).fill('Typed while nobody listened.')
  await expect(page.getByText('Kept here; saved when the server is back')).toBeVisible()
  const url = page.url()
  await page.close()
  await context.unroute('**/doc')
  const again = await context.newPage()
  await again.goto(url)
  await expect(again.getByRole('textbox', { name: /^say, line 1$/ })).toHaveValue(
    'Typed while nobody listened.',
  )
  await expect(again.getByText(/Saved · revision \d+/)).toBeVisible()
})

test('a recording cut off by a closed tab is kept on the device and can be sent', async ({
  page,
  context,
}) => {
  await signIn(page)
  await page.getByRole('link', { name: /^Five stamps/ }).click()
  await station(page, 'Film').click()
  const url = page.url()
  await page.getByRole('button', { name: 'Open the camera' }).click()
  await page.getByRole('button', { name: 'Film this segment' }).click()
  await keepsPieces(page, 2)
  await page.close()
  const again = await context.newPage()
  await again.goto(url)
  await expect(again.getByText(/was not wholly sent. It is kept on this device/)).toBeVisible()
  await again.getByRole('button', { name: 'Keep it as a take' }).click()
  await expect(again.getByRole('article', { name: 'Take 1' })).toBeVisible({ timeout: 200_000 })
})

test('a closed home link says what to do, and the sign-in refuses in words', async ({ page }) => {
  await page.goto(`/h/${'A'.repeat(22)}`)
  await expect(page.getByRole('alert')).toContainText('Ask the setting for a new one')
  await page.goto('/')
  await page.getByLabel('Email').fill('marnie@cobblegate.example')
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toContainText('not right')
})
