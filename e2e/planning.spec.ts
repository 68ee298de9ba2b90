import { choose } from './choose.ts'
import fs from 'node:fs'
import { expect, test, type Page } from '@playwright/test'

async function signIn(page: Page, who = 'marnie'): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Email').fill(`${who}@cobblegate.example`)
  await page.getByLabel('Password').fill('bobbin-parcels')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Tonight' })).toBeVisible()
}
/** Opens a demo lesson by its title and station. */
async function open(page: Page, title: string, station: string): Promise<void> {
  await page.goto('/')
  const href = await page
    .getByRole('link', { name: new RegExp(title) })
    .first()
    .getAttribute('href')
  await page.goto(`/lessons/${href!.split('/')[2]}/${station}`)
  await expect(page.getByRole('textbox', { name: 'Title of the lesson' })).toHaveValue(new RegExp(title))
}
const board = (page: Page) => page.getByRole('application')
/** A point of the table in shares of its width and height. */
async function spot(page: Page, x: number, y: number): Promise<[number, number]> {
  const b = (await board(page).boundingBox())!
  // The drawing keeps its proportions inside its frame.
  const scale = Math.min(b.width / 660, b.height / 430)
  const [left, top] = [b.x + (b.width - 660 * scale) / 2, b.y + (b.height - 430 * scale) / 2]
  return [left + x * 660 * scale, top + y * 430 * scale]
}

test('a lesson from the ladder, its numbers kept and swapped, its chances played', async ({ page }) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Ladder' }).click()
  await page.getByRole('button', { name: /^Add within 10/ }).click()
  await expect(page.getByRole('complementary')).toContainText('of 12 secure')
  await page.getByRole('link', { name: 'Plan a lesson from it' }).click()
  await expect(page.getByRole('combobox', { name: /^Idea/ })).toHaveText('Add within 10')
  const gentle = page.getByRole('group', { name: / set$/ }).first()
  await expect(gentle).toContainText('gentle')
  const first = gentle.getByRole('listitem').first()
  const kept = (await first.locator('p').first().textContent())!
  await first.getByRole('button', { name: 'Keep' }).click()
  for (const set of await page.getByRole('group', { name: / set$/ }).all())
    await expect(set).toContainText(kept)
  const second = page
    .getByRole('group', { name: / set$/ })
    .first()
    .getByRole('listitem')
    .filter({ hasNotText: kept })
    .first()
  const was = (await second.locator('p').first().textContent())!
  await second.getByRole('button', { name: /^Another like/ }).click()
  await expect(
    page.getByRole('group', { name: / set$/ }).first().getByText(was, { exact: true }),
  ).toHaveCount(0)

  await choose(page, 'Numbers come from', 'two digits from a bowl')
  await expect(page.getByText('no digit comes twice')).toBeVisible()
  await page.getByRole('button', { name: 'Play a million games' }).click()
  // The page goes on while they are played.
  await page.getByLabel('Title').fill('Parcels by the bowl')
  await expect(page.locator('[data-games="1000000"]')).toBeVisible({ timeout: 200_000 })
  await expect(page.getByLabel('Title')).toHaveValue('Parcels by the bowl')
  await choose(page, 'Numbers come from', 'nothing')
  await choose(page, 'Arc of the lesson', 'talk first')
  await page.getByLabel('Who').fill('Pip')
  await page.getByRole('button', { name: 'Write the script' }).click()
  await expect(page.getByRole('button', { name: /^The story without numbers/ })).toBeVisible()
  await expect(page.getByText('Nothing wrong')).toBeVisible()
  await expect(
    page
      .getByRole('button', { name: /^Hello from Pip/ })
      .or(page.getByRole('region', { name: 'Hello from Pip' })),
  ).toBeVisible()
})

