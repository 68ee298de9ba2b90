import { choose } from './choose.ts'
import { keepsPieces } from './kept-pieces.ts'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { expect, test, type BrowserContext, type Page } from '@playwright/test'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-film-e2e-'))
test.afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))

/** Signs in and opens the Film page of a lesson of the demo. */
async function openFilm(page: Page, title = 'Seven parcels, two pigeon-holes'): Promise<string> {
  const origin = new URL(test.info().project.use.baseURL!).origin
  await page.request.post('/api/sign-in', {
    data: { email: 'marnie@cobblegate.example', password: 'bobbin-parcels' },
    headers: { origin },
  })
  const { lessons } = (await (await page.request.get('/api/shelf')).json()) as {
    lessons: { id: string; title: string }[]
  }
  const { id } = lessons.find((l) => l.title === title)!
  await page.goto(`/lessons/${id}/film`)
  await expect(page.getByRole('region', { name: 'Prompter' })).toBeVisible()
  return id
}
const segment = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) })
const prompter = (page: Page) => page.getByRole('region', { name: 'Prompter' })
async function film(page: Page, seconds: number): Promise<void> {
  await page.keyboard.press('f')
  await expect(page.getByText(new RegExp(`Filming 0:0[${seconds}-9]`))).toBeVisible()
}
/** A take filmed here that lasts so many seconds or more. */
const filmedFor = (seconds: number) => new RegExp(`filmed here · 0:(0[${seconds}-9]|[1-5]\\d)`)
const kept = (page: Page) => page.getByText(/was not wholly sent/)

test('the prompter: a pedal, a large screen, a phone as remote, one film straight through with a slip marked', async ({
  page,
  context,
}) => {
  const id = await openFilm(page)
  await segment(page, 'Hello from Bobbin').click()
  await test.step('keys of a pedal move it; it fills the screen, is sized by distance and mirrored', async () => {
    await expect(prompter(page)).toContainText('line 1 of 3')
    await page.keyboard.press('PageDown')
    await expect(prompter(page)).toContainText('line 2 of 3')
    await page.keyboard.press('PageUp')
    await page.keyboard.press('b')
    const size = () =>
      prompter(page)
        .locator('p.font-child')
        .first()
        .evaluate((e) => parseFloat(getComputedStyle(e).fontSize))
    await prompter(page).getByRole('slider').press('Home')
    const near = await size()
    await prompter(page).getByRole('slider').press('End')
    expect(await size()).toBeGreaterThan(near * 1.25)
    await expect(prompter(page)).toContainText(/easy to read up to [2-9]\.\d m/)
    await prompter(page).getByLabel('mirrored, for a glass').check()
    expect(await prompter(page).locator('.-scale-x-100').count()).toBe(1)
    await prompter(page).getByLabel('mirrored, for a glass').uncheck()
    await page.keyboard.press('Escape')
  })
  await test.step('a phone signed in as the same person turns its lines', async () => {
    const phone = await context.newPage()
    await phone.setViewportSize({ width: 390, height: 844 })
    await phone.goto(`/lessons/${id}/remote`)
    await expect(phone.getByText('line 1 of 3')).toBeVisible()
    await phone.getByRole('button', { name: 'Next line' }).click()
    await expect(prompter(page)).toContainText('line 2 of 3')
    await expect(phone.getByText('line 2 of 3')).toBeVisible()
    await phone.getByRole('button', { name: 'Back' }).click()
    await expect(prompter(page)).toContainText('line 1 of 3')
    await phone.close()
  })
  await test.step('filmed straight through, it becomes a take of each segment, with the slip where it was marked', async () => {
    await page.getByRole('button', { name: 'Open the camera' }).click()
    await page.getByLabel('in one go from here').check()
    await page.getByLabel('follow my voice').uncheck()
    await page.keyboard.press('Escape')
    await page.locator('body').click({ position: { x: 2, y: 2 } })
    await film(page, 3)
    for (let i = 0; i < 4; i++) await page.keyboard.press('PageDown')
    await expect(prompter(page)).toContainText('Things you need')
    await page.keyboard.press('s')
    await expect(page.getByText('Slip marked.')).toBeVisible()
    // However slow the keys came: a segment of less than two seconds is no take.
    const filmed = async () =>
      Number(/0:(\d\d)/.exec((await page.getByText(/^Filming 0:\d\d/).textContent()) ?? '')?.[1])
    const reached = await filmed()
    await expect.poll(filmed).toBeGreaterThan(reached + 3)
    await page.getByRole('button', { name: 'Stop filming' }).click()
    await expect(page.getByText('What was just filmed')).toBeVisible()
    await segment(page, 'Things you need').click()
    await expect(page.getByRole('article', { name: 'Take 1' })).toContainText(
      'Parted from a longer recording',
      { timeout: 200_000 },
    )
    // Marks are shown with the take itself, once it is made playable.
    await expect(page.getByRole('article', { name: 'Take 1' })).toContainText('Marked while filming', {
      timeout: 200_000,
    })
    await segment(page, 'Hello from Bobbin').click()
    await expect(page.getByRole('article', { name: 'Take 1' })).toContainText(
      'Parted from a longer recording',
      { timeout: 200_000 },
    )
  })
})

