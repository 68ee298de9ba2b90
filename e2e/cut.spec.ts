import { choose, slide } from './choose.ts'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { prepared } from './prepared-day.ts'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-cut-e2e-'))
test.afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))

/** Signs in and opens the Cut page of the lesson that was filmed before the tests began, with all that is proposed accepted. */
async function openCut(page: Page): Promise<string> {
  await page.request.post('/api/sign-in', {
    data: { email: 'marnie@cobblegate.example', password: 'bobbin-parcels' },
    headers: { origin: new URL(test.info().project.use.baseURL!).origin },
  })
  const { id } = await prepared(page.request)
  await page.goto(`/lessons/${id}/cut`)
  await expect(row(page)).toBeVisible()
  const all = page.getByRole('button', { name: 'Accept all' })
  await expect(all.or(page.getByText('Nothing left to decide.'))).toBeVisible()
  if (await all.isVisible()) await all.click()
  await expect(page.getByText('Nothing left to decide.')).toBeVisible()
  return id
}
const row = (page: Page) => page.getByRole('region', { name: 'Watch me first', exact: true })
const tab = (page: Page, name: string | RegExp) => page.getByRole('tab', { name })
const undo = (page: Page) => page.getByRole('button', { name: 'Undo the cut' }).click()
const whole = (page: Page) => page.getByRole('button', { name: /^counts and sentences whole/ })
const boxOf = (page: Page) => page.getByRole('group', { name: /arrow keys move it/ })

test('a cut by hand: over the picture, mended, captioned, checked, written for other programs', async ({
  page,
}) => {
  const id = await openCut(page)
  await expect(whole(page)).toBeVisible()

  await test.step('a number cut out of a count is told at once, with where; undone, all is whole', async () => {
    const count = row(page)
      .getByRole('button', { name: /one two three four five six seven/ })
      .first()
    await count.click()
    const box = (await count.boundingBox())!
    await page.mouse.move(box.x + box.width * 0.45, box.y + 40)
    await page.mouse.down()
    await page.mouse.move(box.x + box.width * 0.75, box.y + 40, { steps: 6 })
    await page.mouse.up()
    await page.getByRole('button', { name: 'Drop this part' }).click()
    await page.getByRole('button', { name: /^\d+ wrong/ }).click()
    const told = page.getByRole('region', { name: 'Counts and number sentences' }).getByRole('button').first()
    await expect(told).toContainText('Wrong')
    await told.click()
    await undo(page)
    await expect(whole(page)).toBeVisible()
  })

  await test.step('an overlay is moved by keys over the picture, taken away, and back', async () => {
    await row(page)
      .getByRole('button', { name: /^Overlay: number sentence/ })
      .first()
      .click()
    const entry = page
      .getByRole('listitem')
      .filter({ hasText: 'number sentence' })
      .getByRole('button', { name: /^number sentence/ })
      .first()
    await entry.click()
    if ((await entry.getAttribute('aria-pressed')) !== 'true') await entry.click()
    const before = (await boxOf(page).boundingBox())!
    await boxOf(page).press('ArrowLeft')
    await boxOf(page).press('ArrowLeft')
    await expect.poll(async () => (await boxOf(page).boundingBox())!.x).toBeLessThan(before.x - 4)
    const sentences = page.getByRole('listitem').filter({ hasText: 'number sentence' })
    const there = await sentences.count()
    await sentences.first().getByRole('button', { name: 'Take away' }).click()
    await expect(sentences).toHaveCount(there - 1)
    await undo(page)
    await expect(sentences).toHaveCount(there)
    await page.getByRole('button', { name: 'ring', exact: true }).click()
    await expect(page.getByRole('listitem').filter({ hasText: /^ring/ })).toBeVisible()
    await undo(page)
    await undo(page)
  })

  await test.step('a mirrored picture is turned back, lit, and an area of it covered', async () => {
    await row(page)
      .getByRole('button', { name: /one two three/ })
      .first()
      .click()
    await tab(page, 'Picture and sound').click()
    const picture = page.locator('[role="img"] > div').first()
    await page.getByLabel(/^Mirrored/).check()
    await expect
      .poll(() => picture.evaluate((e) => (e as HTMLElement).style.transform))
      .toContain('matrix3d(-1')
    await slide(page, 'Light', 10)
    await expect.poll(() => picture.evaluate((e) => (e as HTMLElement).style.filter)).toContain('url')
    await page.getByRole('button', { name: 'a name', exact: true }).click()
    await expect(boxOf(page)).toBeVisible()
    await boxOf(page).press('ArrowDown')
    await expect(page.getByText('1 place')).toBeVisible()
    await page.getByRole('button', { name: 'Done' }).click()
    await page.getByRole('button', { name: 'Uncover' }).click()
    await page.getByRole('button', { name: 'As it was filmed' }).click()
    await expect.poll(() => picture.evaluate((e) => (e as HTMLElement).style.transform)).toBe('')
  })

  await test.step('a caption is changed; one that says another number than is said is wrong', async () => {
    await tab(page, 'Captions').click()
    const field = page
      .getByRole('textbox', { name: /^Caption at/ })
      .filter({ hasText: /seven parcels/ })
      .first()
    await field.fill('Bobbin has nine parcels to sort.')
    await expect(page.getByRole('img', { name: /The film: .*nine parcels/ })).toBeVisible()
    await expect(page.getByRole('button', { name: /^1 wrong/ })).toBeVisible()
    await undo(page)
    await expect(whole(page)).toBeVisible()
  })

  await test.step('the cut is written as an open edit list and read back; a file of something else is refused in words', async () => {
    await tab(page, 'Film').click()
    const saved = path.join(folder, 'cut.otio')
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'OpenTimelineIO' }).click(),
    ])
    await download.saveAs(saved)
    const length = await page.getByText(/^Cut \d/).textContent()
    await page.getByLabel('Cut list file').setInputFiles(saved)
    await expect(page.getByRole('button', { name: 'Undo the cut' })).toBeEnabled()
    expect(await page.getByText(/^Cut \d/).textContent()).toBe(length)
    fs.writeFileSync(path.join(folder, 'other.edl'), 'TITLE: SOMETHING')
    await page.getByLabel('Cut list file').setInputFiles(path.join(folder, 'other.edl'))
    await expect(page.getByText(/no CMX 3600 edit list/)).toBeVisible()
    await page.request.get(`/api/lessons/${id}/cut`)
  })
})