test('hands on the table write the script, by tap, drag and keyboard', async ({ page }) => {
  await signIn(page)
  await open(page, 'Street of doors', 'script')
  await page.getByRole('button', { name: '+ Add a segment' }).click()
  await page.getByRole('button', { name: 'game', exact: true }).click()
  await choose(page, 'Lay out a mat', 'two shelves')
  await expect(page.getByRole('textbox', { name: 'do, line 2' })).toHaveValue('Lay out two shelves')
  for (let i = 0; i < 3; i++) await page.mouse.click(...(await spot(page, 0.5, 0.3)))
  await expect(page.getByRole('textbox', { name: 'do, line 3' })).toHaveValue('Put 3 on the top shelf')
  await page.mouse.move(...(await spot(page, 0.15, 0.36)))
  const thing = await board(page).locator('.table-thing').first().boundingBox()
  await page.mouse.move(thing!.x + thing!.width / 2, thing!.y + thing!.height / 2)
  await page.mouse.down()
  await page.mouse.move(...(await spot(page, 0.5, 0.6)), { steps: 6 })
  await page.mouse.move(...(await spot(page, 0.6, 0.72)), { steps: 6 })
  await page.mouse.up()
  await expect(page.getByRole('textbox', { name: 'do, line 4' })).toHaveValue(
    'Move 1 from the top shelf to the bottom shelf',
  )
  await expect(board(page)).toHaveAccessibleName(/the top shelf 2 saffron; the bottom shelf 1 saffron/)
  await board(page).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('+')
  await expect(page.getByRole('textbox', { name: 'do, line 5' })).toHaveValue('Put 1 on the bottom shelf')
  await page.keyboard.press('x')
  await expect(page.getByRole('textbox', { name: 'do, line 6' })).toHaveValue(
    'Cross out 1 on the bottom shelf',
  )
  await choose(page, 'Lay out a mat', 'number line')
  const tick = async (n: number) => spot(page, (50 + (n / 10) * 560) / 660, 0.86)
  await page.mouse.move(...(await tick(3)))
  await page.mouse.down()
  await page.mouse.move(...(await tick(7)), { steps: 8 })
  await page.mouse.up()
  await expect(page.getByRole('textbox', { name: 'do, line 8' })).toHaveValue('Hop from 3 to 7')
  // Typed as one, undone as one.
  const line = page.getByRole('textbox', { name: 'do, line 8' })
  await line.fill('')
  await line.pressSequentially('Hop from 3 to 9')
  await page.getByRole('heading', { name: /The table at/ }).click()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(line).toHaveValue('Hop from 3 to 7')
})

test('an example again with new numbers, a segment kept and used again, a warm-up, a way of working', async ({
  page,
}) => {
  await signIn(page)
  await open(page, 'Skittles in the sorting hall', 'script')
  await page.getByRole('button', { name: /^I roll/ }).click()
  await page.getByRole('button', { name: 'More for I roll' }).click()
  await page.getByRole('menuitem', { name: 'Again with new numbers…' }).click()
  await page.getByLabel('First number').fill('8')
  await page.getByLabel('Second number').fill('3')
  await expect(page.getByRole('dialog')).toContainText('Set eight bottles up as skittles')
  await page.getByRole('button', { name: 'Keep both, this one after' }).click()
  await expect(page.getByRole('region', { name: 'I roll again' })).toBeVisible()
  await expect(page.getByText('Nothing wrong')).toBeVisible()
  await page.getByRole('button', { name: 'More for I roll again' }).click()
  await page.getByRole('menuitem', { name: 'Keep in the library' }).click()
  await expect(page.getByText('Kept for everybody here')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByRole('region', { name: 'I roll again' })).toHaveCount(0)

  await open(page, 'Street of doors', 'script')
  const add = async (tab: string, row: RegExp) => {
    await page.getByRole('button', { name: '+ Add a segment' }).click()
    await page.getByRole('tab', { name: tab }).click()
    await page
      .getByRole('listitem')
      .filter({ hasText: row })
      .getByRole('button', { name: 'Add' })
      .first()
      .click()
  }
  await add('Library', /I roll again/)
  await expect(page.getByRole('region', { name: 'I roll again' })).toBeVisible()
  await add('Warm-up', /Fingers up/)
  await expect(page.getByRole('region', { name: 'Fingers up, fingers down' })).toBeVisible()
  await add('Ways of working', /Count on from the first/)
  await expect(page.getByRole('region', { name: 'Count on from the first' })).toBeVisible()
  await page.getByRole('button', { name: /^Film .* of / }).click()
  await expect(page.getByRole('dialog')).toContainText('Where the time goes')
})