test('nothing filmed is lost: the connection gone, the tab closed, the camera refused', async ({
  page,
  context,
}) => {
  test.setTimeout(600_000)
  await openFilm(page)
  const name = 'We do it together 1'
  await segment(page, name).click()
  const takes = page.getByRole('article', { name: /^Take \d/ })
  await test.step('without a connection the recording stays on the device, and goes on from what was sent', async () => {
    await page.getByRole('button', { name: 'Open the camera' }).click()
    await page.getByRole('button', { name: 'Film this segment' }).click()
    await keepsPieces(page, 2)
    await context.setOffline(true)
    await keepsPieces(page, 5)
    await page.getByRole('button', { name: 'Stop filming' }).click()
    await expect(page.getByText('It is kept on this device.').first()).toBeVisible({ timeout: 200_000 })
    await context.setOffline(false)
    await page.getByRole('button', { name: 'Keep it as a take' }).click()
    await expect(takes).toHaveCount(1, { timeout: 200_000 })
    await expect(kept(page)).toBeHidden({ timeout: 200_000 })
    // Two seconds were filmed before the connection went: what came after them is here too. A picture's length may lie just under the clock's.
    await expect(takes.first()).toContainText(filmedFor(3), { timeout: 200_000 })
  })
  await test.step('a tab closed in the middle of a take: what was filmed is offered when it is opened again', async () => {
    const second = await again(context)
    await second.getByRole('button', { name: 'Open the camera' }).click()
    await second.getByRole('button', { name: 'Film this segment' }).click()
    await keepsPieces(second, 4)
    await second.close({ runBeforeUnload: false })
    const third = await again(context)
    await expect(kept(third)).toBeVisible()
    await third.getByRole('button', { name: 'Keep it as a take' }).click()
    await expect(third.getByRole('article', { name: 'Take 2' })).toContainText(filmedFor(2), {
      timeout: 200_000,
    })
    await expect(kept(third)).toBeHidden()
    await third.close()
  })
  await test.step('a camera pulled out in the middle of a take: what was filmed until then is a take', async () => {
    const fourth = await again(context)
    await fourth.getByRole('button', { name: 'Open the camera' }).click()
    await fourth.getByRole('button', { name: 'Film this segment' }).click()
    await keepsPieces(fourth, 3)
    await fourth.getByLabel('What the camera sees').evaluate((v: HTMLVideoElement) => {
      for (const track of (v.srcObject as MediaStream).getTracks()) {
        track.stop()
        track.dispatchEvent(new Event('ended'))
      }
    })
    await expect(fourth.getByRole('alert').filter({ hasText: 'unplugged' })).toBeVisible()
    await expect(fourth.getByRole('article', { name: 'Take 3' })).toContainText(filmedFor(2), {
      timeout: 200_000,
    })
    await fourth.close()
  })
  await test.step('a camera that is refused leaves the way of bringing clips', async () => {
    const refused = await context.newPage()
    await refused.addInitScript(() => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'))
    })
    await openFilm(refused)
    await refused.getByRole('button', { name: 'Open the camera' }).click()
    await expect(
      refused.getByRole('alert').filter({ hasText: 'not allowed to use the camera' }),
    ).toBeVisible()
    await expect(refused.getByRole('button', { name: 'Bring clips' })).toBeEnabled()
    await refused.close()
  })
  async function again(of: BrowserContext): Promise<Page> {
    const p = await of.newPage()
    await openFilm(p)
    await segment(p, name).click()
    return p
  }
})