test('a line said again is heard over the picture that is there', async ({ page }) => {
  await openCut(page)
  await row(page)
    .getByRole('button', { name: /^six and one|^one and six|and/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Say it again' }).click()
  await expect(page.getByText(/Recording, [3-9] s/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop: it was said' }).click()
  const other = page.getByRole('button', { name: /^take \d+$/ }).last()
  await expect(other).toBeVisible({ timeout: 200_000 })
  await other.click()
  await expect(page.getByRole('button', { name: 'its own sound' })).toBeVisible()
  await page.getByRole('button', { name: 'its own sound' }).click()
  await expect(page.getByRole('button', { name: 'its own sound' })).toBeHidden()
})

test('a take in which a child’s name can be read: a cover is proposed as it is chosen, the checks ask for a decision, the preview covers it', async ({
  page,
}) => {
  test.setTimeout(600_000)
  const id = await openCut(page)
  // A child of the demo's class.
  const name = 'Anouk'
  const [wav, clip] = [path.join(folder, 'label.wav'), path.join(folder, 'label.mp4')]
  execFileSync('flite', [
    '-voice',
    'rms',
    '-t',
    'Bobbin has seven parcels to sort into two places. One, two, three, four, five, six, seven. How many for each place? Six and one. Six add one equals seven.',
    '-o',
    wav,
  ])
  const card = `drawbox=x=780:y=110:w=320:h=90:color=white:t=fill,drawtext=fontfile=/usr/share/fonts/truetype/andika/Andika-Regular.ttf:text=${name}:x=860:y=130:fontsize=46:fontcolor=0x222222`
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    `color=c=0x8d9a92:s=1280x720:r=30,${card}`,
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
    clip,
  ])
  await page.goto(`/lessons/${id}/film`)
  await page.getByLabel('Clips to bring').setInputFiles(clip)
  type Seen = {
    name: string | null
    number: number
    segmentId: string | null
    looked: { written: { seen: unknown[] } | null } | null
  }
  const brought = async () =>
    ((await (await page.request.get(`/api/lessons/${id}/takes`)).json()) as { items: Seen[] }).items.find(
      (t) => t.name === 'label.mp4',
    )
  await expect
    .poll(async () => (await brought())?.looked?.written?.seen.length ?? 0, { timeout: 200_000 })
    .toBeGreaterThan(0)
  await page.goto(`/lessons/${id}/cut`)
  await choose(row(page), 'Take of Watch me first', new RegExp(`^take ${(await brought())!.number} `))
  await row(page)
    .getByRole('button', { name: /parcels to sort/ })
    .first()
    .click()
  await page.getByRole('button', { name: /^\d+ wrong/ }).click()
  await expect(page.getByRole('region', { name: 'Faces and names' })).toContainText(
    'Perhaps a name can be seen',
  )
  await page.getByRole('region', { name: 'Faces and names' }).getByRole('button').first().click()
  await tab(page, 'Picture and sound').click()
  await expect(page.getByText('Perhaps the name of a child of this class')).toBeVisible()
  await page.getByRole('button', { name: 'Cover it', exact: true }).click()
  await tab(page, 'Checks').click()
  await expect(page.getByRole('region', { name: 'Faces and names' })).toContainText('nothing found')
  await undo(page)
  await expect(page.getByRole('region', { name: 'Faces and names' })).toContainText(
    'Perhaps a name can be seen',
  )
})