test('history: two windows on one lesson, the same segment side by side, revisions named and compared', async ({
  page,
  context,
}) => {
  await signIn(page)
  await open(page, 'Ten pegs on a rail', 'script')
  const other = await context.newPage()
  await other.goto(page.url())
  for (const p of [page, other]) await p.getByRole('button', { name: /^Slide one at a time/ }).click()
  // Both change the same line while neither has seen the other's.
  await other.route('**/doc', (r) =>
    r.request().method() === 'PUT'
      ? new Promise((resolve) => setTimeout(() => resolve(r.continue()), 1500))
      : r.continue(),
  )
  await other.getByRole('textbox', { name: 'say, line 3' }).fill('Nine pegs and one peg.')
  await page.getByRole('textbox', { name: 'say, line 3' }).fill('Nine on this side, one on that.')
  await expect(page.getByText(/Saved · revision/)).toBeVisible()
  const dialog = other.getByRole('dialog', { name: 'Two windows changed the same segment' })
  await expect(dialog).toContainText('Nine on this side, one on that.')
  await expect(dialog).toContainText('Nine pegs and one peg.')
  await dialog.getByRole('button', { name: /^The other/ }).click()
  await dialog.getByRole('button', { name: 'Keep these' }).click()
  await expect(other.getByRole('textbox', { name: 'say, line 3' })).toHaveValue(
    'Nine on this side, one on that.',
  )
  await other.close()

  await page.getByRole('button', { name: 'History' }).click()
  const first = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('checkbox', { name: 'Revision 1', exact: true }) })
  await first.getByRole('button', { name: 'Name' }).click()
  await page.getByLabel('Name of revision 1').fill('As first written')
  await page.getByRole('button', { name: 'Name it' }).click()
  await expect(first).toContainText('As first written')
  await first.getByRole('checkbox').check()
  await page.getByRole('checkbox').first().check()
  await expect(page.getByRole('region', { name: 'What changed' })).toContainText(
    'Nine on this side, one on that.',
  )
  await first.getByRole('button', { name: 'Bring back' }).click()
  await expect(page.getByRole('textbox', { name: 'say, line 3' })).toHaveValue('Nine and one.')
})

test('the house takes a side, and every script follows', async ({ page, browser }) => {
  const owner = await (await browser.newContext()).newPage()
  await signIn(owner, 'owner')
  await owner.getByRole('link', { name: 'Setting' }).click()
  const example = owner.locator('[data-example="takeAway"]')
  await expect(example).toHaveText('Seven take away two equals five.')
  await owner.getByRole('radio', { name: '“minus”' }).click()
  await expect(example).toHaveText('Seven minus two equals five.')
  await expect(owner.getByRole('status').first()).toHaveText('Saved')
  await signIn(page)
  await open(page, 'Parcels left at doors', 'script')
  await expect(
    page
      .locator('[data-finding="house-word"]')
      .or(page.getByRole('button', { name: /to mend/ }))
      .first(),
  ).toBeVisible()
  await page.goto('/house-style')
  await expect(page.getByText('Only the owner of the setting changes this')).toBeVisible()
  await expect(page.getByRole('radio', { name: '“subtract”' })).toBeDisabled()
  await owner.getByRole('button', { name: 'Undo' }).click()
  await expect(example).toHaveText('Seven take away two equals five.')
  await owner.close()
})