test('clips from a phone: sorted, in the tray, twice; captions, corrections, the take sheet and what to film again', async ({
  page,
}) => {
  test.setTimeout(600_000)
  await openFilm(page)
  const spoken = (file: string, text: string): string => {
    const [wav, mp4] = [path.join(folder, `${file}.wav`), path.join(folder, `${file}.mp4`)]
    execFileSync('flite', ['-voice', 'rms', '-t', text, '-o', wav])
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=360x640:r=24',
      '-i',
      wav,
      '-shortest',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      mp4,
    ])
    return mp4
  }
  const bye = spoken('bye', 'You sorted parcels with me. Bobbin says thank you.')
  const eggs = spoken(
    'eggs',
    'The recipe needs two eggs and a little butter. Stir it well and bake it for half an hour.',
  )
  await test.step('two at once: one goes to its segment with the words that told, the other waits in the tray', async () => {
    await page.getByLabel('Clips to bring').setInputFiles([bye, eggs])
    await page.getByRole('tab', { name: /Tray · [12]/ }).click({ timeout: 200_000 })
    await expect(page.getByRole('tab', { name: 'Tray · 1' })).toBeVisible({ timeout: 200_000 })
    const card = page.getByRole('article', { name: 'eggs.mp4' })
    await expect(card).toContainText(/Hardly|Only/, { timeout: 200_000 })
    await segment(page, 'Goodbye').click()
    await expect(page.getByRole('article', { name: 'Take 1' })).toContainText(
      /Sorted here: \d+ % of “Goodbye”/,
      { timeout: 200_000 },
    )
  })
  await test.step('the same clip again adds nothing', async () => {
    await page.getByLabel('Clips to bring').setInputFiles(bye)
    await expect(page.getByText('bye.mp4: already here, nothing was added.')).toBeVisible()
    await page.getByRole('button', { name: 'Close' }).click()
  })
  await test.step('given to a segment by hand and judged by captions, a misheard line is corrected by typing', async () => {
    await page.getByRole('tab', { name: 'Tray · 1' }).click()
    await choose(page.getByRole('article', { name: 'eggs.mp4' }), 'Give it to a segment', 'Watch me first')
    await segment(page, 'Watch me first').click()
    const card = page.getByRole('article', { name: 'Take 1' })
    await expect(card).toContainText('another segment, another language, or music', { timeout: 200_000 })
    const vtt = path.join(folder, 'said.vtt')
    fs.writeFileSync(
      vtt,
      'WEBVTT\n\n00:00.000 --> 00:03.000\nBobbin has heaven parcels to sort into two places.\n\n00:04.000 --> 00:09.000\nOne, two, three, five, six, seven.\n\n00:10.000 --> 00:12.000\nHow many for each place?\n\n00:18.000 --> 00:20.000\nSix and one.\n\n00:21.000 --> 00:24.000\nSix add one equals seven.\n',
    )
    await card.getByLabel('Captions of this take').setInputFiles(vtt)
    await expect(card.locator('[data-heard="count-skip"]')).toContainText('4 is left out of the count.')
    await expect(card).toContainText('heard: bobbin has heaven parcels')
    await card.getByRole('button', { name: 'correct' }).first().click()
    await card.getByLabel('What was really said').fill('Bobbin has seven parcels to sort into two places')
    await card.getByRole('button', { name: 'Keep' }).click()
    await expect(card).not.toContainText('heaven')
    await expect(card).toContainText('Corrected by hand: 0:00')
    await expect(card.locator('[data-heard="count-skip"]')).toBeVisible()
  })
  await test.step('the sheet names the slip, and the list says what to film again', async () => {
    await page.getByRole('tab', { name: 'All takes' }).click()
    await expect(page.getByRole('row', { name: /Watch me first/ })).toContainText(
      '4 is left out of the count.',
    )
    await page.getByRole('tab', { name: /Film again/ }).click()
    const again = page.getByRole('listitem').filter({ hasText: 'Watch me first' })
    await expect(again).toContainText('4 is left out of the count.')
    await expect(again).toContainText(/to move|table stands/)
  })
})

test('a die that fell otherwise: every later line follows, and it can be taken back', async ({ page }) => {
  await openFilm(page, 'Ten parcels and five places')
  // The page may still grow while it opens, and the click meet the segment beside it.
  await expect(async () => {
    await segment(page, 'Two parts').click()
    await expect(prompter(page)).toContainText('Two parts', { timeout: 3000 })
  }).toPass()
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageDown')
  await expect(prompter(page)).toContainText('The die rolls and shows 6')
  await page.getByRole('button', { name: '4 came up' }).click()
  await expect(page.getByText(/lines follow what came up/)).toBeVisible()
  await expect(prompter(page)).toContainText('The die rolls and shows 4')
  await expect(prompter(page)).toContainText('Slide four down to part one')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(prompter(page)).toContainText('Slide six down to part one')
})