test('the week: dates, hours, what does not fit, a calendar file', async ({ page }) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Week', exact: true }).click()
  const row = page.getByRole('listitem').filter({ hasText: 'Skittles in the sorting hall' }).last()
  // Whatever day of the week it is today: in one of the next weeks it is due.
  const title = page.getByRole('heading', { name: /^Week from/ })
  await expect(title).toBeVisible()
  for (let i = 0; i < 4 && !(await row.isVisible()); i++) {
    const was = await title.textContent()
    await page.getByRole('button', { name: 'week ›' }).click()
    await expect(title).not.toHaveText(was!)
  }
  await expect(row).toBeVisible()
  const day = await row.getByLabel('Goes out').inputValue()
  expect(day).toMatch(/^\d\d\/\d\d\/\d{4}$/)
  await row.getByLabel('Film by').fill('31/2/2027')
  await row.getByLabel('Film by').press('Enter')
  await expect(row.getByRole('alert')).toHaveText(/Not a day/)
  await row.getByLabel('Film by').fill(day)
  await row.getByLabel('Film by').press('Enter')
  await expect(page.getByText('min to write', { exact: false })).toBeVisible()
  const before = await page.locator('main b').first().textContent()
  for (const field of await page.getByLabel(/^Minutes free on/).all()) {
    await field.fill('0')
    await field.blur()
  }
  await expect(page.getByRole('heading', { name: 'It does not fit' })).toBeVisible()
  await expect(page.getByText('What to leave out first')).toBeVisible()
  expect(before).toMatch(/to do/)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Calendar file' }).click(),
  ])
  expect(fs.readFileSync(await file.path(), 'utf8')).toMatch(
    /^BEGIN:VCALENDAR[\s\S]*Skittles in the sorting hall/,
  )
})

test('notes come in, files go out', async ({ page }) => {
  await signIn(page)
  await page.goto('/plan')
  await page.getByRole('button', { name: 'From your notes…' }).click()
  await page.getByLabel('A file with notes').setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'Parcels at the door\nYou need: 5 bottle tops, an egg box\n\nWatch me:\nPut 3 on the frame\nPut 2 blue on the frame\nHow many parcels altogether?\n3 + 2 = 5\nhm\n',
    ),
  })
  await expect(page.getByRole('dialog')).toContainText('line 9: hm')
  await page.getByRole('button', { name: 'Make the lesson' }).click()
  await expect(page.getByRole('textbox', { name: 'Title of the lesson' })).toHaveValue('Parcels at the door')
  await expect(page.getByRole('textbox', { name: 'wait, line 4' })).toHaveValue('5 s')
  for (const [name, begins] of [
    ['Cue cards (PDF)', '%PDF-'],
    ['Plan on one page (PDF)', '%PDF-'],
    ['Markdown', '# Parcels at the door'],
    ['Lesson file (JSON)', '{'],
  ] as const) {
    await page.getByRole('button', { name: 'Files' }).click()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name }).click(),
    ])
    expect(
      fs
        .readFileSync(await file.path())
        .subarray(0, begins.length)
        .toString(),
    ).toBe(begins)
  }
  await page.goto('/plan')
  await page.getByRole('button', { name: 'From your notes…' }).click()
  await page
    .getByLabel('A file with notes')
    .setInputFiles({ name: 'photo.txt', mimeType: 'text/plain', buffer: Buffer.from([0, 1, 2, 0]) })
  await expect(page.getByRole('alert')).toContainText('no text file')
})

test('a home says what it has, and the plan counts it', async ({ page, browser }) => {
  await signIn(page)
  await open(page, 'Ten in the egg box', 'plan')
  const sentence = page.getByText(/of \d+ homes can do this as written/)
  await expect(sentence).toContainText('of 12 homes')
  // A home’s link is open once something was sent to it; pages send their own origin with what they write.
  const lessonId = page.url().split('/')[4]
  await page.evaluate(
    (id) =>
      fetch(`/api/lessons/${id}/publish`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ withFilm: false }),
      }),
    lessonId,
  )
  const { homes } = (await (await page.request.get(`/api/lessons/${lessonId}/send`)).json()) as {
    homes: { link: string | null }[]
  }
  const link = homes.find((h) => h.link)!.link
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await phone.goto(link!)
  await phone.getByRole('button', { name: 'What have you at home?' }).click()
  const pan = phone.getByLabel('saucepan with a lid')
  const had = await pan.isChecked()
  await pan.click()
  await phone.getByRole('button', { name: 'Tell the teacher' }).click()
  await expect(phone.getByRole('status')).toContainText('Thank you')
  await phone.reload()
  await phone.getByRole('button', { name: 'What have you at home?' }).click()
  await expect(phone.getByLabel('saucepan with a lid')).toBeChecked({ checked: !had })
  await phone.close()
})
